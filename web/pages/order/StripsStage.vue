<script setup lang="ts">
/** Every film as it will lie in the cutter: bands on one common scale, unrolled to the right. */
import { largest } from '../../../core/geometry/lists';
import { GripVertical } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import type { Bounds } from '../../../core/geometry/bounds';
import StageCanvas from '../../stage/StageCanvas.vue';
import { createViewport } from '../../stage/viewport';
import { useOrder } from '../../stores/order';
import { useUnits } from '../../stores/units';
import type { StripView } from '../../workers/packed';
import { stripDrawer } from './film/drawStrip';

const props = defineProps<{ view: string }>();
const film = defineModel<string | undefined>('film');
const emit = defineEmits<{ reorder: [colours: string[]] }>();
const store = useOrder();
const units = useUnits();

/** One scale and one place for all bands. */
const shared = createViewport();
const GAP = 8;
/** Room for all bands, and the least and most one gets, px. */
const ROOM = 292;
const [LEAST, MOST] = [82, 118];

const strips = ref<StripView[]>([]);
watch(
  () => store.plan?.strips,
  (now) => (strips.value = [...(now ?? [])]),
  { immediate: true },
);
/** The film, and which of its strips when it has several. */
function nameOf({ id, film: own }: StripView): string {
  const all = strips.value.filter((strip) => strip.film.id === own.id);
  return all.length === 1
    ? own.name
    : `${own.name}, ${all.findIndex((s) => s.id === id) + 1} of ${all.length}`;
}
function howOf({ mirrored, turned, shares }: StripView): string {
  const others = shares.flatMap(({ order }) => (order === undefined ? [] : `#${order}`));
  return [mirrored && 'mirrored', turned && 'turned', others.length > 0 && `with ${others.join(', ')}`]
    .filter(Boolean)
    .join(', ');
}
const longest = computed(() =>
  largest(
    strips.value.map((strip) => strip.length),
    100,
  ),
);
const widest = computed(() =>
  largest(
    strips.value.map((strip) => strip.roll.width),
    100,
  ),
);
const band = computed(() =>
  Math.min(MOST, Math.max(LEAST, (ROOM - GAP) / Math.max(1, strips.value.length) - GAP)),
);
const height = computed(() => Math.min(ROOM, strips.value.length * (band.value + GAP) + GAP));
const box = computed<Bounds>(() => ({ minX: 0, minY: 0, maxX: longest.value * 1.04, maxY: widest.value }));

function dropped(): void {
  // a film with several strips goes where its first one was put
  const ids = new Set(strips.value.map((strip) => strip.film.id));
  const layers = store.plan?.films ?? [];
  emit(
    'reorder',
    [...ids].flatMap((id) => layers.find((one) => one.film.id === id)?.colours ?? []),
  );
}

const drawStrip = (strip: StripView) =>
  stripDrawer(strip, { run: longest.value * 1.04, asLines: props.view === 'cut-lines' });
</script>

<template>
  <div class="strips" :style="{ height: `${height}px` }">
    <p v-if="store.plan && strips.length === 0" class="none">
      No film can be laid out yet. See what is to be looked at above.
    </p>
    <VueDraggable v-model="strips" handle=".label" :animation="120" class="list" @end="dropped">
      <div
        v-for="(strip, i) in strips"
        :key="strip.id"
        class="strip"
        :style="{ height: `${band}px` }"
        :class="{ picked: film === strip.film.id }"
      >
        <button
          class="label"
          :aria-pressed="film === strip.film.id"
          :title="`${strip.film.name}: drag to change the cutting order, or Shift [ and Shift ]`"
          @click="film = film === strip.film.id ? undefined : strip.film.id"
        >
          <GripVertical :size="15" aria-hidden="true" class="grip" />
          <span class="swatch" :style="{ '--film': strip.film.colour }"></span>
          <span class="text">
            <strong>{{ i + 1 }} {{ nameOf(strip) }}</strong>
            <span class="soft number">{{ strip.film.code }} · {{ units.length(strip.roll.width) }}</span>
            <span class="number"
              ><b>{{ units.run(strip.length) }}</b> · {{ Math.round(strip.used * 100) }} % used</span
            >
            <span v-if="howOf(strip)" class="how">{{ howOf(strip) }}</span>
          </span>
        </button>
        <StageCanvas
          class="band"
          :label="`${nameOf(strip)} on its roll`"
          :box="box"
          :draw="drawStrip(strip)"
          :content="[strip, longest, view]"
          :room="5"
          align="left"
          :shared="shared"
        />
      </div>
    </VueDraggable>
  </div>
</template>

<style scoped>
.strips {
  overflow-y: auto;
  background: var(--paper);
}
.list {
  display: grid;
  gap: 8px;
  padding: 8px 14px;
}
.none {
  margin: 0;
  padding: 20px;
  color: var(--ink-soft);
}
.strip {
  display: grid;
  grid-template-columns: 206px minmax(0, 1fr);
  gap: 6px;
}
.label {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 9px 4px 3px;
  text-align: left;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  cursor: grab;
}
.picked .label {
  background: var(--damson-soft);
}
.grip {
  color: var(--ink-soft);
  flex: none;
}
.label .swatch {
  height: 46px;
}
.text {
  display: grid;
  flex: 1;
  min-width: 0;
  font-size: 12.5px;
  line-height: 1.35;
  white-space: nowrap;
}
.text strong {
  font: 680 14.5px/1.25 var(--heading);
  overflow: hidden;
  text-overflow: ellipsis;
}
.how {
  font-weight: 650;
  color: var(--quince-text);
}
.band {
  background: var(--bench);
  border-radius: 4px;
}
</style>
