<script setup lang="ts">
/** What people did with a cut, and when. */
import { onMounted, ref } from 'vue';
import type { CutAct, CutActed } from '../../contracts/cuts';
import { call } from '../stores/api';
import { clock } from './clock';
import { useListening } from '../stores/events';
import { oneAtATime } from '../stores/oneAtATime';

const props = defineProps<{ cut: number }>();
const acts = ref<readonly CutActed[]>([]);
// an answer that was long on its way is not shown over a later one
const { ask: look } = oneAtATime(async () => {
  const params = { id: props.cut };
  acts.value = await call('GET /api/cuts/{id}/acts', { params }).catch(() => acts.value);
});
onMounted(look);
useListening((event) => void (event.kind === 'cut' && event.cutId === props.cut && look()), look);
const WORDS: Readonly<Record<CutAct, string>> = {
  queued: 'queued',
  held: 'put on the shelf',
  released: 'sent',
  moved: 'moved',
  joined: 'joined',
  parted: 'taken apart',
  paused: 'paused with all',
  loaded: 'loaded',
  stopped: 'stopped',
  resumed: 'gone on with',
  'begun-anew': 'begun anew',
  cancelled: 'left out',
  said: 'judged',
  again: 'cut again',
  slipped: 'film slipped:',
  nudged: 'nudged',
  'nudges-kept': 'kept in the recipe',
  'nudges-left': 'left out of the recipe',
  replaced: 'replaced by what its order is now',
  kept: 'kept as it was queued',
};
const told = ({ act, what, who }: CutActed): string =>
  [WORDS[act], what, who && `by ${who}`].filter(Boolean).join(' ');
</script>

<template>
  <ul v-if="acts.length > 0" aria-label="Who did what">
    <li v-for="(act, i) in acts" :key="i">
      <span class="number">{{ clock(new Date(act.at)) }}</span> {{ told(act) }}
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
