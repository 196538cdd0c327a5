<script setup lang="ts">
/** The lines that are cut around what is printed, and how far its colours reach past them. */
import { Plus, X } from '@lucide/vue';
import { computed } from 'vue';
import type { CutLineChoices, PrintChoices } from '../../../../core/print/choices';
import { CUT_LINE_KINDS, joinOf, MOST_CUT_LINES, USUAL_CUT_LINE } from '../../../../core/print/choices';
import { USUAL_BLEED } from '../../../../core/plan/sheetFindings';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import FoldOut from '../../../parts/FoldOut.vue';
import LengthField from '../../../parts/LengthField.vue';
import LengthRow from '../../../parts/LengthRow.vue';
import NumberField from '../../../parts/NumberField.vue';
import { useArtwork } from '../../../stores/artwork';
import { useOrder } from '../../../stores/order';
import { useStage } from '../../../stores/stage';
import { useUnits } from '../../../stores/units';
import { kindName } from '../artwork/kinds';
import { count } from '../runCardSections';

const { print } = defineProps<{ print: PrintChoices }>();
const emit = defineEmits<{ change: [change: Partial<PrintChoices>] }>();
const store = useOrder();
const art = useArtwork();
const stage = useStage();
const units = useUnits();

const KINDS = CUT_LINE_KINDS.map((value) => ({ value, label: kindName(value) }));
const CORNERS = [
  { value: 'round', label: 'round' },
  { value: 'mitre', label: 'pointed' },
] as const;
const HOLES = [
  { value: 'none', label: 'dropped' },
  { value: 'all', label: 'kept' },
  { value: 'large', label: 'kept from a size' },
] as const;
type Holes = (typeof HOLES)[number]['value'];
const holesOf = ({ dropHoles }: CutLineChoices): Holes =>
  dropHoles === null ? 'none' : dropHoles === 0 ? 'all' : 'large';
/** mm² below which holes are dropped, to begin with. */
const SMALL_HOLE = 50;
const dropFor = (holes: Holes): number | null => (holes === 'none' ? null : holes === 'all' ? 0 : SMALL_HOLE);

const change = (i: number, to: Partial<CutLineChoices>): void =>
  emit('change', { lines: print.lines.map((line, k) => (k === i ? { ...line, ...to } : line)) });
function drop(i: number): void {
  stage.lineFor = undefined;
  emit('change', { lines: print.lines.filter((_, k) => k !== i) });
}
/** Another one lies outside those that are there, and goes through the backing. */
function add(): void {
  const outmost = print.lines.reduce((most, { offset }) => Math.max(most, offset), 0);
  const line: CutLineChoices = print.lines.length
    ? { ...USUAL_CUT_LINE, kind: 'perforated', offset: outmost + 3, smallestRadius: 3 }
    : USUAL_CUT_LINE;
  emit('change', { lines: [...print.lines, line] });
}

const EVERYTHING = '*';
const printed = computed(() =>
  store.plan!.colours.filter((colour) => colour.goesTo === 'print' && !colour.isCutLine),
);
const LAYER = 'layer ';
const PICKED = 'picked';
const layers = computed(() => [...new Set(art.placed.flatMap((piece) => piece.layers))].slice(0, 40));
const aroundOf = ({ around, layers: [layer] = [], shapes = [] }: CutLineChoices): string =>
  shapes.length > 0 ? PICKED : layer === undefined ? (around?.[0] ?? EVERYTHING) : LAYER + layer;
const aroundWhat = ({ shapes = [] }: CutLineChoices) => [
  { value: EVERYTHING, label: 'all that is printed' },
  ...printed.value.map(({ colour }) => ({ value: colour, label: `only ${colour}` })),
  ...layers.value.map((layer) => ({ value: LAYER + layer, label: `layer ${layer}` })),
  ...(shapes.length > 0 ? [{ value: PICKED, label: count(shapes.length, 'picked shape') }] : []),
];
function goAround(i: number, what: string): void {
  const { layers: _layers, shapes: _shapes, ...line } = print.lines[i];
  if (what === PICKED) return;
  const isLayer = what.startsWith(LAYER);
  const around = what === EVERYTHING || isLayer ? null : [what];
  const now = { ...line, around, ...(isLayer && { layers: [what.slice(LAYER.length)] }) };
  emit('change', { lines: print.lines.map((one, k) => (k === i ? now : one)) });
}
const nameOf = ({ kind, offset }: CutLineChoices): string =>
  `${kindName(kind)}, ${units.length(Math.abs(offset))} ${offset < 0 ? 'inside' : 'outside'}`;
