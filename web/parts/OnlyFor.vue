<script setup lang="ts">
/** What only some may change: the others see it, and who it is for. */
import { computed, provide } from 'vue';
import type { Role } from '../../contracts/people';
import { useMe } from '../stores/me';
import { LOCKED } from './locked';

const props = defineProps<{
  role: Role;
  /** Who may; missing: it is said around it. */
  says?: string;
  /** Its buttons change nothing, or ask for themselves: only fields are locked. */
  fieldsOnly?: boolean;
}>();
const store = useMe();
const isLocked = computed(() => !store.may(props.role));
provide(LOCKED, isLocked);
</script>

<template>
  <fieldset :disabled="isLocked && !fieldsOnly">
    <p v-if="isLocked && says" class="soft">{{ says }}</p>
    <slot />
  </fieldset>
</template>

<style scoped>
/* it groups, and looks like nothing */
fieldset {
  display: contents;
  min-width: 0;
  margin: 0;
  padding: 0;
  border: 0;
}
p {
  margin: 0 0 10px;
}
</style>
