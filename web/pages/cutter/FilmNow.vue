<script setup lang="ts">
/** The film in the machine: what is cut of it, where the head is, and a corner that is to be found. */
import { computed } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import type { Bounds } from '../../../core/geometry/bounds';
import type { Spot } from '../../../core/geometry/spot';
import StageCanvas from '../../stage/StageCanvas.vue';
import type { CutLines, Head } from './drawCut';
import { drawCut, FILM_BEHIND } from './drawCut';

const props = defineProps<{
  cut: Cut;
  /** It lies flat, as a sheet does: there is nothing behind it. */
  isFlat: boolean;
  lines?: CutLines;
  head?: Head;
  night: boolean;
  /** mm on the strip */
  corner?: Spot;
}>();

/** The cut, and enough of the film behind it that a short cut on a wide roll is still seen as film. */
const box = computed<Bounds>(() => ({
  minX: 0,
  minY: 0,
  maxX: Math.max(props.cut.length, props.isFlat ? 0 : props.cut.rollWidth * FILM_BEHIND),
  maxY: props.cut.rollWidth,
}));
const content = computed(() => [props.lines, props.head, props.night, props.cut.state, props.cut.reading]);

function draw(context: CanvasRenderingContext2D, scale: number): Generator<void> {
  const style = getComputedStyle(document.querySelector('.cutter-page')!);
  const film = { ...props.cut, isSheet: props.isFlat };
  return drawCut(context, scale, film, props.lines, props.head, (name) => style.getPropertyValue(name));
}
</script>

<template>
  <StageCanvas label="The film in the machine" :box="box" :draw="draw" :content="content" :room="26">
    <template #default="{ view }">
      <i
        v-if="corner"
        :style="{
          left: `${view.x + corner[0] * view.scale}px`,
          top: `${view.y + (corner[1] + cut.edges.far) * view.scale}px`,
        }"
        aria-hidden="true"
      ></i>
    </template>
  </StageCanvas>
</template>

<style scoped>
i {
  position: absolute;
  width: 30px;
  height: 30px;
  margin: -15px;
  border: 3px solid var(--currant);
  border-radius: 50%;
}
</style>
