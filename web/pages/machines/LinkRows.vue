<script setup lang="ts">
/** Where a machine listens, and whether it answers there. */
import { computed, onMounted, ref } from 'vue';
import type { LinkTest, LinkTo } from '../../../contracts/shop';
import { isHost } from '../../../core/units/host';
import { BAUDS, DEVICE_PATH, FOLDER_NAME } from '../../../contracts/shop';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import SwitchRow from '../../parts/SwitchRow.vue';
import DraftField from '../../parts/DraftField.vue';
import NumberField from '../../parts/NumberField.vue';
import { onShelf } from '../../parts/onShelf';
import { call } from '../../stores/api';
import { useTold } from '../../stores/told';
import { useUnits } from '../../stores/units';
import type { MachineProps } from './change';
import PairRow from './PairRow.vue';
import { useMe } from '../../stores/me';

const me = useMe();
const props = defineProps<MachineProps>();
const units = useUnits();
const link = ref<LinkTo>();
const tested = ref<LinkTest>();
const { problem, tell } = useTold();
const busy = ref(false);
const params = (): { cutter: string } => ({ cutter: props.machine.id });

const isSilentLink = computed(
  () =>
    link.value !== undefined &&
    (link.value.by === 'device' ||
      link.value.by === 'folder' ||
      ('isSilent' in link.value && link.value.isSilent === true)),
);

onMounted(() =>
  tell(async () => {
    link.value = await call('GET /api/cutters/{cutter}/link', { params: params() });
    isSimulated.value = link.value.by === 'simulator';
  }),
);
/** What is typed is kept, one after the other, before it is tested. */
let kept: Promise<void> = Promise.resolve();
function put(to: (now: LinkTo) => LinkTo): void {
  tested.value = undefined;
  kept = kept.then(() =>
    tell(async () => {
      const body = to(link.value!);
      link.value = await call('PATCH /api/cutters/{cutter}/link', { params: params(), body });
    }),
  );
}
/** Of a link of one kind; whoever changed its kind meanwhile has their way. */
function set<By extends LinkTo['by']>(by: By, change: Partial<Extract<LinkTo, { by: By }>>): void {
  put((now) => (now.by === by ? { ...now, ...change } : now));
}
const WAYS = [
  { value: 'tcp', label: 'Network' },
  { value: 'serial', label: 'Serial port' },
  { value: 'device', label: 'Device file' },
  { value: 'folder', label: 'Folder' },
] as const;
const SIMULATOR = { value: 'simulator', label: 'Simulator' } as const;
/** A machine that was a simulator can be one again while the page is open. */
const isSimulated = ref(false);
const ways = computed(() => (isSimulated.value ? [...WAYS, SIMULATOR] : WAYS));
/** What a link begins with. */
const FIRST: Readonly<Record<LinkTo['by'], LinkTo>> = {
  tcp: { by: 'tcp', host: '127.0.0.1', port: 9100 },
  serial: { by: 'serial', device: '/dev/ttyUSB0', baud: 9600, flow: 'hardware' },
  device: { by: 'device', device: '/dev/usb/lp0' },
  folder: { by: 'folder', folder: props.machine.id },
  simulator: { by: 'simulator', name: props.machine.id },
};
const BAUD_OPTIONS = BAUDS.map((value) => ({ value, label: `${value} baud` }));
const FLOW_OPTIONS = [
  { value: 'hardware', label: 'RTS/CTS' },
  { value: 'software', label: 'XON/XOFF' },
  { value: 'none', label: 'none' },
] as const;
const SAYS: Readonly<Record<LinkTo['by'], string>> = {
  tcp: 'a raw TCP port of the machine',
  serial: 'as its own settings have it; 8 bits, no parity',
  device: 'takes what is written to it, and answers nothing',
  folder: 'every cut is written into it as a file',
  simulator: 'simulated beside the server: its front panel is under At the cutter',
};
const readDevice = (typed: string): string | undefined => (DEVICE_PATH.test(typed) ? typed : undefined);
const readFolder = (typed: string): string | undefined => (FOLDER_NAME.test(typed) ? typed : undefined);
async function test(): Promise<void> {
  busy.value = true;
  tested.value = undefined;
  await kept;
  await tell(async () => {
    tested.value = await call('POST /api/cutters/{cutter}/test', { params: params() });
  });
  busy.value = false;
}
const readHost = (typed: string): string | undefined => (isHost(typed) ? typed : undefined);
const soon = (ms: number): string => (ms < 10 ? ms.toFixed(1) : String(Math.round(ms)));
</script>

