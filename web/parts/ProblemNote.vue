<script setup lang="ts">
/** What happened, to what, and what to do: stays until it is put away. */
defineProps<{ message: string; waysOut?: readonly string[] }>();
defineEmits<{ close: [] }>();
</script>

<template>
  <div class="note" role="alert">
    <div>
      <p>{{ message }}</p>
      <ul v-if="waysOut?.length">
        <li v-for="way in waysOut" :key="way">{{ way }}</li>
      </ul>
    </div>
    <button class="button" @click="$emit('close')">Close</button>
  </div>
</template>

<style scoped>
.note {
  display: flex;
  align-items: start;
  justify-content: space-between;
  gap: 16px;
  padding: 10px 14px;
  background: var(--currant-soft);
  border: var(--line) solid var(--currant);
  border-radius: var(--radius-card);
}
p,
ul {
  margin: 0;
}
ul {
  padding-left: 18px;
}
</style>
