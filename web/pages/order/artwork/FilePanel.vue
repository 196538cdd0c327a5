<script setup lang="ts">
/** What a file leaves open: its page, its unit, the typeface of its text. */
import { computed, onMounted, ref } from 'vue';
import type { FontInfo } from '../../../../contracts/api';
import type { Offers, PageBox } from '../../../../core/readers/artwork';
import type { FileSource, Piece } from '../../../../core/artwork/choices';
import { PRINTED_AS_IT_IS } from '../../../../core/artwork/choices';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import { call } from '../../../stores/api';
import { useArtwork } from '../../../stores/artwork';
import { useUnits } from '../../../stores/units';

const props = defineProps<{ piece: Piece; source: FileSource; offers: Offers }>();
const art = useArtwork();
const units = useUnits();
const fonts = ref<FontInfo[]>([]);
onMounted(async () => {
  if (props.offers.fonts) fonts.value = await call('GET /api/fonts').catch(() => []);
});
const BOXES: Readonly<Record<PageBox, string>> = {
  crop: 'as a viewer shows it',
  media: 'the whole sheet',
  trim: 'trimmed',
  bleed: 'with its bleed',
  art: 'the art alone',
};
function set(change: Partial<FileSource>): void {
  const source = { ...props.source, ...change };
  // read anew it may have another size: only one that was typed for it stays
  art.change({ pieces: art.choices.pieces.map((p) => (p.id === props.piece.id ? { ...p, source } : p)) });
}
const sizeOf = ({ width, height }: { readonly width: number; readonly height: number }): string =>
  `${units.number(width)} × ${units.length(height)}`;
const page = computed(() => props.source.page ?? 1);
const WAYS = [
  { value: 'shapes', label: 'its shapes, by colour' },
  { value: 'print', label: 'printed as it is' },
] as const;
const way = computed(() => (props.source.trace?.by === 'print' ? 'print' : 'shapes'));
</script>

<template>
  <ChoiceRow
    v-if="offers.asIs"
    label="Drawing"
    :value="way"
    :options="WAYS"
    @change="set({ trace: $event === 'print' ? PRINTED_AS_IT_IS : null })"
  />
  <ChoiceRow
    v-if="offers.pages"
    label="Page"
    :value="page"
    :options="offers.pages.map((p) => ({ value: p.value, label: `${p.value} · ${sizeOf(p)}` }))"
    @change="set({ page: $event })"
  />
  <ChoiceRow
    v-if="offers.boxes"
    label="Part of the page"
    :value="source.box ?? 'crop'"
    :options="offers.boxes.map((b) => ({ value: b.value, label: `${BOXES[b.value]} · ${sizeOf(b)}` }))"
    @change="set({ box: $event })"
  />
  <div v-if="offers.units" class="units" role="group" aria-label="Unit of the drawing">
    <p class="hint">The drawing does not say its unit. One unit is</p>
    <button
      v-for="u in offers.units"
      :key="u.value"
      :aria-pressed="source.units === u.value"
      @click="set({ units: u.value })"
    >
      <b>1 {{ u.value }}</b>
      <small class="number">{{ units.number(u.width) }} × {{ units.length(u.height) }}</small>
    </button>
  </div>
  <ChoiceRow
    v-if="offers.fonts"
    label="Text is set in"
    :value="source.font ?? 'archivo'"
    :options="fonts.filter((f) => !f.own).map((f) => ({ value: f.id, label: f.name }))"
    @change="set({ font: $event })"
  />
</template>

<style scoped>
.row :deep(.p-select) {
  max-width: 190px;
}
.units {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.units p {
  flex-basis: 100%;
}
.units button {
  display: grid;
  padding: 3px 9px;
  text-align: left;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-field);
}
.units button[aria-pressed='true'] {
  background: var(--damson-soft);
  border-color: var(--damson);
}
.units small {
  font-size: 12px;
  color: var(--ink-soft);
}
</style>
