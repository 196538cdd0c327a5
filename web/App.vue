<script setup lang="ts">
import ArrivalNote from './parts/ArrivalNote.vue';
import HowManyOrders from './parts/HowManyOrders.vue';
import ProblemNote from './parts/ProblemNote.vue';
import { useEventListener } from '@vueuse/core';
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import AccountMenu from './pages/people/AccountMenu.vue';
import LogInPage from './pages/people/LogInPage.vue';
import PinPad from './pages/people/PinPad.vue';
import { useArtwork } from './stores/artwork';
import { useEvents } from './stores/events';
import { useMe } from './stores/me';
import type { GoTo } from './stores/intake';
import { useIntake } from './stores/intake';
import { useOrder } from './stores/order';
import { useOrders } from './stores/orders';
import { useUnits } from './stores/units';

const route = useRoute();
const router = useRouter();
const orders = useOrders();
const intake = useIntake();
const art = useArtwork();
const order = useOrder();
const units = useUnits();
const events = useEvents();
const me = useMe();

const ASK_AGAIN_MS = 2000;
async function lookWhoItIs(): Promise<void> {
  await me.refresh();
  if (!me.session) setTimeout(() => void lookWhoItIs(), ASK_AGAIN_MS);
}
onMounted(lookWhoItIs);
watch(
  () => me.isIn,
  (isIn) => (isIn ? events.open() : events.close()),
);
// somebody logged out or was changed; a line that broke may have been ended for that
events.on((event) => void (event.kind === 'people' && me.refresh()), me.refresh);
watch(
  () => events.connected,
  (connected) => connected || void me.refresh(),
);

const dragging = ref(false);
let depth = 0;

const carriesFile = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') ?? false;

function onEnter(event: DragEvent): void {
  if (!carriesFile(event)) return;
  depth++;
  dragging.value = true;
}
function onLeave(event: DragEvent): void {
  if (carriesFile(event) && --depth <= 0) dragging.value = false;
}
async function onDrop(event: DragEvent): Promise<void> {
  depth = 0;
  dragging.value = false;
  const files = [...(event.dataTransfer?.files ?? [])];
  if (files.length === 0 || !me.isIn) return;
  event.preventDefault();
  if (isOnOrder.value) await intake.add(files);
  else await intake.start(files, goTo);
}
/** What is dropped on an order that is open is added to it. */
const isOnOrder = computed(() => route.name === 'order' && order.order !== undefined);
const goTo: GoTo = (id) =>
  router.push(id === undefined ? { name: 'orders' } : { name: 'order', params: { id } });
/** The file that is on its way. */
const arrival = computed(() => {
  if (orders.arrival) return { ...orders.arrival, name: orders.arrival.fileName };
  return art.arrival;
});
const allow = (event: DragEvent): void => void (carriesFile(event) && event.preventDefault());

useEventListener('dragenter', onEnter);
useEventListener('dragleave', onLeave);
useEventListener('dragover', allow);
useEventListener('drop', onDrop);
</script>

