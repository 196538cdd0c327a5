<script setup lang="ts">
/** All that a machine's record says: what it takes, what it reaches, how it moves and how it is spoken to. */
import { computed } from 'vue';
import type { CutterChange } from '../../../contracts/shop';
import type { Cutter, Device, MarkSensor } from '../../../core/layout/cutter';
import type { MarkKind } from '../../../core/registration/readMarks';
import { MARK_KINDS } from '../../../core/registration/readMarks';
import ChoiceField from '../../parts/ChoiceField.vue';
import DraftField from '../../parts/DraftField.vue';
import LengthField from '../../parts/LengthField.vue';
import NumberField from '../../parts/NumberField.vue';
import SwitchRow from '../../parts/SwitchRow.vue';
import BedDrawing from './BedDrawing.vue';
import { KIND_NAMES } from './kinds';
import LinkPanel from './LinkPanel.vue';

const props = defineProps<{ machine: Cutter }>();
const emit = defineEmits<{ change: [what: CutterChange] }>();
const isBed = computed(() => props.machine.kind === 'flatbed');
const set = (what: CutterChange): void => emit('change', what);
const setDevice = (what: Partial<Device>): void => set({ device: { ...props.machine.device, ...what } });
const setMotion = (what: Partial<Cutter['motion']>): void =>
  set({ motion: { ...props.machine.motion, ...what } });
const setSensor = (what: Partial<MarkSensor>): void => set({ sensor: { ...props.machine.sensor!, ...what } });

/** Edges with what holds film there, by the names that people give them. */
const EDGES = computed(
  () =>
    [
      ['far', isBed.value ? 'At the far edge' : 'Rollers, far edge'],
      ['near', isBed.value ? 'At the near edge' : 'Rollers, near edge'],
      ['lead', 'Before the cut'],
      ['tail', 'Behind the cut'],
    ] as const,
);
const KINDS = (['roll', 'desk', 'flatbed'] as const).map((value) => ({ value, label: KIND_NAMES[value] }));
const THICK = { none: 'whatever', limit: 'up to' } as const;
const FEED = [
  { value: 'x', label: 'X runs along the film' },
  { value: 'y', label: 'Y runs along the film' },
] as const;
const TOOLS = [
  { value: 1, label: 'a knife' },
  { value: 2, label: 'a knife and a second tool' },
];
/** A sensor as it begins: before it is calibrated it is where the knife is. */
const NEW_SENSOR: MarkSensor = {
  kinds: ['in'],
  most: 4,
  farthest: 1000,
  noise: 0.03,
  reach: 8,
  offset: [0, 0],
};
const MARKS: Readonly<Record<MarkKind, string>> = {
  in: 'corners that face in',
  out: 'corners that face out',
  dots: 'dots',
};
function toggleMark(kind: MarkKind, isOn: boolean): void {
  const kinds = MARK_KINDS.filter((one) => (one === kind ? isOn : props.machine.sensor!.kinds.includes(one)));
  if (kinds.length > 0) setSensor({ kinds });
}
const readName = (typed: string): string | undefined => typed.trim() || undefined;
</script>

