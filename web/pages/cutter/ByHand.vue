<script setup lang="ts">
/** Marks taken by hand: the head is moved over one after the other, in large steps and small ones, and each is taken. */
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from '@lucide/vue';
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import type { TakenMarks } from '../../../contracts/print';
import { ApiProblem, call } from '../../stores/api';
import { useUnits } from '../../stores/units';

const props = defineProps<{ cut: Cut }>();
const emit = defineEmits<{ problem: [problem: ApiProblem] }>();
const units = useUnits();

/** mm that one press moves the head. */
const STEPS = [10, 1, 0.1] as const;
const step = useLocalStorage<number>('jam-pan-jog', 1, {
  serializer: { read: (kept) => STEPS.find((one) => one === Number(kept)) ?? 1, write: String },
});
const head = ref<{ x: number; y: number }>();
const busy = ref(false);
const taken = ref<TakenMarks>([]);
/** The one that is taken next. */
const picked = ref(0);
const marks = computed(() => props.cut.sheet!.marks);
/** Three marks tell a stretched sheet too; more tell how well they were met. */
const LEAST = 3;

async function ask<T>(work: () => Promise<T>): Promise<T | undefined> {
  if (busy.value) return undefined;
  busy.value = true;
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    emit('problem', error);
    return undefined;
  } finally {
    busy.value = false;
  }
}
async function jog(dx: number, dy: number): Promise<void> {
  const { id } = props.cut;
  const now = await ask(() => call('POST /api/cuts/{id}/jog', { params: { id }, body: { dx, dy } }));
  head.value = now ?? head.value;
}
/** To where the next mark should be, by the first that was taken. */
async function goThere(): Promise<void> {
  const [known] = taken.value;
  const [x, y] = marks.value[picked.value].at;
  const [fx, fy] = known ? marks.value[known.mark].at : [0, 0];
  const [ox, oy] = known ? [known.at[0] - fx, known.at[1] - fy] : [0, 0];
  if (!head.value) await jog(0, 0);
  if (head.value) await jog(x + ox - head.value.x, y + oy - head.value.y);
}
async function take(): Promise<void> {
  if (!head.value) await jog(0, 0);
  if (!head.value) return;
  const mark = picked.value;
  const { x, y } = head.value;
  const others = taken.value.filter((one) => one.mark !== mark);
  taken.value = [...others, { mark, at: [x, y] as const }].sort((a, b) => a.mark - b.mark);
  const next = marks.value.findIndex((_, i) => !isTaken(i));
  if (next >= 0) picked.value = next;
}
async function cutBy(): Promise<void> {
  const { id } = props.cut;
  await ask(() => call('POST /api/cuts/{id}/taken', { params: { id }, body: { taken: taken.value } }));
}
const isTaken = (i: number): boolean => taken.value.some(({ mark }) => mark === i);

const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
useEventListener('keydown', (event) => {
  const way = WAYS[event.key];
  if (!way || (event.target instanceof HTMLElement && event.target.closest('input, canvas'))) return;
  event.preventDefault();
  const by = event.shiftKey ? 10 : event.altKey ? 0.1 : step.value;
  void jog(way[0] * by, way[1] * by);
});
</script>

<template>
  <section class="hand" aria-label="Marks by hand">
    <div class="pad" role="group" aria-label="Move the head">
      <button class="up" aria-label="Away from you" :disabled="busy" @click="jog(0, -step)">
        <ArrowUp />
      </button>
      <button class="left" aria-label="Back" :disabled="busy" @click="jog(-step, 0)"><ArrowLeft /></button>
      <button class="right" aria-label="Along the sheet" :disabled="busy" @click="jog(step, 0)">
        <ArrowRight />
      </button>
      <button class="down" aria-label="Towards you" :disabled="busy" @click="jog(0, step)">
        <ArrowDown />
      </button>
    </div>
    <div class="steps" role="group" aria-label="Step">
      <button v-for="one in STEPS" :key="one" :aria-pressed="step === one" @click="step = one">
        {{ units.length(one, one < 1) }}
      </button>
      <span class="number at">{{ head ? `${units.number(head.x)}, ${units.length(head.y)}` : '' }}</span>
    </div>
    <div class="marks">
      <div class="row" role="group" aria-label="Marks">
        <button
          v-for="(_, i) in marks"
          :key="i"
          class="mark number"
          :class="{ taken: isTaken(i) }"
          :aria-pressed="picked === i"
          :aria-label="`Mark ${i + 1}${isTaken(i) ? ', taken' : ''}`"
          @click="picked = i"
        >
          {{ i + 1 }}
        </button>
      </div>
      <div class="row">
        <button :disabled="busy" @click="goThere">Go to mark {{ picked + 1 }}</button>
        <button :disabled="busy" @click="take">Take mark {{ picked + 1 }}</button>
      </div>
      <button class="main" :disabled="busy || taken.length < LEAST" @click="cutBy">
        {{
          taken.length < LEAST ? `Take ${LEAST - taken.length} more` : `Cut by these ${taken.length} marks`
        }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.hand {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 26px;
  align-items: center;
  padding: 12px 20px;
  background: var(--card);
  border-bottom: var(--line) solid var(--ink);
}
.pad {
  display: grid;
  grid-template: repeat(3, 46px) / repeat(3, 46px);
}
button {
  min-height: 46px;
  padding: 0 14px;
  font-size: 16px;
  font-weight: 650;
  color: var(--ink);
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-field);
}
.pad button {
  display: grid;
  place-items: center;
  padding: 0;
}
.up {
  grid-area: 1 / 2;
}
.left {
  grid-area: 2 / 1;
}
.right {
  grid-area: 2 / 3;
}
.down {
  grid-area: 3 / 2;
}
.steps {
  display: grid;
  gap: 4px;
}
.steps button {
  min-height: 38px;
}
.steps button[aria-pressed='true'],
.mark[aria-pressed='true'] {
  background: var(--damson-soft);
  border-color: var(--damson);
}
.at {
  min-height: 1.3em;
  font-size: 13px;
  color: var(--ink-soft);
  text-align: center;
}
.marks {
  display: grid;
  gap: 8px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.mark {
  min-width: 46px;
  padding: 0;
  border-radius: 50%;
}
.mark.taken {
  color: var(--card);
  background: var(--gooseberry);
  border-color: var(--gooseberry);
}
.main {
  color: var(--card);
  background: var(--damson);
  border-color: var(--damson);
}
button:disabled {
  opacity: 0.55;
}
</style>
