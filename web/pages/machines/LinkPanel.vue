<script setup lang="ts">
/** Where a machine listens, and whether it answers there. */
import { ref, watch } from 'vue';
import type { LinkTest, LinkTo } from '../../../contracts/shop';
import type { Cutter } from '../../../core/layout/cutter';
import DraftField from '../../parts/DraftField.vue';
import NumberField from '../../parts/NumberField.vue';
import { onShelf } from '../../parts/onShelf';
import { ApiProblem, call } from '../../stores/api';
import { useUnits } from '../../stores/units';

const props = defineProps<{ machine: Cutter }>();
const units = useUnits();
const link = ref<LinkTo>();
const tested = ref<LinkTest>();
const problem = ref('');
const busy = ref(false);
const params = (): { cutter: string } => ({ cutter: props.machine.id });

async function tell(work: () => Promise<void>): Promise<void> {
  problem.value = '';
  try {
    await work();
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    problem.value = error.message;
  }
}
watch(
  () => props.machine.id,
  (id) => {
    [link.value, tested.value] = [undefined, undefined];
    void tell(async () => {
      const found = await call('GET /api/cutters/{cutter}/link', { params: params() });
      if (id === props.machine.id) link.value = found;
    });
  },
  { immediate: true },
);
async function set(change: Partial<LinkTo>): Promise<void> {
  tested.value = undefined;
  const body = { ...link.value!, ...change };
  await tell(async () => {
    link.value = await call('PATCH /api/cutters/{cutter}/link', { params: params(), body });
  });
}
async function test(): Promise<void> {
  busy.value = true;
  tested.value = undefined;
  const { id } = props.machine;
  await tell(async () => {
    const answer = await call('POST /api/cutters/{cutter}/test', { params: params() });
    if (id === props.machine.id) tested.value = answer;
  });
  busy.value = false;
}
const readHost = (typed: string): string | undefined =>
  /^[a-z0-9.:_-]+$/i.test(typed.trim()) ? typed.trim() : undefined;
const soon = (ms: number): string => (ms < 10 ? ms.toFixed(1) : String(Math.round(ms)));
</script>

<template>
  <div class="link">
    <div v-if="link" class="row">
      <span>Address · port</span>
      <span class="pair">
        <DraftField
          :value="link.host"
          :label="`Address of ${machine.name}`"
          :read="readHost"
          @change="set({ host: $event })"
        />
        <NumberField
          :value="link.port"
          :label="`Port of ${machine.name}`"
          :min="1"
          :max="65535"
          @change="set({ port: $event })"
        />
      </span>
    </div>
    <div class="row">
      <p v-if="busy" role="status" class="soft">Asking {{ machine.name }} …</p>
      <p v-else-if="tested?.answers" role="status" class="well">
        <i aria-hidden="true"></i>answers in <b class="number">{{ soon(tested.ms!) }} ms</b> ·
        {{
          tested.film
            ? `film in it ${onShelf({ width: tested.film.width, lengthLeft: tested.film.length }, units)}`
            : 'no film is in it'
        }}
      </p>
      <p v-else-if="tested" role="status" class="wrong"><i aria-hidden="true"></i>{{ tested.problem }}</p>
      <p v-else class="soft">a raw TCP port of the machine</p>
      <button class="button small" :disabled="busy || !link" @click="test">Test the link</button>
    </div>
    <ul v-if="tested && tested.tries.length > 0">
      <li v-for="one in tested.tries" :key="one">{{ one }}</li>
    </ul>
    <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.link {
  display: grid;
  gap: 8px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  justify-content: space-between;
}
.pair {
  display: flex;
  gap: 6px;
}
.pair :deep(input) {
  width: 9.5em;
}
.pair :deep(span:last-child input) {
  width: 5em;
}
p {
  margin: 0;
}
i {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 7px;
  background: var(--gooseberry);
  border-radius: 50%;
}
.wrong {
  color: var(--currant);
}
.wrong i {
  background: var(--currant);
}
ul {
  margin: 0;
  padding-left: 18px;
  font-size: 14px;
}
</style>
