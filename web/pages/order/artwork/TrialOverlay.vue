<script setup lang="ts">
/** A trace that is being tried out, over its picture. */
import { computed } from 'vue';
import { useArtwork } from '../../../stores/artwork';
import type { Viewport } from '../../../stage/viewport';

const props = defineProps<{ at: Viewport }>();
const art = useArtwork();

/** It is printed as it is: only its outline is shown over it. */
const isPrinted = computed(() => {
  const source = art.choices.pieces.find(({ id }) => id === art.trial?.piece)?.source;
  return source?.kind === 'file' && source.trace?.by === 'print';
});

/** Where the whole picture lies, px on the stage: the art is only the part of it that was traced. */
const place = computed(() => {
  const placed = art.placed.find(({ id }) => id === art.trial?.piece);
  const picture = placed?.offers.picture;
  if (!placed || !picture) return undefined;
  const { natural, box } = placed;
  const scale = natural.width > 0 ? placed.width / natural.width : 1;
  const width = picture.width * picture.mmPerPixel * scale * props.at.scale;
  return {
    left: props.at.x + (box.minX - natural.x * scale) * props.at.scale,
    top: props.at.y + (box.minY - natural.y * scale) * props.at.scale,
    width,
    height: (width * picture.height) / picture.width,
  };
});
const style = computed(() =>
  place.value
    ? Object.fromEntries(Object.entries(place.value).map(([side, value]) => [side, `${value}px`]))
    : { display: 'none' },
);
</script>

<template>
  <div v-if="art.trial" class="trial" :style="style">
    <img :src="art.trial.url" alt="The picture" />
    <svg
      v-if="art.trial.trace"
      :viewBox="`0 0 ${art.trial.trace.width} ${art.trial.trace.height}`"
      preserveAspectRatio="none"
    >
      <path
        v-for="c in art.trial.trace.colours"
        :key="c.colour"
        :d="c.d"
        :fill="isPrinted ? 'none' : c.colour"
        fill-opacity="0.35"
        fill-rule="evenodd"
        stroke="#b3263a"
        stroke-width="1.2"
        vector-effect="non-scaling-stroke"
      />
    </svg>
  </div>
</template>

<style scoped>
.trial {
  position: absolute;
  background: #fff;
  pointer-events: none !important;
}
.trial img,
.trial svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
</style>
