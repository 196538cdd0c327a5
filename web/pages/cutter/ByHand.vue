<script setup lang="ts">
/** Marks taken by hand: the head is moved over one after the other, in large steps and small ones, and each is taken. */
import { computed, ref } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import type { TakenMarks } from '../../../contracts/print';
import type { ApiProblem } from '../../stores/api';
import { call } from '../../stores/api';
import HeadPad from './HeadPad.vue';
import { useHead } from './useHead';

const props = defineProps<{ cut: Cut }>();
const emit = defineEmits<{ problem: [problem: ApiProblem] }>();

const { head, busy, ask, jog, goTo, place } = useHead(
  () => props.cut.id,
  (problem) => emit('problem', problem),
);
const taken = ref<TakenMarks>([]);
/** The one that is taken next. */
const picked = ref(0);
const marks = computed(() => props.cut.sheet!.marks);
/** Three marks tell a stretched sheet too; more tell how well they were met. */
const LEAST = 3;

/** To where the next mark should be, by the first that was taken. */
async function goThere(): Promise<void> {
  const [known] = taken.value;
  const [x, y] = marks.value[picked.value].at;
  const [fx, fy] = known ? marks.value[known.mark].at : [0, 0];
  const [ox, oy] = known ? [known.at[0] - fx, known.at[1] - fy] : [0, 0];
  await goTo(x + ox, y + oy);
}
async function take(): Promise<void> {
  const at = await place();
  if (!at) return;
  const mark = picked.value;
  const { x, y } = at;
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
</script>

<template>
  <section class="hand" aria-label="Marks by hand">
    <HeadPad :head="head" :busy="busy" @jog="jog" />
    <div class="marks">
      <div class="row" role="group" aria-label="Marks">
        <button
          v-for="(_, i) in marks"
          :key="i"
          class="touch mark number"
          :class="{ taken: isTaken(i) }"
          :aria-pressed="picked === i"
          :aria-label="`Mark ${i + 1}${isTaken(i) ? ', taken' : ''}`"
          @click="picked = i"
        >
          {{ i + 1 }}
        </button>
      </div>
      <div class="row">
        <button class="touch" :disabled="busy" @click="goThere">Go to mark {{ picked + 1 }}</button>
        <button class="touch" :disabled="busy" @click="take">Take mark {{ picked + 1 }}</button>
      </div>
      <button class="touch main" :disabled="busy || taken.length < LEAST" @click="cutBy">
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
</style>
