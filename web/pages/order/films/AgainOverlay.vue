<script setup lang="ts">
/** Spoilt shapes of one film, tapped on the sign, to be cut again without the rest. */
import { computed, ref, shallowRef, watch } from 'vue';
import type { Again } from '../../../../core/films/again';
import { liesOn } from '../../../../core/geometry/nesting';
import { regionToPathData } from '../../../../core/geometry/pathText';
import type { Region } from '../../../../core/geometry/region';
import { useOrder } from '../../../stores/order';
import { useStage } from '../../../stores/stage';
import type { Viewport } from '../../../stage/viewport';

const props = defineProps<{ at: Viewport; film: string }>();
const emit = defineEmits<{ cut: [shapes: Again] }>();
const store = useOrder();
const stage = useStage();

interface Spoilt {
  readonly x: number;
  readonly y: number;
  readonly region: Region;
}
const spoilt = shallowRef<readonly Spoilt[]>([]);
const missed = ref(false);
const name = computed(() => store.plan?.films.find((s) => s.film.id === props.film)?.film.name ?? props.film);
watch(
  () => [props.film, store.choices],
  () => (spoilt.value = []),
);

/** Takes the shape at a place, or lets go of it again. */
async function tap({ x, y }: { x: number; y: number }): Promise<void> {
  missed.value = false;
  const without = spoilt.value.filter(({ region }) => !liesOn(region, [x, y]));
  if (without.length < spoilt.value.length) return void (spoilt.value = without);
  const region = await store.shapeAt(props.film, x, y);
  if (region) spoilt.value = [...spoilt.value, { x, y, region }];
  else missed.value = true;
}
defineExpose({ tap });

function cut(): void {
  emit('cut', { film: props.film, at: spoilt.value.map(({ x, y }) => ({ x, y })) });
  stage.again = undefined;
}
const says = computed(() => {
  const n = spoilt.value.length;
  if (missed.value) return `No shape of ${name.value} lies there.`;
  if (n === 0) return `Tap the shapes of ${name.value} that are to be cut again.`;
  return `${n} ${n === 1 ? 'shape' : 'shapes'} of ${name.value} picked; once each.`;
});
</script>

<template>
  <svg class="spoilt" width="100%" height="100%" aria-hidden="true">
    <g :transform="`translate(${at.x} ${at.y}) scale(${at.scale})`">
      <path
        v-for="(shape, i) in spoilt"
        :key="i"
        :d="regionToPathData(shape.region)"
        :stroke-width="2.5 / at.scale"
      />
    </g>
  </svg>
  <div class="ask" role="group" aria-label="Shapes to cut again" @pointerdown.stop>
    <span role="status">{{ says }}</span>
    <button class="button small" :disabled="spoilt.length === 0 || !store.canRecut" @click="cut">
      Cut {{ spoilt.length === 1 ? 'it' : 'them' }} again
    </button>
    <button class="button small" @click="stage.again = undefined">Leave it</button>
  </div>
</template>

<style scoped>
.spoilt {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.spoilt path {
  fill: color-mix(in srgb, var(--currant) 25%, transparent);
  stroke: var(--currant);
}
.ask {
  position: absolute;
  bottom: 12px;
  left: 50%;
  display: flex;
  gap: 9px;
  align-items: center;
  padding: 8px 12px;
  white-space: nowrap;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  transform: translateX(-50%);
}
</style>
