<script setup lang="ts">
/** One printed sheet, large: what is printed and what is cut are two views of it. */
import { useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import type { LineKind } from '../../../../core/artwork/choices';
import type { Bounds } from '../../../../core/geometry/bounds';
import StageCanvas from '../../../stage/StageCanvas.vue';
import StageHead from '../../../stage/StageHead.vue';
import { useOrder } from '../../../stores/order';
import { useStage } from '../../../stores/stage';
import { duration, useUnits } from '../../../stores/units';
import { kindName } from '../artwork/kinds';
import type { SheetView } from '../../../workers/packedSheets';
import type { SheetLook } from './drawSheet';
import { sheetDrawer } from './drawSheet';
import LineSwatch from '../LineSwatch.vue';
import { usePictures } from './pictures';
import PickForLine from './PickForLine.vue';
import SheetMarks from './SheetMarks.vue';

const emit = defineEmits<{ point: [at: { x: number; y: number } | undefined] }>();
const store = useOrder();
const stage = useStage();
const pick = ref<InstanceType<typeof PickForLine>>();
const units = useUnits();
const printed = computed(() => store.plan!.printed!);
const picked = ref<string>();
const sheet = computed(
  () => printed.value.sheets.find(({ id }) => id === picked.value) ?? printed.value.sheets[0],
);
const LOOKS: readonly (readonly [SheetLook, string])[] = [
  ['both', 'Both'],
  ['printed', 'Printed'],
  ['cut', 'Cut'],
];
const look = useLocalStorage<SheetLook>('jam-pan-sheet-look', 'both', {
  serializer: { read: (kept) => LOOKS.find(([name]) => name === kept)?.[0] ?? 'both', write: String },
});
const box = computed<Bounds>(() => ({
  minX: 0,
  minY: 0,
  maxX: sheet.value?.width ?? 1,
  maxY: sheet.value?.height ?? 1,
}));
const pictures = usePictures(() => printed.value.art);
const draw = computed(() => sheetDrawer(printed.value, sheet.value!, look.value, pictures));
/** Kept free around the sheet for what stands beside it, px. */
const ROOM = { top: 26, right: 34, bottom: 30, left: 34 };
const kinds = computed(() => [...new Set((sheet.value?.lines ?? []).map(({ kind }) => kind))] as LineKind[]);
/** Of art in panels a sheet is called by its panel, where that is all of it. */
function nameOf({ panel }: SheetView, i: number, all: readonly SheetView[]): string {
  if (panel === undefined) return `Sheet ${i + 1}`;
  const isOnly = all.filter((one) => one.panel === panel).length === 1;
  return isOnly ? `Panel ${panel}` : `${i + 1} · panel ${panel}`;
}
const choices = computed(() =>
  printed.value.sheets.map((one, i, all) => ({ id: one.id, name: nameOf(one, i, all) })),
);
const says = computed(() => {
  if (!sheet.value) return '';
  const { width, height, places, seconds } = sheet.value;
  return [
    `${units.number(width)} × ${units.length(height)}`,
    `${places.length} on it`,
    `${duration(seconds)} to cut`,
  ].join(' · ');
});
</script>

<template>
  <div class="sheet">
    <StageHead label="Sheets" :choices="choices" :picked="sheet?.id" :says="says" @pick="picked = $event">
      <div v-if="sheet" class="looks" role="group" aria-label="Shown of it">
        <button v-for="[name, word] in LOOKS" :key="name" :aria-pressed="look === name" @click="look = name">
          {{ word }}
        </button>
      </div>
    </StageHead>
    <StageCanvas
      v-if="sheet"
      v-slot="{ view: at }"
      class="canvas"
      :label="`Sheet ${printed.sheets.indexOf(sheet) + 1} of ${printed.sheets.length}`"
      :box="box"
      :draw="draw"
      :content="[sheet, look, pictures.size]"
      :room="ROOM"
      @point="emit('point', $event)"
      @tap="(at, reach) => pick?.tap(at, reach)"
    >
      <SheetMarks :at="at" :sheet="sheet" />
      <PickForLine
        v-if="stage.lineFor !== undefined"
        ref="pick"
        :key="stage.lineFor"
        :line="stage.lineFor"
        :sheet="sheet"
      />
    </StageCanvas>
    <p v-else class="none">No sheet can be laid out yet. See what is to be looked at on the left.</p>
    <div v-if="sheet" class="legend">
      <span><i class="hatch"></i>printer and rollers do not reach</span>
      <span v-for="kind in kinds" :key="kind"><LineSwatch :kind="kind" />{{ kindName(kind) }}</span>
      <span class="soft">printed: art with its bleed, marks, code. Cut lines stay off the paper.</span>
    </div>
  </div>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
}
.looks {
  display: flex;
}
.looks button {
  border-radius: 0;
  margin-left: -1px;
}
.looks button:first-child {
  border-radius: var(--radius-card) 0 0 var(--radius-card);
}
.looks button:last-child {
  border-radius: 0 var(--radius-card) var(--radius-card) 0;
}
.looks button[aria-pressed='true'] {
  z-index: 1;
}
.none {
  margin: 0;
  padding: 20px;
  color: var(--ink-soft);
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
  padding: 6px 14px 14px;
  font-size: 13px;
}
.legend span {
  display: flex;
  align-items: center;
  gap: 7px;
}
.soft {
  color: var(--ink-soft);
}
.hatch {
  width: 20px;
  height: 13px;
  background: repeating-linear-gradient(135deg, #c9bda6 0 1px, var(--card) 1px 5px);
  border: 1px solid #c9bda6;
}
</style>
