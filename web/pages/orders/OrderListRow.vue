<script setup lang="ts">
/** An order in the list: how it looks, what it takes, when it is due, where it is, and what is done with it from here. */
import { Archive, CopyPlus } from '@lucide/vue';
import { addressOf } from '../../../contracts/address';
import type { OrderRow } from '../../../contracts/api';
import { dueText } from '../../parts/dueText';
import { useUnits } from '../../stores/units';

defineProps<{
  row: OrderRow;
  /** It was put away. */
  isAway: boolean;
}>();
defineEmits<{ repeat: []; putAway: []; bringBack: []; clear: [] }>();
const units = useUnits();
const TAG: Readonly<Record<OrderRow['state'], string>> = {
  open: '',
  queued: 'check',
  cutting: 'check',
  cut: 'good',
};
function stateOf({ state, cutters }: OrderRow): string {
  if (state === 'open') return 'Open';
  if (state === 'cut') return 'Cut';
  return `${state === 'cutting' ? 'At' : 'Queued for'} ${cutters.join(', ')}`;
}
</script>

<template>
  <li>
    <router-link :to="{ name: 'order', params: { id: row.id } }">
      <span class="thumb"
        ><img
          v-if="row.summary"
          :src="`${addressOf('GET /api/orders/{id}/thumbnail.png', { params: { id: row.id } })}?${row.summary.revision ?? row.changedAt}`"
          alt=""
          loading="lazy"
      /></span>
      <span class="what">
        <strong>{{ row.name }}</strong>
        <span class="soft"
          ><span class="number">#{{ row.number }}</span> · {{ row.fileName || 'typed text' }}</span
        >
      </span>
      <span v-if="row.summary" class="size number"
        >{{ units.number(row.summary.width) }} × {{ units.length(row.summary.height) }}</span
      >
      <span v-else class="size soft">planning …</span>
      <span v-if="row.summary" class="films" :aria-label="row.summary.films.map((f) => f.name).join(', ')">
        <span
          v-for="film in row.summary.films.slice(0, 8)"
          :key="film.name"
          class="swatch"
          :style="{ '--film': film.colour }"
          :title="film.name"
        ></span>
        <span v-if="row.summary.films.length > 8" class="soft">+{{ row.summary.films.length - 8 }}</span>
      </span>
      <span v-else class="films"></span>
      <span class="due" :class="{ late: row.late }">{{
        row.due ? `${row.late ? 'was due' : 'due'} ${dueText(row.due)}` : 'no due date'
      }}</span>
      <span class="state">
        <span v-if="row.summary && row.summary.stops > 0" class="tag stop">cannot be cut yet</span>
        <span v-else-if="row.summary && row.summary.checks > 0" class="tag check"
          >{{ row.summary.checks }} to check</span
        >
        <span class="tag" :class="TAG[row.state]">{{ stateOf(row) }}</span>
      </span>
    </router-link>
    <span v-if="isAway" class="away">
      <button class="button small" @click="$emit('repeat')">Once more</button>
      <button class="button small" @click="$emit('bringBack')">Bring back</button>
      <button class="button small" @click="$emit('clear')">Clear for good</button>
    </span>
    <span v-else class="away quick">
      <button
        class="aside"
        :aria-label="`Order ${row.name} once more`"
        title="Order it once more"
        @click="$emit('repeat')"
      >
        <CopyPlus :size="17" />
      </button>
      <button class="aside" :aria-label="`Put ${row.name} away`" title="Put away" @click="$emit('putAway')">
        <Archive :size="17" />
      </button>
    </span>
  </li>
</template>

<style scoped>
li {
  position: relative;

  /* rows out of sight cost nothing */
  content-visibility: auto;
  contain-intrinsic-height: auto 98px;
}
.away {
  position: absolute;
  right: 16px;
  bottom: 8px;
  display: flex;
  gap: 8px;
}
.quick {
  gap: 2px;
}
.aside {
  display: grid;
  place-items: center;
  width: 30px;
  height: 28px;
  color: var(--ink-soft);
  background: none;
  border: 0;
  border-radius: var(--radius-field);
  opacity: 0;
}
li:hover .aside,
.aside:focus-visible {
  opacity: 1;
}
.aside:hover {
  color: var(--ink);
  background: var(--rule-soft);
}
a {
  display: grid;
  grid-template-columns: 158px minmax(190px, 1fr) 178px 190px 128px 200px;
  align-items: center;
  gap: 18px;
  padding: 9px 16px 9px 9px;
  color: inherit;
  text-decoration: none;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
a:hover {
  border-color: var(--ink);
}
.thumb {
  display: grid;
  place-items: center;
  height: 76px;
  padding: 7px;
  background: var(--bench);
  border-radius: var(--radius-field);
}
.thumb img {
  max-width: 100%;
  max-height: 62px;
}
.what {
  display: grid;
  gap: 2px;
  min-width: 0;
}
.what strong {
  font: 680 17px/1.2 var(--heading);
}
.what span {
  font-size: 14px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.size,
.due {
  font-size: 14px;
}
.late {
  color: var(--currant);
  font-weight: 650;
}
.films {
  display: flex;
  align-items: center;
  gap: 4px;
}
.state {
  display: flex;
  gap: 6px;
  justify-content: flex-end;
}
@media (max-width: 1180px) {
  a {
    grid-template-columns: 120px minmax(0, 1fr) 160px 140px 110px minmax(0, 136px);
    gap: 12px;
  }
  .films,
  .state {
    flex-wrap: wrap;
  }
}
</style>
