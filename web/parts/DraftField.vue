<script setup lang="ts">
/** A line of text. What somebody is typing is not taken away by an answer that arrives meanwhile. */
import InputText from 'primevue/inputtext';
import { ref, watch } from 'vue';

const props = defineProps<{
  value: string;
  label: string;
  /** What the text is kept as; undefined: it cannot be kept, and goes back to what it was. */
  read?: (text: string) => string | undefined;
}>();
const emit = defineEmits<{ change: [value: string] }>();
const text = ref(props.value);
let settled = props.value;
watch(
  () => props.value,
  (now) => {
    if (text.value === settled) text.value = now;
    settled = now;
  },
);
const reset = (): void => void (text.value = settled = props.value);

function commit(): void {
  if (text.value === settled) return;
  const kept = props.read ? props.read(text.value.trim()) : text.value.trim();
  if (kept === undefined || kept === props.value) return reset();
  text.value = settled = kept;
  emit('change', kept);
}
</script>

<template>
  <InputText
    v-model="text"
    size="small"
    autocomplete="off"
    spellcheck="false"
    :aria-label="label"
    @keydown.enter="commit"
    @keydown.esc="reset"
    @blur="commit"
  />
</template>
