<script setup lang="ts">
/** The typeface of a text: one that came with the app or that the shop brought, which can be put away again. */
import { computed, ref } from 'vue';
import type { FontInfo } from '../../../../contracts/api';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FoldOut from '../../../parts/FoldOut.vue';
import UndoNote from '../../../parts/UndoNote.vue';
import { ApiProblem, call, upload } from '../../../stores/api';

const props = defineProps<{ value: string }>();
const fonts = defineModel<readonly FontInfo[]>('fonts', { required: true });
const emit = defineEmits<{ change: [font: string] }>();
const problem = ref('');
const input = ref<HTMLInputElement>();
/** The one that was put away last, for as long as that can be taken back at once. */
const taken = ref<FontInfo>();

const now = computed(() => fonts.value.find(({ id }) => id === props.value));
/** A text that is set in one that was put away keeps it. */
const options = computed(() =>
  fonts.value
    .filter(({ id, putAway }) => !putAway || id === props.value)
    .map(({ id, name, own }) => ({ value: id, label: own ? `${name} (own)` : name })),
);
const away = computed(() => fonts.value.filter(({ putAway }) => putAway));

async function keep(work: () => Promise<readonly FontInfo[]>): Promise<boolean> {
  problem.value = '';
  try {
    fonts.value = await work();
    return true;
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    problem.value = error.message;
    return false;
  }
}
async function bring(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  field.value = '';
  if (!file) return;
  const known = new Set(fonts.value.filter(({ putAway }) => !putAway).map(({ id }) => id));
  await keep(() => upload('POST /api/fonts', file, () => {}).done);
  const fresh = fonts.value.find(({ id, own, putAway }) => own && !putAway && !known.has(id));
  if (fresh) emit('change', fresh.id);
}
const say = (word: 'put-away' | 'bring-back' | 'clear', font: FontInfo): Promise<boolean> =>
  keep(() => call(`POST /api/fonts/{font}/${word}`, { params: { font: font.id } }));
async function putAway(font: FontInfo): Promise<void> {
  if (await say('put-away', font)) taken.value = font;
}
async function bringBack(font: FontInfo): Promise<void> {
  if (taken.value?.id === font.id) taken.value = undefined;
  await say('bring-back', font);
}
</script>

<template>
  <div class="row">
    <span>Typeface</span>
    <span class="set">
      <ChoiceField label="Typeface" :value="value" :options="options" @change="emit('change', $event)" />
      <button class="button small" @click="input?.click()">Bring one</button>
    </span>
    <input
      ref="input"
      type="file"
      hidden
      accept=".ttf,.otf,.woff,.woff2"
      data-test="add-font"
      @change="bring"
    />
  </div>
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  <div v-if="now?.own && !now.putAway" class="row">
    <span class="hint">{{ now.name }} is the shop's own.</span>
    <button class="button small" @click="putAway(now)">Put it away</button>
  </div>
  <UndoNote
    v-if="taken"
    :says="`${taken.name} is put away.`"
    @undo="bringBack(taken)"
    @close="taken = undefined"
  />
  <FoldOut v-if="away.length" title="Typefaces put away" name="typefaces-away" :says="String(away.length)">
    <div v-for="font in away" :key="font.id" class="row">
      <span>{{ font.name }}</span>
      <span class="set">
        <button class="button small" @click="bringBack(font)">Bring back</button>
        <button class="button small" @click="say('clear', font)">Clear for good</button>
      </span>
    </div>
  </FoldOut>
</template>

<style scoped>
.set {
  display: flex;
  gap: 5px;
}
.set :deep(.p-select) {
  max-width: 150px;
}
.problem {
  margin: 0;
  font-size: 13px;
  color: var(--currant);
}
</style>
