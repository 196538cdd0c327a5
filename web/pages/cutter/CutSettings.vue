<script setup lang="ts">
/** Force and speed of the cut at the machine: a step up or down holds from the next line on. */
import { Minus, Plus } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import type { Cut, NudgeAsked } from '../../../contracts/cuts';
import type { LineKind } from '../../../core/artwork/choices';
import type { Cutter } from '../../../core/layout/cutter';
import { nextStep, ownStep } from '../../../core/layout/ownSteps';
import { call } from '../../stores/api';
import { useMe } from '../../stores/me';
import { useTold } from '../../stores/told';
import { setTo } from '../../stores/units';
import { kindName } from '../order/artwork/kinds';
import { nudgedText } from './nudgedText';

const props = defineProps<{
  cut: Cut;
  /** Its record, once it is known. */
  cutter?: Cutter;
  /** The last one of the same film here, if that was nudged. */
  before?: Cut;
}>();
const me = useMe();
const { problem, tell } = useTold();

const SETTINGS = [
  { key: 'force', label: 'Force', unit: 'g', usual: 5, digits: 0 },
  { key: 'speed', label: 'Speed', unit: 'cm/s', usual: 1, digits: 2 },
] as const;
type Setting = (typeof SETTINGS)[number];
const kinds = computed(() => Object.keys(props.cut.writtenWith) as LineKind[]);

/** What was pressed and is not told yet: presses that follow one another go on from it. */
const pressed = ref<Partial<Record<string, number>>>({});
watch(
  () => props.cut.nudges,
  () => (pressed.value = {}),
);
const written = (kind: LineKind, key: Setting['key']): number | null =>
  props.cut.writtenWith[kind]?.[key] ?? null;
const valueOf = (kind: LineKind, key: Setting['key']): number | null =>
  pressed.value[`${kind}/${key}`] ?? props.cut.nudges[kind]?.[key] ?? written(kind, key);

const canNudge = ({ key }: Setting, kind: LineKind): boolean =>
  me.may('operator') &&
  written(kind, key) !== null &&
  Boolean(key === 'force' ? props.cutter?.device.sendsForce : props.cutter?.device.sendsSpeed);
function stepped(kind: LineKind, { key, usual, digits }: Setting, by: 1 | -1): number | undefined {
  const [range, value] = [props.cutter?.[key], valueOf(kind, key)];
  if (!range || value === null) return undefined;
  const to = nextStep(range, value, by, usual, digits);
  return to === value ? undefined : to;
}
/** The same on the machine's own panel. */
function stepText(kind: LineKind, key: Setting['key']): string {
  const [range, value] = [props.cutter?.[key], valueOf(kind, key)];
  const step = range && value !== null ? ownStep(range, value) : undefined;
  return step === undefined ? '' : `step ${step}`;
}

const send = (body: NudgeAsked): Promise<void> =>
  tell(async () => void (await call('POST /api/cuts/{id}/nudge', { params: { id: props.cut.id }, body })));
async function nudge(kind: LineKind, setting: Setting, by: 1 | -1): Promise<void> {
  const to = stepped(kind, setting, by);
  if (to === undefined) return;
  pressed.value = { ...pressed.value, [`${kind}/${setting.key}`]: to };
  await send({ kind, [setting.key]: to });
  if (problem.value) pressed.value = {};
}
const isNudged = computed(() => Object.values(props.cut.nudges).some((one) => Object.keys(one).length > 0));
async function asBefore(): Promise<void> {
  for (const kind of kinds.value) {
    const { force, speed } = props.before?.nudges[kind] ?? {};
    if (force !== undefined || speed !== undefined) await send({ kind, force, speed });
  }
}
async function asWritten(): Promise<void> {
  for (const kind of kinds.value) await send({ kind, force: null, speed: null });
}
</script>

<template>
  <div class="settings">
    <template v-for="kind in kinds" :key="kind">
      <h4 v-if="kinds.length > 1">{{ kindName(kind) }}</h4>
      <div v-for="setting in SETTINGS" :key="setting.key" class="setting">
        <span class="label">{{ setting.label }}</span>
        <b class="number"
          >{{ setTo(valueOf(kind, setting.key), setting.unit) }}
          <small v-if="stepText(kind, setting.key)">{{ stepText(kind, setting.key) }}</small></b
        >
        <span
          v-if="canNudge(setting, kind)"
          class="nudge"
          role="group"
          :aria-label="kinds.length > 1 ? `${setting.label}, ${kindName(kind)}` : setting.label"
        >
          <button
            :aria-label="`Less ${setting.key}`"
            :disabled="stepped(kind, setting, -1) === undefined"
            @click="nudge(kind, setting, -1)"
          >
            <Minus :size="20" />
          </button>
          <button
            :aria-label="`More ${setting.key}`"
            :disabled="stepped(kind, setting, 1) === undefined"
            @click="nudge(kind, setting, 1)"
          >
            <Plus :size="20" />
          </button>
        </span>
        <small v-if="valueOf(kind, setting.key) !== written(kind, setting.key)" class="instead soft"
          >instead of {{ setTo(written(kind, setting.key), setting.unit) }}</small
        >
      </div>
    </template>
    <p v-if="isNudged && cut.state === 'cutting'" class="soft">From the next line that is sent.</p>
    <button v-if="isNudged && me.may('operator')" class="link" @click="asWritten">As its recipe says</button>
    <template v-else-if="before && me.may('operator')">
      <p>{{ before.film.name }} before this was cut with {{ nudgedText(before) }}.</p>
      <button class="button" @click="asBefore">Cut this so too</button>
    </template>
    <p v-if="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.settings {
  display: grid;
  gap: 8px;
}
.setting {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 0 10px;
  align-items: center;
}
.label {
  color: var(--ink-soft);
}
.setting small {
  font-weight: 400;
}
.setting b {
  text-align: right;
}
.setting b small {
  display: block;
}
h4::first-letter {
  text-transform: uppercase;
}
.setting:not(:has(.instead)) > .label,
.setting:not(:has(.instead)) > b {
  grid-row: 1 / 3;
}
.instead {
  grid-column: 1 / 3;
  text-align: right;
}
.nudge {
  grid-row: 1 / 3;
  grid-column: 3;
  align-self: center;
}
.nudge {
  display: flex;
}
.nudge button {
  display: grid;
  place-items: center;
  width: 46px;
  height: 46px;
  background: var(--card);
  border: var(--line) solid var(--ink);
}
.nudge button:first-child {
  border-radius: var(--radius-label) 0 0 var(--radius-label);
}
.nudge button:last-child {
  margin-left: calc(-1 * var(--line));
  border-radius: 0 var(--radius-label) var(--radius-label) 0;
}
.nudge button:disabled {
  opacity: 0.45;
}
h4,
p {
  margin: 0;
}
.link,
.button {
  justify-self: start;
}
</style>
