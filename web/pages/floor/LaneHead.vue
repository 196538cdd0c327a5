<script setup lang="ts">
/** One cutter at the left of its lane: what is in it, its knife, what it is at. */
import { computed } from 'vue';
import { useKnives } from '../../stores/knives';
import { useUnits } from '../../stores/units';
import type { Lane } from './useFloor';

const props = defineProps<{ lane: Lane }>();
const units = useUnits();
const knives = useKnives();

const tag = computed((): { readonly says: string; readonly look: string } => {
  const { state, blocks } = props.lane;
  const now = blocks.find(({ cut }) => cut.state !== 'queued')?.cut;
  if (now?.state === 'wants-film') return { says: now.sheet ? 'load sheet' : 'load film', look: 'check' };
  if (now?.state === 'stopped') return { says: 'stopped', look: 'stop' };
  if (now) return { says: now.state === 'cutting' ? 'cutting' : now.state, look: 'good' };
  if (state?.state === 'away') return { says: 'does not answer', look: 'stop' };
  return { says: state ? 'ready' : 'is asked', look: '' };
});
const knife = computed(() => knives.knives.find(({ cutter }) => cutter === props.lane.cutter.id));
const about = computed(() => {
  const { widest, kind, trackLength, sensor } = props.lane.cutter;
  const size =
    kind === 'flatbed' ? `${units.number(trackLength)} × ${units.length(widest)}` : units.length(widest);
  return [`${size} ${kind}`, ...(sensor ? ['sensor'] : [])].join(' · ');
});
</script>

<template>
  <div class="head">
    <router-link :to="{ name: 'cutter', params: { id: lane.cutter.id } }"
      ><h2>{{ lane.cutter.name }}</h2></router-link
    >
    <span class="tag" :class="tag.look">{{ tag.says }}</span>
    <p class="soft">{{ about }}</p>
    <p class="in">
      <i class="swatch" :style="{ '--film': lane.loaded?.colour ?? 'transparent' }" aria-hidden="true"></i>
      <span>{{
        lane.loaded ? `${lane.loaded.name}, ${units.length(lane.loaded.width)}` : 'nothing was cut on it yet'
      }}</span>
    </p>
    <p v-if="knife" class="soft">knife {{ knife.blade }}, {{ knife.metres.toFixed(0) }} m cut</p>
  </div>
</template>

<style scoped>
.head {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 8px;
  align-content: center;
  padding: 8px 12px 8px 16px;
}
a {
  color: inherit;
  text-decoration: none;
}
a:hover h2 {
  text-decoration: underline;
}
h2 {
  font-size: 18px;
}
.tag {
  align-self: center;
}
p {
  grid-column: 1 / -1;
  margin: 0;
  font-size: 12.5px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.in {
  display: flex;
  gap: 8px;
  align-items: center;
}
.in .swatch {
  width: 14px;
  height: 20px;
}
</style>
