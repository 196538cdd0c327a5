<script setup lang="ts">
/** Other orders on the same film: those that are cut with this one, and those that could be. */
import { useDebounceFn, watchDebounced } from '@vueuse/core';
import { computed, onUnmounted, ref, shallowRef, watch } from 'vue';
import type { GuestOrder } from '../../../../contracts/cuts';
import type { JoinOffer } from '../../../../core/plan/offers';
import { lengthOfStrips } from '../../../../core/layout/strip';
import { own } from '../../../../core/units/own';
import { dueText } from '../../../parts/dueText';
import FilmChips from '../../../parts/FilmChips.vue';
import { call } from '../../../stores/api';
import { useEvents } from '../../../stores/events';
import { useOrder } from '../../../stores/order';
import { SETTLED } from '../../../stores/packing';
import { useUnits } from '../../../stores/units';

const store = useOrder();
const units = useUnits();
const films = computed(() =>
  (store.plan?.films ?? []).map(({ film }) => film).filter(({ id }) => !own(store.away, id)),
);
const picked = ref<string>();
const film = computed(() => films.value.find(({ id }) => id === picked.value) ?? films.value[0]);
/** Ids of those that it takes along on the film. */
const taken = computed(() => (film.value && own(store.choices!.layout.guests, film.value.id)) ?? []);
const guests = computed(() => {
  const { guests: known = [], refused = [] } = store.sharing ?? {};
  const all = [...known, ...refused.map(({ order }) => order)];
  return taken.value.flatMap((id) => {
    const guest = all.find((one) => one.id === id);
    return guest ? [{ ...guest, says: whatIs(guest.number) }] : [];
  });
});
/** How much of the film is a guest's. */
function whatIs(number: number): string {
  const strips = (store.plan?.strips ?? []).filter((strip) => strip.film.id === film.value?.id);
  const its = strips.flatMap(({ shares, length }) =>
    shares.filter(({ order }) => order === number).map(({ share }) => share * length),
  );
  if (its.length === 0) return 'not on it';
  const all = its.reduce((sum, one) => sum + one, 0) / lengthOfStrips(strips);
  return `${Math.round(100 * all)} % of the film`;
}

const offered = shallowRef<readonly GuestOrder[]>();
const offers = shallowRef<ReadonlyMap<number, JoinOffer>>(new Map());
/** Those that want the film, asked for again whenever who is cut with whom has changed. */
async function ask(): Promise<void> {
  const [id, on] = [store.order?.id, film.value?.id];
  if (id === undefined || on === undefined) return;
  const found = await call('GET /api/orders/{id}/wanting', { params: { id }, query: { film: on } }).catch(
    () => undefined,
  );
  if (film.value?.id === on && store.order?.id === id) offered.value = found ?? [];
}
watch(() => [film.value?.id, store.sharing?.version, store.order?.id], ask, { immediate: true });
// an order that comes in, or whose films change, may want it too
const askSoon = useDebounceFn(ask, SETTLED);
onUnmounted(useEvents().on((event) => void (event.kind === 'order' && askSoon())));
/** What each would come to, while it is looked at. */
async function weigh(): Promise<void> {
  const [{ chosenPlan }, on, those] = [store, film.value?.id, offered.value];
  if (!on || !those?.length) return;
  const found = new Map<number, JoinOffer>();
  await store.joinOffers(on, those, (offer) => {
    if (store.chosenPlan !== chosenPlan || film.value?.id !== on) return;
    offers.value = new Map(found.set(offer.guest, offer));
  });
}
watchDebounced(() => [store.chosenPlan, offered.value], weigh, { immediate: true, debounce: SETTLED });
watch(
  () => film.value?.id,
  () => ([offered.value, offers.value] = [undefined, new Map()]),
);

function comesTo(id: number): string {
  const offer = offers.value.get(id);
  if (!offer) return '…';
  const { together, alone, now } = offer;
  if (together === undefined) return 'does not fit with it';
  const saved = alone === undefined ? 0 : now + alone - together;
  if (saved < 1) return `${units.run(together - now)} more, saves nothing`;
  return `${units.run(together - now)} more, saves ${units.run(saved)}`;
}
const take = (id: number): void => store.takeAlong(film.value.id, [...taken.value, id]);
const letGo = (id: number): void =>
  store.takeAlong(
    film.value.id,
    taken.value.filter((one) => one !== id),
  );
</script>

<template>
  <FilmChips
    v-if="films.length > 1"
    label="Film to share"
    :films="films"
    :picked="film?.id"
    @pick="picked = $event"
  />
  <template v-if="film">
    <ul v-if="guests.length" :aria-label="`Cut on ${film.name} with this order`">
      <li v-for="guest in guests" :key="guest.id">
        <span class="what">
          <router-link :to="{ name: 'order', params: { id: guest.id } }"
            ><span class="number">#{{ guest.number }}</span> {{ guest.name }}</router-link
          >
          <small class="soft">{{ guest.says }}</small>
        </span>
        <button class="button slim" :aria-label="`Take #${guest.number} off`" @click="letGo(guest.id)">
          Take off
        </button>
      </li>
    </ul>
    <ul v-if="offered?.length" :aria-label="`Orders that want ${film.name} too`">
      <li v-for="one in offered" :key="one.id">
        <span class="what">
          <span
            ><span class="number">#{{ one.number }}</span> {{ one.name }}</span
          >
          <small class="soft">{{ one.due ? `due ${dueText(one.due)} · ` : '' }}{{ comesTo(one.id) }}</small>
        </span>
        <button class="button slim" :aria-label="`Cut with #${one.number}`" @click="take(one.id)">
          Cut with it
        </button>
      </li>
    </ul>
    <p v-else class="hint">
      {{ offered ? `No other open order wants ${film.name}.` : 'Looking for orders that want it …' }}
    </p>
  </template>
</template>

<style scoped>
ul {
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}
ul + ul {
  padding-top: 7px;
  border-top: 1px dashed var(--rule);
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  font-size: 13.5px;
}
.what > :first-child {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.what small {
  display: block;
  font-size: 12px;
}
</style>
