<script setup lang="ts">
/** How a printed sheet lies by its marks, and what the sensor saw of the one that lies furthest off. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { computed } from 'vue';
import { largest } from '../../../core/geometry/lists';
import type { ReadSheet } from '../../../contracts/print';
import type { ModelName } from '../../../core/registration/models';
import { useUnits } from '../../stores/units';
import { ERROR_SCALE } from './drawCut';

const props = defineProps<{ reading: ReadSheet }>();
const units = useUnits();
const fit = computed(() => props.reading.fit!);
const percent = (scale: number): string =>
  `${scale >= 1 ? '+' : '−'}${(100 * Math.abs(scale - 1)).toFixed(2)} %`;
/** A turned sheet is told in words; what is left is how aslant it lies. */
const aslant = computed(() => {
  const { rotation, isTurned } = fit.value;
  return isTurned ? rotation - Math.sign(rotation) * 180 : rotation;
});
const worst = computed(() => {
  const offs = props.reading.marks.map(({ off: [x, y] }) => Math.hypot(x, y));
  return props.reading.marks[offs.indexOf(largest(offs))];
});
const MODEL_WORDS: Readonly<Record<ModelName, string>> = {
  similarity: 'moved, turned and scaled',
  affine: 'stretched both ways',
  bow: 'bowed along its length',
  'double-bow': 'bowed, not alike at both edges',
  projective: 'as seen aslant',
};
const [WIDE, HIGH] = [238, 84];
/** What the sensor saw; nothing where marks were taken by hand. */
const scan = computed(() => {
  const { scan: seen } = worst.value;
  if (!seen) return undefined;
  const x = scaleLinear([0, seen.values.length - 1], [4, WIDE - 4]);
  const y = scaleLinear([0, 1.05], [HIGH - 4, 4]);
  const edges = (seen.edges ?? []).map((mm) => x(mm / seen.step));
  const path = line<number>(
    (_, i) => x(i),
    (value) => y(value),
  )([...seen.values]);
  const apart = seen.edges ? seen.edges[1] - seen.edges[0] : undefined;
  return { path: path ?? '', edges, contrast: seen.contrast, apart };
});
</script>

<template>
  <h3>Sheet fit</h3>
  <dl>
    <dt>Turned</dt>
    <dd class="number">{{ aslant.toFixed(2) }}°</dd>
    <dt>Stretched along</dt>
    <dd class="number">{{ percent(fit.scaleX) }}</dd>
    <dt>across</dt>
    <dd class="number">{{ percent(fit.scaleY) }}</dd>
    <dt>Bow corrected</dt>
    <dd class="number">{{ units.length(Math.abs(fit.bow), true) }}</dd>
    <dt>Worst mark, {{ worst.mark + 1 }}</dt>
    <dd class="number">{{ units.length(fit.worst, true) }}</dd>
    <template v-if="fit.within95 !== undefined">
      <dt>Within, 95 of 100</dt>
      <dd class="number">{{ units.length(fit.within95, true) }}</dd>
    </template>
  </dl>
  <p class="hint">
    Taken as {{ MODEL_WORDS[fit.model] }}. Red: each mark’s error × {{ ERROR_SCALE }}; limit
    {{ units.length(fit.limit, true) }}.
  </p>
  <p v-for="note in reading.notes" :key="note" class="hint">{{ note }}</p>
  <template v-if="scan">
    <svg
      :viewBox="`0 0 ${WIDE} ${HIGH}`"
      role="img"
      :aria-label="`What the sensor saw across mark ${worst.mark + 1}`"
    >
      <path class="seen" :d="scan.path" />
      <path v-for="at in scan.edges" :key="at" class="edge" :d="`M${at} 4V${HIGH - 4}`" />
    </svg>
    <p class="hint">
      Mark {{ worst.mark + 1 }}: contrast {{ Math.round(100 * scan.contrast) }} %<template v-if="scan.apart">
        · edges {{ units.length(scan.apart, true) }} apart</template
      >
    </p>
  </template>
  <p v-else class="hint">{{ reading.marks.length }} marks taken by hand.</p>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 5px 10px;
  margin: 0;
}
h3 {
  font-size: 17px;
  margin-top: 4px;
}
dt,
.hint {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  font-weight: 700;
  text-align: right;
}
.hint {
  margin: 0;
  font-size: 13px;
}
svg {
  flex: none;
  width: 100%;
  background: var(--paper);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
path {
  fill: none;
}
.seen {
  stroke: var(--bilberry);
  stroke-width: 1.4;
}
.edge {
  stroke: var(--currant);
}
</style>
