<script setup lang="ts">
/** What the machines want of a person now. */
import { computed } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import { useMe } from '../../stores/me';
import { useUnits } from '../../stores/units';
import type { Lane } from './useFloor';

const props = defineProps<{ lanes: readonly Lane[] }>();
defineEmits<{ loaded: [cut: Cut] }>();
const me = useMe();
const units = useUnits();

const asks = computed(() =>
  props.lanes.flatMap(({ cutter, blocks }) => {
    const cut = blocks.find(({ cut: one }) => one.state === 'wants-film' || one.state === 'stopped')?.cut;
    return cut ? [{ cutter, cut, says: saysOf(cut) }] : [];
  }),
);
function saysOf({ state, sheet, film, rollWidth, mirrored, orderName }: Cut): string {
  if (state === 'stopped') return `stopped in ${film.name} of ${orderName}.`;
  if (sheet) return `wants sheet ${sheet.number} of ${sheet.of} of ${orderName}.`;
  return `wants ${film.name} ${units.length(rollWidth)}, ${mirrored ? 'backing up' : 'face up'}, before ${orderName}.`;
}
</script>

<template>
  <ul v-if="asks.length > 0" aria-label="What the machines ask for">
    <li v-for="{ cutter, cut, says } in asks" :key="cutter.id">
      <strong>{{ cutter.name }}</strong>
      <span>{{ says }}</span>
      <span v-if="cut.problem" class="problem">{{ cut.problem }}</span>
      <button
        v-if="cut.state === 'wants-film' && !cut.sheet && me.may('operator')"
        class="button slim"
        @click="$emit('loaded', cut)"
      >
        {{ cut.film.name }} is loaded
      </button>
      <router-link v-else class="button slim" :to="{ name: 'cutter', params: { id: cutter.id } }"
        >Go to {{ cutter.name }}</router-link
      >
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 1px;
  margin: 0;
  padding: 4px 14px;
  background: var(--quince-soft);
  border: var(--line) solid var(--quince);
  border-radius: var(--radius-label);
  list-style: none;
}
li {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 40px;
}
.problem {
  color: var(--currant);
}
.button {
  margin-left: auto;
}
</style>
