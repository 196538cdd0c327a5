<script setup lang="ts">
/** A picture into outlines, tried out over the picture while a control moves. */
import { wrap } from 'comlink';
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import type { FileSource, Piece, TraceChoices } from '../../../../core/artwork/choices';
import { useArtwork } from '../../../stores/artwork';
import type { TraceWork } from '../../../workers/trace.worker';
import TraceWorker from '../../../workers/trace.worker?worker';

const props = defineProps<{ piece: Piece; source: FileSource }>();
const art = useArtwork();
/** The picture is tried out at no more than this many pixels across; the cut is traced from all of them. */
const TRIAL_WIDTH = 900;
const url = computed(() => `/api/files/${props.source.hash}/picture?width=${TRIAL_WIDTH}`);
const now = shallowRef<TraceChoices>(props.source.trace!);
const busy = ref(false);
const failed = ref('');
watch(
  () => props.source.trace,
  (trace) => trace && (now.value = trace),
);

const thread = new TraceWorker();
const worker = wrap<TraceWork>(thread);
onBeforeUnmount(() => {
  thread.terminate();
  art.trial = undefined;
});

let wanted: TraceChoices | undefined;
/** Traces the newest settings; those that were overtaken while one was running are passed over. */
async function tryOut(): Promise<void> {
  wanted = now.value;
  if (busy.value) return;
  busy.value = true;
  failed.value = '';
  try {
    while (wanted) {
      const settings: TraceChoices = { ...wanted };
      wanted = undefined;
      const { width } = await worker.load(url.value);
      const full = art.placed.find(({ id }) => id === props.piece.id)?.offers.picture?.width ?? width;
      const trace = await worker.trace(settings, width / full);
      art.trial = { piece: props.piece.id, url: url.value, trace };
    }
  } catch {
    failed.value = 'The picture could not be tried out.';
  } finally {
    busy.value = false;
  }
}

/** While a control moves. */
function move(change: Partial<TraceChoices>): void {
  now.value = { ...now.value, ...change };
  void tryOut();
}
/** When it is let go: a choice, one step of undo. */
function commit(change: Partial<TraceChoices> = {}): void {
  move(change);
  const source = { ...props.source, trace: now.value };
  art.change({ pieces: art.choices.pieces.map((p) => (p.id === props.piece.id ? { ...p, source } : p)) });
}
const over = computed(() => art.trial?.piece === props.piece.id);
function toggle(): void {
  if (over.value) art.trial = undefined;
  else void tryOut();
}
const number = (event: Event): number => Number((event.target as HTMLInputElement).value);
const word = (event: Event): string => (event.target as HTMLSelectElement).value;
const percent = computed(() => ((art.trial?.trace?.differing ?? 0) * 100).toFixed(2));
</script>

<template>
  <div class="row">
    <span>Trace by</span>
    <select
      :value="now.by"
      aria-label="Trace by"
      @change="commit({ by: word($event) as TraceChoices['by'] })"
    >
      <option value="brightness">brightness</option>
      <option value="alpha">opacity</option>
      <option value="colours">colours</option>
    </select>
  </div>
  <label v-if="now.by !== 'colours'" class="row"
    ><span>Limit</span>
    <input
      type="range"
      aria-label="Limit"
      min="0.02"
      max="0.98"
      step="0.01"
      :value="now.threshold"
      @input="move({ threshold: number($event) })"
      @change="commit({ threshold: number($event) })"
    /><output class="number">{{ Math.round(now.threshold * 100) }} %</output></label
  >
  <label v-if="now.by !== 'colours'" class="row"
    ><span>{{ now.by === 'alpha' ? 'Clear parts are inside' : 'Bright parts are inside' }}</span>
    <input
      type="checkbox"
      :checked="now.invert"
      @change="commit({ invert: ($event.target as HTMLInputElement).checked })"
  /></label>
  <label v-if="now.by === 'colours'" class="row"
    ><span>Colours</span>
    <input
      type="range"
      aria-label="Number of colours"
      min="2"
      max="12"
      step="1"
      :value="now.colours"
      @input="move({ colours: number($event) })"
      @change="commit({ colours: number($event) })"
    /><output class="number">{{ now.colours }}</output></label
  >
  <label v-if="now.by === 'colours'" class="row"
    ><span>Leave the ground out</span>
    <input
      type="checkbox"
      :checked="now.dropGround"
      @change="commit({ dropGround: ($event.target as HTMLInputElement).checked })"
  /></label>
  <label class="row"
    ><span>Leave specks out</span>
    <input
      type="range"
      aria-label="Leave specks out"
      min="0"
      max="400"
      step="1"
      :value="now.despeckle"
      @input="move({ despeckle: number($event) })"
      @change="commit({ despeckle: number($event) })"
    /><output class="number">{{ now.despeckle }} px</output></label
  >
  <label class="row"
    ><span>Smooth</span>
    <input
      type="range"
      aria-label="Smooth"
      min="0"
      max="4"
      step="0.1"
      :value="now.smooth"
      @input="move({ smooth: number($event) })"
      @change="commit({ smooth: number($event) })"
    /><output class="number">{{ now.smooth.toFixed(1) }} px</output></label
  >
  <label class="row"
    ><span>Keep corners over</span>
    <input
      type="range"
      aria-label="Keep corners over"
      min="20"
      max="150"
      step="5"
      :value="now.corner"
      @input="move({ corner: number($event) })"
      @change="commit({ corner: number($event) })"
    /><output class="number">{{ now.corner }}°</output></label
  >
  <div class="row">
    <span class="hint" role="status"
      ><template v-if="failed">{{ failed }}</template
      ><template v-else-if="art.trial?.trace && over"
        ><b class="number">{{ percent }} %</b> of pixels differ ·
        <b class="number">{{ art.trial.trace.nodes }}</b> nodes</template
      ><template v-else>The cut is traced from every pixel.</template></span
    >
    <button class="button small" :aria-pressed="over" @click="toggle">Over the picture</button>
  </div>
</template>

<style scoped>
input[type='range'] {
  flex: 1;
  min-width: 60px;
  accent-color: var(--damson);
}
output {
  min-width: 4em;
  font-size: 13px;
  text-align: right;
}
button {
  white-space: nowrap;
}
button[aria-pressed='true'] {
  background: var(--damson-soft);
  border-color: var(--damson);
}
</style>
