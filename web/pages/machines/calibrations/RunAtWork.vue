<script setup lang="ts">
/** A run that is at its machine: how far it is, and the way to stop it. */
import ProgressBar from 'primevue/progressbar';
import { computed } from 'vue';
import type { Calibration } from '../../../../contracts/calibrations';

const props = defineProps<{ run: Calibration; machine: string; label: string }>();
defineEmits<{ stop: [] }>();
/** What comes behind the last line, such as reading, takes as long as it takes. */
const isCounted = computed(() => props.run.lines > 0 && props.run.linesDone < props.run.lines);
</script>

<template>
  <div class="at-work" role="status">
    <p>
      {{ isCounted ? `${machine} is at line ${run.linesDone + 1} of ${run.lines}.` : `${machine} is at it.` }}
    </p>
    <ProgressBar
      :mode="isCounted ? 'determinate' : 'indeterminate'"
      :value="isCounted ? Math.round((100 * run.linesDone) / run.lines) : 0"
      :show-value="false"
      :aria-label="label"
    />
    <button class="button" :disabled="run.state === 'stopping'" @click="$emit('stop')">Stop</button>
  </div>
</template>

<style scoped>
.at-work {
  display: grid;
  gap: 10px;
  justify-items: start;
}
p {
  margin: 0;
}
.at-work :deep(.p-progressbar) {
  width: 100%;
}
</style>
