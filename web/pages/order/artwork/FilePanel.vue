<script setup lang="ts">
/** What a file leaves open: its page, its unit, the typeface of its text. */
import { computed, onMounted, ref } from 'vue';
import type { FontInfo } from '../../../../contracts/api';
import type { Offers } from '../../../../core/artwork/artwork';
import type { FileSource, PageBox, Piece } from '../../../../core/artwork/choices';
import { call } from '../../../stores/api';
import { useArtwork } from '../../../stores/artwork';
import { useUnits } from '../../../stores/units';

const props = defineProps<{ piece: Piece; source: FileSource; offers: Offers }>();
const art = useArtwork();
const units = useUnits();
const fonts = ref<FontInfo[]>([]);
onMounted(async () => {
  if (props.offers.fonts) fonts.value = await call<FontInfo[]>('GET', '/api/fonts').catch(() => []);
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
const value = (event: Event): string => (event.target as HTMLSelectElement).value;
const page = computed(() => props.source.page ?? 1);
</script>

<template>
  <label v-if="offers.pages" class="row"
    ><span>Page</span>
    <select :value="page" aria-label="Page" @change="set({ page: Number(value($event)) })">
      <option v-for="p in offers.pages" :key="p.value" :value="p.value">
        {{ p.value }} · {{ units.number(p.width) }} × {{ units.length(p.height) }}
      </option>
    </select></label
  >
  <label v-if="offers.boxes" class="row"
    ><span>Part of the page</span>
    <select
      :value="source.box ?? 'crop'"
      aria-label="Part of the page"
      @change="set({ box: value($event) as PageBox })"
    >
      <option v-for="b in offers.boxes" :key="b.value" :value="b.value">
        {{ BOXES[b.value] }} · {{ units.number(b.width) }} × {{ units.length(b.height) }}
      </option>
    </select></label
  >
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
  <label v-if="offers.fonts" class="row"
    ><span>Text is set in</span>
    <select
      :value="source.font ?? 'archivo'"
      aria-label="Text is set in"
      @change="set({ font: value($event) })"
    >
      <option v-for="f in fonts.filter((x) => !x.own)" :key="f.id" :value="f.id">{{ f.name }}</option>
    </select></label
  >
</template>

<style scoped>
select {
  min-width: 0;
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
