<script setup lang="ts">
/** What people did with a cut, and when. */
import { onMounted, ref } from 'vue';
import type { CutAct, CutActed } from '../../contracts/cuts';
import { call } from '../stores/api';

const props = defineProps<{ cut: number }>();
const acts = ref<readonly CutActed[]>([]);
onMounted(async () => {
  acts.value = await call('GET /api/cuts/{id}/acts', { params: { id: props.cut } }).catch(() => []);
});
const WORDS: Readonly<Record<CutAct, string>> = {
  queued: 'queued',
  held: 'put on the shelf',
  released: 'sent',
  moved: 'moved',
  paused: 'paused with all',
  loaded: 'loaded',
  stopped: 'stopped',
  resumed: 'gone on with',
  'begun-anew': 'begun anew',
  cancelled: 'left out',
  said: 'judged',
};
const at = (date: string): string =>
  new Date(date).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });
</script>

<template>
  <ul v-if="acts.length > 0" aria-label="Who did what">
    <li v-for="(act, i) in acts" :key="i">
      <span class="number">{{ at(act.at) }}</span> {{ WORDS[act.act] }}
      <template v-if="act.who">by {{ act.who }}</template>
    </li>
  </ul>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  font-size: 14px;
  color: var(--ink-soft);
  list-style: none;
}
</style>
