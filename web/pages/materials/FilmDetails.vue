<script setup lang="ts">
/** A film's rolls, its colour in both ways of writing, and what it bears. */
import { Plus, X } from '@lucide/vue';
import { computed } from 'vue';
import { hexOfLab, labOf } from '../../../core/films/colour';
import type { Film, FilmLimits, Roll } from '../../../core/films/film';
import { limitsOf } from '../../../core/films/film';
import LengthField from '../../parts/LengthField.vue';

const props = defineProps<{ film: Film }>();
const emit = defineEmits<{ change: [what: Partial<Film>] }>();

const limits = computed(() => limitsOf(props.film));
const setLimit = (what: Partial<FilmLimits>): void =>
  emit('change', { limits: { ...props.film.limits, ...what } });

function setRoll(index: number, what: Partial<Roll>): void {
  emit('change', { rolls: props.film.rolls.map((roll, i) => (i === index ? { ...roll, ...what } : roll)) });
}
const dropRoll = (index: number): void =>
  emit('change', { rolls: props.film.rolls.filter((_, i) => i !== index) });
const addRoll = (): void =>
  emit('change', { rolls: [...props.film.rolls, { width: 610, lengthLeft: 10_000 }] });

const AXES = [
  ['l', 'L*', 0, 100],
  ['a', 'a*', -128, 128],
  ['b', 'b*', -128, 128],
] as const;
const lab = computed(() => labOf(props.film.colour));
const text = (event: Event): string => (event.target as HTMLInputElement).value;

function setAxis(axis: 'l' | 'a' | 'b', event: Event): void {
  const value = Number(text(event).replace(',', '.'));
  if (Number.isFinite(value)) emit('change', { colour: hexOfLab({ ...lab.value, [axis]: value }) });
}
function setHex(event: Event): void {
  const colour = text(event).trim().toLowerCase().replace(/^#?/, '#');
  if (/^#[0-9a-f]{6}$/.test(colour)) emit('change', { colour });
  else (event.target as HTMLInputElement).value = props.film.colour;
}
function whole(event: Event, set: (value: number) => void): void {
  const value = Number(text(event).replace(',', '.'));
  if (text(event).trim() !== '' && Number.isFinite(value) && value >= 0) set(value);
}
</script>

<template>
  <div class="details">
    <section>
      <h3>Rolls on the shelf</h3>
      <div v-for="(roll, i) in film.rolls" :key="i" class="line">
        <LengthField
          :label="`Width of roll ${i + 1} of ${film.name}`"
          :value="roll.width"
          :min="20"
          :max="5000"
          @change="setRoll(i, { width: $event })"
        />
        <LengthField
          :label="`Length left on roll ${i + 1} of ${film.name}`"
          :value="roll.lengthLeft"
          :max="10000000"
          @change="setRoll(i, { lengthLeft: $event })"
        />
        <button class="icon" :aria-label="`Take roll ${i + 1} of ${film.name} away`" @click="dropRoll(i)">
          <X :size="15" />
        </button>
      </div>
      <button class="button small" @click="addRoll"><Plus :size="15" aria-hidden="true" />Add a roll</button>
    </section>
    <section>
      <h3>Colour</h3>
      <div class="line">
        <input
          type="color"
          :value="film.colour"
          :aria-label="`Colour of ${film.name}`"
          @change="$emit('change', { colour: text($event) })"
        />
        <input class="number hex" :value="film.colour" :aria-label="`Hex of ${film.name}`" @change="setHex" />
      </div>
      <div class="line">
        <label v-for="[axis, name, least, most] in AXES" :key="axis"
          >{{ name
          }}<input
            class="number"
            type="number"
            step="0.1"
            :min="least"
            :max="most"
            :value="lab[axis].toFixed(1)"
            :aria-label="`${name} of ${film.name}`"
            @change="setAxis(axis, $event)"
        /></label>
      </div>
    </section>
    <section>
      <h3>What it bears</h3>
      <div class="grid">
        <span>Narrowest stem</span>
        <LengthField
          fine
          :label="`Narrowest stem of ${film.name}`"
          :value="limits.narrowest"
          :max="100"
          @change="setLimit({ narrowest: $event })"
        />
        <span>Narrowest gap</span>
        <LengthField
          fine
          :label="`Narrowest gap of ${film.name}`"
          :value="limits.gap"
          :max="100"
          @change="setLimit({ gap: $event })"
        />
        <span>Smallest loose piece</span>
        <span class="figure"
          ><input
            class="number"
            :value="limits.island"
            :aria-label="`Smallest island of ${film.name}, mm²`"
            @change="whole($event, (island) => setLimit({ island }))"
          />mm²</span
        >
        <span>Films on one another</span>
        <span class="figure"
          ><input
            class="number"
            type="number"
            min="1"
            max="20"
            :value="limits.stack"
            :aria-label="`Films that may lie on one another on ${film.name}`"
            @change="
              whole($event, (stack) => setLimit({ stack: Math.min(20, Math.max(1, Math.round(stack))) }))
            "
          />with it</span
        >
        <span>Runs true for</span>
        <LengthField
          :label="`How long ${film.name} runs true`"
          :value="limits.track"
          :min="10"
          :max="1000000"
          @change="setLimit({ track: $event })"
        />
      </div>
    </section>
  </div>
</template>

<style scoped>
.details {
  display: grid;
  grid-template-columns: auto auto auto;
  gap: 34px;
  justify-content: start;
  padding: 4px 0 14px;
}
h3 {
  margin: 0 0 7px;
  font: 620 14px/1.2 var(--text);
  color: var(--ink-soft);
}
section {
  display: grid;
  align-content: start;
  justify-items: start;
}
.line {
  display: flex;
  gap: 7px;
  align-items: center;
  margin-bottom: 6px;
}
.grid {
  display: grid;
  grid-template-columns: auto auto;
  gap: 5px 12px;
  align-items: center;
}
:deep(.field input) {
  width: 116px;
  min-height: 30px;
}
input.number,
.hex {
  width: 76px;
  min-height: 30px;
  padding: 0 6px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
}
.hex {
  width: 92px;
}
label {
  display: flex;
  gap: 5px;
  align-items: center;
}
.figure {
  display: flex;
  gap: 7px;
  align-items: center;
}
input[type='color'] {
  width: 42px;
  height: 30px;
  padding: 2px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
}
.icon {
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  padding: 0;
  background: none;
  border: 0;
  border-radius: var(--radius-field);
}
.icon:hover {
  background: var(--rule-soft);
}
</style>
