<script setup lang="ts">
/** Outlines of shapes that were picked on the sign. */
import { regionToPathData } from '../../core/geometry/pathText';
import type { Viewport } from './viewport';
import type { PickedShape } from './pickedShapes';

defineProps<{ at: Viewport; shapes: readonly PickedShape[]; tone: 'spoilt' | 'kept' }>();
</script>

<template>
  <svg class="picked" :class="tone" width="100%" height="100%" aria-hidden="true">
    <g :transform="`translate(${at.x} ${at.y}) scale(${at.scale})`">
      <path
        v-for="(shape, i) in shapes"
        :key="i"
        :d="regionToPathData(shape.region)"
        :stroke-width="2.5 / at.scale"
      />
    </g>
  </svg>
</template>

<style scoped>
.picked {
  --tone: var(--currant);
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.picked.kept {
  --tone: var(--gooseberry);
}
.picked path {
  fill: color-mix(in srgb, var(--tone) 27%, transparent);
  stroke: var(--tone);
}
</style>