<template>
  <div class="link">
    <template v-if="link">
      <ChoiceRow label="Reached by" :value="link.by" :options="ways" @change="put(() => FIRST[$event])" />
      <PairRow v-if="link.by === 'tcp'" label="Address · port" class="address">
        <DraftField
          :value="link.host"
          :label="`Address of ${machine.name}`"
          :read="readHost"
          @change="set('tcp', { host: $event })"
        />
        <NumberField
          :value="link.port"
          :label="`Port of ${machine.name}`"
          :min="1"
          :max="65535"
          @change="set('tcp', { port: $event })"
        />
      </PairRow>
      <PairRow v-else-if="link.by === 'folder'" label="Folder" class="address">
        <DraftField
          :value="link.folder"
          :label="`Folder of ${machine.name}`"
          :read="readFolder"
          @change="set('folder', { folder: $event })"
        />
      </PairRow>
      <PairRow v-else-if="link.by !== 'simulator'" label="Port" class="address">
        <DraftField
          :value="link.device"
          :label="`Port of ${machine.name}`"
          :read="readDevice"
          @change="put((now) => ('device' in now ? { ...now, device: $event } : now))"
        />
      </PairRow>
      <template v-if="link.by === 'serial'">
        <ChoiceRow
          label="Speed"
          :full-label="`Speed of the port of ${machine.name}`"
          :value="link.baud"
          :options="BAUD_OPTIONS"
          @change="set('serial', { baud: $event })"
        />
        <ChoiceRow
          label="Handshake"
          :value="link.flow"
          :options="FLOW_OPTIONS"
          @change="set('serial', { flow: $event })"
        />
      </template>
      <SwitchRow
        v-if="link.by === 'tcp' || link.by === 'serial'"
        label="It answers when it is asked"
        :on="!isSilentLink"
        @change="
          put((now) => (now.by === 'tcp' || now.by === 'serial' ? { ...now, isSilent: !$event } : now))
        "
      />
      <p v-if="isSilentLink" class="soft">
        How far its cuts are is reckoned, nothing is asked of its film, and it reads no marks.
      </p>
    </template>
    <div class="row">
      <p v-if="busy" role="status" class="soft">Asking {{ machine.name }} …</p>
      <p v-else-if="tested?.answers" role="status" class="well">
        <i aria-hidden="true"></i>answers in <b class="number">{{ soon(tested.ms!) }} ms</b> ·
        {{
          tested.film
            ? `film in it ${onShelf({ width: tested.film.width, lengthLeft: tested.film.length }, units)}`
            : 'no film is in it'
        }}
      </p>
      <p v-else-if="tested?.takes" role="status" class="well">
        <i aria-hidden="true"></i>takes what is sent; it is not asked anything
      </p>
      <p v-else-if="tested" role="status" class="wrong"><i aria-hidden="true"></i>{{ tested.problem }}</p>
      <p v-else class="soft">{{ link ? SAYS[link.by] : '' }}</p>
      <button class="button small" :disabled="busy || !link || !me.may('operator')" @click="test">
        Test the link
      </button>
    </div>
    <ul v-if="tested && tested.tries.length > 0">
      <li v-for="one in tested.tries" :key="one">{{ one }}</li>
    </ul>
    <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.link {
  display: grid;
  gap: 8px;
}
.address :deep(input:first-child) {
  width: 9.5em;
}
p {
  margin: 0;
}
i {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 7px;
  background: var(--gooseberry);
  border-radius: 50%;
}
.wrong {
  color: var(--currant);
}
.wrong i {
  background: var(--currant);
}
ul {
  margin: 0;
  padding-left: 18px;
  font-size: 14px;
}
</style>
