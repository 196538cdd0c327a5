<script setup lang="ts">
/** What takes how long, what is cut twice, and how near the tip keeps to the drawing. */
import { computed, ref, watch } from 'vue';
import { emptyBounds, growBounds } from '../../../../core/geometry/bounds';
import { lineLength } from '../../../../core/geometry/path';
import type { Played } from '../../../../core/toolpath/play';
import { duration, useUnits } from '../../../stores/units';
import type { PlayView } from '../../../workers/packedPlay';
import { PLAYED_COLOURS } from './drawPlay';

const props = defineProps<{ view: PlayView }>();
const emit = defineEmits<{ look: [x: number, y: number, scale: number] }>();
const units = useUnits();

const NAMES: Readonly<Record<Played, string>> = {
  kiss: 'Kiss cut',
  through: 'Cut through',
  perforated: 'Perforated',
  crease: 'Creased',
  pen: 'Pen',
  weed: 'Weeding',
  align: 'Blade turned',
};
const twice = computed(() =>
  props.view.twice.reduce((sum, points) => sum + lineLength({ points, closed: false }), 0),
);

/** px for a mm at which a place is looked at */
const LARGE = 40;
const next = ref({ twice: 0, off: 0 });
watch(
  () => props.view,
  () => (next.value = { twice: 0, off: 0 }),
);
function lookTwice(): void {
  const { minX, minY, maxX, maxY } = growBounds(
    emptyBounds(),
    props.view.twice[next.value.twice++ % props.view.twice.length],
  );
  emit(
    'look',
    (minX + maxX) / 2,
    (minY + maxY) / 2,
    Math.min(LARGE, 320 / Math.max(1, maxX - minX, maxY - minY)),
  );
}
function lookOff(): void {
  const [x, y] = props.view.proof.off[next.value.off++ % props.view.proof.off.length].at;
  emit('look', x, y, LARGE);
}
</script>

<template>
  <section class="card" aria-label="What it comes to">
    <table>
      <tbody>
        <tr v-for="{ kind, lines, length, seconds } in view.play.times" :key="kind">
          <th scope="row">
            <span class="line" :style="{ background: PLAYED_COLOURS[kind] }"></span>{{ NAMES[kind] }}
          </th>
          <td class="number">{{ lines === 1 ? '1 line' : `${lines} lines` }}</td>
          <td class="number">{{ length < 1000 ? units.length(length) : units.run(length) }}</td>
          <td class="number">{{ duration(seconds) }}</td>
        </tr>
        <tr>
          <th scope="row"><span class="line up"></span>Knife up</th>
          <td></td>
          <td></td>
          <td class="number">{{ duration(view.play.travel + view.play.lifts) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="view.twice.length > 0" class="bad" role="status">
      <span
        ><b>{{ units.length(twice) }}</b>
        {{ view.twice.length === 1 ? 'is' : `at ${view.twice.length} places is` }} cut twice.</span
      >
      <button class="button small" @click="lookTwice">Look there</button>
    </p>
    <p v-if="view.proof.off.length > 0" class="bad" role="status">
      <span
        >The blade lies up to <b>{{ view.proof.largest.toFixed(2) }} mm</b> off the drawing at
        {{ view.proof.off.length === 1 ? 'one place' : `${view.proof.off.length} places` }}.</span
      >
      <button class="button small" @click="lookOff">Look there</button>
    </p>
    <p v-else class="soft plain">
      The blade keeps within <span class="number">{{ view.proof.largest.toFixed(3) }} mm</span> of the
      drawing.
    </p>
  </section>
</template>

<style scoped>
.card {
  display: grid;
  gap: 8px;
  align-content: start;
  max-height: 190px;
  padding: 10px 14px;
  overflow-y: auto;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
table {
  width: 100%;
  font-size: 14px;
  border-collapse: collapse;
}
th {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 1px 0;
  font-weight: 400;
  text-align: left;
}
td {
  padding: 1px 0 1px 10px;
  text-align: right;
  white-space: nowrap;
}
.line {
  flex: none;
  width: 18px;
  height: 3px;
}
.line.up {
  background: repeating-linear-gradient(90deg, #33568f 0 2px, transparent 2px 5px);
}
p {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
  margin: 0;
  font-size: 14px;
}
.plain {
  display: block;
}
.bad {
  padding: 5px 8px 5px 10px;
  background: var(--currant-soft);
  border-radius: var(--radius-card);
}
</style>
