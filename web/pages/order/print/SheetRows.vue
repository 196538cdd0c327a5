<script setup lang="ts">
/** What is printed on, how large it is, and how copies lie on it. */
import { computed } from 'vue';
import type { PrintChoices } from '../../../../core/print/choices';
import { ISO_SHEETS } from '../../../../core/print/choices';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import FoldOut from '../../../parts/FoldOut.vue';
import LengthField from '../../../parts/LengthField.vue';
import LengthRow from '../../../parts/LengthRow.vue';
import OnlyFor from '../../../parts/OnlyFor.vue';
import NumberField from '../../../parts/NumberField.vue';
import { useOrder } from '../../../stores/order';
import { useUnits } from '../../../stores/units';

const { print } = defineProps<{ print: PrintChoices }>();
const emit = defineEmits<{ change: [change: Partial<PrintChoices>] }>();
const store = useOrder();
const units = useUnits();

const films = computed(() => (store.shop?.films ?? []).filter((film) => film.print && !film.putAway));
const filmOptions = computed(() => films.value.map(({ id, name }) => ({ value: id, label: name })));
const film = computed(() => store.plan!.printed?.film ?? films.value[0]);

/** No size looks so. */
const OF_FILM = 'film';
const key = ({ width, height }: { width: number; height: number }): string => `${width}x${height}`;
const sizes = computed(() => {
  const shelf = (film.value?.rolls ?? []).flatMap(({ width, lengthLeft, sheets }) =>
    sheets === undefined ? [] : [{ width: lengthLeft, height: width, says: 'on the shelf' }],
  );
  const iso = Object.entries(ISO_SHEETS).map(([name, [short, long]]) => ({
    width: long,
    height: short,
    says: name,
  }));
  const known = new Map([...iso, ...shelf].map((size) => [key(size), size]));
  if (print.sheet && !known.has(key(print.sheet))) known.set(key(print.sheet), { ...print.sheet, says: '' });
  return [...known.values()];
});
const sheetOptions = computed(() => [
  { value: OF_FILM as string, label: 'as the film comes' },
  ...sizes.value.map((size) => ({
    value: key(size),
    label: `${units.number(size.width)} × ${units.length(size.height)}${size.says ? `, ${size.says}` : ''}`,
  })),
]);
function pickSheet(value: string): void {
  const size = sizes.value.find((one) => key(one) === value);
  emit('change', { sheet: size ? { width: size.width, height: size.height } : null });
}
const PACKS = [
  { value: 'rows', label: 'in rows' },
  { value: 'close', label: 'close together' },
] as const;
const printer = computed(() => store.shop!.printer);
/** What the shop says of its printer: name, words, and the most, mm. */
const PRINTER = [
  ['edge', 'Leaves at each edge', 200],
  ['widest', 'Takes so wide', 10_000],
  ['longest', 'Prints so long', 100_000],
] as const;
const first = computed(() => store.plan!.printed?.sheets[0]);
</script>

<template>
  <ChoiceRow
    label="Printed on"
    :value="film?.id ?? ''"
    :options="filmOptions"
    @change="emit('change', { film: $event })"
  />
  <ChoiceRow
    label="Sheet"
    :value="print.sheet ? key(print.sheet) : OF_FILM"
    :options="sheetOptions"
    @change="pickSheet"
  />
  <div v-if="first" class="row">
    <span>Long · wide</span>
    <span class="two">
      <LengthField
        label="Length of the sheet"
        :value="first.width"
        :min="50"
        :max="10_000"
        @change="emit('change', { sheet: { width: $event, height: first.height } })"
      />
      <LengthField
        label="Width of the sheet"
        :value="first.height"
        :min="50"
        :max="10_000"
        @change="emit('change', { sheet: { width: first.width, height: $event } })"
      />
    </span>
  </div>
  <LengthRow
    label="Free at its edges"
    full-label="Free at the edges of the sheet"
    :value="print.edge"
    :max="500"
    @change="emit('change', { edge: $event })"
  />
  <ChoiceRow
    label="Copies lie"
    full-label="How copies lie on the sheet"
    :value="print.pack"
    :options="PACKS"
    @change="emit('change', { pack: $event })"
  />
  <LengthRow
    label="Between prints"
    :value="print.spacing"
    :max="1000"
    @change="emit('change', { spacing: $event })"
  />
  <div class="row">
    <span>Copies · spare ones</span>
    <span class="two">
      <NumberField
        label="Copies to print"
        :value="store.choices!.layout.copies"
        :min="1"
        :max="1000"
        @change="store.change({ layout: { ...store.choices!.layout, copies: $event } })"
      />
      <NumberField
        label="Spare copies"
        :value="print.spare"
        :max="1000"
        @change="emit('change', { spare: $event })"
      />
    </span>
  </div>
  <FoldOut :title="`${printer.name}, for all orders`" name="printer">
    <OnlyFor role="lead" says="A lead changes this.">
      <LengthRow
        v-for="[name, word, most] in PRINTER"
        :key="name"
        :label="word"
        :full-label="`${word}, ${printer.name}`"
        :value="printer[name]"
        :min="name === 'edge' ? 0 : 50"
        :max="most"
        @change="store.changeShop({ printer: { ...printer, [name]: $event } })"
      />
    </OnlyFor>
  </FoldOut>
</template>

<style scoped>
.two {
  display: flex;
  gap: 6px;
}
.two :deep(input) {
  width: 6.4em;
}
.two :deep(.p-inputtext) {
  width: 5em;
}
.row :deep(.p-select) {
  width: 190px;
}
</style>
