<script setup lang="ts">
/** The code on a printed sheet brings up its cut: by a hand scanner, which types it wherever one is, or typed here. */
import { useEventListener } from '@vueuse/core';
import InputText from 'primevue/inputtext';
import { ref } from 'vue';
import { ApiProblem, call } from '../../stores/api';
import { useCutters } from '../../stores/cutters';
import { createScan } from './scan';

const { cutter } = defineProps<{ cutter: string }>();
const emit = defineEmits<{ problem: [problem: ApiProblem | undefined] }>();
const machines = useCutters();
const typed = ref('');

async function bringUp(code: string): Promise<void> {
  emit('problem', undefined);
  try {
    await call('POST /api/cuts/by-code', { body: { code, cutter } });
    typed.value = '';
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    emit('problem', error);
  }
  await machines.fetchCuts();
}
const scan = createScan((code) => void bringUp(code));
useEventListener('keydown', (event) => {
  const isField = event.target instanceof HTMLElement && event.target.closest('input, textarea') !== null;
  if (!isField && scan(event.key, event.timeStamp)) event.preventDefault();
});
</script>

<template>
  <form class="code" @submit.prevent="typed.trim() && bringUp(typed)">
    <label>
      <span class="soft">Code on the sheet</span>
      <InputText v-model="typed" class="number" autocomplete="off" placeholder="scan it, or type #2047 1" />
    </label>
  </form>
</template>

<style scoped>
label {
  display: grid;
  gap: 3px;
  font-size: 14px;
}
input {
  width: 100%;
  height: 40px;
  color: var(--ink);
  background: var(--card);
  border-color: var(--rule);
}
.soft {
  color: var(--ink-soft);
}
</style>
