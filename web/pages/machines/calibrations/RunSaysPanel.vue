<script setup lang="ts">
/** What a run says, how sure that is, and what is done about it. */
import { computed } from 'vue';
import type { Calibration } from '../../../../contracts/calibrations';
import { triedBefore } from '../../../../core/calibration/estimate';
import { useUnits } from '../../../stores/units';
import { foundIn } from './runs';
import { shortDate, sureText, valueNames, valueText } from './texts';
import { useMe } from '../../../stores/me';

const me = useMe();
const props = defineProps<{
  run: Calibration;
  /** Runs of the same before it, the newest first. */
  earlier: readonly Calibration[];
  /** Below this nothing is corrected. */
  least: number;
  /** What was said is not judged yet: nothing is kept that is not shown. */
  isBusy?: boolean;
}>();
const emit = defineEmits<{ keep: []; drop: []; change: [measured: Calibration['measured']] }>();
const units = useUnits();

const found = computed(() => foundIn(props.run));
const kind = computed(() => props.run.setup.kind);
const isWorth = computed(() => found.value?.changes.some(({ left }) => !left) ?? false);
const LEFT = {
  'below-step': 'less than a step of the machine: left as it is',
  'inside-noise': 'no more than the measuring itself scatters: left as it is',
};
const again = computed(() => {
  const after = found.value?.changes.map((one) => (one.left ? one.before : one.value));
  const tried = props.earlier.flatMap((run) => (run.after ? [{ run, values: run.after }] : [])).reverse();
  return after && isWorth.value ? triedBefore(tried, after, props.least)?.run : undefined;
});
/** Without its unit: the next number has it. */
const bare = (text: string): string => text.replace(/ \D+$/, '');
const isSensor = computed(() => kind.value.startsWith('sensor'));
/** Where the cut lay, in words: nobody has to work out a sign. */
const lay = computed(() => {
  const own = found.value?.own;
  if (!own || !isSensor.value) return '';
  const [along, down] = own.map(({ value }, k) => props.run.before[k] - value);
  const say = (mm: number, less: string, more: string): string[] =>
    Math.abs(mm) < props.least ? [] : [`${units.length(Math.abs(mm), true)} ${mm < 0 ? less : more}`];
  const words = [...say(along, 'to the left', 'to the right'), ...say(down, 'to the back', 'to the front')];
  const what = kind.value === 'sensor-pen' ? 'The sensor saw the marks' : 'The cut lay';
  return words.length > 0
    ? `${what} ${words.join(' and ')}. That is taken out of where the sensor sits.`
    : '';
});
const shape = computed(() => {
  const { turn, stretch } = found.value ?? {};
  return [
    ...(turn ? [`turned by ${turn.value.toFixed(2)}°`] : []),
    ...(stretch ? [`stretched by ${(100 * stretch.value).toFixed(2)} %`] : []),
  ].join(' and ');
});
function decide(at: number, what: 'trusted' | 'leftOut'): void {
  emit('change', { ...props.run.measured, [what]: [...(props.run.measured[what] ?? []), at] });
}
</script>

<template>
  <div class="says">
    <template v-if="run.says?.says === 'odd'">
      <div v-for="one in run.says.odd" :key="one.at" class="odd" role="alert">
        <p>{{ one.message }}</p>
        <div class="buttons">
          <button class="button slim" @click="decide(one.at, 'leftOut')">Leave it out</button>
          <button class="button slim" @click="decide(one.at, 'trusted')">It is right</button>
        </div>
      </div>
    </template>
    <p v-else-if="run.says?.says === 'more'" class="soft">{{ run.says.message }}</p>
    <template v-else-if="found">
      <h3>{{ isSensor ? 'So the sensor sits' : 'So it is' }}</h3>
      <dl>
        <template v-for="(change, k) in found.changes" :key="k">
          <dt>{{ valueNames(kind)[k] }}</dt>
          <dd class="number">
            {{ bare(valueText(kind, change.before, units)) }} → {{ valueText(kind, change.value, units) }}
          </dd>
          <dt class="soft">
            {{ found.runs > 1 ? `sure to within, by ${found.runs} runs` : 'sure to within' }}
          </dt>
          <dd class="number">{{ sureText(kind, change.sure, units) }}</dd>
          <dd v-if="change.left" class="left">{{ LEFT[change.left] }}</dd>
        </template>
      </dl>
      <p v-if="lay">{{ lay }}</p>
      <p v-if="shape">
        The places also lie {{ shape }}: that is no matter of the sensor. Look how the sheet is held.
      </p>
      <p v-if="found.constant">
        Each line is {{ units.length(found.constant.value, true) }} longer than it should be whatever its
        length: that is how the ends were measured, and is left out.
      </p>
      <p v-if="again" class="note">
        This was tried on {{ shortDate(again.startedAt) }} already. Look what has changed since then before it
        is tried again.
      </p>
      <p v-else-if="isWorth && found.runs === 1" class="note">
        <b>{{ kind === 'contrast' ? 'Read' : 'Cut' }} it once more after keeping it.</b> One run can be luck;
        two that agree are taken together.
      </p>
    </template>
    <div v-if="run.state === 'measuring'" class="buttons">
      <button class="button main" :disabled="!found || isBusy || !me.may('lead')" @click="$emit('keep')">
        {{ !found || isWorth ? 'Keep this correction' : 'Keep it as it is' }}
      </button>
      <button class="button" :disabled="!me.may('operator')" @click="$emit('drop')">Drop</button>
      <p v-if="!me.may('lead')" class="soft">A lead keeps it.</p>
    </div>
  </div>
</template>

<style scoped>
.says {
  display: grid;
  gap: 9px;
}
h3 {
  font-size: 16px;
}
p {
  margin: 0;
  font-size: 14px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 3px 8px;
  margin: 0;
  font-size: 14px;
}
dd {
  margin: 0;
  font-weight: 650;
  text-align: right;
  white-space: nowrap;
}
.left {
  grid-column: 1 / 3;
  font-weight: 400;
  color: var(--ink-soft);
  text-align: left;
  white-space: normal;
}
.odd,
.note {
  padding: 10px 12px;
  background: var(--quince-soft);
  border: var(--line) solid var(--quince);
  border-radius: var(--radius-card);
}
.odd {
  display: grid;
  gap: 8px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.buttons .main {
  flex: 1;
}
</style>
