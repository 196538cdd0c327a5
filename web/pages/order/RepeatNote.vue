<script setup lang="ts">
/** Of an order that comes once more: whether the same bytes go to the cutters as then, or what differs. */
import { ref, watch } from 'vue';
import type { Repeats } from '../../../contracts/cuts';
import { dayText } from '../../parts/dayText';
import { call } from '../../stores/api';
import { useListening } from '../../stores/events';

const props = defineProps<{ order: number; revision: number }>();
const repeats = ref<Repeats | null>(null);
/** While changes follow one another, only the last is worth a plan, ms. */
const SETTLED_MS = 900;
let timer: ReturnType<typeof setTimeout> | undefined;
function ask(after = SETTLED_MS): void {
  clearTimeout(timer);
  timer = setTimeout(async () => {
    const { order } = props;
    const found = await call('GET /api/orders/{id}/repeats', { params: { id: order } }).catch(
      () => undefined,
    );
    if (found !== undefined && order === props.order) repeats.value = found;
  }, after);
}
watch(
  () => [props.order, props.revision],
  ([order], before) => {
    if (before && before[0] !== order) repeats.value = null;
    ask(before ? SETTLED_MS : 0);
  },
  { immediate: true },
);
useListening((event) => void (event.kind === 'shop' && ask()));

const dayOf = (at: string): string => dayText(new Date(at), true);
</script>

<template>
  <div v-if="repeats" class="repeats">
    Once more
    <router-link :to="{ name: 'order', params: { id: repeats.order.id } }"
      ><span class="number">#{{ repeats.order.number }}</span></router-link
    >
    <template v-if="repeats.cutAt === null">, which never was cut.</template>
    <template v-else-if="repeats.differs.length === 0"
      >, cut {{ dayOf(repeats.cutAt) }}: the same in every byte.</template
    >
    <template v-else
      >, cut {{ dayOf(repeats.cutAt) }}.
      <details>
        <summary>
          {{ repeats.differs.length === 1 ? '1 thing differs' : `${repeats.differs.length} things differ` }}
        </summary>
        <ul>
          <li v-for="one in repeats.differs" :key="one">{{ one }}</li>
        </ul>
      </details></template
    >
  </div>
</template>

<style scoped>
.repeats {
  margin: 3px 0 0;
  font-size: 14px;
  color: var(--ink-soft);
}
summary {
  cursor: pointer;
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
a {
  color: var(--damson);
}
</style>
