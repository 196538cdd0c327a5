<script setup lang="ts">
/** A canvas to scale that can be panned and zoomed, with room for named handles and labels above it. */
import { useResizeObserver } from '@vueuse/core';
import { onBeforeUnmount, ref, watch } from 'vue';
import type { Bounds } from '../../core/geometry/bounds';
import { sliceEnd } from './slice';
import type { Free, Viewport } from './viewport';
import { createViewport, fitTo, freeAround, zoomAt } from './viewport';

const props = defineProps<{
  /** What is shown whole at first and by the key 0, mm. */
  box: Bounds;
  /** Draws in mm, yielding wherever it may be interrupted; started anew when `content` or the window changes. */
  draw: (context: CanvasRenderingContext2D, scale: number) => Generator<void>;
  content: unknown;
  label: string;
  /** px kept free around the box. */
  room?: number | Free;
  /** Where the box lies when it is narrower than the canvas. */
  align?: 'middle' | 'left';
  /** Canvases that share a viewport move and zoom together. */
  shared?: Viewport;
}>();
const emit = defineEmits<{
  point: [at: { x: number; y: number } | undefined];
  /** A click that did not drag, mm; `reach` is a few px in mm. */
  tap: [at: { x: number; y: number }, reach: number];
}>();

const view = props.shared ?? createViewport();
const host = ref<HTMLDivElement>();
const canvas = ref<HTMLCanvasElement>();
const size = ref({ width: 0, height: 0 });
let frame = 0;
let touched = false;

/** What is drawn at the moment, finished or not: shown moved and stretched while a newer picture is being drawn. */
interface Picture {
  readonly canvas: HTMLCanvasElement;
  readonly steps: Generator<void>;
  readonly at: Viewport;
}
let drawing: Picture | undefined;
let shown: Picture | undefined;
let stale = true;
/** Outlines between two looks at the clock. */
const AT_ONCE = 6;

function startPicture(w: number, h: number, dpr: number): Picture | undefined {
  const buffer = document.createElement('canvas');
  Object.assign(buffer, { width: w, height: h });
  const context = buffer.getContext('2d', { willReadFrequently: true });
  if (!context) return undefined;
  context.lineJoin = 'round';
  context.setTransform(view.scale * dpr, 0, 0, view.scale * dpr, view.x * dpr, view.y * dpr);
  return { canvas: buffer, steps: props.draw(context, view.scale), at: { ...view } };
}

/** A few outlines, really drawn: the browser would else save them all up for one long task. */
function drawSome(picture: Picture): void {
  let done = false;
  for (let k = 0; k < AT_ONCE && !done; k++) done = picture.steps.next().done === true;
  picture.canvas.getContext('2d')?.getImageData(0, 0, 1, 1);
  if (!done) return;
  shown = picture;
  drawing = undefined;
}

function paint(now: number): void {
  frame = 0;
  const element = canvas.value;
  const context = element?.getContext('2d');
  if (!element || !context || size.value.width === 0) return;
  const dpr = window.devicePixelRatio || 1;
  const [w, h] = [Math.round(size.value.width * dpr), Math.round(size.value.height * dpr)];
  if (stale) {
    stale = false;
    drawing = startPicture(w, h, dpr);
  }
  const end = sliceEnd(now);
  // at least a little of every canvas in every frame, however busy the one before it is
  if (drawing) {
    do drawSome(drawing);
    while (drawing && performance.now() < end);
  }
  if (element.width !== w || element.height !== h) Object.assign(element, { width: w, height: h });
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, w, h);
  if (shown) {
    const zoom = view.scale / shown.at.scale;
    context.drawImage(
      shown.canvas,
      (view.x - shown.at.x * zoom) * dpr,
      (view.y - shown.at.y * zoom) * dpr,
      shown.canvas.width * zoom,
      shown.canvas.height * zoom,
    );
  }
  if (drawing) frame = requestAnimationFrame(paint);
}

function repaint(): void {
  stale = true;
  frame ||= requestAnimationFrame(paint);
}

