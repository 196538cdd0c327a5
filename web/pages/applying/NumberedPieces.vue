<script setup lang="ts">
/** Pieces with their numbers, to scale: on the sign, or on the film as they are cut. */
import { computed } from 'vue';
import type { Bounds } from '../../../core/geometry/bounds';

const props = defineProps<{
  box: Bounds;
  /** SVG path data, mm. */
  outline: string;
  /** What lies there too and has no numbers. */
  others?: string;
  colour: string;
  pieces: readonly { readonly number: number; readonly at: readonly [number, number] }[];
  says: string;
}>();

/** Height of a number, as a share of the picture's own width and height. */
const SHARE = 24;
const size = computed(() => {
  const { minX, minY, maxX, maxY } = props.box;
  return Math.max((maxX - minX) / (2 * SHARE), (maxY - minY) / SHARE);
});
const view = computed(() => {
  const { minX, minY, maxX, maxY } = props.box;
  const rim = size.value;
  return [minX - rim, minY - rim, maxX - minX + 2 * rim, maxY - minY + 2 * rim].join(' ');
});
</script>

<template>
  <figure>
    <svg :viewBox="view" role="img" :aria-label="says">
      <path v-if="others" class="others" :d="others" :stroke-width="size / 16" fill-rule="evenodd" />
      <path :d="outline" :fill="colour" :stroke-width="size / 16" fill-rule="evenodd" />
      <text
        v-for="({ number, at: [x, y] }, i) in pieces"
        :key="i"
        :x="x"
        :y="y"
        :font-size="size"
        :stroke-width="size / 4"
        dominant-baseline="central"
        text-anchor="middle"
      >
        {{ number }}
      </text>
    </svg>
    <figcaption>{{ says }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  margin: 0;
}
svg {
  width: 100%;
  height: 250px;
  background: #fffdf7;
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
path {
  stroke: var(--ink);
  opacity: 0.75;
}
path.others {
  fill: var(--rule);
  stroke: var(--ink-soft);
}
text {
  font-weight: 700;
  fill: #261c2c;
  stroke: #fffdf7;
  stroke-linejoin: round;
  paint-order: stroke;
}
figcaption {
  margin-top: 4px;
  font-size: 14px;
  color: var(--ink-soft);
}
</style>
