<script setup lang="ts">
/** A line of text. What somebody is typing is not taken away by an answer that arrives meanwhile. */
import InputText from 'primevue/inputtext';
import { inject } from 'vue';
import { LOCKED } from './locked';
import { useDraft } from './draft';

const props = defineProps<{
  value: string;
  label: string;
  /** What the text is kept as; undefined: it cannot be kept, and goes back to what it was. */
  read?: (text: string) => string | undefined;
}>();
const emit = defineEmits<{ change: [value: string] }>();
const locked = inject(LOCKED, undefined);
const { text, settle, isSettled } = useDraft(() => props.value);

function commit(): void {
  if (isSettled()) return;
  const kept = props.read ? props.read(text.value.trim()) : text.value.trim();
  if (kept === undefined || kept === props.value) return settle();
  settle(kept);
  emit('change', kept);
}
</script>

<template>
  <InputText
    v-model="text"
    size="small"
    autocomplete="off"
    spellcheck="false"
    :disabled="locked"
    :aria-label="label"
    @keydown.enter="commit"
    @keydown.esc="settle()"
    @blur="commit"
  />
</template>
