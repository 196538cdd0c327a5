<script setup lang="ts">
/** A cut before it is cut: the head goes its way, at the cutter's speed or faster. */
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import type { Bounds } from '../../../../core/geometry/bounds';
import { headAt } from '../../../../core/toolpath/play';
import StageCanvas from '../../../stage/StageCanvas.vue';
import StageHead from '../../../stage/StageHead.vue';
import { useOrder } from '../../../stores/order';
import { ONE_OR_NOUGHT } from '../../../stores/remembered';
import { useUnits } from '../../../stores/units';
import { cutsOf } from '../../../workers/packed';
import type { PlayView } from '../../../workers/packedPlay';
import { useOneOf } from '../oneOf';
import { isForList } from '../orderKeys';
import { playDrawer } from './drawPlay';
import PlayControls from './PlayControls.vue';
import { clock, usePlayer } from './player';
import PlaySays from './PlaySays.vue';
import PlayTrail from './PlayTrail.vue';

const film = defineModel<string | undefined>('film');
const emit = defineEmits<{ point: [at: { x: number; y: number } | undefined] }>();
const store = useOrder();
const units = useUnits();
const stage = ref<InstanceType<typeof StageCanvas>>();

const { shown: cut, choices, pick } = useOneOf(() => (store.plan ? cutsOf(store.plan) : []), film);

const shown = shallowRef<PlayView>();
const isAsking = ref(false);
watch(
  [() => cut.value?.id, () => store.plan],
  async ([id, plan]) => {
    isAsking.value = id !== undefined;
    const view = id === undefined ? undefined : await store.play(id);
    // what was asked for before the plan was another is old
    if (id !== cut.value?.id || plan !== store.plan) return;
    shown.value = view;
    isAsking.value = false;
  },
  { immediate: true },
);

const showsUp = useLocalStorage('jam-pan-play-up', true, ONE_OR_NOUGHT);
const player = usePlayer(computed(() => shown.value?.play.seconds ?? 0));
const { at, isPlaying, pace } = player;
const box = computed<Bounds>(() => {
  const { length = 1, cuttable = 1, edges = { far: 0, near: 0 } } = shown.value ?? {};
  return { minX: 0, minY: -edges.far, maxX: length, maxY: cuttable + edges.near };
});
const draw = computed(() => playDrawer(shown.value!, showsUp.value));
const says = computed(() =>
  shown.value && cut.value
    ? `${units.run(cut.value.cutLength)} of cutting · ${clock(shown.value.play.seconds)}`
    : '',
);

/** To where the line begins that is cut now, or where the next one does. */
function toLine(by: 1 | -1): void {
  const { play } = shown.value!;
  const { line, place } = headAt(play, at.value);
  const begun = play.moments[play.starts[line]];
  // pressed again right behind the start of a line, the line before is meant
  const to = by === 1 ? line + (place < play.starts[line] ? 0 : 1) : at.value > begun + 0.3 ? line : line - 1;
  player.goTo(to < 0 ? 0 : (play.moments[play.starts[to]] ?? play.seconds));
}
useEventListener('keydown', (event) => {
  const isOther = event.target instanceof HTMLElement && event.target.closest('input, textarea, button, a');
  if (isOther || isForList(event) || event.ctrlKey || event.metaKey || event.altKey || !shown.value) return;
  const act = { ' ': player.toggle, ',': () => toLine(-1), '.': () => toLine(1) }[event.key];
  if (!act) return;
  event.preventDefault();
  act();
});
</script>

<template>
  <div class="play">
    <StageHead label="Cuts" :choices="choices" :picked="cut?.id" :says="says" @pick="pick" />
    <StageCanvas
      v-if="shown"
      ref="stage"
      class="canvas"
      label="The cut as it will run"
      :box="box"
      :draw="draw"
      :content="[shown, showsUp]"
      :room="28"
      @point="emit('point', $event)"
    >
      <template #default="{ view, size }">
        <PlayTrail :play="shown.play" :at="at" :view="view" :size="size" />
      </template>
    </StageCanvas>
    <p v-else class="none" role="status">
      {{ isAsking ? 'Following the knife …' : 'Nothing is planned to be cut yet.' }}
    </p>
    <div v-if="shown" class="below">
      <PlayControls
        v-model:pace="pace"
        v-model:shows-up="showsUp"
        :at="at"
        :seconds="shown.play.seconds"
        :is-playing="isPlaying"
        @toggle="player.toggle"
        @go="player.goTo"
        @line="toLine"
      />
      <PlaySays :view="shown" @look="(x, y, scale) => stage?.lookAt(x, y, scale)" />
    </div>
  </div>
</template>

<style scoped>
.play {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
}
.none {
  margin: 0;
  padding: 20px;
  color: var(--ink-soft);
}
.below {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 14px;
  padding: 0 14px 12px;
}
@media (max-width: 1100px) {
  .below {
    gap: 10px;
  }
}
</style>
