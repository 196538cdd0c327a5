<script setup lang="ts">
/** The pieces of the sign, front one first. */
import { Copy, FilePlus, GripVertical, Trash2, Type } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { duplicatePieces, removePieces } from '../../../../core/artwork/arrange';
import type { Piece } from '../../../../core/artwork/choices';
import ProblemNote from '../../../parts/ProblemNote.vue';
import { useArtwork } from '../../../stores/artwork';
import { useIntake } from '../../../stores/intake';
import { useUnits } from '../../../stores/units';
import { PLAIN_TEXT } from './sources';

const art = useArtwork();
const intake = useIntake();
const units = useUnits();
const input = ref<HTMLInputElement>();
const rows = ref<Piece[]>([]);
watch(
  () => art.pieces,
  (now) => (rows.value = [...now].reverse()),
  { immediate: true },
);
const sizeOf = computed(() => new Map(art.placed.map(({ id, width, height }) => [id, { width, height }])));

async function bring(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const files = [...(field.files ?? [])];
  field.value = '';
  await intake.add(files);
}
const addText = (): void => art.add(PLAIN_TEXT, 'Text');
const dropped = (): void => art.change({ pieces: [...rows.value].reverse() });
function double(id: string): void {
  const size = sizeOf.value.get(id);
  const step = size ? size.height + Math.max(5, size.height * 0.1) : 20;
  const { choices, made } = duplicatePieces(art.choices, art.placed, [id], 1, 0, step);
  art.set(choices);
  art.selected = made;
}
function remove(id: string): void {
  art.set(removePieces(art.choices, [id]));
}
const kind = ({ source }: Piece): string =>
  source.kind === 'text' ? 'text' : (/\.(\w{1,5})$/.exec(source.name)?.[1] ?? 'file').toLowerCase();
</script>

<template>
  <div class="row heads">
    <span class="hint">{{ art.pieces.length > 1 ? 'Front piece first' : 'One piece' }}</span>
    <span class="adds">
      <button class="button small" @click="input?.click()"><FilePlus :size="15" /> Add files</button>
      <button class="button small" @click="addText"><Type :size="15" /> Add text</button>
    </span>
    <input ref="input" type="file" multiple hidden data-test="add-file" @change="bring" />
  </div>
  <VueDraggable v-model="rows" handle=".grip" :animation="120" class="list" @end="dropped">
    <div v-for="p in rows" :key="p.id" class="piece" :class="{ picked: art.selected.includes(p.id) }">
      <span class="grip" title="Drag to bring it to the front or back"><GripVertical :size="15" /></span>
      <button
        class="name"
        :aria-pressed="art.selected.includes(p.id)"
        @click="art.select(p.id, $event.shiftKey || $event.ctrlKey || $event.metaKey)"
      >
        <span class="title">{{ p.name || 'Unnamed' }}</span>
        <small class="number"
          >{{ kind(p)
          }}<template v-if="sizeOf.get(p.id)">
            · {{ units.number(sizeOf.get(p.id)!.width) }} ×
            {{ units.length(sizeOf.get(p.id)!.height) }}</template
          ><template v-if="p.group"> · grouped</template></small
        >
      </button>
      <button class="icon" :aria-label="`Duplicate ${p.name}`" @click="double(p.id)">
        <Copy :size="15" />
      </button>
      <button class="icon" :aria-label="`Remove ${p.name}`" :disabled="rows.length < 2" @click="remove(p.id)">
        <Trash2 :size="15" />
      </button>
    </div>
  </VueDraggable>
  <ProblemNote
    v-if="art.problem"
    :message="art.problem.message"
    :ways-out="art.problem.waysOut"
    @close="art.problem = undefined"
  />
</template>

<style scoped>
.adds {
  display: flex;
  gap: 6px;
}
.list {
  display: grid;
  gap: 4px;
}
.piece {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 3px 4px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
}
.piece.picked {
  border-color: var(--damson);
  background: var(--damson-soft);
}
.grip {
  display: grid;
  color: var(--ink-soft);
  cursor: grab;
}
.name {
  flex: 1;
  display: grid;
  min-width: 0;
  padding: 2px 4px;
  text-align: left;
  background: none;
  border: 0;
}
.title {
  overflow: hidden;
  font-weight: 620;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.name small {
  font-size: 12px;
  color: var(--ink-soft);
}
.icon {
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  background: none;
  border: 0;
  border-radius: 6px;
}
.icon:hover:not(:disabled) {
  background: var(--rule-soft);
}
.icon:disabled {
  opacity: 0.3;
}
</style>
