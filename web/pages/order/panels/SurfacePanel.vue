<script setup lang="ts">
/** What the sign goes on: its size, doors and windows, and a picture of it to scale. */
import { Trash2 } from '@lucide/vue';
import { computed, ref } from 'vue';
import { addressOf } from '../../../../contracts/address';
import type { KeepOut, Place, Surface, WallPicture } from '../../../../core/panels/choices';
import DraftField from '../../../parts/DraftField.vue';
import FoldOut from '../../../parts/FoldOut.vue';
import LengthField from '../../../parts/LengthField.vue';
import LengthRow from '../../../parts/LengthRow.vue';
import SwitchRow from '../../../parts/SwitchRow.vue';
import { arrowStep } from '../../../stage/arrowStep';
import { ApiProblem, upload } from '../../../stores/api';
import { useOrder } from '../../../stores/order';
import { useSeams } from '../../../stores/seams';
import { useUnits } from '../../../stores/units';

const store = useOrder();
const seams = useSeams();
const units = useUnits();
const surface = computed(() => store.choices!.panels.surface);
const set = (change: Partial<Surface>): void => seams.set({ surface: { ...surface.value!, ...change } });

/** As large as the sign with some room around it, whole tenths of a metre. */
function begin(): void {
  const { width = 1000, height = 1000 } = store.plan ?? {};
  const size = (mm: number): number => Math.ceil((mm + 400) / 100 - 1e-6) * 100;
  const [w, h] = [size(width), size(height)];
  const middle = (all: number, own: number): number => Math.round((all - own) / 2);
  seams.set({
    surface: { width: w, height: h, x: middle(w, width), y: middle(h, height), keepOuts: [], picture: null },
  });
}
const SIZES = [
  { key: 'width', label: 'Width', full: 'Width of the surface' },
  { key: 'height', label: 'Height', full: 'Height of the surface' },
  { key: 'x', label: 'Sign from the left', full: 'Sign from the left of the surface' },
  { key: 'y', label: 'Sign from the top', full: 'Sign from the top of the surface' },
] as const;

const FROM_EDGES = [
  { key: 'x', label: 'from the left' },
  { key: 'y', label: 'from the top' },
] as const;
const KEEP_OUT_SIZES = [
  ...FROM_EDGES,
  { key: 'width', label: 'wide' },
  { key: 'height', label: 'high' },
] as const;
function change(index: number, to: Partial<KeepOut> | undefined): void {
  const all = surface.value!.keepOuts;
  set({
    keepOuts:
      to === undefined
        ? all.filter((_, i) => i !== index)
        : all.map((one, i) => (i === index ? { ...one, ...to } : one)),
  });
}
const add = (): void =>
  set({
    keepOuts: [
      ...surface.value!.keepOuts,
      { name: `Door ${surface.value!.keepOuts.length + 1}`, x: 0, y: 0, width: 900, height: 2000 },
    ],
  });

const picture = computed(() => surface.value?.picture ?? null);
const problem = ref('');
const coming = ref(false);
const file = ref<HTMLInputElement>();
async function bring(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const [chosen] = input.files ?? [];
  input.value = '';
  if (!chosen) return;
  problem.value = '';
  coming.value = true;
  try {
    const { file: hash, width, height } = await upload('POST /api/pictures', chosen, () => undefined).done;
    // across the whole surface until a person says better
    const [from, to] = [
      { x: 0, y: height / 2 },
      { x: width, y: height / 2 },
    ];
    const { width: wall, height: high } = surface.value!;
    set({
      picture: { file: hash, width, height, from, to, apart: wall, at: { x: 0, y: high / 2 } },
    });
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    problem.value = `${chosen.name}: ${error.message}`;
  } finally {
    coming.value = false;
  }
}
const setPicture = (to: Partial<WallPicture>): void => set({ picture: { ...picture.value!, ...to } });

const shown = ref<HTMLElement>();
/** The place that the next tap sets. */
const next = ref<'from' | 'to'>('from');
const within = (value: number, most: number): number => Math.min(most, Math.max(0, Math.round(value)));
function tap(event: MouseEvent): void {
  const { width, height } = picture.value!;
  const box = shown.value!.getBoundingClientRect();
  setPicture({
    [next.value]: {
      x: within(((event.clientX - box.left) / box.width) * width, width),
      y: within(((event.clientY - box.top) / box.height) * height, height),
    },
  });
  next.value = next.value === 'from' ? 'to' : 'from';
}
function key(event: KeyboardEvent, end: 'from' | 'to'): void {
  const step = arrowStep(event);
  if (!step) return;
  const { width, height, [end]: at } = picture.value!;
  setPicture({ [end]: { x: within(at.x + step[0], width), y: within(at.y + step[1], height) } });
  event.preventDefault();
  event.stopPropagation();
}
const ENDS = [
  { end: 'from', name: 'A' },
  { end: 'to', name: 'B' },
] as const;
const placeOf = ({ x, y }: Place): Record<string, string> => ({
  left: `${(100 * x) / picture.value!.width}%`,
  top: `${(100 * y) / picture.value!.height}%`,
});
const says = computed(() =>
  surface.value
    ? `${units.number(surface.value.width)} × ${units.length(surface.value.height)}`
    : 'not given',
);
</script>

