<script setup lang="ts">
/** Above the stage: the views, measuring, the ground, and the order's papers. */
import { Contrast, Printer, Ruler } from '@lucide/vue';
import { computed } from 'vue';
import { addressOf } from '../../../contracts/address';
import { useArtwork } from '../../stores/artwork';
import { useOrder } from '../../stores/order';
import { useStage } from '../../stores/stage';
import type { View } from './views';
import { isShown, VIEWS } from './views';

const view = defineModel<View>('view', { required: true });
const emit = defineEmits<{ measure: [] }>();
const store = useOrder();
const art = useArtwork();
const look = useStage();
const views = computed(() => VIEWS.filter(([name]) => isShown(name, store.plan)));
</script>

<template>
  <div class="bar">
    <div class="views" role="group" aria-label="View">
      <button v-for="[name, word] in views" :key="name" :aria-pressed="view === name" @click="view = name">
        {{ word }}
      </button>
    </div>
    <button class="measure" title="Measure (M)" :aria-pressed="art.measuring" @click="emit('measure')">
      <Ruler :size="16" aria-hidden="true" />
      <span class="roomy">Measure <kbd aria-hidden="true">M</kbd></span>
    </button>
    <button
      class="measure"
      title="Dark ground"
      :aria-pressed="look.darkGround"
      @click="look.darkGround = !look.darkGround"
    >
      <Contrast :size="16" aria-hidden="true" /> <span class="roomy">Dark ground</span>
    </button>
    <span v-if="store.plan?.films.length || store.plan?.printed" class="papers">
      <Printer :size="16" aria-hidden="true" class="roomy" />
      <a
        v-if="store.order"
        :href="addressOf('GET /api/orders/{id}/run-card.pdf', { params: { id: store.order.id } })"
        target="_blank"
        >Run card</a
      >
      <router-link
        v-if="store.order"
        :to="{ name: 'applying', params: { id: store.order.id } }"
        aria-label="Weeding and applying"
        >Weeding<span class="wide"> and applying</span></router-link
      >
    </span>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 11px;
  padding: 11px 14px 0;
}
.views {
  display: flex;
  flex: none;
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  background: var(--card);
  overflow: hidden;
}
.views button {
  height: 29px;
  padding: 0 11px;
  border: 0;
  background: none;
  font-size: 14px;
  font-weight: 650;
}
.views button:focus-visible {
  outline-offset: -3px;
}
.views button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--card);
}
.measure {
  display: flex;
  align-items: center;
  gap: 6px;
  height: 31px;
  padding: 0 10px;
  font-size: 14px;
  background: none;
  border: 0;
  border-radius: var(--radius-field);
}
.measure[aria-pressed='true'] {
  background: var(--damson);
  color: var(--card);
}
.papers {
  display: flex;
  align-items: center;
  gap: 9px;
  font-size: 14px;
}
/* one line, whatever the width: what a narrow window has no room for gives way */
.bar {
  white-space: nowrap;
}
@media (max-width: 1380px) {
  .roomy {
    display: none;
  }
}
@media (max-width: 1180px) {
  .wide {
    display: none;
  }
  .bar {
    flex-wrap: wrap;
    gap: 6px;
  }
  .views button {
    padding: 0 7px;
    font-size: 13.5px;
  }
}
</style>
