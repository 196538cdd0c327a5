<script setup lang="ts">
/** One film of the catalogue: what is looked for at a glance, the rest when it is opened. */
import { ChevronRight } from '@lucide/vue';
import { computed } from 'vue';
import type { Build, Film, Finish } from '../../../core/films/film';
import { BUILDS, buildOf, FINISHES, finishOf, stockOf } from '../../../core/films/film';
import { useUnits } from '../../stores/units';
import FilmDetails from './FilmDetails.vue';

const props = defineProps<{ film: Film; open: boolean }>();
const emit = defineEmits<{ change: [what: Partial<Film>]; toggle: [] }>();
const units = useUnits();

/** Less than this on all rolls together is soon used up, mm. */
const SHORT = 2000;
const short = computed(() => stockOf(props.film) < SHORT);
const text = (event: Event): string => (event.target as HTMLInputElement).value;
function price(event: Event): void {
  const value = Number(text(event).replace(',', '.'));
  if (text(event).trim() !== '' && Number.isFinite(value) && value >= 0) emit('change', { price: value });
}
</script>

<template>
  <tr :class="{ open }">
    <td>
      <button
        class="opener"
        :aria-expanded="open"
        :aria-label="`Rolls, colour and limits of ${film.name}`"
        @click="$emit('toggle')"
      >
        <ChevronRight :size="16" aria-hidden="true" />
      </button>
    </td>
    <td>
      <span class="name"
        ><i class="swatch" :style="{ '--film': film.colour }"></i
        ><input
          :value="film.name"
          :aria-label="`Name of ${film.name}`"
          @change="$emit('change', { name: text($event) })"
      /></span>
    </td>
    <td>
      <input
        class="number code"
        :value="film.code"
        :aria-label="`Code of ${film.name}`"
        @change="$emit('change', { code: text($event) })"
      />
    </td>
    <td>
      <select
        :value="buildOf(film)"
        :aria-label="`What ${film.name} is made as`"
        @change="$emit('change', { build: text($event) as Build })"
      >
        <option v-for="b in BUILDS" :key="b">{{ b }}</option>
      </select>
    </td>
    <td>
      <select
        :value="finishOf(film)"
        :aria-label="`Finish of ${film.name}`"
        @change="$emit('change', { finish: text($event) as Finish })"
      >
        <option v-for="f in FINISHES" :key="f">{{ f }}</option>
      </select>
    </td>
    <td class="number" :class="{ short }">
      <span v-if="film.rolls.length === 0" class="soft">none on the shelf</span>
      <span v-for="(roll, i) in film.rolls" :key="i" class="roll"
        >{{ units.length(roll.width) }} · {{ units.run(roll.lengthLeft) }}</span
      >
    </td>
    <td class="middle">
      <input
        type="checkbox"
        :checked="film.cutFromBack"
        :aria-label="`${film.name} is cut from the back`"
        @change="$emit('change', { cutFromBack: ($event.target as HTMLInputElement).checked })"
      />
    </td>
    <td>
      <input
        class="number figure"
        :value="film.price ?? ''"
        :aria-label="`Price per metre of ${film.name}`"
        @change="price"
      />
    </td>
  </tr>
  <tr v-if="open" class="details">
    <td></td>
    <td colspan="7"><FilmDetails :film="film" @change="$emit('change', $event)" /></td>
  </tr>
</template>

<style scoped>
td {
  padding: 2px 9px;
  font-size: 14px;
  white-space: nowrap;
  border-bottom: 1px solid var(--rule-soft);
}
tr.open td,
tr.details td {
  background: var(--paper);
}
tr.open td {
  border-bottom-color: transparent;
}
.opener {
  display: grid;
  place-items: center;
  width: 26px;
  height: 28px;
  padding: 0;
  background: none;
  border: 0;
  border-radius: var(--radius-field);
}
.opener[aria-expanded='true'] svg {
  transform: rotate(90deg);
}
.short {
  background: var(--quince-soft);
}
.roll + .roll::before {
  content: '+ ';
  margin-left: 9px;
  color: var(--ink-soft);
}
.middle {
  text-align: center;
}
.name {
  display: flex;
  align-items: center;
  gap: 9px;
}
.swatch {
  flex: none;
  width: 19px;
  height: 25px;
}
input:not([type]) {
  width: 168px;
  min-height: 30px;
  padding: 0 5px;
  font: inherit;
  background: none;
  border: 1px solid transparent;
  border-radius: var(--radius-field);
}
input.number {
  font-family: var(--numbers) !important;
}
input.code {
  width: 84px !important;
}
input.figure {
  width: 64px !important;
  text-align: right;
}
tr:hover input:not([type]),
input:focus {
  border-color: var(--rule) !important;
}
input[type='checkbox'] {
  width: 18px;
  height: 18px;
  accent-color: var(--damson);
}
select {
  min-height: 30px;
  font: inherit;
  background: none;
  border: 1px solid transparent;
  border-radius: var(--radius-field);
}
tr:hover select {
  border-color: var(--rule);
}
</style>
