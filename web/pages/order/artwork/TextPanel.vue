<script setup lang="ts">
/** Typed text: sized by the height of a capital, or by its finished width. */
import { computed, onMounted, ref, watch } from 'vue';
import type { FontInfo } from '../../../../contracts/api';
import type { Piece, TextSource } from '../../../../core/artwork/choices';
import LengthField from '../../../parts/LengthField.vue';
import { ApiProblem, call, upload } from '../../../stores/api';
import { useArtwork } from '../../../stores/artwork';

const props = defineProps<{ piece: Piece; source: TextSource }>();
const art = useArtwork();
const fonts = ref<FontInfo[]>([]);
const problem = ref('');
const text = ref(props.source.text);
const input = ref<HTMLInputElement>();
onMounted(async () => (fonts.value = await call<FontInfo[]>('GET', '/api/fonts').catch(() => [])));

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
const font = (): FontInfo | undefined => fonts.value.find(({ id }) => id === props.source.font);
const number = (event: Event, key: 'weight' | 'tracking' | 'lineSpacing'): void => {
  const typed = Number(value(event).replace(',', '.'));
  if (Number.isFinite(typed)) set({ [key]: typed });
};

async function bring(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  field.value = '';
  if (!file) return;
  problem.value = '';
  try {
    const known = new Set(fonts.value.map(({ id }) => id));
    fonts.value = await upload<FontInfo[]>('/api/fonts', file, () => {}).done;
    const fresh = fonts.value.find(({ id }) => !known.has(id)) ?? fonts.value.filter(({ own }) => own).at(-1);
    if (fresh) set({ font: fresh.id });
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    problem.value = error.message;
  }
}
</script>

<template>
  <textarea v-model="text" rows="2" aria-label="Text" spellcheck="false"></textarea>
  <div class="row">
    <span>Typeface</span>
    <span class="set">
      <select :value="source.font" aria-label="Typeface" @change="set({ font: value($event) })">
        <option v-for="f in fonts" :key="f.id" :value="f.id">{{ f.name }}{{ f.own ? ' (own)' : '' }}</option>
      </select>
      <button class="button small" @click="input?.click()">Bring one</button>
    </span>
    <input
      ref="input"
      type="file"
      hidden
      accept=".ttf,.otf,.woff,.woff2"
      data-test="add-font"
      @change="bring"
    />
  </div>
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  <div class="row">
    <span>Height of a capital</span
    ><LengthField
      label="Height of a capital"
      :value="capital"
      :min="1"
      :max="10000"
      @change="set({ capHeight: $event })"
    />
  </div>
  <div v-if="font() && font()!.lightest !== font()!.heaviest" class="row">
    <span>Weight</span>
    <input
      type="range"
      aria-label="Weight"
      :min="font()!.lightest"
      :max="font()!.heaviest"
      step="10"
      :value="source.weight"
      @change="number($event, 'weight')"
    />
  </div>
  <div class="row">
    <span>Room between letters</span>
    <input
      class="number"
      aria-label="Room between letters"
      :value="source.tracking"
      @change="number($event, 'tracking')"
    />
  </div>
  <div class="row">
    <span>Line to line</span>
    <input
      class="number"
      aria-label="Line to line"
      :value="source.lineSpacing"
      @change="number($event, 'lineSpacing')"
    />
  </div>
  <div class="row">
    <span>Lines</span>
    <select
      :value="source.align"
      aria-label="Lines"
      @change="set({ align: value($event) as TextSource['align'] })"
    >
      <option value="left">flush left</option>
      <option value="middle">centred</option>
      <option value="right">flush right</option>
    </select>
  </div>
  <div class="row">
    <span>Bent over a circle of</span
    ><LengthField
      label="Bent over a circle of"
      :value="source.arcRadius"
      :min="-100000"
      :max="100000"
      @change="set({ arcRadius: $event })"
    />
  </div>
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
.set {
  display: flex;
  gap: 5px;
}
select {
  max-width: 150px;
}
input.number {
  width: 96px;
  min-height: 31px;
  padding: 0 8px;
  text-align: right;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
}
input[type='range'] {
  width: 150px;
  accent-color: var(--damson);
}
input[type='color'] {
  width: 46px;
  height: 29px;
  padding: 2px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
}
.problem {
  margin: 0;
  font-size: 13px;
  color: var(--currant);
}
</style>
