<script setup lang="ts">
/** Where a machine listens, and whether it answers there. */
import { onMounted, ref } from 'vue';
import type { LinkTest, LinkTo } from '../../../contracts/shop';
import { isHost } from '../../../core/units/host';
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

onMounted(() =>
  tell(async () => {
    link.value = await call('GET /api/cutters/{cutter}/link', { params: params() });
  }),
);
/** What is typed is kept, one after the other, before it is tested. */
let kept: Promise<void> = Promise.resolve();
function set(change: Partial<LinkTo>): void {
  tested.value = undefined;
  kept = kept.then(() =>
    tell(async () => {
      const body = { ...link.value!, ...change };
      link.value = await call('PATCH /api/cutters/{cutter}/link', { params: params(), body });
    }),
  );
}
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
    <PairRow v-if="link" label="Address · port" class="address">
      <DraftField
        :value="link.host"
        :label="`Address of ${machine.name}`"
        :read="readHost"
        @change="set({ host: $event })"
      />
      <NumberField
        :value="link.port"
        :label="`Port of ${machine.name}`"
        :min="1"
        :max="65535"
        @change="set({ port: $event })"
      />
    </PairRow>
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
      <p v-else-if="tested" role="status" class="wrong"><i aria-hidden="true"></i>{{ tested.problem }}</p>
      <p v-else class="soft">a raw TCP port of the machine</p>
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
