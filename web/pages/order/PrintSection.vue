<script setup lang="ts">
/** What is printed is laid on sheets, with marks to be read by and lines to be cut. */
import { until } from '@vueuse/core';
import { computed, ref } from 'vue';
import { addressOf } from '../../../contracts/address';
import type { SheetQuery } from '../../../contracts/print';
import type { PrintChoices } from '../../../core/print/choices';
import { ApiProblem, call } from '../../stores/api';
import { useOrder } from '../../stores/order';
import CutLineRows from './print/CutLineRows.vue';
import MarkRows from './print/MarkRows.vue';
import SheetRows from './print/SheetRows.vue';

const emit = defineEmits<{ again: [sheet: number] }>();
const store = useOrder();
const print = computed(() => store.choices!.print);
const set = (change: Partial<PrintChoices>): void => store.change({ print: { ...print.value, ...change } });
const isPrinted = computed(() => store.plan!.colours.some(({ goesTo }) => goesTo === 'print'));
const sheets = computed(() => store.plan!.printed?.sheets ?? []);

/** Sheets go to the printer one after the other; the first that does not ends it. */
const printing = ref(false);
const printedNow = ref('');
const canPrint = computed(
  () =>
    sheets.value.length > 0 &&
    !printing.value &&
    store.saving !== 'waiting' &&
    store.plan!.findings.every(({ stage, severity }) => stage !== 'print' || severity !== 'stop'),
);
async function send(which: () => readonly string[]): Promise<void> {
  const { id } = store.order!;
  printing.value = true;
  printedNow.value = '';
  try {
    // what was just changed is printed as it was changed
    await until(() => store.isUpToDate).toBe(true);
    // another order was opened meanwhile
    if (store.order?.id !== id) return;
    const ids = which();
    for (const sheet of ids)
      await call('POST /api/orders/{id}/sheets/{sheet}/print', { params: { id, sheet } });
    const { name } = store.shop!.printer;
    printedNow.value = `${ids.length === 1 ? 'It lies' : 'They lie'} in ${name}’s tray.`;
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    store.problem = error;
  } finally {
    printing.value = false;
  }
}
const printSheets = (): Promise<void> => send(() => sheets.value.map(({ id }) => id));
const printOne = (id: string): Promise<void> => send(() => [id]);
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
    <button class="button" @click="store.printAll()">Print all colours</button>
  </template>
  <template v-else>
    <CutLineRows :print="print" @change="set" />
    <MarkRows :print="print" @change="set" />
    <SheetRows :print="print" @change="set" />
    <div class="acts">
      <button class="button" :disabled="!canPrint" @click="printSheets">
        {{
          printing ? 'Printing …' : sheets.length === 1 ? 'Print the sheet' : `Print ${sheets.length} sheets`
        }}
      </button>
      <span v-if="printedNow" class="hint" role="status">{{ printedNow }}</span>
    </div>
    <div v-for="(sheet, i) in sheets" :key="sheet.id" class="files">
      <span class="hint">{{ sheets.length === 1 ? 'The sheet' : `Sheet ${i + 1} of ${sheets.length}` }}</span>
      <button v-if="sheets.length > 1" class="button small" :disabled="!canPrint" @click="printOne(sheet.id)">
        Print it
      </button>
      <button
        v-if="store.canRecut"
        class="button small"
        :aria-label="`Cut sheet ${i + 1} again`"
        @click="emit('again', i + 1)"
      >
        Cut it again
      </button>
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
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
}
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
