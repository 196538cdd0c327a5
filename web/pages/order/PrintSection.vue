<script setup lang="ts">
/** What is printed is laid on sheets, with marks to be read by and lines to be cut. */
import { computed } from 'vue';
import { addressOf } from '../../../contracts/address';
import type { SheetQuery } from '../../../contracts/print';
import type { PrintChoices } from '../../../core/print/choices';
import { useOrder } from '../../stores/order';
import CutLineRows from './print/CutLineRows.vue';
import MarkRows from './print/MarkRows.vue';
import SheetRows from './print/SheetRows.vue';

const store = useOrder();
const print = computed(() => store.choices!.print);
const set = (change: Partial<PrintChoices>): void => store.change({ print: { ...print.value, ...change } });
const isPrinted = computed(() => store.plan!.colours.some(({ goesTo }) => goesTo === 'print'));
const sheets = computed(() => store.plan!.printed?.sheets ?? []);

function printAll(): void {
  const colours = store.plan!.colours.map(({ colour }) => colour);
  store.change({ films: { ...store.choices!.films, off: [], print: colours } });
}
const FILES: readonly (readonly [string, Partial<SheetQuery>])[] = [
  ['PDF', {}],
  ['PDF with cut lines', { lines: 'yes' }],
  ['PNG', { as: 'png' }],
  ['Cut as SVG', { as: 'svg' }],
  ['DXF', { as: 'dxf' }],
  ['HP-GL', { as: 'plt' }],
];
const file = (sheet: string, query: Partial<SheetQuery>): string =>
  addressOf('GET /api/orders/{id}/sheets/{sheet}', { params: { id: store.order!.id, sheet }, query });
</script>

<template>
  <template v-if="!isPrinted">
    <p class="hint">
      Everything in this order is cut from film. Colours that go to print lie on a sheet with marks, and a
      line is cut around them.
    </p>
    <button class="button" @click="printAll">Print all colours</button>
  </template>
  <template v-else>
    <CutLineRows :print="print" @change="set" />
    <MarkRows :print="print" @change="set" />
    <SheetRows :print="print" @change="set" />
    <div v-for="(sheet, i) in sheets" :key="sheet.id" class="files">
      <span class="hint">{{ sheets.length === 1 ? 'The sheet' : `Sheet ${i + 1} of ${sheets.length}` }}</span>
      <a
        v-for="[word, query] in FILES"
        :key="word"
        class="button small"
        :href="file(sheet.id, query)"
        download
        >{{ word }}</a
      >
    </div>
  </template>
</template>

<style scoped>
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  align-items: center;
}
.files .hint {
  width: 100%;
}
</style>
