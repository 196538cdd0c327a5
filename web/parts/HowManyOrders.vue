<script setup lang="ts">
/** Several files were brought in: whether they make one order or one each. */
import Dialog from 'primevue/dialog';
import { computed } from 'vue';

const props = defineProps<{ files: readonly File[] }>();
const emit = defineEmits<{ one: []; each: []; close: [] }>();
/** Names that are read at a glance. */
const FEW = 6;
const shown = computed(() => props.files.slice(0, FEW).map(({ name }) => name));
const more = computed(() => props.files.length - shown.value.length);
</script>

<template>
  <Dialog
    :visible="files.length > 0"
    modal
    :header="`${files.length} files: one order, or one each?`"
    @update:visible="emit('close')"
  >
    <ul>
      <li v-for="(name, i) in shown" :key="i">{{ name }}</li>
      <li v-if="more > 0" class="soft">and {{ more }} more</li>
    </ul>
    <div class="acts">
      <button class="button" @click="emit('close')">Cancel</button>
      <button class="button" @click="emit('each')">{{ files.length }} orders, one each</button>
      <button class="button main" autofocus @click="emit('one')">One order with all of them</button>
    </div>
  </Dialog>
</template>

<style scoped>
ul {
  margin: 0 0 16px;
  padding-left: 18px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  justify-content: end;
}
</style>
