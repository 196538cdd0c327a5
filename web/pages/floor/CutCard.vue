<script setup lang="ts">
/** The cut that is picked: what it is, and all that can be done with it, without dragging too. */
import { computed } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import { isWaiting } from '../../../contracts/floor';
import type { Cutter } from '../../../core/layout/cutter';
import ChoiceField from '../../parts/ChoiceField.vue';
import CutActs from '../../parts/CutActs.vue';
import { dueText } from '../../parts/dueText';
import { useMe } from '../../stores/me';
import { duration, setTo, useUnits } from '../../stores/units';

const props = defineProps<{
  cut: Cut;
  cutters: readonly Cutter[];
  refusal: (cut: Cut, cutter: Cutter) => string | undefined;
  /** Itself with all that it may be joined with; nothing: there is no other. */
  group: readonly Cut[];
}>();
const emit = defineEmits<{
  shift: [by: -1 | 1];
  to: [cutter: string];
  join: [cuts: readonly Cut[]];
  part: [];
  hold: [];
  release: [];
  takeBack: [];
  close: [];
}>();
/** No order's id. */
const ALL = 0;
const me = useMe();
const units = useUnits();
const facts = computed(() => {
  const { film, rollWidth, length, recipe, seconds, orderDue } = props.cut;
  return [
    film.name,
    units.length(rollWidth),
    units.run(length),
    setTo(recipe.force, 'g'),
    duration(seconds),
    ...(orderDue ? [`due ${dueText(orderDue)}`] : []),
  ];
});
const isHeld = computed(() => props.cut.state === 'held');
const waits = computed(() => isWaiting(props.cut));
const options = computed(() => props.cutters.map(({ id, name }) => ({ value: id, label: name })));
/** Orders that it may be joined with, by id: each with all strips that it has of the film. */
const others = computed(
  () =>
    new Map(
      props.group.flatMap(({ orderId, orderNumber, orderName }) =>
        orderId === props.cut.orderId ? [] : [[orderId, `#${orderNumber} ${orderName}`] as const],
      ),
    ),
);
const joinOptions = computed(() => [
  ...[...others.value].map(([value, label]) => ({ value, label })),
  ...(others.value.size > 1 ? [{ value: ALL, label: `all ${others.value.size} of this film` }] : []),
]);
const joinWith = (order: number): void =>
  emit(
    'join',
    props.group.filter(({ orderId }) => [ALL, orderId].includes(order) || orderId === props.cut.orderId),
  );
const isShared = computed(() => props.cut.shares.length > 1);
const refusals = computed(() =>
  props.cutters.flatMap((cutter) => {
    const why = props.refusal(props.cut, cutter);
    return why === undefined ? [] : [why];
  }),
);
</script>

<template>
  <section class="cut" :aria-label="`The cut that is picked: ${cut.orderName}, ${cut.film.name}`">
    <i class="swatch" :style="{ '--film': cut.film.colour }" aria-hidden="true"></i>
    <div class="what">
      <strong
        ><router-link :to="{ name: 'order', params: { id: cut.orderId } }">{{ cut.orderName }}</router-link>
        <span class="number soft"> #{{ cut.orderNumber }}</span></strong
      >
      <span class="number facts">
        <span v-for="(fact, i) in facts" :key="i">{{ fact }}{{ i < facts.length - 1 ? ' ·' : '' }}</span>
      </span>
      <span v-if="isShared" class="number soft">
        With
        {{
          cut.shares
            .slice(1)
            .map((share) => `#${share.orderNumber} ${share.orderName}`)
            .join(', ')
        }}
      </span>
      <CutActs :key="cut.id" :cut="cut.id" />
    </div>
    <div class="do">
      <template v-if="waits && me.may('operator')">
        <button class="button slim" @click="$emit('shift', -1)">Earlier</button>
        <button class="button slim" @click="$emit('shift', 1)">Later</button>
      </template>
      <ChoiceField
        v-if="(waits || isHeld) && me.may('operator')"
        label="Cut it on"
        :value="cut.cutterId"
        :options="options"
        @change="$emit('to', $event)"
      />
      <ChoiceField
        v-if="others.size > 0 && me.may('operator')"
        label="Join it with"
        placeholder="Join with …"
        :value="undefined"
        :options="joinOptions"
        @change="joinWith"
      />
      <button
        v-if="isShared && (waits || isHeld) && me.may('operator')"
        class="button slim"
        @click="$emit('part')"
      >
        Take apart
      </button>
      <button v-if="waits" class="button slim" @click="$emit('hold')">Put on the shelf</button>
      <button v-if="isHeld" class="button slim" @click="$emit('release')">Send it</button>
      <button v-if="waits || isHeld" class="button slim" @click="$emit('takeBack')">Take it back</button>
      <router-link v-if="!isHeld" class="button slim" :to="{ name: 'cutter', params: { id: cut.cutterId } }"
        >At the cutter</router-link
      >
      <button class="button slim" @click="$emit('close')">Close</button>
    </div>
    <ul v-if="(waits || isHeld) && refusals.length > 0" class="soft">
      <li v-for="why in refusals" :key="why">{{ why }}</li>
    </ul>
  </section>
</template>

<style scoped>
.cut {
  display: grid;
  grid-template-columns: auto minmax(340px, 1fr) minmax(0, auto);
  gap: 4px 12px;
  padding: 10px 14px;
  background: var(--card);
  border: var(--line) solid var(--bilberry);
  border-radius: var(--radius-label);
}
.what {
  display: grid;
  gap: 2px;
  font-size: 14px;
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1ch;
}
.facts span {
  white-space: nowrap;
}
.do {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: start;
  justify-content: end;
}
.cut > ul {
  grid-column: 2 / -1;
  margin: 0;
  padding-left: 18px;
  font-size: 13.5px;
}
</style>
