<script setup lang="ts">
/** Play and stop, through time, from line to line, and how fast. */
import { Pause, Play, SkipBack, SkipForward } from '@lucide/vue';
import Slider from 'primevue/slider';
import SwitchRow from '../../../parts/SwitchRow.vue';
import { clock, PACES } from './player';

defineProps<{
  /** s from the start, and until all is cut */
  at: number;
  seconds: number;
  isPlaying: boolean;
}>();
const pace = defineModel<number>('pace', { required: true });
const showsUp = defineModel<boolean>('showsUp', { required: true });
const emit = defineEmits<{ toggle: []; go: [seconds: number]; line: [by: 1 | -1] }>();
</script>

<template>
  <section class="card" aria-label="Play it">
    <div class="through">
      <button class="button main" @click="emit('toggle')">
        <component :is="isPlaying ? Pause : Play" :size="17" aria-hidden="true" />
        {{ isPlaying ? 'Stop' : 'Play' }}
      </button>
      <button class="button step" title="To the line before ( , )" @click="emit('line', -1)">
        <SkipBack :size="17" aria-hidden="true" /><span class="unseen">To the line before</span>
      </button>
      <button class="button step" title="To the next line ( . )" @click="emit('line', 1)">
        <SkipForward :size="17" aria-hidden="true" /><span class="unseen">To the next line</span>
      </button>
      <output class="number" role="timer">{{ clock(at) }} of {{ clock(seconds) }}</output>
    </div>
    <Slider
      class="time"
      aria-label="Time"
      :model-value="at"
      :min="0"
      :max="seconds"
      :step="Math.max(0.05, seconds / 1000)"
      @update:model-value="emit('go', $event as number)"
    />
    <div class="how">
      <div class="paces" role="group" aria-label="How fast">
        <button v-for="times in PACES" :key="times" :aria-pressed="pace === times" @click="pace = times">
          {{ times === 1 ? 'as it cuts' : `${times} ×` }}
        </button>
      </div>
      <SwitchRow label="Ways with the knife up" :on="showsUp" @change="showsUp = $event" />
    </div>
  </section>
</template>

<style scoped>
.card {
  display: grid;
  gap: 14px;
  align-content: start;
  padding: 12px 14px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
.through,
.how {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.button {
  display: flex;
  gap: 6px;
  align-items: center;
}
.button.main {
  min-width: 92px;
  justify-content: center;
}
.step {
  padding: 0 10px;
}
output {
  margin-left: auto;
  font-weight: 650;
}
.time {
  margin-inline: 9px;
}
.how {
  justify-content: space-between;
}
.how :deep(.row) {
  display: flex;
  gap: 9px;
  align-items: center;
}
.paces {
  display: flex;
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  overflow: hidden;
}
.paces button {
  height: 28px;
  padding: 0 10px;
  font-size: 13.5px;
  font-weight: 650;
  background: none;
  border: 0;
}
.paces button[aria-pressed='true'] {
  color: var(--card);
  background: var(--ink);
}
.paces button:focus-visible {
  outline-offset: -3px;
}
</style>
