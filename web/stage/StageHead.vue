<script setup lang="ts">
/** Above a stage that shows one of several: which, and what it comes to. */
defineProps<{
  /** What they are called together. */
  label: string;
  choices: readonly { readonly id: string; readonly name: string; readonly colour?: string }[];
  picked: string | undefined;
  says: string;
}>();
const emit = defineEmits<{ pick: [id: string] }>();
</script>

<template>
  <div class="head">
    <div class="choices" role="group" :aria-label="label">
      <button
        v-for="one in choices"
        :key="one.id"
        :aria-pressed="one.id === picked"
        @click="emit('pick', one.id)"
      >
        <span v-if="one.colour" class="swatch" :style="{ '--film': one.colour }"></span>{{ one.name }}
      </button>
    </div>
    <slot />
    <span v-if="says" class="says number">{{ says }}</span>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  padding: 10px 14px 0;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  min-width: 0;
  max-height: 66px;
  overflow-y: auto;
}
button,
:slotted(button) {
  display: flex;
  align-items: center;
  gap: 7px;
  height: 29px;
  padding: 0 10px;
  font-size: 14px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
  white-space: nowrap;
}
button:has(.swatch) {
  padding-left: 7px;
}
button[aria-pressed='true'],
:slotted(button[aria-pressed='true']) {
  font-weight: 650;
  background: var(--damson-soft);
  border-color: var(--damson);
}
.swatch {
  width: 10px;
  height: 17px;
}
.says {
  margin-left: auto;
  font-size: 13px;
  color: var(--ink-soft);
  white-space: nowrap;
}
</style>
