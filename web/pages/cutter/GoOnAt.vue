<script setup lang="ts">
/** Going on with a stopped cut at a line that somebody found by looking at the film. */
import { ref } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import NumberField from '../../parts/NumberField.vue';

const props = defineProps<{ cut: Cut; busy: boolean }>();
defineEmits<{ goOn: [line: number]; newFilm: [line: number] }>();
const line = ref(Math.min(props.cut.linesDone + 1, props.cut.lines));
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
      <button class="button" type="button" :disabled="busy" @click="$emit('newFilm', line)">
        This line on, on new film
      </button>
      <p>When the film ended, put in new film first: what is left is cut from its start.</p>
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
</style>