function fit(): void {
  touched = false;
  const { room = 60 } = props;
  const free = typeof room === 'number' ? freeAround(room) : room;
  fitTo(view, props.box, size.value.width, size.value.height, free);
  if (props.align === 'left') view.x = free.left - props.box.minX * view.scale;
  repaint();
}

/** Shows a place large. */
function lookAt(x: number, y: number, scale: number): void {
  touched = true;
  view.scale = scale;
  view.x = size.value.width / 2 - x * scale;
  view.y = size.value.height / 2 - y * scale;
}
defineExpose({ fit, lookAt });

const local = (event: MouseEvent): { x: number; y: number } => {
  const box = host.value!.getBoundingClientRect();
  return { x: event.clientX - box.left, y: event.clientY - box.top };
};

function onWheel(event: WheelEvent): void {
  touched = true;
  const { x, y } = local(event);
  if (event.shiftKey) view.x -= event.deltaY;
  else zoomAt(view, Math.exp(-event.deltaY * 0.0015), x, y);
}

let dragged: { x: number; y: number } | undefined;
let pressed: { x: number; y: number } | undefined;
/** px that a hand may tremble between pressing and letting go */
const STILL = 4;
function onDown(event: PointerEvent): void {
  if (event.button > 1) return;
  dragged = pressed = { x: event.clientX, y: event.clientY };
  host.value?.setPointerCapture(event.pointerId);
}
function onMove(event: PointerEvent): void {
  const at = local(event);
  emit('point', { x: (at.x - view.x) / view.scale, y: (at.y - view.y) / view.scale });
  if (!dragged) return;
  touched = true;
  view.x += event.clientX - dragged.x;
  view.y += event.clientY - dragged.y;
  dragged = { x: event.clientX, y: event.clientY };
}
function onUp(event: PointerEvent): void {
  dragged = undefined;
  if (!pressed || Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) > STILL) return;
  const at = local(event);
  emit('tap', { x: (at.x - view.x) / view.scale, y: (at.y - view.y) / view.scale }, STILL / view.scale);
}

const PAN = 60;
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const { width, height } = size.value;
  const moves: Record<string, () => void> = {
    ArrowLeft: () => (view.x += PAN),
    ArrowRight: () => (view.x -= PAN),
    ArrowUp: () => (view.y += PAN),
    ArrowDown: () => (view.y -= PAN),
    '+': () => zoomAt(view, 1.25, width / 2, height / 2),
    '=': () => zoomAt(view, 1.25, width / 2, height / 2),
    '-': () => zoomAt(view, 0.8, width / 2, height / 2),
    '0': fit,
  };
  const move = moves[event.key];
  if (!move) return;
  event.preventDefault();
  touched = event.key !== '0';
  move();
}

useResizeObserver(host, ([{ contentRect }]) => {
  size.value = { width: contentRect.width, height: contentRect.height };
  if (touched) repaint();
  else fit();
});
onBeforeUnmount(() => cancelAnimationFrame(frame));
watch(view, repaint);
watch(
  () => props.room,
  () => !touched && fit(),
);
watch(() => props.content, repaint);
watch(
  () => [props.box.minX, props.box.minY, props.box.maxX, props.box.maxY],
  () => !touched && fit(),
);
</script>

<template>
  <div
    ref="host"
    class="stage"
    tabindex="0"
    role="application"
    :aria-label="`${label}. Arrow keys move, plus and minus zoom, 0 shows all.`"
    @wheel.prevent="onWheel"
    @pointerdown="onDown"
    @pointermove="onMove"
    @pointerup="onUp"
    @pointercancel="dragged = undefined"
    @pointerleave="emit('point', undefined)"
    @keydown="onKey"
  >
    <canvas ref="canvas" aria-hidden="true"></canvas>
    <div class="above"><slot :view="view" :size="size" /></div>
  </div>
</template>

<style scoped>
.stage {
  position: relative;
  overflow: hidden;
  touch-action: none;
  cursor: grab;
}
.stage:active {
  cursor: grabbing;
}
.stage:focus-visible {
  outline-offset: -3px;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.above {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.above :deep(*) {
  pointer-events: auto;
}
.above :deep(svg),
.above :deep(svg *) {
  pointer-events: none;
}
</style>
