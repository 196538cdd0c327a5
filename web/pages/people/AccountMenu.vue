<script setup lang="ts">
/** Who is logged in, and what they can do about it; at a machine's tablet, who is at it. */
import { ChevronDown, UserRound } from '@lucide/vue';
import Menu from 'primevue/menu';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useMe } from '../../stores/me';
import OwnDialog from './OwnDialog.vue';

const store = useMe();
const router = useRouter();
const menu = useTemplateRef('menu');
const isOwn = ref(false);
// whoever has a password that somebody else chose is asked for one of their own at once
watch(
  () => store.me?.mustChange && store.tablet === undefined,
  (must) => must && (isOwn.value = true),
  { immediate: true },
);

const items = computed(() =>
  store.tablet === undefined
    ? [
        { label: 'Your password and PIN', command: () => (isOwn.value = true) },
        ...(store.may('lead')
          ? [{ label: 'People', command: () => void router.push({ name: 'people' }) }]
          : []),
        { label: 'Log out', command: () => void store.logOut() },
      ]
    : [
        { label: store.me ? 'Somebody else' : 'Say who you are', command: () => void store.wantPin() },
        ...(store.me
          ? [
              { label: 'Go away from the machine', command: () => void store.goAway() },
              { label: `No longer ${store.tablet?.name}’s tablet`, command: () => void store.logOut() },
            ]
          : []),
      ],
);
</script>

<template>
  <button class="account" aria-haspopup="menu" @click="menu?.toggle($event)">
    <UserRound :size="17" aria-hidden="true" />
    <span v-if="store.tablet !== undefined"
      >{{ store.tablet.name }} · {{ store.me ? store.me.name : 'nobody yet' }}</span
    >
    <span v-else-if="store.me">{{ store.me.name }} · {{ store.me.role }}</span>
    <ChevronDown :size="15" aria-hidden="true" />
  </button>
  <Menu ref="menu" popup :model="items" />
  <OwnDialog v-if="isOwn" @close="isOwn = false" />
</template>

<style scoped>
.account {
  display: flex;
  gap: 6px;
  align-items: center;
  min-height: 30px;
  padding: 0 10px;
  font-size: 14px;
  font-weight: 620;
  background: none;
  border: 1px solid transparent;
  border-radius: 99px;
  white-space: nowrap;
}
.account:hover,
.account[aria-expanded='true'] {
  border-color: #cdb3c4;
}
</style>
