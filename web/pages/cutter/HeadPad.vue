<script setup lang="ts">
/** Moves a machine's head by hand, in large steps and small ones; by arrow keys too. */
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from '@lucide/vue';
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { useUnits } from '../../stores/units';

defineProps<{
  /** Where it stands, once that is known, mm on the strip. */
  head?: { readonly x: number; readonly y: number };
  busy: boolean;
}>();
const emit = defineEmits<{ jog: [dx: number, dy: number] }>();
const units = useUnits();

/** mm that one press moves the head. */
const STEPS = [10, 1, 0.1] as const;
const step = useLocalStorage<number>('jam-pan-jog', 1, {
  serializer: { read: (kept) => STEPS.find((one) => one === Number(kept)) ?? 1, write: String },
});
const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
useEventListener('keydown', (event) => {
  const way = WAYS[event.key];
  if (!way || (event.target instanceof HTMLElement && event.target.closest('input, canvas'))) return;
  event.preventDefault();
  const by = event.shiftKey ? 10 : event.altKey ? 0.1 : step.value;
  emit('jog', way[0] * by, way[1] * by);
});
</script>

<template>
  <div class="pad" role="group" aria-label="Move the head">
    <button class="touch up" aria-label="Away from you" :disabled="busy" @click="$emit('jog', 0, -step)">
      <ArrowUp />
    </button>
    <button class="touch left" aria-label="Back" :disabled="busy" @click="$emit('jog', -step, 0)">
      <ArrowLeft />
    </button>
    <button class="touch right" aria-label="Along the sheet" :disabled="busy" @click="$emit('jog', step, 0)">
      <ArrowRight />
    </button>
    <button class="touch down" aria-label="Towards you" :disabled="busy" @click="$emit('jog', 0, step)">
      <ArrowDown />
    </button>
  </div>
  <div class="steps" role="group" aria-label="Step">
    <button v-for="one in STEPS" :key="one" class="touch" :aria-pressed="step === one" @click="step = one">
      {{ units.length(one, one < 1) }}
    </button>
    <span class="number at">{{ head ? `${units.number(head.x)}, ${units.length(head.y)}` : '' }}</span>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template: repeat(3, 46px) / repeat(3, 46px);
}
.pad button {
  display: grid;
  place-items: center;
  padding: 0;
}
.up {
  grid-area: 1 / 2;
}
.left {
  grid-area: 2 / 1;
}
.right {
  grid-area: 2 / 3;
}
.down {
  grid-area: 3 / 2;
}
.steps {
  display: grid;
  gap: 4px;
}
.steps button {
  min-height: 38px;
}
.at {
  min-height: 1.3em;
  font-size: 13px;
  color: var(--ink-soft);
  text-align: center;
}
</style>
