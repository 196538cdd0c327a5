<script setup lang="ts">
/** Several pieces at once: lined up, spread out, grouped. */
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceBetween,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceBetween,
  Group,
  Ungroup,
} from '@lucide/vue';
import { computed } from 'vue';
import type { Edge } from '../../../../core/artwork/arrange';
import { alignPieces, distributePieces, removePieces } from '../../../../core/artwork/arrange';
import { useArtwork } from '../../../stores/artwork';
import PitchRow from './PitchRow.vue';

const art = useArtwork();
const EDGES: readonly (readonly [Edge, string, unknown])[] = [
  ['left', 'Left edges', AlignStartVertical],
  ['centre', 'Middles, side to side', AlignCenterVertical],
  ['right', 'Right edges', AlignEndVertical],
  ['top', 'Top edges', AlignStartHorizontal],
  ['middle', 'Middles, up and down', AlignCenterHorizontal],
  ['bottom', 'Bottom edges', AlignEndHorizontal],
];
const align = (edge: Edge): void => art.set(alignPieces(art.choices, art.placed, art.selected, edge));
const spread = (axis: 'across' | 'down'): void =>
  art.set(distributePieces(art.choices, art.placed, art.selected, axis));
const grouped = computed(() => art.pieces.some((p) => art.selected.includes(p.id) && p.group !== null));
function setGroup(group: string | null): void {
  const pieces = art.choices.pieces.map((p) => (art.selected.includes(p.id) ? { ...p, group } : p));
  art.change({ pieces });
}
function removeAll(): void {
  art.set(removePieces(art.choices, art.selected));
}
</script>

<template>
  <div class="row">
    <span>Line up</span>
    <span class="set">
      <button
        v-for="[edge, says, icon] in EDGES"
        :key="edge"
        :title="says"
        :aria-label="says"
        @click="align(edge)"
      >
        <component :is="icon" :size="17" />
      </button>
    </span>
  </div>
  <div class="row">
    <span>Even gaps</span>
    <span class="set">
      <button
        title="Even gaps across"
        aria-label="Even gaps across"
        :disabled="art.selected.length < 3"
        @click="spread('across')"
      >
        <AlignHorizontalSpaceBetween :size="17" />
      </button>
      <button
        title="Even gaps down"
        aria-label="Even gaps down"
        :disabled="art.selected.length < 3"
        @click="spread('down')"
      >
        <AlignVerticalSpaceBetween :size="17" />
      </button>
    </span>
  </div>
  <div class="row">
    <span>{{ art.selected.length }} pieces</span>
    <span class="adds">
      <button v-if="!grouped" class="button small" @click="setGroup(`g${art.selected[0]}`)">
        <Group :size="15" /> Group
      </button>
      <button v-else class="button small" @click="setGroup(null)"><Ungroup :size="15" /> Ungroup</button>
      <button class="button small" :disabled="art.selected.length === art.pieces.length" @click="removeAll">
        Remove
      </button>
    </span>
  </div>
  <PitchRow />
</template>

<style scoped>
.set {
  display: flex;
  gap: 3px;
}
.set button {
  display: grid;
  place-items: center;
  width: 31px;
  height: 31px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
}
.set button:hover:not(:disabled) {
  background: var(--damson-soft);
}
.set button:disabled {
  opacity: 0.35;
}
.adds {
  display: flex;
  gap: 6px;
}
</style>
