<script setup lang="ts">
/** Films to pick one of, by name and colour. */
defineProps<{
  label: string;
  films: readonly { readonly id: string; readonly name: string; readonly colour: string }[];
  picked: string | undefined;
}>();
const emit = defineEmits<{ pick: [id: string] }>();
</script>

<template>
  <div class="chips" role="group" :aria-label="label">
    <button v-for="f in films" :key="f.id" :aria-pressed="f.id === picked" @click="emit('pick', f.id)">
      <span class="swatch" :style="{ '--film': f.colour }"></span>{{ f.name }}
    </button>
  </div>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
button {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 2px 9px 2px 4px;
  font-size: 13.5px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: 99px;
}
button[aria-pressed='true'] {
  background: var(--damson-soft);
  border-color: var(--damson);
}
.swatch {
  width: 15px;
  height: 18px;
}
</style>
