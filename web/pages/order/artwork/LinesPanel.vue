<script setup lang="ts">
/** What lines are for: by colour, by layer, or for the shape that is picked on the stage. */
import { own } from '../../../../core/units/own';
import { computed } from 'vue';
import type { LineKind, LineRules, StrokeManner } from '../../../../core/artwork/choices';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import FoldOut from '../../../parts/FoldOut.vue';
import { useArtwork } from '../../../stores/artwork';
import KindSelect from './KindSelect.vue';

const art = useArtwork();
const rules = computed(() => art.choices.lines);
const colours = computed(() => [...new Set(art.placed.flatMap((piece) => piece.colours))].slice(0, 40));
const layers = computed(() => [...new Set(art.placed.flatMap((piece) => piece.layers))].slice(0, 40));
const set = (change: Partial<LineRules>): void => art.change({ lines: { ...rules.value, ...change } });
/** @param kind undefined: none of its own any more */
function by(what: 'colour' | 'layer' | 'shape', key: string, kind: LineKind | undefined): void {
  const { [key]: _before, ...others } = rules.value[what];
  set({ [what]: kind ? { ...others, [key]: kind } : others });
}

const BY_WIDTH = 'by-width';
const STROKES = [
  { value: BY_WIDTH, label: 'as the width asks' },
  { value: 'line', label: 'along the middle' },
  { value: 'outline', label: 'around the width' },
];
function stroke(ref: string, manner: string): void {
  const { [ref]: _before, ...others } = rules.value.stroke;
  set({ stroke: manner === BY_WIDTH ? others : { ...others, [ref]: manner as StrokeManner } });
}
const decided = computed(() => {
  const n = (['colour', 'layer', 'shape'] as const).reduce(
    (sum, what) => sum + Object.values(rules.value[what]).filter((kind) => kind !== 'kiss').length,
    0,
  );
  return n === 0 ? 'all kiss cut' : `${n} not kiss cut`;
});
</script>

<template>
  <FoldOut title="Line kinds" name="lines" :says="decided">
    <template v-if="art.picked">
      <div class="row picked">
        <span>The picked {{ art.picked.isLine ? 'line' : 'shape' }}</span>
        <KindSelect
          label="Line kind of the picked shape"
          :kind="rules.shape[art.picked.ref]"
          rest="by layer or colour"
          @change="by('shape', art.picked!.ref, $event)"
        />
      </div>
      <ChoiceRow
        label="If it is a stroke"
        full-label="How the picked stroke is cut"
        :value="rules.stroke[art.picked.ref] ?? BY_WIDTH"
        :options="STROKES"
        @change="stroke(art.picked!.ref, $event)"
      />
    </template>
    <p v-else class="hint">Click a shape on the sign to give it a line kind of its own.</p>
    <div v-for="c in colours" :key="c" class="row">
      <span class="colour"
        ><i class="swatch little" :style="{ '--film': c }"></i><span class="number">{{ c }}</span></span
      >
      <KindSelect
        :label="`Line kind of ${c}`"
        :kind="rules.colour[c] ?? 'kiss'"
        @change="by('colour', c, $event)"
      />
    </div>
    <div v-for="l in layers" :key="l" class="row">
      <span class="layer">Layer {{ l }}</span>
      <KindSelect
        :label="`Line kind of layer ${l}`"
        :kind="own(rules.layer, l)"
        rest="by colour"
        @change="by('layer', l, $event)"
      />
    </div>
    <ChoiceRow
      label="Strokes without a fill"
      :value="rules.stroke['*'] ?? BY_WIDTH"
      :options="STROKES"
      @change="stroke('*', $event)"
    />
  </FoldOut>
</template>

<style scoped>
.colour {
  display: flex;
  align-items: center;
  gap: 7px;
  font-size: 13.5px;
}
.swatch.little {
  width: 15px;
  height: 18px;
}
.layer {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.picked {
  padding: 3px 7px;
  margin: 0 -7px;
  background: var(--damson-soft);
  border-radius: var(--radius-field);
}
</style>
