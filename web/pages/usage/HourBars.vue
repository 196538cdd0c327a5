<script setup lang="ts">
/** Where each cutter's hours went, on one scale. */
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';
import type { Usage } from '../../../contracts/usage';
import { DOINGS } from '../../../contracts/usage';
import { largest } from '../../../core/geometry/lists';
import { duration } from '../../stores/units';
import ColourLegend from './ColourLegend.vue';
import { timeOf, TIMES } from './parts';

const props = defineProps<{ cutters: Usage['byCutter'] }>();
const x = computed(() => scaleLinear([0, largest(props.cutters.map(({ times }) => timeOf(times)), 1)], [0, 100])); // prettier-ignore
const says = (times: Usage['byCutter'][number]['times']): string =>
  DOINGS.filter((one) => times[one] > 0)
    .map((one) => `${duration(times[one])} ${TIMES[one].says}`)
    .join(', ');
</script>

<template>
  <p v-if="cutters.length === 0" class="soft">No cutter did anything in these weeks.</p>
  <template v-else>
    <ol>
      <li v-for="{ cutter, name, times } in cutters" :key="cutter" :title="says(times)">
        <b>{{ name }}</b>
        <span class="bar" aria-hidden="true">
          <i
            v-for="one in DOINGS.filter((doing) => times[doing] > 0)"
            :key="one"
            :style="{ background: TIMES[one].colour, width: `${x(times[one])}%` }"
          ></i>
        </span>
        <span class="number sum">{{ duration(timeOf(times)) }}</span>
        <span class="unseen">{{ says(times) }}</span>
      </li>
    </ol>
    <ColourLegend :of="DOINGS.map((one) => TIMES[one])">
      <span class="note">A wait or a stop of more than an hour counts as one: nobody was there.</span>
    </ColourLegend>
  </template>
</template>

<style scoped>
ol {
  display: grid;
  gap: 7px;
  margin: 0 0 10px;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 12px;
  align-items: center;
}
b {
  flex: 0 0 86px;
}
.bar {
  display: flex;
  flex: 1;
  gap: 2px;
  height: 16px;
}
.sum {
  min-width: 74px;
  text-align: right;
}
.note {
  margin-left: auto;
}
p {
  margin: 0;
}
</style>
