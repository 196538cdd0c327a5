<script setup lang="ts">
/** What is cut: pieces, their size and place, what their lines are for, and what would spoil film. */
import { computed } from 'vue';
import CheckPanel from './artwork/CheckPanel.vue';
import LinesPanel from './artwork/LinesPanel.vue';
import PieceList from './artwork/PieceList.vue';
import PiecePanel from './artwork/PiecePanel.vue';
import SizePanel from './artwork/SizePanel.vue';
import ArrangePanel from './artwork/ArrangePanel.vue';
import { useArtwork } from '../../stores/artwork';

const art = useArtwork();
const several = computed(() => art.selected.length > 1);
</script>

<template>
  <PieceList />
  <ArrangePanel v-if="several" />
  <PiecePanel v-else-if="art.piece" :piece="art.piece" />
  <SizePanel />
  <CheckPanel />
  <LinesPanel />
</template>
