<script setup lang="ts">
/** What is done so far and the head, above what is going to be cut. */
import { computed, onMounted, ref, watch } from 'vue';
import type { Play } from '../../../../core/toolpath/play';
import { headAt } from '../../../../core/toolpath/play';
import type { Viewport } from '../../../stage/viewport';
import { drawDone, isClose } from './drawPlay';

const props = defineProps<{
  play: Play;
  /** s from the start */
  at: number;
  view: Viewport;
  size: { readonly width: number; readonly height: number };
}>();

const canvas = ref<HTMLCanvasElement>();
const head = computed(() => headAt(props.play, props.at));
/** The last place that is drawn; what comes after it is drawn over it while nothing else changes. */
let drawn = -1;
let drawnAt = '';
let drawnOf: Play | undefined;

function paint(): void {
  const element = canvas.value;
  const context = element?.getContext('2d');
  if (!element || !context) return;
  const { view, size, play } = props;
  const dpr = window.devicePixelRatio || 1;
  const [w, h] = [Math.round(size.width * dpr), Math.round(size.height * dpr)];
  const now = [view.x, view.y, view.scale, w, h].join();
  const { place } = head.value;
  if (play !== drawnOf || now !== drawnAt || place < drawn) {
    Object.assign(element, { width: w, height: h });
    drawn = -1;
    [drawnOf, drawnAt] = [play, now];
  }
  context.lineJoin = context.lineCap = 'round';
  context.setTransform(view.scale * dpr, 0, 0, view.scale * dpr, view.x * dpr, view.y * dpr);
  if (place > drawn) drawDone(context, view.scale, play, Math.max(0, drawn), place);
  drawn = place;
}
watch(() => [props.at, props.view.x, props.view.y, props.view.scale, props.size, props.play], paint, {
  flush: 'post',
});
onMounted(paint);

const px = ([x, y]: readonly [number, number]): readonly [number, number] => [
  props.view.x + x * props.view.scale,
  props.view.y + y * props.view.scale,
];
const holder = computed(() => px(head.value.holder));
const tip = computed(() => px(head.value.tip));
/** Where the last place that is drawn lies: the rest of the way to the tip is drawn with the head. */
const last = computed(() => {
  const { place } = head.value;
  return px([props.play.tip[2 * place], props.play.tip[2 * place + 1]]);
});
</script>

<template>
  <canvas ref="canvas" class="trail" aria-hidden="true"></canvas>
  <svg class="head" aria-hidden="true">
    <line v-if="head.isDown" class="cutting" :x1="last[0]" :y1="last[1]" :x2="tip[0]" :y2="tip[1]" />
    <line v-if="isClose(view.scale)" class="arm" :x1="holder[0]" :y1="holder[1]" :x2="tip[0]" :y2="tip[1]" />
    <circle class="holder" :class="{ up: !head.isDown }" :cx="holder[0]" :cy="holder[1]" r="8" />
    <circle class="tip" :cx="tip[0]" :cy="tip[1]" r="2.5" />
  </svg>
</template>

<style scoped>
.trail,
.head {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.cutting {
  stroke: #261c2c;
  stroke-width: 1.8;
}
.arm {
  stroke: #33568f;
  stroke-width: 1.5;
}
.holder {
  fill: rgb(179 38 58 / 18%);
  stroke: #b3263a;
  stroke-width: 2;
}
.holder.up {
  fill: none;
  stroke-dasharray: 3 3;
}
.tip {
  fill: #b3263a;
}
</style>
