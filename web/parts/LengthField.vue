<script setup lang="ts">
/** A length that is typed the way people say it: 3 in, 3 1/2", 76.2, 8ft, 2*(40+5). */
import { inject, ref } from 'vue';
import { parseLength } from '../../core/units/length';
import { useUnits } from '../stores/units';
import { useDraft } from './draft';
import { LOCKED } from './locked';

const props = defineProps<{ value: number; label: string; fine?: boolean; min?: number; max?: number }>();
const emit = defineEmits<{ change: [mm: number] }>();
const locked = inject(LOCKED, undefined);
const units = useUnits();
const problem = ref('');
const shown = (): string => units.length(props.value, props.fine);
const { text, settle } = useDraft(shown);

function reset(): void {
  settle();
  problem.value = '';
}

function commit(): void {
  if (text.value === shown()) return reset();
  const parsed = parseLength(text.value, units.unit);
  if (!parsed.ok) return void (problem.value = parsed.message);
  const [min, max] = [props.min ?? 0, props.max ?? 100_000];
  if (parsed.mm < min || parsed.mm > max) {
    problem.value = `Between ${units.length(min)} and ${units.length(max)}, please.`;
    return;
  }
  problem.value = '';
  emit('change', parsed.mm);
  // shows the new value in the shop's unit even when it is the old one typed another way
  settle(units.length(parsed.mm, props.fine));
}
</script>

<template>
  <span class="field">
    <input
      v-model="text"
      class="number"
      inputmode="text"
      autocomplete="off"
      spellcheck="false"
      :disabled="locked"
      :aria-label="label"
      :aria-invalid="problem !== ''"
      @keydown.enter="commit"
      @keydown.esc="reset"
      @blur="commit"
      @focus="($event.target as HTMLInputElement).select()"
    />
    <span v-if="problem" class="problem" role="alert">{{ problem }}</span>
  </span>
</template>

<style scoped>
.field {
  position: relative;
  display: inline-flex;
}
input {
  width: 8.2em;
  padding: 4px 8px;
  text-align: right;
  font-size: 14px;
  font-weight: 650;
  color: var(--ink);
  background: var(--card);
  border: 1px solid var(--rule);
  border-bottom: 1.5px dotted var(--ink);
  border-radius: var(--radius-field);
}
input[aria-invalid='true'] {
  border-color: var(--currant);
  background: var(--currant-soft);
}
.problem {
  position: absolute;
  top: calc(100% + 4px);
  right: 0;
  z-index: 5;
  width: 15rem;
  padding: 6px 9px;
  font-size: 13px;
  color: var(--currant);
  background: var(--card);
  border: 1.5px solid var(--currant);
  border-radius: var(--radius-field);
}
</style>
