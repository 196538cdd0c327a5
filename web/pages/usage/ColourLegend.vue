<script setup lang="ts">
/** What the colours of a chart say. */
defineProps<{ of: readonly { readonly says: string; readonly colour: string }[] }>();
</script>

<template>
  <div class="legend soft">
    <span v-for="{ says, colour } in of" :key="says"
      ><i :style="{ background: colour }" aria-hidden="true"></i>{{ says }}</span
    >
    <slot />
  </div>
</template>

<style scoped>
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  font-size: 13px;
}
span {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
i {
  width: 10px;
  height: 10px;
  border-radius: 2px;
}
</style>
