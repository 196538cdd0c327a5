<script setup lang="ts">
/** What became of film and of the cutters' time, week by week: as charts and as tables that add up with the shelf. */
import { useLocalStorage } from '@vueuse/core';
import { ChevronLeft, ChevronRight, Download } from '@lucide/vue';
import { computed } from 'vue';
import { addressOf } from '../../../contracts/address';
import { dayText, noonOf } from '../../parts/dayText';
import ProblemNote from '../../parts/ProblemNote.vue';
import { duration, useUnits } from '../../stores/units';
import FilmBars from './FilmBars.vue';
import type { UsedRow } from './FilmBars.vue';
import HourBars from './HourBars.vue';
import KeptPanel from './KeptPanel.vue';
import { shareKept } from './parts';
import { SPANS } from './spans';
import UsageTables from './UsageTables.vue';
import { useUsage } from './useUsage';
import WeekBars from './WeekBars.vue';

const units = useUnits();
const { span, back, weeks, query, usage, problem, look } = useUsage();
const asTable = useLocalStorage('jam-pan-usage-table', false);
const when = computed(
  () => `${dayText(noonOf(weeks.value.from))} – ${dayText(noonOf(weeks.value.to), true)}`,
);

const times = computed(() => (usage.value?.byCutter ?? []).map((row) => row.times));
const all = (doing: 'cutting' | 'waiting'): number => times.value.reduce((sum, one) => sum + one[doing], 0);
const hours = (seconds: number): string => (seconds > 0 ? duration(seconds) : '0 h');
/** What stands large above all. */
const tiles = computed(() => {
  const now = usage.value;
  if (!now) return [];
  const { all: film, orders } = now;
  const spoilt = units.run(film.spoilt);
  return [
    {
      figure: units.run(film.used),
      says: film.cost > 0 ? `of film used, worth ${film.cost.toFixed(2)}` : 'of film used',
    },
    { figure: shareKept(film), says: 'of it are on signs' },
    {
      figure: spoilt,
      says:
        film.tested > 0 ? `spoilt or cut again, ${units.run(film.tested)} in tests` : 'spoilt or cut again',
    },
    { figure: hours(all('cutting')), says: `cutting, ${hours(all('waiting'))} waiting for film` },
    {
      figure: String(orders.cut),
      says: `${orders.cut === 1 ? 'order' : 'orders'} cut, ${orders.late === 0 ? 'none' : orders.late} late`,
    },
  ];
});
const films = computed((): readonly UsedRow[] =>
  (usage.value?.byFilm ?? []).map((row) => ({ ...row, key: row.film ?? '', name: row.name ?? 'Not known' })),
);
const orders = computed((): readonly UsedRow[] =>
  (usage.value?.byOrder ?? []).map((row) => ({ ...row, key: String(row.number) })),
);
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Usage</h1>
      <div class="when">
        <button class="icon" aria-label="Earlier" @click="back++"><ChevronLeft :size="18" /></button>
        <span class="number" role="status">{{ when }}</span>
        <button class="icon" aria-label="Later" :disabled="back === 0" @click="back--">
          <ChevronRight :size="18" />
        </button>
      </div>
      <div class="pills" role="group" aria-label="Weeks shown">
        <button v-for="one in SPANS" :key="one" :aria-pressed="span === one" @click="span = one">
          {{ one }}
        </button>
      </div>
      <button class="button" @click="asTable = !asTable">
        {{ asTable ? 'As charts' : 'As tables' }}
      </button>
      <a class="button" :href="addressOf('GET /api/usage.csv', { query })" download
        ><Download :size="16" aria-hidden="true" />All of it as CSV</a
      >
    </div>
    <ProblemNote v-if="problem" :message="problem.message" :ways-out="problem.waysOut" @close="look" />
    <p v-if="!usage && !problem" class="soft" role="status">Adding up.</p>
    <template v-if="usage">
      <dl class="tiles">
        <div v-for="{ figure, says } in tiles" :key="says" class="panel">
          <dt class="number">{{ figure }}</dt>
          <dd class="soft">{{ says }}</dd>
        </div>
      </dl>
      <UsageTables v-if="asTable" :usage="usage" />
      <div v-else class="charts">
        <section class="panel weeks">
          <h2>Film, week by week</h2>
          <WeekBars :weeks="usage.byWeek" :mondays="weeks.mondays" />
        </section>
        <section class="panel">
          <h2>By film <span class="soft">used, and how much of it is on signs</span></h2>
          <FilmBars :rows="films" :most="6" />
        </section>
        <section class="panel">
          <h2>Where the hours went</h2>
          <HourBars :cutters="usage.byCutter" />
        </section>
        <section class="panel">
          <h2>By order</h2>
          <FilmBars :rows="orders" :most="6" />
        </section>
      </div>
      <KeptPanel />
    </template>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: 14px;
  align-content: start;
  max-width: 1320px;
  margin: 0 auto;
  padding: 16px 24px 24px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 14px;
  align-items: center;
}
h1 {
  flex: 1;
  font-size: 26px;
}
h2 {
  margin-bottom: 10px;
  font-size: 17px;
}
h2 .soft {
  margin-left: 8px;
  font: 400 13px var(--text);
}
.when {
  display: flex;
  gap: 4px;
  align-items: center;
  white-space: nowrap;
}
.icon {
  display: grid;
  place-items: center;
  width: 32px;
  height: 32px;
  padding: 0;
  background: none;
  border: 0;
  border-radius: var(--radius-field);
}
.icon:hover:not(:disabled) {
  background: var(--rule-soft);
}
.icon:disabled {
  opacity: 0.4;
}
.tiles {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: 14px;
  margin: 0;
}
.tiles dt {
  font-size: 23px;
  font-weight: 700;
}
.tiles dd {
  margin: 2px 0 0;
  font-size: 13.5px;
}
:deep(.panel),
.panel {
  padding: 12px 16px;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-label);
}
.charts {
  display: grid;
  grid-template-columns: minmax(0, 1.05fr) minmax(0, 1fr);
  gap: 14px;
}
.weeks {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
}
</style>