<template>
  <FoldOut title="Wall or window" name="surface" :says="says">
    <SwitchRow
      label="The surface is known"
      :on="surface !== null"
      @change="$event ? begin() : seams.set({ surface: null })"
    />
    <template v-if="surface">
      <div v-for="{ key: name, label, full } in SIZES" :key="name" class="row">
        <span>{{ label }}</span>
        <LengthField
          :label="full"
          :value="surface[name]"
          :min="name === 'x' || name === 'y' ? -100000 : 1"
          @change="set({ [name]: $event })"
        />
      </div>
      <fieldset v-for="(one, i) in surface.keepOuts" :key="i" class="keepout">
        <legend class="off">Kept clear, {{ i + 1 }}</legend>
        <DraftField
          :label="`Name of place ${i + 1}`"
          :value="one.name"
          :read="(text) => text.slice(0, 60)"
          @change="change(i, { name: $event })"
        />
        <button class="button small" :aria-label="`Take ${one.name} away`" @click="change(i, undefined)">
          <Trash2 :size="15" />
        </button>
        <label v-for="{ key: name, label } in KEEP_OUT_SIZES" :key="name">
          <LengthField
            :label="`${one.name}, ${label}`"
            :value="one[name]"
            :min="name === 'x' || name === 'y' ? -100000 : 1"
            @change="change(i, { [name]: $event })"
          />
          <small class="soft">{{ label }}</small>
        </label>
      </fieldset>
      <button class="button small" @click="add">Keep a door or window clear</button>
      <input
        ref="file"
        class="off"
        type="file"
        accept="image/*"
        aria-label="Picture of the wall"
        @change="bring"
      />
      <div class="row">
        <button class="button small" :disabled="coming" @click="file?.click()">
          {{ coming ? 'Bringing it in …' : picture ? 'Another picture' : 'A picture of the wall' }}
        </button>
        <button v-if="picture" class="button small" @click="set({ picture: null })">No picture</button>
      </div>
      <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
      <template v-if="picture">
        <div ref="shown" class="wall" @click="tap">
          <img
            :src="
              addressOf('GET /api/files/{hash}/picture', {
                params: { hash: picture.file },
                query: { width: 640 },
              })
            "
            alt="The wall"
            :style="{ aspectRatio: `${picture.width} / ${picture.height}` }"
          />
          <button
            v-for="{ end, name } in ENDS"
            :key="end"
            class="end"
            :class="{ next: next === end }"
            :style="placeOf(picture[end])"
            :aria-label="`Place ${name} in the picture: arrow keys move it`"
            @click.stop="next = end"
            @keydown="key($event, end)"
          >
            {{ name }}
          </button>
        </div>
        <p class="hint">Tap two places in it whose distance you know; arrow keys move a place by a pixel.</p>
        <LengthRow
          label="From A to B"
          full-label="From A to B on the wall"
          :value="picture.apart"
          :min="1"
          @change="setPicture({ apart: $event })"
        />
        <div v-for="{ key: name, label } in FROM_EDGES" :key="name" class="row">
          <span>A {{ label }}</span>
          <LengthField
            :label="`A ${label} of the surface`"
            :value="picture.at[name]"
            :min="-100000"
            @change="setPicture({ at: { ...picture.at, [name]: $event } })"
          />
        </div>
      </template>
    </template>
  </FoldOut>
</template>

<style scoped>
.keepout {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  margin: 0;
  padding: 8px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
.keepout > .button {
  justify-self: end;
}
.keepout label {
  display: grid;
}
.keepout :deep(input) {
  width: 100%;
}
.keepout :deep(.field) {
  display: flex;
}
.off {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.wall {
  position: relative;
  cursor: crosshair;
}
.wall img {
  display: block;
  width: 100%;
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
.end {
  position: absolute;
  width: 26px;
  height: 26px;
  padding: 0;
  font-weight: 700;
  color: var(--card);
  background: var(--damson);
  border: 2px solid var(--card);
  border-radius: 99px;
  transform: translate(-50%, -50%);
}
.end.next {
  background: var(--currant);
}
.wrong {
  margin: 0;
  color: var(--currant);
}
</style>
