<script setup lang="ts">
/** The frame of an order's sheet: the way back, its name, the same on paper, and what is said while it is not there. */
import { ArrowLeft, Printer } from '@lucide/vue';
import type { Order } from '../../contracts/api';

defineProps<{
  id: number;
  order: Order | undefined;
  /** Until the order's name is known. */
  title: string;
  ready: boolean;
  waits: string;
  problem: string;
  /** Where the same lies on paper. */
  paper: string;
}>();
defineEmits<{ retry: [] }>();
</script>

<template>
  <div class="page">
    <header>
      <router-link class="button" :to="{ name: 'order', params: { id } }"
        ><ArrowLeft :size="17" aria-hidden="true" />The order</router-link
      >
      <h1>{{ order?.name ?? title }}</h1>
      <span v-if="order" class="soft number">#{{ order.number }}</span>
      <a v-if="ready" class="button paper" :href="paper" target="_blank"
        ><Printer :size="17" aria-hidden="true" />On paper</a
      >
    </header>
    <div v-if="problem">
      <p role="alert">{{ problem }}</p>
      <button class="button" @click="$emit('retry')">Try again</button>
    </div>
    <p v-else-if="!ready" class="soft" role="status">{{ waits }}</p>
    <slot v-else></slot>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 14px 24px 30px;
  overflow: auto;
}
header {
  display: flex;
  gap: 14px;
  align-items: center;
  margin-bottom: 14px;
}
header .button {
  min-height: 44px;
}
h1 {
  margin: 0;
  font-size: 26px;
}
.paper {
  margin-left: auto;
}
</style>