<template>
  <div class="details">
    <section aria-label="What it takes">
      <h3>What it takes</h3>
      <div class="row">
        <span>Name</span>
        <DraftField
          :value="machine.name"
          label="Name of the cutter"
          :read="readName"
          @change="set({ name: $event })"
        />
      </div>
      <div class="row">
        <span>Kind</span>
        <ChoiceField
          label="Kind of cutter"
          :value="machine.kind"
          :options="KINDS"
          @change="set({ kind: $event })"
        />
      </div>
      <div class="row">
        <span>Film from · to</span>
        <span class="pair">
          <LengthField
            label="Narrowest film"
            :value="machine.narrowest"
            :min="10"
            :max="5000"
            @change="set({ narrowest: $event })"
          />
          <LengthField
            label="Widest film"
            :value="machine.widest"
            :min="50"
            :max="5000"
            @change="set({ widest: $event })"
          />
        </span>
      </div>
      <div class="row">
        <span>Thick, with its backing</span>
        <span class="pair">
          <ChoiceField
            label="Whether thickness is limited"
            :value="typeof machine.thickest === 'number' ? THICK.limit : THICK.none"
            :options="[THICK.none, THICK.limit].map((value) => ({ value, label: value }))"
            @change="set({ thickest: $event === THICK.none ? null : 0.5 })"
          />
          <LengthField
            v-if="typeof machine.thickest === 'number'"
            fine
            label="Thickest film"
            :value="machine.thickest"
            :min="0.05"
            :max="50"
            @change="set({ thickest: $event })"
          />
        </span>
      </div>
      <div class="row">
        <span>{{ isBed ? 'Bed is long' : 'Film runs true for' }}</span>
        <LengthField
          label="How long film runs true"
          :value="machine.trackLength"
          :min="100"
          :max="100000"
          @change="set({ trackLength: $event })"
        />
      </div>
      <div class="row">
        <span>Holds</span>
        <ChoiceField
          label="What it holds"
          :value="machine.device.tools ?? 1"
          :options="TOOLS"
          @change="setDevice({ tools: $event })"
        />
      </div>
    </section>
    <section aria-label="What it reaches">
      <h3>What it reaches</h3>
      <BedDrawing :machine="machine" />
      <div v-for="[edge, name] in EDGES" :key="edge" class="row">
        <span>{{ name }}</span>
        <LengthField
          :label="name"
          :value="machine.margins[edge]"
          :min="edge === 'lead' ? 4 : 0"
          :max="500"
          @change="set({ margins: { ...machine.margins, [edge]: $event } })"
        />
      </div>
      <div class="row">
        <span title="Of the width, when art is taken apart into panels">Kept in hand</span>
        <LengthField
          label="Kept in hand"
          :value="machine.reserve"
          :max="5000"
          @change="set({ reserve: $event })"
        />
      </div>
    </section>
    <section aria-label="Link">
      <h3>Link</h3>
      <LinkPanel :machine="machine" />
      <h3>How it is spoken to</h3>
      <div class="row">
        <span>One step</span>
        <span class="pair"
          ><NumberField
            label="One step, mm"
            :value="machine.device.step"
            :digits="3"
            :min="0.001"
            :max="1"
            @change="setDevice({ step: $event })"
          /><span class="soft">mm</span></span
        >
      </div>
      <div class="row">
        <span>Its axes</span>
        <ChoiceField
          label="Its axes"
          :value="machine.device.feedAxis"
          :options="FEED"
          @change="setDevice({ feedAxis: $event })"
        />
      </div>
      <SwitchRow
        label="Counts back along the film"
        :on="machine.device.feedReversed"
        @change="setDevice({ feedReversed: $event })"
      />
      <SwitchRow
        label="Counts from the far edge"
        :on="machine.device.acrossReversed"
        @change="setDevice({ acrossReversed: $event })"
      />
      <SwitchRow
        label="Is told the force"
        :on="machine.device.sendsForce"
        @change="setDevice({ sendsForce: $event })"
      />
      <SwitchRow
        label="Is told the speed"
        :on="machine.device.sendsSpeed"
        @change="setDevice({ sendsSpeed: $event })"
      />
      <div class="row">
        <span>Points at a time · holds</span>
        <span class="pair">
          <NumberField
            label="Points at a time"
            :value="machine.device.pointsInDown"
            :min="1"
            :max="10000"
            @change="setDevice({ pointsInDown: $event })"
          />
          <NumberField
            label="Bytes it holds"
            :value="machine.device.bufferBytes"
            :min="32"
            :max="100000000"
            @change="setDevice({ bufferBytes: $event })"
          />
          <span class="soft">bytes</span>
        </span>
      </div>
    </section>
    <section aria-label="How it moves">
      <h3>How it moves</h3>
      <div class="row">
        <span>Force, g</span>
        <span class="pair">
          <NumberField
            label="Least force, g"
            :value="machine.force.least"
            :max="5000"
            @change="set({ force: { ...machine.force, least: $event } })"
          />
          <NumberField
            label="Most force, g"
            :value="machine.force.most"
            :max="5000"
            @change="set({ force: { ...machine.force, most: $event } })"
          />
        </span>
      </div>
      <div class="row">
        <span>Speed, cm/s</span>
        <span class="pair">
          <NumberField
            label="Least speed, cm/s"
            :value="machine.speed.least"
            :max="500"
            @change="set({ speed: { ...machine.speed, least: $event } })"
          />
          <NumberField
            label="Most speed, cm/s"
            :value="machine.speed.most"
            :max="500"
            @change="set({ speed: { ...machine.speed, most: $event } })"
          />
        </span>
      </div>
      <div class="row">
        <span title="When its speed is left to the machine">By itself · knife up, cm/s</span>
        <span class="pair">
          <NumberField
            label="Its own speed, cm/s"
            :value="machine.ownSpeed"
            :min="0.1"
            :max="500"
            @change="set({ ownSpeed: $event })"
          />
          <NumberField
            label="Speed with the knife up, cm/s"
            :value="machine.motion.travelSpeed"
            :min="0.5"
            :max="500"
            @change="setMotion({ travelSpeed: $event })"
          />
        </span>
      </div>
      <div class="row">
        <span>Gathers speed, mm/s²</span>
        <NumberField
          label="Acceleration, mm/s²"
          :value="machine.motion.acceleration"
          :min="10"
          :max="100000"
          @change="setMotion({ acceleration: $event })"
        />
      </div>
      <div class="row">
        <span>Knife down · up, s</span>
        <span class="pair">
          <NumberField
            label="Seconds to lower the knife"
            :value="machine.motion.down"
            :digits="2"
            :max="5"
            @change="setMotion({ down: $event })"
          />
          <NumberField
            label="Seconds to raise the knife"
            :value="machine.motion.up"
            :digits="2"
            :max="5"
            @change="setMotion({ up: $event })"
          />
        </span>
      </div>
      <h3>Sensor</h3>
      <SwitchRow
        label="Reads print marks"
        :on="!!machine.sensor"
        @change="set({ sensor: $event ? NEW_SENSOR : null })"
      />
      <template v-if="machine.sensor">
        <SwitchRow
          v-for="kind in MARK_KINDS"
          :key="kind"
          :label="MARKS[kind]"
          :on="machine.sensor.kinds.includes(kind)"
          @change="toggleMark(kind, $event)"
        />
        <div class="row">
          <span>Marks at the most · apart</span>
          <span class="pair">
            <NumberField
              label="Marks at the most"
              :value="machine.sensor.most"
              :min="2"
              :max="200"
              @change="setSensor({ most: $event })"
            />
            <LengthField
              label="Marks as far apart as"
              :value="machine.sensor.farthest"
              :min="10"
              :max="100000"
              @change="setSensor({ farthest: $event })"
            />
          </span>
        </div>
        <div class="row">
          <span title="On the cutter's own axes">From the knife, X · Y</span>
          <span class="pair">
            <NumberField
              label="Sensor from the knife, X, mm"
              :value="machine.sensor.offset[0]"
              :digits="2"
              :min="-200"
              :max="200"
              @change="setSensor({ offset: [$event, machine.sensor.offset[1]] })"
            />
            <NumberField
              label="Sensor from the knife, Y, mm"
              :value="machine.sensor.offset[1]"
              :digits="2"
              :min="-200"
              :max="200"
              @change="setSensor({ offset: [machine.sensor.offset[0], $event] })"
            />
            <span class="soft">mm</span>
          </span>
        </div>
      </template>
    </section>
  </div>
</template>

<style scoped>
.details {
  columns: 2 340px;
  column-gap: 16px;
}
section {
  display: grid;
  gap: 7px;
  margin-bottom: 16px;
  padding: 14px 16px;
  break-inside: avoid;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
h3 {
  margin: 0 0 2px;
  font-size: 16px;
}
section h3:not(:first-child) {
  margin-top: 8px;
}
section :deep(.row) {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  justify-content: space-between;
}
.pair {
  display: flex;
  gap: 6px;
  align-items: center;
}
.pair :deep(input) {
  width: 7.2em;
}
</style>