<template>
  <p v-if="!me.session" class="asking soft" role="status">Asking the server</p>
  <LogInPage v-if="me.session && !me.isIn" :class="{ over: me.wasIn }" />
  <div v-if="me.wasIn" class="app" :inert="!me.isIn">
    <header>
      <router-link to="/orders" class="name"
        ><img src="/pan.svg" alt="" width="28" height="24" />Jam Pan</router-link
      >
      <nav aria-label="Pages">
        <router-link to="/orders" :class="{ here: route.path.startsWith('/orders') }">Orders</router-link>
        <router-link to="/floor" :class="{ here: route.path.startsWith('/floor') }">Floor</router-link>
        <router-link to="/cutters" :class="{ here: route.path.startsWith('/cutters') }"
          >At the cutter</router-link
        >
        <router-link to="/materials" :class="{ here: route.path.startsWith('/materials') }"
          >Materials</router-link
        >
        <router-link to="/machines" :class="{ here: route.path.startsWith('/machines') }"
          >Cutters</router-link
        >
        <router-link to="/usage" :class="{ here: route.path.startsWith('/usage') }">Usage</router-link>
      </nav>
      <span v-if="!events.connected" class="away" role="status"
        >The server is away. Nothing is lost; trying again.</span
      >
      <div class="units" role="group" aria-label="Unit">
        <button
          v-for="u in ['mm', 'in'] as const"
          :key="u"
          :aria-pressed="units.unit === u"
          @click="units.unit = u"
        >
          {{ u }}
        </button>
      </div>
      <AccountMenu />
    </header>
    <main><router-view /></main>
    <div v-if="dragging" class="drop">
      <p>{{ isOnOrder ? 'Drop drawings to add them to this order' : 'Drop drawings to start an order' }}</p>
    </div>
    <ArrivalNote
      v-if="arrival"
      class="arrival"
      :name="arrival.name"
      :progress="arrival.progress"
      @cancel="arrival.cancel()"
    />
    <ProblemNote
      v-if="intake.problem"
      class="arrival"
      :message="intake.problem.message"
      :ways-out="intake.problem.waysOut"
      @close="intake.problem = undefined"
    />
    <HowManyOrders
      :files="intake.asked"
      @one="intake.one(intake.asked, goTo)"
      @each="intake.each(intake.asked, goTo)"
      @close="intake.asked = []"
    />
    <PinPad v-if="me.isPinWanted" />
  </div>
</template>

<style scoped>
.asking {
  display: grid;
  place-items: center;
  height: 100%;
  margin: 0;
}
/* what somebody did not save yet stays beneath */
.over {
  position: fixed;
  inset: 0;
  z-index: 60;
  overflow: auto;
}
.app {
  display: grid;
  grid-template-rows: 46px 1fr;
  height: 100%;
}
header {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 16px;
  background: #5e2750;
  color: #fffdf7;
}
.name {
  display: flex;
  align-items: center;
  gap: 9px;
  margin-right: 18px;
  font: 700 20px/1 var(--heading);
  color: inherit;
  text-decoration: none;
}
nav {
  display: flex;
  align-self: stretch;
  flex: 1;
  gap: 2px;
}
nav a {
  align-self: end;
  display: grid;
  place-items: center;
  height: 39px;
  padding: 0 14px;
  color: inherit;
  font-weight: 620;
  white-space: nowrap;
  text-decoration: none;
  border-radius: 9px 9px 0 0;
}
@media (max-width: 900px) {
  header {
    padding: 0 10px;
  }
  .name {
    margin-right: 4px;
  }
  nav {
    gap: 0;
  }
  nav a {
    padding: 0 6px;
  }
}
nav a:hover {
  background: rgb(255 255 255 / 12%);
}
nav a.here {
  background: var(--paper);
  color: var(--ink);
}
.away {
  font-size: 14px;
  background: #fbebc8;
  color: #5b3d04;
  padding: 3px 12px;
  border-radius: 99px;
}
.units {
  display: flex;
  border: 1px solid #cdb3c4;
  border-radius: 99px;
  overflow: hidden;
}
.units button {
  min-width: 40px;
  height: 24px;
  border: 0;
  background: none;
  font-weight: 650;
  font-size: 13px;
}
.units button[aria-pressed='true'] {
  background: #fffdf7;
  color: #5e2750;
}
header :focus-visible {
  outline-color: #fbebc8;
}
main {
  min-height: 0;
  overflow: auto;
}
.drop {
  position: fixed;
  inset: 0;
  z-index: 50;
  display: grid;
  place-items: center;
  background: rgb(246 241 230 / 88%);
  outline: 3px dashed var(--damson);
  outline-offset: -18px;
  font: 700 30px/1 var(--heading);
  pointer-events: none;
}
.arrival {
  position: fixed;
  bottom: 20px;
  left: 50%;
  z-index: 40;
  padding: 12px 18px;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-label);
  transform: translateX(-50%);
}
</style>
