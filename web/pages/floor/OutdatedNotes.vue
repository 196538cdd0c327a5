<script setup lang="ts">
/** Orders of which something waits that would be cut otherwise by now. */
import { computed } from 'vue';
import OutdatedNote from '../../parts/OutdatedNote.vue';
import type { useOutdated } from '../../stores/outdated';

const props = defineProps<{ outdated: ReturnType<typeof useOutdated> }>();
const all = computed(() => props.outdated.all.value);
const problem = computed(() => props.outdated.problem.value?.message);
async function forAll(word: 'replace' | 'keep'): Promise<void> {
  for (const one of all.value) await props.outdated[word](one);
}
</script>

<template>
  <section class="all" aria-label="Changed since they were queued">
    <p v-if="all.length > 1" class="many">
      <strong>{{ all.length }} orders were changed, or are cut otherwise, since they were queued.</strong>
      <button class="button slim" :disabled="outdated.isBusy.value" @click="forAll('replace')">
        Replace all
      </button>
      <button class="button slim" :disabled="outdated.isBusy.value" @click="forAll('keep')">Keep all</button>
    </p>
    <p v-if="problem" role="alert">{{ problem }}</p>
    <OutdatedNote
      v-for="one in all"
      :key="one.order.id"
      :outdated="one"
      :busy="outdated.isBusy.value"
      @replace="outdated.replace(one)"
      @keep="outdated.keep(one)"
    />
  </section>
</template>

<style scoped>
.all {
  display: grid;
  gap: 8px;
  max-height: 240px;
  overflow-y: auto;
}
/* over the whole width: what to do stands beside what differs */
.all > :deep(.outdated) {
  grid-template-columns: minmax(0, 1fr) auto;
}
.all > :deep(.outdated) > * {
  grid-column: 1;
}
.all > :deep(.outdated) > .ways {
  grid-area: 1 / 2 / span 2 / 3;
  align-content: start;
}
.many {
  display: flex;
  gap: 10px;
  align-items: center;
}
p {
  margin: 0;
}
</style>
