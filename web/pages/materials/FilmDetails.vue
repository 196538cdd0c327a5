<script setup lang="ts">
/** A film's rolls, its colour in both ways of writing, and what it bears. */
import { Plus, X } from '@lucide/vue';
import Checkbox from 'primevue/checkbox';
import { computed } from 'vue';
import { hexOfLab, labOf } from '../../../core/colour/colour';
import type { Film, FilmLimits, Roll } from '../../../core/films/film';
import { hasGrain, limitsOf, PRINT_GROUNDS, thicknessOf } from '../../../core/films/film';
import { lowOf, packOf } from '../../../core/films/ordering';
import DraftField from '../../parts/DraftField.vue';
import ChoiceField from '../../parts/ChoiceField.vue';
import LengthField from '../../parts/LengthField.vue';
import NumberField from '../../parts/NumberField.vue';

const props = defineProps<{ film: Film }>();
const emit = defineEmits<{ change: [what: Partial<Film>] }>();

const limits = computed(() => limitsOf(props.film));
const setLimit = (what: Partial<FilmLimits>): void =>
  emit('change', { limits: { ...props.film.limits, ...what } });

function setRoll(index: number, what: Partial<Roll>): void {
  emit('change', { rolls: props.film.rolls.map((roll, i) => (i === index ? { ...roll, ...what } : roll)) });
}
const pack = computed(() => packOf(props.film));
const setPack = (what: Partial<Roll>): void => emit('change', { pack: { ...pack.value, ...what } });
const dropRoll = (index: number): void =>
  emit('change', { rolls: props.film.rolls.filter((_, i) => i !== index) });
const add = (roll: Roll): void => emit('change', { rolls: [...props.film.rolls, roll] });

const AXES = [
  ['l', 'L*', 0, 100],
  ['a', 'a*', -128, 128],
  ['b', 'b*', -128, 128],
] as const;
const lab = computed(() => labOf(props.film.colour));
const text = (event: Event): string => (event.target as HTMLInputElement).value;

function readHex(typed: string): string | undefined {
  const colour = typed.toLowerCase().replace(/^#?/, '#');
  return /^#[0-9a-f]{6}$/.test(colour) ? colour : undefined;
}
/** Whether it is printed on, and what shows where nothing is. */
const NOT_PRINTED = 'no' as const;
const PRINTED = ([NOT_PRINTED, ...PRINT_GROUNDS] as const).map((value) => ({ value, label: value }));
</script>

<template>
  <div class="details">
    <section>
      <h3>
        Rolls, sheets and offcuts on the shelf
        <router-link class="button slim" :to="{ name: 'recipes', params: { film: film.id } }"
          >Recipes</router-link
        >
      </h3>
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
        <span v-if="roll.offcut !== undefined" class="number">{{ roll.offcut }}</span>
        <label v-else-if="roll.sheets !== undefined"
          >×<NumberField
            :value="roll.sheets"
            :label="`Sheets in pile ${i + 1} of ${film.name}`"
            :max="100_000"
            @change="setRoll(i, { sheets: $event })"
        /></label>
        <button class="icon" :aria-label="`Take roll ${i + 1} of ${film.name} away`" @click="dropRoll(i)">
          <X :size="15" />
        </button>
      </div>
      <div class="line">
        <button class="button small" @click="add({ width: 610, lengthLeft: 10_000 })">
          <Plus :size="15" aria-hidden="true" />Add a roll
        </button>
        <button class="button small" @click="add({ width: 500, lengthLeft: 700, sheets: 10 })">
          <Plus :size="15" aria-hidden="true" />Add sheets
        </button>
      </div>
      <div class="line">
        <span>Ordered when less is left than</span>
        <LengthField
          :label="`${film.name} is ordered when less is left than`"
          :value="lowOf(film)"
          :max="1000000"
          @change="$emit('change', { low: $event })"
        />
      </div>
      <div class="line">
        <span>Bought as</span>
        <LengthField
          :label="`Width of ${film.name} as it is bought`"
          :value="pack.width"
          :min="20"
          :max="5000"
          @change="setPack({ width: $event })"
        />
        <span>×</span>
        <LengthField
          :label="`Length of ${film.name} as it is bought`"
          :value="pack.lengthLeft"
          :min="20"
          :max="1000000"
          @change="setPack({ lengthLeft: $event })"
        />
        <label v-if="pack.sheets !== undefined"
          >×<NumberField
            :value="pack.sheets"
            :label="`Sheets of ${film.name} in a pack`"
            :min="1"
            :max="100_000"
            @change="setPack({ sheets: $event })"
        /></label>
      </div>
      <div class="line">
        <button class="button small" @click="$emit('change', { putAway: !film.putAway })">
          {{ film.putAway ? 'Offer it again' : 'Put this film away' }}
        </button>
      </div>
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
        <DraftField
          class="number hex"
          :value="film.colour"
          :label="`Hex of ${film.name}`"
          :read="readHex"
          @change="$emit('change', { colour: $event })"
        />
      </div>
      <div class="line">
        <label v-for="[axis, name, least, most] in AXES" :key="axis"
          >{{ name
          }}<NumberField
            :min="least"
            :max="most"
            :digits="1"
            :value="lab[axis]"
            :label="`${name} of ${film.name}`"
            @change="$emit('change', { colour: hexOfLab({ ...lab, [axis]: $event }) })"
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
        <span>Smallest loose shape</span>
        <span class="figure"
          ><NumberField
            :value="limits.island"
            :label="`Smallest island of ${film.name}, mm²`"
            :digits="1"
            :max="1000"
            @change="setLimit({ island: $event })"
          />mm²</span
        >
        <span>Films on one another</span>
        <span class="figure"
          ><NumberField
            :min="1"
            :max="20"
            :value="limits.stack"
            :label="`Films that may lie on one another on ${film.name}`"
            @change="setLimit({ stack: $event })"
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
        <span title="A cutter takes film up to what goes under its knife">Thick, with its backing</span>
        <LengthField
          fine
          :label="`Thickness of ${film.name}`"
          :value="thicknessOf(film)"
          :min="0.01"
          :max="20"
          @change="$emit('change', { thickness: $event })"
        />
        <span title="It is never turned by a quarter">Has a grain</span>
        <Checkbox
          binary
          :model-value="hasGrain(film)"
          :aria-label="`${film.name} has a grain`"
          @update:model-value="$emit('change', { grain: $event })"
        />
        <span title="Colours that go to print are laid on it">Printed on</span>
        <ChoiceField
          :label="`Whether ${film.name} is printed on`"
          :value="film.print ?? NOT_PRINTED"
          :options="PRINTED"
          @change="$emit('change', { print: $event === NOT_PRINTED ? null : $event })"
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
input.number {
  width: 76px;
  min-height: 30px;
}
input.hex {
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
@media (max-width: 1180px) {
  .details {
    gap: 18px;
  }
  .line :deep(input) {
    max-width: 8em;
  }
}
</style>
