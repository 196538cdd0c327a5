<script setup lang="ts">
/** What lies on a strip for other orders is named by their numbers; the order's own needs no name. */
import { computed } from 'vue';
import type { Viewport } from '../../../stage/viewport';
import type { StripView } from '../../../workers/packed';

const { at, strip } = defineProps<{ at: Viewport; strip: StripView }>();

/** Smaller things have no room for a number, px. */
const [LEAST_WIDE, LEAST_HIGH] = [34, 26];
const labels = computed(() =>
  strip.placements.flatMap(({ part, copy, box }) => {
    const [width, height] = [box.maxX - box.minX, box.maxY - box.minY].map((mm) => mm * at.scale);
    const { id, order } = strip.parts[part];
    if (order === undefined || width < LEAST_WIDE || height < LEAST_HIGH) return [];
    return [
      {
        key: `${id} ${copy}`,
        number: order,
        left: at.x + ((box.minX + box.maxX) / 2) * at.scale,
        top: at.y + (box.maxY + strip.edges.far) * at.scale,
      },
    ];
  }),
);
</script>

<template>
  <span
    v-for="label in labels"
    :key="label.key"
    class="whose number"
    :style="{ left: `${label.left}px`, top: `${label.top}px` }"
    >#{{ label.number }}</span
  >
</template>

<style scoped>
.whose {
  position: absolute;
  padding: 0 4px;
  font-size: 11.5px;
  line-height: 15px;
  font-weight: 650;
  color: var(--ink);
  pointer-events: none;
  background: var(--card);
  border: 1px solid var(--ink);
  border-radius: 4px;
  translate: -50% -110%;
}
</style>
