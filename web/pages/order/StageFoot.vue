<script setup lang="ts">
/** Below the stage: where the pointer is, what the worker is at, whether all is saved. */
import { computed, ref, watch } from 'vue';
import { clock } from '../../parts/clock';
import { useMe } from '../../stores/me';
import { useOrder } from '../../stores/order';
import { useStage } from '../../stores/stage';
import { useUnits } from '../../stores/units';
import type { View } from './views';

const props = defineProps<{ pointer: { x: number; y: number } | undefined; view: View }>();
const store = useOrder();
const me = useMe();
const look = useStage();
const units = useUnits();

const savedText = computed(() => {
  if (store.saving === 'waiting') return 'Not saved yet: the server is away';
  if (store.saving === 'saving') return 'Saving …';
  const at = store.order ? new Date(store.order.savedAt) : new Date();
  const { savedBy } = store.order ?? {};
  const by = savedBy && savedBy !== me.me?.name ? ` by ${savedBy}` : '';
  return `Saved ${clock(at)}${by}`;
});

/** What the worker is at, while it is. */
const workText = computed(() => {
  if (store.halted) return 'Not planned';
  if (store.planning)
    return store.planned === undefined ? 'Planning …' : `Planning ${Math.round(100 * store.planned)} %`;
  if (store.checking === undefined) return '';
  return store.checking > 0 ? `Checking ${Math.round(100 * store.checking)} %` : 'Checking …';
});

/** Films that lie on one another where the pointer is, while what lies beneath is shown. */
const pile = ref<readonly string[]>([]);
watch(
  () => props.pointer,
  async (at) => {
    const asked = look.showsHidden && props.view === 'face' && at ? await store.pile(at.x, at.y) : [];
    if (props.pointer === at) pile.value = asked;
  },
);
</script>

<template>
  <footer>
    <span class="number at">{{
      pointer ? `x ${units.number(pointer.x)}  y ${units.length(pointer.y)}` : ''
    }}</span>
    <span v-if="pile.length > 1" class="hint pile" role="status"
      >{{ pile.length }} films here: {{ pile.join(', ') }}</span
    >
    <span v-else class="hint roomy">drag to move · wheel to zoom</span>
    <span><kbd>[</kbd> <kbd>]</kbd> film</span>
    <span><kbd>?</kbd> keys</span>
    <span class="doing" role="status">{{ workText }}</span>
    <button v-if="store.planned !== undefined" class="small" @click="store.halt()">Stop planning</button>
    <button v-if="store.halted" class="small" @click="store.planNow()">Plan now</button>
    <span class="saved" role="status">{{ savedText }}</span>
    <button class="small" :disabled="!store.order?.canUndo" @click="store.undo()">
      Undo <kbd class="roomy">Ctrl Z</kbd>
    </button>
    <button class="small" :disabled="!store.order?.canRedo" @click="store.redo()">Redo</button>
  </footer>
</template>

<style scoped>
footer {
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 0 14px;
  font-size: 13px;
  color: var(--ink-soft);
  background: var(--card);
  border-top: 1px solid var(--rule);
}
.at {
  width: 15em;
  white-space: pre;
}
.doing {
  margin-left: auto;
}
.small {
  border: 0;
  background: none;
  padding: 2px 4px;
}
.small:disabled {
  opacity: 0.5;
}
/* one line, whatever the width: what a narrow window has no room for gives way */
footer {
  white-space: nowrap;
}
@media (max-width: 1180px) {
  .roomy {
    display: none;
  }
  .at {
    width: 14em;
  }
  footer {
    gap: 12px;
  }
}
</style>
