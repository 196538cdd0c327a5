<script setup lang="ts">
/** What may be done about the lanes, with what it comes to, before it is taken. */
defineProps<{ label: string; none: string; count: number }>();
defineEmits<{ close: [] }>();
</script>

<template>
  <section class="proposals" :aria-label="label">
    <p v-if="count === 0">{{ none }}</p>
    <slot></slot>
    <button class="button slim" @click="$emit('close')">Leave it</button>
  </section>
</template>

<style scoped>
.proposals {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: center;
  padding: 8px 14px;
  background: var(--gooseberry-soft);
  border: var(--line) solid var(--gooseberry);
  border-radius: var(--radius-label);
}
.proposals > :slotted(div) {
  display: flex;
  gap: 10px;
  align-items: center;
}
p {
  margin: 0;
}
</style>
