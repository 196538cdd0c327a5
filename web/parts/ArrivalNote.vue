<script setup lang="ts">
/** A file on its way in: what happens to it, how far, and a way out. */
import ProgressBar from 'primevue/progressbar';
import type { UploadProgress } from '../stores/api';

defineProps<{ name: string; progress: UploadProgress }>();
defineEmits<{ cancel: [] }>();

const WORDS = { sending: 'Sending', reading: 'Reading' };
</script>

<template>
  <p class="arrival" role="status">
    <span>{{ WORDS[progress.phase] }} {{ name }} …</span>
    <ProgressBar
      :value="Math.round(100 * progress.share)"
      :aria-label="`${WORDS[progress.phase]} ${name}`"
      class="share"
    />
    <button class="button small" @click="$emit('cancel')">Cancel</button>
  </p>
</template>

<style scoped>
.arrival {
  display: flex;
  align-items: center;
  gap: 12px;
  margin: 0;
}
.share {
  flex: 1;
  min-width: 80px;
}
</style>
