<script setup lang="ts">
/** A picture into outlines, tried out over the picture while a control moves. */
import { wrap } from 'comlink';
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import type { TraceChoices } from '../../../../core/tracing/choices';
import type { FileSource, Piece } from '../../../../core/artwork/choices';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import SliderRow from '../../../parts/SliderRow.vue';
import SwitchRow from '../../../parts/SwitchRow.vue';
import { useArtwork } from '../../../stores/artwork';
import { pictureAddress } from '../../../stores/pictureAddress';
import type { TraceWork } from '../../../workers/trace.worker';
import TraceWorker from '../../../workers/trace.worker?worker';

const props = defineProps<{
  piece: Piece;
  source: FileSource;
  /** It is the page of a drawing that is printed as it is. */
  isPage: boolean;
}>();
const art = useArtwork();
/** The picture is tried out at no more than this many pixels across; the cut is traced from all of them. */
const TRIAL_WIDTH = 900;
const url = computed(() => pictureAddress(props.source.hash, props.source, TRIAL_WIDTH));
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
const WAYS = [
  { value: 'brightness', label: 'traced by brightness' },
  { value: 'alpha', label: 'traced by opacity' },
  { value: 'colours', label: 'traced by colours' },
  { value: 'print', label: 'printed as it is' },
] as const;
const percent = computed(() => ((art.trial?.trace?.differing ?? 0) * 100).toFixed(2));
</script>

<template>
  <ChoiceRow
    v-if="!isPage"
    label="Picture"
    :value="now.by"
    :options="WAYS"
    @change="commit({ by: $event })"
  />
  <template v-if="now.by !== 'colours'">
    <SliderRow
      label="Limit"
      :min="0.02"
      :max="0.98"
      :step="0.01"
      :value="now.threshold"
      :says="`${Math.round(now.threshold * 100)} %`"
      @move="move({ threshold: $event })"
      @change="commit({ threshold: $event })"
    />
    <SwitchRow
      v-if="now.by !== 'print'"
      :label="now.by === 'alpha' ? 'Clear parts are inside' : 'Bright parts are inside'"
      :on="now.invert"
      @change="commit({ invert: $event })"
    />
  </template>
  <template v-else>
    <SliderRow
      label="Colours"
      full-label="Number of colours"
      :min="2"
      :max="12"
      :step="1"
      :value="now.colours"
      :says="String(now.colours)"
      @move="move({ colours: $event })"
      @change="commit({ colours: $event })"
    />
    <SwitchRow label="Leave the ground out" :on="now.dropGround" @change="commit({ dropGround: $event })" />
  </template>
  <SliderRow
    label="Leave specks out"
    :min="0"
    :max="400"
    :step="1"
    :value="now.despeckle"
    :says="`${now.despeckle} px`"
    @move="move({ despeckle: $event })"
    @change="commit({ despeckle: $event })"
  />
  <SliderRow
    label="Smooth"
    :min="0"
    :max="4"
    :step="0.1"
    :value="now.smooth"
    :says="`${now.smooth.toFixed(1)} px`"
    @move="move({ smooth: $event })"
    @change="commit({ smooth: $event })"
  />
  <SliderRow
    label="Keep corners over"
    :min="20"
    :max="150"
    :step="5"
    :value="now.corner"
    :says="`${now.corner}°`"
    @move="move({ corner: $event })"
    @change="commit({ corner: $event })"
  />
  <div class="row">
    <span class="hint" role="status"
      ><template v-if="failed">{{ failed }}</template
      ><template v-else-if="art.trial?.trace && over"
        ><b class="number">{{ percent }} %</b> of pixels differ ·
        <b class="number">{{ art.trial.trace.nodes }}</b> nodes</template
      ><template v-else>{{
        isPage ? 'It is cut around what its page paints.' : 'The cut is traced from every pixel.'
      }}</template></span
    >
    <button class="button small" :aria-pressed="over" @click="toggle">Over the picture</button>
  </div>
</template>

<style scoped>
button {
  white-space: nowrap;
}
button[aria-pressed='true'] {
  background: var(--damson-soft);
  border-color: var(--damson);
}
</style>
