<script setup lang="ts">
/** Film that slipped: two corners of what is cut are found with the head, and the cut goes on where the film lies now. */
import { computed, ref, watch } from 'vue';
import type { Cut, SlippedAsked } from '../../../contracts/cuts';
import type { Spot } from '../../../core/geometry/spot';
import { landmarksOf } from '../../../core/toolpath/landmarks';
import NumberField from '../../parts/NumberField.vue';
import type { ApiProblem } from '../../stores/api';
import { call } from '../../stores/api';
import { useUnits } from '../../stores/units';
import HeadPad from './HeadPad.vue';
import { useHead } from './useHead';

const props = defineProps<{
  cut: Cut;
  /** What is drawn of it. */
  drawn: { readonly design: readonly (readonly number[])[]; readonly lines: readonly (readonly number[])[] };
}>();
const emit = defineEmits<{ problem: [problem: ApiProblem]; mark: [at: Spot | undefined]; close: [] }>();
const units = useUnits();
const { head, busy, ask, jog, goTo, place } = useHead(
  () => props.cut.id,
  (problem) => emit('problem', problem),
);

const line = ref(Math.min(props.cut.linesDone + 1, props.cut.lines));
/** The first line on the film that is in, from 1, and mm by which it lies nearer to the start than it was laid out. */
const film = computed(() => props.cut.onNewFilm ?? { line: 1, along: 0 });
const marks = computed(() =>
  landmarksOf(props.drawn.design, props.drawn.lines.slice(film.value.line - 1, line.value - 1)),
);
const found = ref<(Spot | undefined)[]>([undefined, undefined]);
const picked = ref<0 | 1>(0);
watch(marks, () => (found.value = [undefined, undefined]));
/** The two tell badly where lines far from them lie; found anew, they may tell better. */
const isUnsure = ref(false);
watch(found, () => (isUnsure.value = false));
watch(
  () => marks.value?.[picked.value],
  (at) => emit('mark', at),
  { immediate: true },
);
/** To where it would be, as the other one lies. */
async function goThere(): Promise<void> {
  const other = picked.value === 0 ? 1 : 0;
  const [mark, known] = [marks.value![picked.value], found.value[other]];
  const [ox, oy] = known
    ? [known[0] - marks.value![other][0], known[1] - marks.value![other][1]]
    : [-film.value.along, 0];
  await goTo(mark[0] + ox, mark[1] + oy);
}
async function take(): Promise<void> {
  const at = await place();
  if (!at) return;
  found.value = found.value.with(picked.value, [at.x, at.y]);
  if (found.value.some((one) => !one)) picked.value = picked.value === 0 ? 1 : 0;
}
async function goOn(): Promise<void> {
  const [a, b] = found.value;
  if (!a || !b || !marks.value) return;
  const places: SlippedAsked['places'] = [
    { cut: marks.value[0], found: a },
    { cut: marks.value[1], found: b },
  ];
  const body = { line: line.value, places, ...(isUnsure.value && { anyway: true }) };
  await ask(async () => {
    try {
      await call('POST /api/cuts/{id}/slipped', { params: { id: props.cut.id }, body });
      emit('close');
    } catch (error) {
      isUnsure.value = (error as ApiProblem).code === 'too-unsure';
      throw error;
    }
  });
}
const CORNERS = [0, 1] as const;
</script>

<template>
  <section class="slipped" aria-label="The film slipped">
    <HeadPad :head="head" :busy="busy" @jog="jog" />
    <div class="does">
      <label
        >The first line that lies wrong
        <NumberField
          label="The first line that lies wrong"
          :value="line"
          :min="film.line + 1"
          :max="cut.lines"
          @change="line = $event"
      /></label>
      <p v-if="!marks">Too little is cut by then to find the film again: start it again.</p>
      <template v-else>
        <p>Put the head over both corners that are shown, one after the other.</p>
        <div class="row" role="group" aria-label="Corners">
          <button
            v-for="i in CORNERS"
            :key="i"
            class="touch"
            :class="{ taken: found[i] }"
            :aria-pressed="picked === i"
            @click="picked = i"
          >
            {{ i + 1 }} · {{ units.number(marks[i][0]) }}, {{ units.length(marks[i][1]) }}
          </button>
        </div>
        <div class="row">
          <button class="touch" :disabled="busy" @click="goThere">Go near corner {{ picked + 1 }}</button>
          <button class="touch" :disabled="busy" @click="take">The head is over it</button>
        </div>
      </template>
      <div class="row">
        <button class="touch main" :disabled="busy || !marks || !found[0] || !found[1]" @click="goOn">
          {{ isUnsure ? 'Go on all the same' : `Go on at line ${line}` }}
        </button>
        <button class="touch" @click="$emit('close')">It did not slip</button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.slipped {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 26px;
  align-items: center;
  padding: 12px 20px;
  background: var(--card);
  border-bottom: var(--line) solid var(--ink);
}
.does {
  display: grid;
  flex: 1;
  gap: 8px;
}
label {
  display: flex;
  gap: 10px;
  align-items: center;
}
label :deep(input) {
  width: 5em;
  min-height: 44px;
}
p {
  margin: 0;
  color: var(--ink-soft);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.row .taken {
  background: var(--gooseberry-soft);
}
</style>
