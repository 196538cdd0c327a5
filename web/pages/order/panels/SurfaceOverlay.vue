<script setup lang="ts">
/** The surface that the sign goes on, around and behind it: a picture of it to scale, its edge, and what is kept clear. */
import { computed } from 'vue';
import { addressOf } from '../../../../contracts/address';
import { placeOfPicture } from '../../../../core/panels/surface';
import type { Surface } from '../../../../core/panels/choices';
import type { Viewport } from '../../../stage/viewport';

const props = defineProps<{ at: Viewport; surface: Surface }>();
const px = (x: number): number => props.at.x + (x - props.surface.x) * props.at.scale;
const py = (y: number): number => props.at.y + (y - props.surface.y) * props.at.scale;
const box = (x: number, y: number, width: number, height: number): Record<string, string> => ({
  left: `${px(x)}px`,
  top: `${py(y)}px`,
  width: `${width * props.at.scale}px`,
  height: `${height * props.at.scale}px`,
});
const picture = computed(() => {
  const own = props.surface.picture;
  if (!own) return undefined;
  const { x, y, width, height } = placeOfPicture(own);
  const src = addressOf('GET /api/files/{hash}/picture', {
    params: { hash: own.file },
    query: { width: 2000 },
  });
  return { src, style: box(x, y, width, height) };
});
</script>

<template>
  <img v-if="picture" class="picture" :src="picture.src" :style="picture.style" alt="" />
  <div class="surface" :style="box(0, 0, surface.width, surface.height)" aria-hidden="true"></div>
  <div
    v-for="(one, i) in surface.keepOuts"
    :key="i"
    class="clear"
    :style="box(one.x, one.y, one.width, one.height)"
  >
    <span>{{ one.name }}</span>
  </div>
</template>

<style scoped>
.picture,
.surface,
.clear {
  position: absolute;
  pointer-events: none !important;
}
/* over the canvas, and yet the art is seen through it */
.picture {
  opacity: 0.75;
  mix-blend-mode: multiply;
}
.surface {
  border: 1.5px solid var(--ink-soft);
}
.clear {
  overflow: hidden;
  background: repeating-linear-gradient(
    45deg,
    transparent 0 6px,
    color-mix(in srgb, var(--currant) 32%, transparent) 6px 7.5px
  );
  border: 1.5px solid var(--currant);
}
.clear span {
  padding: 1px 6px;
  font-size: 12.5px;
  background: var(--card);
}
</style>
