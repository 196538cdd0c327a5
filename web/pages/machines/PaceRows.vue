<script setup lang="ts">
/** How long cuts really took here, and whether times are reckoned by that. */
import { onMounted, ref } from 'vue';
import type { Pace } from '../../../core/calibration/pace';
import { ApiProblem, call } from '../../stores/api';
import { useListening } from '../../stores/events';
import { oneAtATime } from '../../stores/oneAtATime';
import type { MachineEmits, MachineProps } from './change';
import { useMe } from '../../stores/me';

const me = useMe();
const props = defineProps<MachineProps>();
const emit = defineEmits<MachineEmits>();

const found = ref<Pace | null>();
const { ask: load } = oneAtATime(async () => {
  try {
    found.value = await call('GET /api/cutters/{cutter}/pace', { params: { cutter: props.machine.id } });
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
  }
});
const again = (): void => void load();
useListening(({ kind }) => void (kind === 'cut' && load()), again);
onMounted(again);

/** As many times as long. */
const times = (ratio: number): string => `${ratio.toFixed(2)} times`;
const percent = (share: number): string => `${Math.max(1, Math.round(100 * share))} %`;
/** Nearer than this to how it is reckoned already is not worth a change. */
const LEAST = 0.02;
const isWorth = (pace: Pace): boolean => Math.abs(pace.ratio / (props.machine.motion.pace ?? 1) - 1) > LEAST;
function reckon(pace: Pace | undefined): void {
  const { pace: _pace, paceWithin: _within, ...plain } = props.machine.motion;
  emit('change', {
    motion: pace
      ? { ...plain, pace: Number(pace.ratio.toFixed(4)), paceWithin: Number(pace.within.toFixed(4)) }
      : plain,
  });
}
</script>

<template>
  <div class="pace" role="group" aria-label="How long cuts take">
    <p v-if="!found" class="soft">
      How long cuts really take is told once three of them have run without a stop.
    </p>
    <p v-else>
      The last {{ found.cuts }} cuts took <b class="number">{{ times(found.ratio) }}</b> as long as by these
      numbers, half of them within {{ percent(found.within) }} of that.
    </p>
    <p v-if="machine.motion.pace">
      Times are reckoned <b class="number">{{ times(machine.motion.pace) }}</b> as long.
    </p>
    <div v-if="machine.motion.pace || (found && isWorth(found))" class="buttons">
      <button v-if="found && isWorth(found) && me.may('lead')" class="button small" @click="reckon(found)">
        Reckon {{ times(found.ratio) }} as long
      </button>
      <button v-if="machine.motion.pace && me.may('lead')" class="button small" @click="reckon(undefined)">
        Reckon by these numbers alone
      </button>
    </div>
  </div>
</template>

<style scoped>
.pace {
  display: grid;
  gap: 6px;
  padding: 6px 0;
  font-size: 14px;
}
p {
  margin: 0;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