/** The one thing that most often spoils a sticker: no colour past the line. */
const lacksBleed = computed(() =>
  store.plan!.findings.some(({ code, ignored }) => code === 'no-bleed' && ignored === undefined),
);
</script>

<template>
  <div v-for="(line, i) in print.lines" :key="i" class="line" role="group" :aria-label="`Cut line ${i + 1}`">
    <div class="row">
      <ChoiceRow
        class="kind"
        label=""
        :full-label="`Kind of cut line ${i + 1}`"
        :value="line.kind"
        :options="KINDS"
        @change="change(i, { kind: $event })"
      />
      <LengthField
        :label="`Cut line ${i + 1} outside the art`"
        :value="line.offset"
        :min="-500"
        :max="500"
        @change="change(i, { offset: $event })"
      />
      <button class="drop" :aria-label="`Take cut line ${i + 1} out`" @click="drop(i)">
        <X :size="15" />
      </button>
    </div>
    <FoldOut :title="nameOf(line)" :name="`cut-line-${i}`">
      <ChoiceRow
        label="Around"
        :full-label="`Around what cut line ${i + 1} goes`"
        :value="aroundOf(line)"
        :options="aroundWhat(line)"
        @change="goAround(i, $event)"
      />
      <button
        class="button small pick"
        :aria-pressed="stage.lineFor === i"
        @click="stage.lineFor = stage.lineFor === i ? undefined : i"
      >
        Pick shapes on the sheet
      </button>
      <ChoiceRow
        label="Corners"
        :full-label="`Corners of cut line ${i + 1}`"
        :value="line.corners"
        :options="CORNERS"
        @change="change(i, { corners: $event })"
      />
      <div v-if="line.corners === 'mitre'" class="row">
        <span>Points reach at most, offsets</span>
        <NumberField
          :label="`Points of cut line ${i + 1} reach`"
          :value="line.mitreLimit"
          :min="1"
          :max="20"
          :digits="1"
          @change="change(i, { mitreLimit: $event })"
        />
      </div>
      <LengthRow
        label="Smallest radius"
        :full-label="`Smallest radius of cut line ${i + 1}`"
        :value="line.smallestRadius"
        :max="200"
        @change="change(i, { smallestRadius: $event })"
      />
      <LengthRow
        label="One line around what is nearer than"
        :full-label="`Cut line ${i + 1} joins what is nearer than`"
        :value="joinOf(line)"
        :max="500"
        @change="change(i, line.offset < 0 ? { joinInside: $event } : { join: $event })"
      />
      <ChoiceRow
        label="Holes"
        :full-label="`Holes in cut line ${i + 1}`"
        :value="holesOf(line)"
        :options="HOLES"
        @change="change(i, { dropHoles: dropFor($event) })"
      />
      <div v-if="holesOf(line) === 'large'" class="row">
        <span>From, mm²</span>
        <NumberField
          :label="`Holes in cut line ${i + 1} from`"
          :value="line.dropHoles ?? 0"
          :min="0.1"
          :max="1e6"
          :digits="1"
          @change="change(i, { dropHoles: $event })"
        />
      </div>
    </FoldOut>
  </div>
  <button class="button small add" :disabled="print.lines.length >= MOST_CUT_LINES" @click="add">
    <Plus :size="15" aria-hidden="true" /> Add a cut line
  </button>
  <div class="row">
    <span>Bleed</span>
    <span class="bleed">
      <button v-if="lacksBleed" class="button slim" @click="emit('change', { bleed: USUAL_BLEED })">
        Give it {{ units.length(USUAL_BLEED) }}
      </button>
      <LengthField label="Bleed" :value="print.bleed" :max="50" @change="emit('change', { bleed: $event })" />
    </span>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  padding: 6px 8px 2px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
.line .row {
  flex-wrap: nowrap;
}
.line .kind {
  flex: 1;
  min-width: 0;
}
.kind :deep(span:empty) {
  display: none;
}
.line :deep(.fold) {
  border-top: 0;
}
.line :deep(h3 button) {
  font-weight: 450;
  font-size: 13px;
  min-height: 27px;
  padding: 3px 0;
}
.line :deep(.p-select) {
  width: 100%;
}
.line .inside :deep(.p-select),
.line :deep(.inside .p-select) {
  width: 172px;
}
.drop {
  display: grid;
  place-items: center;
  flex: none;
  width: 26px;
  height: 28px;
  padding: 0;
  background: none;
  border: 0;
}
.pick[aria-pressed='true'] {
  background: var(--damson-soft);
  border-color: var(--damson);
}
.add,
.pick {
  justify-self: start;
}
.bleed {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
