<script setup lang="ts">
/** One recipe: what it cuts with, what it was before, and the way back. */
import { computed, ref, watch } from 'vue';
import type { RecipeChange, RecipeHistory } from '../../../contracts/shop';
import type { Cutter, Recipe } from '../../../core/layout/cutter';
import { MOST_PASSES } from '../../../core/layout/cutter';
import CurveRows from '../../parts/CurveRows.vue';
import DashRows from '../../parts/DashRows.vue';
import DraftField from '../../parts/DraftField.vue';
import LengthRow from '../../parts/LengthRow.vue';
import NumberField from '../../parts/NumberField.vue';
import OwnStep from '../../parts/OwnStep.vue';
import SwitchRow from '../../parts/SwitchRow.vue';
import { setTo } from '../../stores/units';
import { kindName } from '../order/artwork/kinds';
import type { ShownRecipe } from './useRecipes';

const props = defineProps<{
  shown: ShownRecipe;
  cutter: Cutter;
  fetchHistory: () => Promise<RecipeHistory[]>;
}>();
defineEmits<{ change: [what: RecipeChange]; clear: []; back: [change: number] }>();

const FIELDS = [
  { key: 'force', label: 'Force', unit: 'g', digits: 0, kept: 0 },
  { key: 'speed', label: 'Speed', unit: 'cm/s', digits: 0, kept: 2 },
] as const;
const recipe = computed(() => props.shown.recipe);
/** Neither a pen nor a wheel has a blade that trails. */
const isRolling = computed(() => props.shown.kind === 'pen' || props.shown.kind === 'crease');
/** What a field begins with when it is taken from the machine: the middle of what it can. */
const usual = (key: 'force' | 'speed'): number =>
  key === 'speed'
    ? props.cutter.ownSpeed
    : Math.round(props.cutter.force.least + (props.cutter.force.most - props.cutter.force.least) / 5);

const history = ref<readonly RecipeHistory[]>([]);
let asked = 0;
watch(
  () => props.shown,
  async () => {
    const mine = ++asked;
    const found = await props.fetchHistory();
    if (mine === asked) history.value = found;
  },
  { immediate: true },
);
const brief = (was: Recipe | null): string =>
  was
    ? `${setTo(was.force, 'g')}, ${setTo(was.speed, 'cm/s')}${was.passes && was.passes > 1 ? `, ${was.passes} times` : ''}`
    : 'as all films';
const when = (date: string): string =>
  new Date(date).toLocaleString(undefined, {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });
</script>

<template>
  <section class="editor" :aria-label="`Recipe of ${shown.name}, ${kindName(shown.kind)}`">
    <h2>{{ shown.name }}, {{ kindName(shown.kind) }}</h2>
    <template v-for="field in FIELDS" :key="field.key">
      <div class="row">
        <span>{{ field.label }}</span>
        <span v-if="recipe[field.key] === null" class="soft">as the machine is set</span>
        <span v-else class="number-field"
          ><NumberField
            :label="`${field.label}, ${field.unit}`"
            :value="recipe[field.key] ?? undefined"
            :min="cutter[field.key].least"
            :max="cutter[field.key].most"
            :digits="field.digits"
            @change="$emit('change', { [field.key]: $event })"
          />{{ field.unit }}</span
        >
      </div>
      <OwnStep
        v-if="recipe[field.key] !== null"
        :label="field.label"
        :range="cutter[field.key]"
        :value="recipe[field.key]!"
        :digits="field.kept"
        @change="$emit('change', { [field.key]: $event })"
      />
      <SwitchRow
        :label="`Leave ${field.key} to the machine`"
        :on="recipe[field.key] === null"
        @change="$emit('change', { [field.key]: $event ? null : usual(field.key) })"
      />
    </template>
    <p v-if="!cutter.device.sendsForce" class="soft">
      {{ cutter.name }} takes no force from here: what is said is for whoever sets its knob.
    </p>
    <div class="row">
      <span>Passes</span>
      <NumberField
        label="Passes"
        :value="recipe.passes ?? 1"
        :min="1"
        :max="MOST_PASSES"
        @change="$emit('change', { passes: $event })"
      />
    </div>
    <div class="row">
      <span>{{ isRolling ? 'Tool' : 'Blade' }}</span>
      <DraftField
        label="Blade"
        :value="recipe.blade"
        :read="(text) => text || undefined"
        @change="$emit('change', { blade: $event })"
      />
    </div>
    <template v-if="!isRolling">
      <LengthRow
        label="Blade offset"
        fine
        :value="recipe.bladeOffset"
        :max="2"
        @change="$emit('change', { bladeOffset: $event })"
      />
      <LengthRow
        v-if="shown.kind !== 'perforated'"
        label="Overcut"
        fine
        :value="recipe.overcut"
        :max="10"
        @change="$emit('change', { overcut: $event })"
      />
    </template>
    <CurveRows
      :recipe="recipe"
      :swings="!isRolling"
      :is-told="cutter.device.sendsSpeed"
      @change="$emit('change', $event)"
    />
    <DashRows
      v-if="shown.kind === 'perforated' && recipe.dashes"
      :dashes="recipe.dashes"
      @change="$emit('change', $event)"
    />
    <p v-if="!shown.isOwn" class="soft">
      {{ shown.kind === 'kiss' ? 'As all films on this cutter' : 'Made from what is known of this cutter' }}.
      A change here is for this film alone.
    </p>
    <button v-else class="button slim" @click="$emit('clear')">Cut it as all films</button>
    <details v-if="history.length > 0">
      <summary>What it was before</summary>
      <ol>
        <li v-for="(one, i) in history" :key="one.id">
          <span
            ><b class="number">{{ brief(one.recipe) }}</b
            ><small class="soft"
              >{{ one.why }}{{ one.who ? `, ${one.who}` : '' }} · {{ when(one.madeAt) }}</small
            ></span
          >
          <em v-if="i === 0">now</em>
          <button
            v-else
            class="button slim"
            :aria-label="`Go back to ${brief(one.recipe)}`"
            @click="$emit('back', one.id)"
          >
            Go back
          </button>
        </li>
      </ol>
    </details>
  </section>
</template>

<style scoped>
.editor {
  display: grid;
  gap: 8px;
  padding: 14px 16px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
h2 {
  font-size: 17px;
}
.editor :deep(.row) {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
  min-height: 30px;
}
.number-field {
  display: flex;
  gap: 6px;
  align-items: center;
}
.editor :deep(.p-inputtext) {
  width: 84px;
  text-align: right;
}
p {
  margin: 0;
  font-size: 13.5px;
}
summary {
  font-weight: 650;
  cursor: pointer;
}
ol {
  display: grid;
  gap: 4px;
  max-height: 200px;
  margin: 6px 0 0;
  padding: 0;
  overflow-y: auto;
  list-style: none;
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  font-size: 13.5px;
}
li > span {
  display: grid;
}
em {
  font-style: normal;
  color: var(--gooseberry-text);
}
</style>
