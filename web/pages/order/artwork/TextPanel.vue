<script setup lang="ts">
/** Typed text: sized by the height of a capital, or by its finished width. */
import { computed, onMounted, ref, watch } from 'vue';
import type { FontInfo } from '../../../../contracts/api';
import type { Piece, TextSource } from '../../../../core/artwork/choices';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import LengthRow from '../../../parts/LengthRow.vue';
import NumberField from '../../../parts/NumberField.vue';
import SliderRow from '../../../parts/SliderRow.vue';
import { call } from '../../../stores/api';
import { useArtwork } from '../../../stores/artwork';
import TypefaceRow from './TypefaceRow.vue';

const props = defineProps<{ piece: Piece; source: TextSource }>();
const art = useArtwork();
const fonts = ref<FontInfo[]>([]);
const text = ref(props.source.text);
onMounted(async () => (fonts.value = await call('GET /api/fonts').catch(() => [])));

const PAUSE = 250;
let timer: ReturnType<typeof setTimeout> | undefined;
watch(text, (now) => {
  clearTimeout(timer);
  timer = setTimeout(() => now !== props.source.text && set({ text: now }), PAUSE);
});
watch(
  () => props.source.text,
  (now) => (text.value = now),
);

/** A new height of capitals counts: a width that was typed before gives way to it. */
function set(change: Partial<TextSource>): void {
  const source = { ...props.source, ...change };
  const own = change.capHeight === undefined ? {} : { width: null, height: null };
  const name = source.text.split('\n')[0].trim().slice(0, 40) || 'Text';
  const whole = change.capHeight === undefined ? {} : { width: null, height: null };
  art.change({
    ...(art.pieces.length === 1 ? whole : {}),
    pieces: art.choices.pieces.map((p) => (p.id === props.piece.id ? { ...p, ...own, name, source } : p)),
  });
}
/** A finished width or height stretches what was typed: the field shows what a capital really comes to. */
const capital = computed(() => {
  const placed = art.placed.find(({ id }) => id === props.piece.id);
  const stretch = placed && placed.natural.height > 0 ? placed.height / placed.natural.height : 1;
  return props.source.capHeight * stretch;
});
const value = (event: Event): string => (event.target as HTMLInputElement).value;
const font = computed(() => fonts.value.find(({ id }) => id === props.source.font));
/** While the weight is dragged. */
const moving = ref<number>();
const weight = computed(() => moving.value ?? props.source.weight);
function setWeight(to: number): void {
  moving.value = undefined;
  set({ weight: to });
}
const ALIGN = [
  { value: 'left', label: 'flush left' },
  { value: 'middle', label: 'centred' },
  { value: 'right', label: 'flush right' },
] as const;
</script>

<template>
  <textarea v-model="text" rows="2" aria-label="Text" spellcheck="false"></textarea>
  <TypefaceRow v-model:fonts="fonts" :value="source.font" @change="set({ font: $event })" />
  <LengthRow
    label="Height of a capital"
    :value="capital"
    :min="1"
    :max="10000"
    @change="set({ capHeight: $event })"
  />
  <SliderRow
    v-if="font && font.lightest !== font.heaviest"
    label="Weight"
    :min="font.lightest"
    :max="font.heaviest"
    :step="10"
    :value="weight"
    :says="String(weight)"
    @move="moving = $event"
    @change="setWeight"
  />
  <div class="row">
    <span>Room between letters</span>
    <NumberField
      label="Room between letters"
      :value="source.tracking"
      :min="-1"
      :max="10"
      :digits="2"
      @change="set({ tracking: $event })"
    />
  </div>
  <div class="row">
    <span>Line to line</span>
    <NumberField
      label="Line to line"
      :value="source.lineSpacing"
      :min="0.3"
      :max="10"
      :digits="2"
      @change="set({ lineSpacing: $event })"
    />
  </div>
  <ChoiceRow label="Lines" :value="source.align" :options="ALIGN" @change="set({ align: $event })" />
  <LengthRow
    label="Bent over a circle of"
    :value="source.arcRadius"
    :min="-100000"
    :max="100000"
    @change="set({ arcRadius: $event })"
  />
  <div class="row">
    <span>Colour</span>
    <input
      type="color"
      aria-label="Colour of the text"
      :value="source.colour"
      @change="set({ colour: value($event) })"
    />
  </div>
</template>

<style scoped>
textarea {
  width: 100%;
  padding: 6px 8px;
  font: 600 17px/1.25 var(--text);
  color: inherit;
  resize: vertical;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
}
input.number {
  width: 96px;
  text-align: right;
}
input[type='color'] {
  width: 46px;
  height: 29px;
  padding: 2px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
}
</style>
