<script setup lang="ts">
/** Something that was measured, as people say it; empty while nothing was. */
import DraftField from '../../../parts/DraftField.vue';

const props = defineProps<{
  label: string;
  value: string;
  /** What was typed as it is kept; a sentence when it cannot be read. */
  read: (
    text: string,
  ) => { readonly ok: true; readonly text: string } | { readonly ok: false; readonly message: string };
}>();
const emit = defineEmits<{ change: [text: string]; wrong: [message: string | undefined] }>();
function take(text: string): string | undefined {
  if (text === '') {
    emit('wrong', undefined);
    return '';
  }
  const read = props.read(text);
  emit('wrong', read.ok ? undefined : read.message);
  return read.ok ? read.text : undefined;
}
</script>

<template>
  <DraftField
    class="number measure"
    :label="label"
    :value="value"
    :read="take"
    @change="$emit('change', $event)"
  />
</template>
