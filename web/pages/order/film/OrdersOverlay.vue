<script setup lang="ts">
/** Whose is whose on a strip that several orders share. */
import { computed } from 'vue';
import type { Viewport } from '../../../stage/viewport';
import { useOrder } from '../../../stores/order';
import type { StripView } from '../../../workers/packed';

const { at, strip } = defineProps<{ at: Viewport; strip: StripView }>();
const store = useOrder();

/** Smaller things have no room for a number, px. */
const [LEAST_WIDE, LEAST_HIGH] = [34, 26];
const labels = computed(() =>
  strip.placements.flatMap(({ part, copy, box }) => {
    const [width, height] = [box.maxX - box.minX, box.maxY - box.minY].map((mm) => mm * at.scale);
    if (width < LEAST_WIDE || height < LEAST_HIGH) return [];
    const { id, order } = strip.parts[part];
    return [
      {
        key: `${id} ${copy}`,
        number: order ?? store.order!.number,
        isOther: order !== undefined,
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
    :class="{ other: label.isOther }"
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
  color: var(--ink);
  pointer-events: none;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: 4px;
  translate: -50% -110%;
}
.other {
  font-weight: 650;
  border-color: var(--ink);
}
</style>
