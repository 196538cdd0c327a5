<script setup lang="ts">
/** The application sheet on a tablet: film by film from the top of the pile, ticked off as it is weeded and taped. */
import { addressOf } from '../../../contracts/address';
import { ArrowLeft, Printer } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { computed, onMounted, ref } from 'vue';
import { useRoute } from 'vue-router';
import type { Order } from '../../../contracts/api';
import type { ApplyPage } from '../../../contracts/bench';
import { ApiProblem, call } from '../../stores/api';
import { useUnits } from '../../stores/units';

const route = useRoute();
const units = useUnits();
const id = Number(route.params.id);
const order = ref<Order>();
const sheet = ref<ApplyPage>();
const problem = ref('');

/** What has been done is remembered on this tablet, for as long as the order stays as it is. */
const done = useLocalStorage<readonly string[]>(() => `jam-pan-applied-${id}-${order.value?.revision}`, []);
function tick(name: string): void {
  done.value = done.value.includes(name) ? done.value.filter((n) => n !== name) : [...done.value, name];
}

async function load(): Promise<void> {
  problem.value = '';
  try {
    [order.value, sheet.value] = await Promise.all([
      call('GET /api/orders/{id}', { params: { id } }),
      call('GET /api/orders/{id}/application', { params: { id } }),
    ]);
    document.title = `Applying ${order.value.name} · Jam Pan`;
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    problem.value = error.message;
  }
}
onMounted(load);

const box = computed(() => {
  const { minX, minY, maxX, maxY } = sheet.value!.view;
  const rim = 0.02 * Math.max(maxX - minX, maxY - minY);
  return `${minX - rim} ${minY - rim} ${maxX - minX + 2 * rim} ${maxY - minY + 2 * rim}`;
});
const line = computed(() => Math.max(sheet.value!.width, sheet.value!.height) / 500);
</script>

<template>
  <div class="page">
    <header>
      <router-link class="button" :to="{ name: 'order', params: { id } }"
        ><ArrowLeft :size="17" aria-hidden="true" />The order</router-link
      >
      <h1>{{ order?.name ?? 'Applying' }}</h1>
      <span v-if="order" class="soft number">#{{ order.number }}</span>
      <a
        class="button paper"
        :href="addressOf('GET /api/orders/{id}/application.pdf', { params: { id } })"
        target="_blank"
        ><Printer :size="17" aria-hidden="true" />On paper</a
      >
    </header>
    <div v-if="problem">
      <p role="alert">{{ problem }}</p>
      <button class="button" @click="load">Try again</button>
    </div>
    <p v-else-if="!sheet" class="soft" role="status">Laying out the films …</p>
    <template v-else>
      <section class="how">
        <svg viewBox="-60 -40 120 80" aria-hidden="true">
          <rect x="-58" y="-38" width="116" height="76" rx="6" />
          <path
            d="M-8 0H-46M8 0H46M0 -6V-28M0 6V28M-40 -6L-46 0L-40 6M40 -6L46 0L40 6M-6 -22L0 -28L6 -22M-6 22L0 28L6 22"
          />
        </svg>
        <div>
          <p>
            The surface takes <b class="number">{{ units.length(sheet.width) }}</b> ×
            <b class="number">{{ units.length(sheet.height) }}</b>.
          </p>
          <p>{{ sheet.taping }}</p>
          <p v-if="sheet.marks">{{ sheet.marks }}</p>
        </div>
      </section>
      <p v-if="sheet.steps.length === 0">No film is cut in this order yet.</p>
      <ol>
        <li
          v-for="(step, i) in sheet.steps"
          :key="step.film.name"
          :class="{ done: done.includes(step.film.name) }"
        >
          <svg class="picture" :viewBox="box" role="img" :aria-label="`What is cut of ${step.film.name}`">
            <rect class="sign" x="0" y="0" :width="sheet.width" :height="sheet.height" :stroke-width="line" />
            <path :d="step.outline" :fill="step.film.colour" :stroke-width="line / 2" fill-rule="evenodd" />
          </svg>
          <div class="text">
            <h2>
              <span class="n number">{{ i + 1 }}</span><i
                class="swatch"
                :style="{ '--film': step.film.colour }"
              ></i
              >{{ step.film.name }}
              <small class="soft number">{{ step.film.code }}</small>
            </h2>
            <p v-for="hint in step.hints" :key="hint">{{ hint }}</p>
          </div>
          <button
            class="button tick"
            :aria-pressed="done.includes(step.film.name)"
            @click="tick(step.film.name)"
          >
            {{ done.includes(step.film.name) ? 'On the tape' : 'Weeded and taped' }}
          </button>
        </li>
      </ol>
    </template>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 14px 24px 30px;
  overflow: auto;
}
header {
  display: flex;
  gap: 14px;
  align-items: center;
  margin-bottom: 14px;
}
header .button {
  min-height: 44px;
}
h1 {
  margin: 0;
  font-size: 26px;
}
.paper {
  margin-left: auto;
}
.how {
  display: flex;
  gap: 20px;
  align-items: center;
  padding: 12px 18px;
  font-size: 17px;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-label);
}
.how p {
  margin: 2px 0;
}
.how svg {
  flex: none;
  width: 120px;
  fill: none;
  stroke: var(--damson);
  stroke-width: 3;
  stroke-linecap: round;
}
.how rect {
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}
ol {
  display: grid;
  gap: 12px;
  padding: 0;
  margin: 14px 0 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 380px 1fr auto;
  gap: 22px;
  align-items: center;
  padding: 12px 18px 12px 12px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-label);
}
li.done {
  background: var(--paper);
}
li.done .picture {
  opacity: 0.45;
}
.picture {
  width: 100%;
  height: 210px;
  background: var(--bench);
  border-radius: var(--radius-card);
}
.picture path {
  stroke: var(--ink);
}
.sign {
  fill: #fffdf7;
  stroke: var(--ink-soft);
  stroke-dasharray: 1%;
}
h2 {
  display: flex;
  gap: 11px;
  align-items: center;
  margin: 0 0 8px;
  font-size: 22px;
}
h2 small {
  font-size: 14px;
  font-weight: 400;
}
.n {
  font-size: 22px;
  color: var(--ink-soft);
}
.swatch {
  width: 20px;
  height: 28px;
}
.text p {
  margin: 3px 0;
  font-size: 16px;
}
.tick {
  min-width: 170px;
  min-height: 54px;
  font-size: 16px;
}
.tick[aria-pressed='true'] {
  color: var(--card);
  background: var(--gooseberry-text);
}
</style>
