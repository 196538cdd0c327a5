<script setup lang="ts">
/** One piece: where it lies, and what can be chosen about its file or text. */
import { addressOf } from '../../../../contracts/address';
import { FlipHorizontal2, RotateCw } from '@lucide/vue';
import { computed, ref } from 'vue';
import { changePiece, replaceSource } from '../../../../core/artwork/arrange';
import type { FileSource, Piece } from '../../../../core/artwork/choices';
import { LYING_STRAIGHT, NO_LINE_RULES } from '../../../../core/artwork/choices';
import FoldOut from '../../../parts/FoldOut.vue';
import SwitchRow from '../../../parts/SwitchRow.vue';
import DraftField from '../../../parts/DraftField.vue';
import LengthField from '../../../parts/LengthField.vue';
import { useArtwork } from '../../../stores/artwork';
import { useOrder } from '../../../stores/order';
import FilePanel from './FilePanel.vue';
import PitchRow from './PitchRow.vue';
import TextPanel from './TextPanel.vue';
import TracePanel from './TracePanel.vue';

const props = defineProps<{ piece: Piece }>();
const art = useArtwork();
const store = useOrder();
const input = ref<HTMLInputElement>();
const now = computed(() => art.placed.find(({ id }) => id === props.piece.id));
const set = (change: Partial<Piece>): void =>
  art.set(changePiece(art.choices, art.placed, props.piece.id, change));

function size(side: 'width' | 'height', mm: number): void {
  const other = side === 'width' ? 'height' : 'width';
  if (props.piece.lockAspect) set({ [side]: mm, [other]: null });
  else set({ width: now.value!.width, height: now.value!.height, [side]: mm });
}
const turnBy = (degrees: number): void => set({ turn: (props.piece.turn + degrees) % 360 });
/** Degrees with or without their sign. */
function readTurn(typed: string): string | undefined {
  const degrees = Number(typed.replace('°', '').replace(',', '.'));
  return typed !== '' && Number.isFinite(degrees) ? `${degrees}°` : undefined;
}

async function replace(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  field.value = '';
  if (!file) return;
  const source = await art.send(file);
  if (source) art.set(replaceSource(art.choices, props.piece.id, source, file.name.replace(/\.[^.]*$/, '')));
}

/** Back to the file as it came: everything decided about the artwork goes, one step of undo away. */
function startAgain(): void {
  const { source } = props.piece;
  const asItCame: FileSource | typeof source =
    source.kind === 'file' ? { ...source, page: null, box: null, units: null, font: null } : source;
  const fresh = { ...props.piece, ...LYING_STRAIGHT, source: asItCame };
  if (art.pieces.length > 1) return set(fresh);
  art.set({
    width: null,
    height: null,
    lockAspect: true,
    pieces: [fresh],
    lines: NO_LINE_RULES,
    fixes: [],
    ignored: [],
  });
}
const file = computed(() => (props.piece.source.kind === 'file' ? props.piece.source : undefined));
const places = computed(() => art.pieces.length > 1);
</script>

<template>
  <TextPanel v-if="piece.source.kind === 'text'" :piece="piece" :source="piece.source" />
  <template v-else>
    <FilePanel :piece="piece" :source="piece.source" :offers="now?.offers ?? {}" />
    <TracePanel
      v-if="piece.source.trace"
      :key="piece.source.hash"
      :piece="piece"
      :source="piece.source"
      :is-page="now?.offers.asIs === true"
    />
  </template>
  <FoldOut title="Place" name="place" :open="places" :says="piece.turn ? `${piece.turn}°` : undefined">
    <template v-if="places && now">
      <div class="row pair">
        <label
          ><span>x</span
          ><LengthField
            label="x"
            :value="now.box.minX"
            :min="-30000"
            :max="30000"
            @change="set({ x: $event })"
        /></label>
        <label
          ><span>y</span
          ><LengthField
            label="y"
            :value="now.box.minY"
            :min="-30000"
            :max="30000"
            @change="set({ y: $event })"
        /></label>
      </div>
      <div class="row pair">
        <label
          ><span>w</span
          ><LengthField label="w" :value="now.width" :min="0.1" :max="30000" @change="size('width', $event)"
        /></label>
        <label
          ><span>h</span
          ><LengthField
            label="h"
            :value="now.height"
            :min="0.1"
            :max="30000"
            @change="size('height', $event)"
        /></label>
      </div>
      <SwitchRow label="Keep its proportions" :on="piece.lockAspect" @change="set({ lockAspect: $event })" />
    </template>
    <div class="row">
      <span>Turn</span>
      <span class="turn">
        <DraftField
          class="number"
          label="Turn"
          :value="`${piece.turn}°`"
          :read="readTurn"
          @change="set({ turn: parseFloat($event) })"
        />
        <button class="button small" aria-label="Turn by 90°" @click="turnBy(90)">
          <RotateCw :size="15" /> 90°
        </button>
        <button class="button small" :aria-pressed="piece.mirror" @click="set({ mirror: !piece.mirror })">
          <FlipHorizontal2 :size="15" /> Mirror
        </button>
      </span>
    </div>
    <PitchRow />
  </FoldOut>
  <div v-if="file" class="row">
    <span class="hint name">{{ file.name }}</span>
    <span class="turn">
      <a
        class="button small"
        :href="
          addressOf('GET /api/orders/{id}/pieces/{piece}/original', {
            params: { id: store.order!.id, piece: piece.id },
          })
        "
        download
        >Original</a
      >
      <button class="button small" @click="input?.click()">Replace</button>
      <button class="button small" @click="startAgain">Start again</button>
    </span>
    <input ref="input" type="file" hidden data-test="replace-file" @change="replace" />
  </div>
</template>

<style scoped>
.pair label {
  display: flex;
  flex: 1;
  align-items: center;
  gap: 6px;
}
.turn {
  display: flex;
  gap: 5px;
}
.turn > input {
  width: 62px;
  min-height: 28px;
  padding: 0 6px;
  font-size: 13.5px;
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
  background: var(--card);
}
.turn .small {
  white-space: nowrap;
}
.name {
  min-width: 0;
  flex: 1;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
button[aria-pressed='true'] {
  background: var(--damson-soft);
  border-color: var(--damson);
}
</style>
