<script setup lang="ts">
import { ArrowDown, ArrowUp, GripVertical, Printer, Scissors } from '@lucide/vue';
import Checkbox from 'primevue/checkbox';
import Select from 'primevue/select';
import { computed, ref, watch } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { deltaE, labOf } from '../../../core/colour/colour';
import type { Film } from '../../../core/films/film';
import { finishOf } from '../../../core/films/film';
import { onShelf } from '../../parts/onShelf';
import { useOrder } from '../../stores/order';
import { useUnits } from '../../stores/units';
import type { ColourView } from '../../workers/packed';
import FoldPanel from './films/FoldPanel.vue';
import MarksPanel from './films/MarksPanel.vue';
import OverlapPanel from './films/OverlapPanel.vue';

const film = defineModel<string | undefined>('film');
const emit = defineEmits<{ reorder: [colours: string[]]; recut: [film: string, own: boolean] }>();
const store = useOrder();
const units = useUnits();
const colours = ref<ColourView[]>([]);
watch(
  () => store.plan?.colours,
  (now) => (colours.value = [...(now ?? [])]),
  { immediate: true },
);
const choices = computed(() => store.choices!.films);

const stock = ({ rolls }: Film): string =>
  rolls.length === 0 ? 'none on the shelf' : rolls.map((roll) => onShelf(roll, units)).join(', ');
const about = (f: Film): string =>
  [finishOf(f), stock(f), ...(f.cutFromBack ? ['from the back'] : [])].join(' · ');

/** Films for one colour, nearest first. */
const optionsFor = (colour: string) => {
  const lab = labOf(colour);
  const inUse = new Set(Object.values(choices.value.film));
  return (store.shop?.films ?? [])
    .filter((f) => (!f.putAway && !f.print) || inUse.has(f.id))
    .map((f) => ({ ...f, says: about(f), away: deltaE(lab, labOf(f.colour)) }))
    .sort((a, b) => a.away - b.away);
};
/** What a colour can become beside film. */
const OTHERWISE = [
  { id: 'nothing', name: 'No film', says: 'the surface shows through' },
  { id: 'print', name: 'Print', says: 'on sheets that are cut around' },
] as const;
/** Lines that are cut on the sheets. */
const CUT_LINE = { id: 'print', name: 'Cut line', says: 'cut on the printed sheets, not printed' } as const;
type Otherwise = (typeof OTHERWISE)[number]['id'];
const groupsFor = (c: ColourView) => [
  { label: 'Films, nearest first', items: optionsFor(c.colour) },
  { label: 'Not film', items: OTHERWISE.map((one) => (c.isCutLine && one.id === 'print' ? CUT_LINE : one)) },
];
const cutLines = (count: number): string => (count === 1 ? '1 cut line' : `${count} cut lines`);
const pickedIn = (c: ColourView): string | undefined => (c.goesTo === 'film' ? c.film?.id : c.goesTo);

/** Gives a colour its film, or none. */
function pick(colour: string, id: string): void {
  const { film: films, off, print } = choices.value;
  const without = (list: readonly string[]): string[] => list.filter((c) => c !== colour);
  const next = { ...choices.value, off: without(off), print: without(print) };
  if (!OTHERWISE.some((other) => other.id === id)) next.film = { ...films, [colour]: id };
  else if ((id as Otherwise) === 'print') next.print = [...next.print, colour];
  else next.off = [...next.off, colour];
  store.change({ films: next });
}
function toggle({ colour, goesTo }: ColourView): void {
  const { off, print } = choices.value;
  const without = (list: readonly string[]): string[] => list.filter((c) => c !== colour);
  const next = goesTo === 'film' ? { off: [...off, colour] } : { off: without(off), print: without(print) };
  store.change({ films: { ...choices.value, ...next } });
}
const someOn = computed(() => colours.value.some(({ goesTo }) => goesTo === 'film'));
function toggleAll(): void {
  const all = colours.value.map(({ colour }) => colour);
  const next = someOn.value ? { off: [...new Set([...choices.value.off, ...all])] } : { off: [], print: [] };
  store.change({ films: { ...choices.value, ...next } });
}
const dropped = (): void =>
  emit(
    'reorder',
    colours.value.map((c) => c.colour),
  );
function move(index: number, by: 1 | -1): void {
  const order = colours.value.map((c) => c.colour);
  [order[index], order[index + by]] = [order[index + by], order[index]];
  emit('reorder', order);
}
</script>

