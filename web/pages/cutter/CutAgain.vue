<script setup lang="ts">
/** What is spoilt of a cut, tapped on its film, to be cut again next; or all of it. */
import { computed, onMounted, ref, shallowRef } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import { componentsOf, liesOn } from '../../../core/geometry/nesting';
import type { Bounds } from '../../../core/geometry/bounds';
import PickedOutlines from '../../stage/PickedOutlines.vue';
import { usePickedShapes } from '../../stage/pickedShapes';
import StageAsk from '../../stage/StageAsk.vue';
import StageCanvas from '../../stage/StageCanvas.vue';
import { ApiProblem, call } from '../../stores/api';
import type { CutLines } from './drawCut';
import { drawCut, linesOf } from './drawCut';

const props = defineProps<{ cut: Cut; isFlat: boolean }>();
const emit = defineEmits<{ done: []; problem: [problem: ApiProblem] }>();

const lines = shallowRef<CutLines>();
const shapes = shallowRef<ReturnType<typeof componentsOf>>([]);
onMounted(async () => {
  const made = await call('GET /api/cuts/{id}/drawing', { params: { id: props.cut.id } }).catch(
    () => undefined,
  );
  if (!made) return;
  lines.value = linesOf(made);
  shapes.value = componentsOf(made.design.map((ring) => Float64Array.from(ring)));
});
const { picked, missed, tap, places } = usePickedShapes(({ x, y }) =>
  Promise.resolve(shapes.value.find((shape) => liesOn(shape, [x, y]))),
);

const box = computed<Bounds>(() => ({ minX: 0, minY: 0, maxX: props.cut.length, maxY: props.cut.rollWidth }));
const style = getComputedStyle(document.querySelector('.cutter-page')!);
const draw = (context: CanvasRenderingContext2D, scale: number): Generator<void> =>
  drawCut(context, scale, { ...props.cut, isSheet: props.isFlat }, lines.value, undefined, (name) =>
    style.getPropertyValue(name),
  );

/** Strips count from the far edge of what the knife reaches. */
const tapped = ({ x, y }: { x: number; y: number }): Promise<void> => tap({ x, y: y - props.cut.edges.far });
const says = computed(() => {
  const n = picked.value.length;
  if (props.cut.sheet) return 'Print this sheet once more, then cut all of it again.';
  if (n === 0 && missed.value) return 'Nothing lies there.';
  if (n === 0) return 'Tap what is spoilt. Of a panel, all is cut again.';
  return `${n} ${n === 1 ? 'shape' : 'shapes'} picked, once each.`;
});

const busy = ref(false);
async function again(at?: readonly { readonly x: number; readonly y: number }[]): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  try {
    await call('POST /api/cuts/{id}/again', {
      params: { id: props.cut.id },
      body: at ? { at: [...at] } : {},
    });
    emit('done');
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    emit('problem', error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <StageCanvas label="What is cut again" :box="box" :draw="draw" :content="lines" :room="26" @tap="tapped">
    <template #default="{ view }">
      <PickedOutlines
        :at="{ ...view, y: view.y + cut.edges.far * view.scale }"
        :shapes="picked"
        tone="spoilt"
      />
      <StageAsk label="Cut again" :says="says">
        <button
          v-if="!cut.sheet"
          class="button"
          :disabled="picked.length === 0 || busy"
          @click="again(places())"
        >
          Cut {{ picked.length > 1 ? 'them' : 'it' }} again
        </button>
        <button class="button" :disabled="busy" @click="again()">All of it</button>
        <button class="button" @click="$emit('done')">Leave it</button>
      </StageAsk>
    </template>
  </StageCanvas>
</template>

<style scoped>
.button {
  min-height: 46px;
}
</style>
