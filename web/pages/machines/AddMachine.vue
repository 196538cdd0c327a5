<script setup lang="ts">
/** A new machine: its name, its kind and where it listens; the rest begins as most of its kind are. */
import { computed, ref } from 'vue';
import type { NewCutter } from '../../../contracts/shop';
import type { Cutter } from '../../../core/layout/cutter';
import ChoiceField from '../../parts/ChoiceField.vue';
import { isHost } from '../../../core/units/host';
import { KINDS } from './kinds';

const emit = defineEmits<{ add: [cutter: NewCutter]; close: [] }>();
const name = ref('');
const kind = ref<Cutter['kind']>('roll');
const host = ref('');
const port = ref('9100');
const wrong = computed(() => {
  if (!name.value.trim()) return 'Give it a name.';
  if (!isHost(host.value.trim())) return 'Say at which address it is: a name or numbers, as its panel shows.';
  const number = Number(port.value);
  return Number.isInteger(number) && number >= 1 && number <= 65_535
    ? ''
    : 'A port is a number from 1 to 65535.';
});
const tried = ref(false);
function send(): void {
  tried.value = true;
  if (wrong.value) return;
  emit('add', {
    name: name.value.trim(),
    kind: kind.value,
    link: { by: 'tcp', host: host.value.trim(), port: Number(port.value) },
  });
}
</script>

<template>
  <form aria-label="A new cutter" @submit.prevent="send" @keydown.esc="$emit('close')">
    <label>Name<input v-model="name" maxlength="60" autocomplete="off" /></label>
    <div class="kind">
      <span>Kind</span>
      <ChoiceField label="Kind of the new cutter" :value="kind" :options="KINDS" @change="kind = $event" />
    </div>
    <label
      >Address<input v-model="host" class="number" autocomplete="off" placeholder="192.168.1.40"
    /></label>
    <label>Port<input v-model="port" class="number" inputmode="numeric" autocomplete="off" /></label>
    <p v-if="tried && wrong" role="alert">{{ wrong }}</p>
    <div class="buttons">
      <button class="button small strong">Add it</button>
      <button type="button" class="button small" @click="$emit('close')">Never mind</button>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  padding: 12px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
label,
.kind {
  display: grid;
  grid-template-columns: 70px 1fr;
  align-items: center;
  font-size: 14px;
}
input {
  min-width: 0;
  padding: 5px 8px;
  color: var(--ink);
  background: var(--card);
  border: 1px solid var(--rule);
  border-bottom: 1.5px dotted var(--ink);
  border-radius: var(--radius-field);
}
p {
  margin: 0;
  font-size: 14px;
  color: var(--currant);
}
.buttons {
  display: flex;
  gap: 6px;
}
</style>
