<script setup lang="ts">
/** The application sheet on a tablet: film by film from the top of the pile, ticked off as it is weeded and taped. */
import { computed, onMounted } from 'vue';
import { addressOf } from '../../../contracts/address';
import OrderSheet from '../../parts/OrderSheet.vue';
import NumberedPieces from './NumberedPieces.vue';
import { useOrderSheet } from '../../parts/orderSheet';
import { call } from '../../stores/api';
import { useUnits } from '../../stores/units';

const units = useUnits();
const { id, order, sheet, problem, load, useTicks } = useOrderSheet('Applying', (own) =>
  call('GET /api/orders/{id}/application', { params: { id: own } }),
);
const { done, tick } = useTicks<string>('applied');
onMounted(load);

const box = computed(() => {
  const { minX, minY, maxX, maxY } = sheet.value!.view;
  const rim = 0.02 * Math.max(maxX - minX, maxY - minY);
  return `${minX - rim} ${minY - rim} ${maxX - minX + 2 * rim} ${maxY - minY + 2 * rim}`;
});
const line = computed(() => Math.max(sheet.value!.width, sheet.value!.height) / 500);
</script>

<template>
  <OrderSheet
    :id="id"
    :order="order"
    title="Applying"
    :ready="sheet !== undefined"
    waits="Laying out the films …"
    :problem="problem"
    :paper="addressOf('GET /api/orders/{id}/application.pdf', { params: { id } })"
    @retry="load"
  >
    <template v-if="sheet">
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
      <p v-if="sheet.steps.length === 0">
        Nothing in this order is cut from film and put up layer by layer. What is printed lies on its sheets:
        see Print marks.
      </p>
      <ol>
        <li
          v-for="(step, i) in sheet.steps"
          :key="step.film.name"
          :class="{ done: done.has(step.film.name) }"
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
          <button class="button tick" :aria-pressed="done.has(step.film.name)" @click="tick(step.film.name)">
            {{ done.has(step.film.name) ? 'On the tape' : 'Weeded and taped' }}
          </button>
          <div v-if="step.placing" class="placing">
            <NumberedPieces
              :box="step.placing.box"
              :outline="step.outline"
              :colour="step.film.colour"
              :pieces="step.placing.sign"
              :says="`Where pieces of ${step.film.name} sit on the sign`"
            />
            <NumberedPieces
              v-for="(strip, k) in step.placing.strips"
              :key="k"
              :box="{ minX: 0, minY: 0, maxX: strip.length, maxY: strip.cuttable }"
              :outline="strip.outline"
              :others="strip.others"
              :colour="step.film.colour"
              :pieces="strip.pieces"
              :says="`Pieces of ${step.film.name} as they are cut`"
            />
          </div>
        </li>
      </ol>
    </template>
  </OrderSheet>
</template>

<style scoped>
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
.placing {
  display: grid;
  grid-template-columns: 2fr 1fr;
  grid-column: 1 / -1;
  gap: 12px;
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
