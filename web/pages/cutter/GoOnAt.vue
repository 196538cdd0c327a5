<script setup lang="ts">
/** Going on with a stopped cut at a line that somebody found by looking at the film. */
import Checkbox from 'primevue/checkbox';
import { computed, ref } from 'vue';
import type { Cut, NewFilmSaid } from '../../../contracts/cuts';
import type { Film } from '../../../core/films/film';
import { leftOf } from '../../../core/films/leftover';
import NumberField from '../../parts/NumberField.vue';
import { useUnits } from '../../stores/units';

const props = defineProps<{
  cut: Cut;
  /** The film with what the shelf counts of it. */
  film?: Film;
  busy: boolean;
}>();
defineEmits<{ goOn: [line: number]; newFilm: [said: NewFilmSaid] }>();
const units = useUnits();
const line = ref(Math.min(props.cut.linesDone + 1, props.cut.lines));
/** What the shelf counts of the roll that it is cut from; a sheet or an offcut leaves it as a whole anyway. */
const left = computed(() => {
  const { roll, length, onNewFilm } = props.cut;
  const needed = length - (onNewFilm?.along ?? 0);
  const on = roll && roll.sheets === undefined ? leftOf(props.film?.rolls ?? [], roll, needed) : undefined;
  return on && on.lengthLeft > 0 ? on.lengthLeft : undefined;
});
const isAtEnd = ref(true);
</script>

<template>
  <form class="at" @submit.prevent="$emit('goOn', line)">
    <p>
      <template v-if="cut.isReckoned && cut.linesSent > cut.linesDone"
        >It answers nothing: any of the lines {{ cut.linesDone + 1 }} to {{ cut.linesSent }} may be
        cut.</template
      >
      Lines that are cut are drawn green. On the film it may be another one:
    </p>
    <label
      >Go on at line
      <NumberField label="Go on at line" :value="line" :min="1" :max="cut.lines" @change="line = $event" />
      of {{ cut.lines }}</label
    >
    <button class="button" :disabled="busy">From this line on</button>
    <template v-if="!cut.sheet">
      <button
        class="button"
        type="button"
        :disabled="busy"
        @click="$emit('newFilm', { line, isAtEnd: left !== undefined && isAtEnd })"
      >
        This line on, on new film
      </button>
      <p>When the film ended, put in new film first: what is left is cut from its start.</p>
      <label v-if="left !== undefined" class="end">
        <Checkbox v-model="isAtEnd" binary />
        The roll is at its end: nothing is left of the {{ units.run(left) }} that the shelf counts
      </label>
    </template>
  </form>
</template>

<style scoped>
.at {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  margin: 12px 16px 0;
  padding: 10px 14px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-card);
}
.at p {
  flex: 1 1 100%;
  margin: 0;
  color: var(--ink-soft);
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
label :deep(input) {
  width: 5em;
  min-height: 44px;
}
.button {
  min-height: 46px;
}
.end {
  flex: 1 1 100%;
  min-height: 44px;
}
</style>
