<script setup lang="ts">
/** Cuts of one film that can lie on one strip, and what that takes of it, before they are joined. */
import type { Join } from '../../../contracts/floor';
import { useUnits } from '../../stores/units';
import ProposalsNote from './ProposalsNote.vue';

defineProps<{ joins: readonly Join[]; nameOf: (cutter: string) => string }>();
defineEmits<{ accept: [join: Join]; close: [] }>();
const units = useUnits();
const ordersIn = ({ orders }: Join): string => {
  const names = orders.map((number) => `#${number}`);
  return `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
};
function comesTo({ now, then }: Join): string {
  const strips = `${then.strips} ${then.strips === 1 ? 'strip' : 'strips'} instead of ${now.strips}`;
  const [shorter, longer] = [then, now].map(({ length }) => units.run(length));
  return shorter === longer ? `${strips}, as much film` : `${strips}, ${shorter} instead of ${longer}`;
}
</script>

<template>
  <ProposalsNote
    label="Joined cuts"
    none="No cuts that wait fit together on fewer strips and no more film."
    :count="joins.length"
    @close="$emit('close')"
  >
    <div v-for="one in joins" :key="one.cuts.join()">
      <i class="swatch" :style="{ '--film': one.colour }" aria-hidden="true"></i>
      <span
        ><strong>{{ nameOf(one.cutter) }}</strong> {{ one.film }} of {{ ordersIn(one) }}:
        {{ comesTo(one) }}.</span
      >
      <button class="button slim" @click="$emit('accept', one)">Join them</button>
    </div>
  </ProposalsNote>
</template>
