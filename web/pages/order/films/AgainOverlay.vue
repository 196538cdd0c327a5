<script setup lang="ts">
/** Spoilt shapes of one film, tapped on the sign, to be cut again without the rest. */
import { computed, watch } from 'vue';
import type { Again } from '../../../../core/films/again';
import { useOrder } from '../../../stores/order';
import { useStage } from '../../../stores/stage';
import StageAsk from '../../../stage/StageAsk.vue';
import type { Viewport } from '../../../stage/viewport';
import { usePickedShapes } from '../../../stage/pickedShapes';
import PickedOutlines from '../../../stage/PickedOutlines.vue';

const props = defineProps<{ at: Viewport; film: string }>();
const emit = defineEmits<{ cut: [shapes: Again] }>();
const store = useOrder();
const stage = useStage();

const {
  picked: spoilt,
  missed,
  tap,
  places,
} = usePickedShapes(({ x, y }) => store.shapeAt(props.film, x, y));
defineExpose({ tap });
const name = computed(() => store.plan?.films.find((s) => s.film.id === props.film)?.film.name ?? props.film);
watch(
  () => [props.film, store.choices],
  () => (spoilt.value = []),
);

function cut(): void {
  emit('cut', { film: props.film, at: places() });
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
  <PickedOutlines :at="at" :shapes="spoilt" tone="spoilt" />
  <StageAsk label="Shapes to cut again" :says="says">
    <button class="button small" :disabled="spoilt.length === 0 || !store.canRecut" @click="cut">
      Cut {{ spoilt.length === 1 ? 'it' : 'them' }} again
    </button>
    <button class="button small" @click="stage.again = undefined">Leave it</button>
  </StageAsk>
</template>