<template>
  <p class="hint seen">
    <span>{{ colours.length }} {{ colours.length === 1 ? 'colour' : 'colours' }} seen. Base first.</span>
    <span class="alls">
      <button v-if="colours.some(({ goesTo }) => goesTo !== 'print')" class="all" @click="store.printAll()">
        Print all
      </button>
      <button v-if="colours.length > 1" class="all" @click="toggleAll">
        {{ someOn ? 'Switch all off' : 'Switch all on' }}
      </button>
    </span>
  </p>
  <VueDraggable v-model="colours" handle=".grip" :animation="120" class="list" @end="dropped">
    <div
      v-for="(c, i) in colours"
      :key="c.colour"
      class="colour"
      :class="{ off: c.goesTo === 'nothing', picked: film && film === c.film?.id }"
    >
      <span class="grip" title="Drag to change the order"
        ><GripVertical :size="16" aria-hidden="true"
      /></span>
      <button
        class="swatch"
        :style="{ '--film': c.colour }"
        :aria-label="`Show only ${c.film?.name ?? c.colour}`"
        @click="film = film === c.film?.id ? undefined : c.film?.id"
      ></button>
      <div class="what">
        <Select
          :model-value="pickedIn(c)"
          :options="groupsFor(c)"
          option-label="name"
          option-value="id"
          option-group-label="label"
          option-group-children="items"
          filter
          reset-filter-on-hide
          :filter-fields="['name', 'code', 'colour']"
          size="small"
          :aria-label="`Film for ${c.colour}`"
          @update:model-value="pick(c.colour, $event)"
        >
          <template #option="{ option }">
            <span v-if="option.colour" class="swatch little" :style="{ '--film': option.colour }"></span>
            <span class="option"
              >{{ option.name }}<small>{{ option.says }}</small></span
            >
            <small v-if="option.away !== undefined" class="number">ΔE {{ option.away.toFixed(1) }}</small>
          </template>
        </Select>
      </div>
      <div class="acts">
        <button :disabled="i === 0" :aria-label="`Cut ${c.film?.name} earlier`" @click="move(i, -1)">
          <ArrowUp :size="15" />
        </button>
        <button
          :disabled="i === colours.length - 1"
          :aria-label="`Cut ${c.film?.name} later`"
          @click="move(i, 1)"
        >
          <ArrowDown :size="15" />
        </button>
      </div>
      <Scissors v-if="c.isCutLine" :size="17" class="printed" aria-label="cut on the sheets, not printed" />
      <Printer v-else-if="c.goesTo === 'print'" :size="17" class="printed" aria-label="printed" />
      <Checkbox
        v-else
        binary
        :model-value="c.goesTo === 'film'"
        :aria-label="`Cut ${c.colour}`"
        @update:model-value="toggle(c)"
      />
      <span class="number detail"
        >{{ c.isCutLine ? cutLines(c.followed) : `${c.shapes} ${c.shapes === 1 ? 'shape' : 'shapes'}` }} ·
        {{ c.colour }}{{ c.goesTo === 'film' ? ` · ΔE ${c.deltaE.toFixed(1)}` : '' }}</span
      >
    </div>
  </VueDraggable>
  <FoldPanel />
  <OverlapPanel @recut="(id, own) => emit('recut', id, own)" />
  <MarksPanel />
</template>

<style scoped>
.seen {
  display: flex;
  justify-content: space-between;
}
.alls {
  display: flex;
  gap: 12px;
}
.all {
  min-height: 24px;
  padding: 0;
  font: inherit;
  color: var(--damson);
  text-decoration: underline;
  background: none;
  border: 0;
}
.list {
  display: grid;
  gap: 7px;
}
.colour {
  display: grid;
  grid-template-columns: 14px 22px minmax(0, 1fr) auto auto;
  align-items: center;
  gap: 3px 8px;
  padding: 7px 9px 6px 5px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
.picked {
  border-color: var(--damson);
  background: var(--damson-soft);
}
.off {
  background: none;
  border-style: dashed;
}
.off > .swatch {
  opacity: 0.5;
}
.grip {
  color: var(--ink-soft);
  cursor: grab;
}
.colour > .grip,
.colour > .swatch {
  grid-row: span 2;
}
.colour > .swatch {
  width: 22px;
  height: 34px;
  padding: 0;
}
.what {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 2px;
  min-width: 0;
}
.what :deep(.p-select) {
  width: 100%;
}
.detail {
  grid-column: 3 / -1;
  font-size: 12px;
  color: var(--ink-soft);
  white-space: nowrap;
}
.acts {
  display: flex;
}
.acts button {
  display: grid;
  place-items: center;
  width: 24px;
  height: 28px;
  padding: 0;
  border: 0;
  background: none;
}
.acts button:disabled {
  color: var(--rule);
}
input[type='checkbox'] {
  width: 19px;
  height: 19px;
  accent-color: var(--damson);
}
.little {
  width: 15px;
  height: 20px;
  margin-right: 9px;
}
.option {
  display: grid;
  flex: 1;
  margin-right: 14px;
}
.option small {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
