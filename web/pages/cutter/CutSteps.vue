<script setup lang="ts">
/** The cuts of an order that one machine makes, as its steps. */
import { RotateCcw } from '@lucide/vue';
import type { Cut } from '../../../contracts/cuts';
import { duration, setTo, useUnits } from '../../stores/units';

const props = defineProps<{
  steps: readonly Cut[];
  now?: number;
  /** Whether what is spoilt may be cut again. */
  canAgain: boolean;
}>();
defineEmits<{ again: [cut: Cut] }>();
const units = useUnits();
const isBegun = ({ state }: Cut): boolean => state === 'done' || state === 'stopped';
const isPast = (cut: Cut): boolean => cut.state === 'done';

/** The film, and which of its strips when it goes over several. */
function nameOf(cut: Cut): string {
  if (cut.sheet) return cut.sheet.of === 1 ? 'Printed sheet' : `Sheet ${cut.sheet.number} of ${cut.sheet.of}`;
  const strips = [...new Set(props.steps.flatMap((c) => (c.film.id === cut.film.id ? [c.strip] : [])))];
  const which = strips.length > 1 ? `, ${strips.indexOf(cut.strip) + 1} of ${strips.length}` : '';
  return `${cut.film.name}${which}${cut.mirrored ? ', mirrored' : ''}`;
}
</script>

<template>
  <ol>
    <li v-for="cut in steps" :key="cut.id" :class="{ now: cut.id === now, past: isPast(cut) }">
      <span class="mark number">{{ isPast(cut) ? '✓' : cut.position }}</span>
      <span class="swatch" :style="{ '--film': cut.film.colour }"></span>
      <span class="step">
        <strong>{{ nameOf(cut) }}</strong>
        <small
          >{{ units.run(cut.length) }} · {{ setTo(cut.nudges.kiss?.force ?? cut.recipe.force, 'g') }} ·
          {{ duration(cut.seconds)
          }}<template v-if="cut.deviation !== null">
            · within {{ cut.deviation.toFixed(3) }} mm</template
          ></small
        >
      </span>
      <button
        v-if="canAgain && isBegun(cut)"
        class="again"
        :aria-label="`Cut some of ${nameOf(cut)} again`"
        @click="$emit('again', cut)"
      >
        <RotateCcw :size="19" />
      </button>
    </li>
  </ol>
</template>

<style scoped>
ol {
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 52px;
  padding: 6px 10px;
  border-radius: var(--radius-card);
}
li.now {
  background: var(--damson-soft);
  outline: var(--line) solid var(--damson);
}
.mark {
  display: grid;
  place-items: center;
  flex: none;
  width: 25px;
  height: 25px;
  font-size: 13px;
  border: var(--line) solid var(--ink);
  border-radius: 50%;
}
.past .mark {
  background: var(--gooseberry);
  border-color: var(--gooseberry);
  color: var(--card);
}
.step {
  display: grid;
  line-height: 1.3;
}
.again {
  display: grid;
  flex: none;
  place-items: center;
  width: 44px;
  height: 44px;
  margin-left: auto;
  border: 0;
  border-radius: 50%;
  background: none;
}
.step small {
  font-size: 13px;
  color: var(--ink-soft);
}
</style>
