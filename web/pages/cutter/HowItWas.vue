<script setup lang="ts">
/** What the operator says of a cut that is done; nothing need be said. */
import { ref } from 'vue';
import type { Cut, Said } from '../../../contracts/cuts';
import type { HowItWas } from '../../../core/calibration/howItWas';
import { call } from '../../stores/api';
import { useMe } from '../../stores/me';
import { useTold } from '../../stores/told';

const props = defineProps<{ cut: Cut }>();
const WAYS: readonly (readonly [HowItWas, string])[] = [
  ['clean', 'Clean'],
  ['bumps', 'Bumps'],
  ['into-backing', 'Into the backing'],
  ['not-through', 'Not through'],
];
const me = useMe();
const was = ref(props.cut.howItWas);
const asks = ref<Said['asks']>(null);
const { problem, tell } = useTold();

const say = (what: HowItWas): Promise<void> =>
  tell(async () => {
    const said = await call('POST /api/cuts/{id}/how', {
      params: { id: props.cut.id },
      body: { was: was.value === what ? null : what },
    });
    was.value = said.cut.howItWas;
    asks.value = said.asks;
  });
const change = (force: number): Promise<void> =>
  tell(async () => {
    await call('PATCH /api/cutters/{cutter}/recipes/{film}/{kind}', {
      params: { cutter: props.cut.cutterId, film: props.cut.film.id, kind: 'kiss' },
      body: { force, why: 'how the last cuts were' },
    });
    asks.value = null;
  });
</script>

<template>
  <div class="how">
    <div role="group" aria-label="How it was">
      <button
        v-for="[value, label] in WAYS"
        :key="value"
        :class="value"
        :aria-pressed="was === value"
        @click="say(value)"
      >
        {{ label }}
      </button>
    </div>
    <div v-if="asks" class="asked-of-you" role="alert">
      <p>
        That is the third time in a row on {{ cut.film.name }}. Cut it with
        <b class="number">{{ asks.to }} g</b> instead of {{ asks.from }} g from now on?
      </p>
      <p v-if="!me.may('lead')">A lead changes the recipe.</p>
      <button v-else class="button main" @click="change(asks.to)">Yes, {{ asks.to }} g</button>
      <button class="button" @click="asks = null">Leave it</button>
    </div>
    <p v-if="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.how,
[role='group'] {
  display: grid;
  gap: 6px;
}
[role='group'] {
  grid-template-columns: 1fr 1fr;
}
[role='group'] button {
  min-height: 46px;
  font-weight: 650;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-card);
}
[role='group'] button[aria-pressed='true'] {
  border-color: var(--ink);
  background: var(--currant-soft);
}
[role='group'] .clean[aria-pressed='true'] {
  background: var(--gooseberry-soft);
}
p {
  margin: 0;
}
</style>
