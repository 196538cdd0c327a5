<script setup lang="ts">
/** What the server keeps, how much that is, and for how long. */
import { computed, onMounted, ref } from 'vue';
import type { Kept } from '../../../contracts/usage';
import ChoiceField from '../../parts/ChoiceField.vue';
import { call } from '../../stores/api';
import { useListening } from '../../stores/events';
import { useMe } from '../../stores/me';
import { oneAtATime } from '../../stores/oneAtATime';
import { useTold } from '../../stores/told';
import { bytesText } from './bytesText';

const me = useMe();
const { problem, tell } = useTold();
const kept = ref<Kept>();
const { ask: look } = oneAtATime(() => tell(async () => void (kept.value = await call('GET /api/kept'))));
onMounted(look);
useListening(() => {}, look);

/** No number of months. */
const FOR_EVER = 0;
const YEARS = [1, 2, 3, 5, 10];
const options = computed(() => {
  const own = kept.value?.cuts.months ?? FOR_EVER;
  const months = [FOR_EVER, ...YEARS.map((years) => 12 * years)];
  return (months.includes(own) ? months : [...months, own]).map((value) => ({ value, label: spanOf(value) }));
});
const spanOf = (months: number): string =>
  months === FOR_EVER ? 'for ever' : months % 12 === 0 ? yearsText(months / 12) : `${months} months`;
const yearsText = (years: number): string => (years === 1 ? '1 year' : `${years} years`);
const keepFor = (months: number): Promise<void> =>
  tell(async () => {
    await call('PATCH /api/shop', { body: { keepCuts: months === FOR_EVER ? null : months } });
    await look();
  });
</script>

<template>
  <section class="panel" aria-labelledby="kept">
    <h2 id="kept">Kept on the server</h2>
    <p v-if="problem" role="alert">{{ problem }}</p>
    <dl v-if="kept">
      <div>
        <dt>Customers’ files, as they came</dt>
        <dd class="number">{{ bytesText(kept.files) }}</dd>
      </div>
      <div>
        <dt>What they read as <span class="soft">made again when it is wanted</span></dt>
        <dd class="number">{{ bytesText(kept.readings) }}</dd>
      </div>
      <div>
        <dt>
          Programs and records of {{ kept.cuts.count }} {{ kept.cuts.count === 1 ? 'cut' : 'cuts' }} that
          {{ kept.cuts.count === 1 ? 'is' : 'are' }} over
        </dt>
        <dd class="number">{{ bytesText(kept.cuts.bytes) }}</dd>
      </div>
    </dl>
    <div v-if="kept" class="for">
      <span>Programs and records are kept</span>
      <ChoiceField
        v-if="me.may('lead')"
        label="How long programs and records of cuts are kept"
        :value="kept.cuts.months ?? FOR_EVER"
        :options="options"
        @change="keepFor"
      />
      <b v-else>{{ spanOf(kept.cuts.months ?? FOR_EVER) }}</b>
    </div>
    <p class="soft">
      After that a cut keeps its facts, and what it took of the film. As cut and a comparison in every byte
      are no longer there for it.
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin-bottom: 10px;
  font-size: 17px;
}
dl {
  display: grid;
  max-width: 620px;
  gap: 4px;
  margin: 0 0 10px;
}
dl div {
  display: flex;
  gap: 16px;
  justify-content: space-between;
}
dd {
  margin: 0;
  white-space: nowrap;
}
.for {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
p {
  margin: 8px 0 0;
  font-size: 13.5px;
}
</style>
