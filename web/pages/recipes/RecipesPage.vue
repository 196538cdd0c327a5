<script setup lang="ts">
/** How one film is cut: its recipes on every cutter, the trial grid that finds them, and what they were before. */
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { TOOL_KINDS } from '../../../core/artwork/choices';
import ChoiceField from '../../parts/ChoiceField.vue';
import { onShelf } from '../../parts/onShelf';
import OnlyFor from '../../parts/OnlyFor.vue';
import ProblemNote from '../../parts/ProblemNote.vue';
import KnifeBox from '../../parts/KnifeBox.vue';
import { useCutters } from '../../stores/cutters';
import { setTo, useUnits } from '../../stores/units';
import { useCalibrations } from '../machines/calibrations/useCalibrations';
import { kindName } from '../order/artwork/kinds';
import KnifeWear from './KnifeWear.vue';
import RecipeEditor from './RecipeEditor.vue';
import TrialGrid from './TrialGrid.vue';
import type { RecipeAt } from './useRecipes';
import { useRecipes } from './useRecipes';

const route = useRoute();
const units = useUnits();
const { shop, film, recipes, state, problem, recipeAt, change, clear, back, raise, history } = useRecipes(
  () => String(route.params.film),
);
useCutters().follow();

const at = ref<RecipeAt>();
const isAt = ({ cutter, kind }: RecipeAt): boolean => at.value?.cutter === cutter && at.value.kind === kind;
watch(recipes, ([first]) => (at.value ??= first && { cutter: first.cutter, kind: first.kind }), {
  immediate: true,
});
const shown = computed(() => at.value && recipeAt(at.value));
const cutter = computed(() => shop.value?.cutters.find(({ id }) => id === at.value?.cutter));
const calibrations = useCalibrations(() => at.value?.cutter ?? '');

/** Trial grids of this kind of line on this film, with whatever knife. */
const grids = computed(() =>
  calibrations.runs.value.filter(
    ({ setup }) => setup.kind === 'force' && setup.film === film.value?.id && setup.line === at.value?.kind,
  ),
);
/** Blades that the cutter's recipes are for, this one's first. */
const blades = computed(() => {
  const own = Object.entries(shop.value?.recipes ?? {}).filter(([key]) =>
    key.startsWith(`${at.value?.cutter}/`),
  );
  const names = own.filter(([, { bladeOffset }]) => bladeOffset > 0).map(([, { blade }]) => blade);
  return [
    ...new Set([
      ...(shown.value && shown.value.recipe.bladeOffset > 0 ? [shown.value.recipe.blade] : []),
      ...names,
    ]),
  ];
});

/** Kinds that the picked cutter has none listed for. */
const others = computed(() =>
  TOOL_KINDS.filter(
    (kind) => !recipes.value.some((one) => one.cutter === at.value?.cutter && one.kind === kind),
  ).map((value) => ({ value, label: kindName(value) })),
);
const brief = ({ force, speed }: { force: number | null; speed: number | null }): string =>
  force === null && speed === null
    ? 'as the machine is set'
    : `${setTo(force, 'g')} · ${setTo(speed, 'cm/s')}`;
</script>

<template>
  <div class="page">
    <p v-if="state === 'loading'" class="soft" role="status">Looking it up.</p>
    <p v-else-if="state === 'failed'" role="alert">
      The film's recipes could not be looked up. Load the page again.
    </p>
    <p v-else-if="!film">There is no such film. <router-link to="/materials">All films</router-link></p>
    <template v-else>
      <header>
        <i class="swatch" :style="{ '--film': film.colour }" aria-hidden="true"></i>
        <div>
          <h1>{{ film.name }} · {{ film.code }}</h1>
          <p class="soft">
            {{ film.rolls.map((roll) => onShelf(roll, units)).join(' · ') || 'none on the shelf' }}
          </p>
        </div>
        <router-link to="/materials" class="button">All films</router-link>
      </header>
      <ProblemNote
        v-if="problem"
        :message="problem.message"
        :ways-out="problem.waysOut"
        @close="problem = undefined"
      />
      <ProblemNote
        v-if="calibrations.problem.value"
        :message="calibrations.problem.value.message"
        :ways-out="calibrations.problem.value.waysOut"
        @close="calibrations.problem.value = undefined"
      />
      <div class="columns">
        <div class="left">
          <nav aria-label="Recipes">
            <button
              v-for="one in recipes"
              :key="`${one.cutter} ${one.kind}`"
              :aria-pressed="isAt(one)"
              @click="at = { cutter: one.cutter, kind: one.kind }"
            >
              <strong>{{ one.name }}</strong><span class="soft">{{ kindName(one.kind) }}</span>
              <span class="number">{{ brief(one.recipe) }}</span><span class="soft">{{
                one.isOwn ? '' : 'as all films'
              }}</span>
            </button>
            <div v-if="others.length > 0 && cutter" class="more">
              <ChoiceField
                :label="`Another kind of line on ${cutter.name}`"
                :value="at!.kind"
                :options="[
                  ...others,
                  ...(others.some(({ value }) => value === at!.kind)
                    ? []
                    : [{ value: at!.kind, label: 'another kind of line …' }]),
                ]"
                @change="at = { cutter: cutter!.id, kind: $event }"
              />
            </div>
          </nav>
          <OnlyFor role="lead" says="Only a lead changes recipes.">
            <RecipeEditor
              v-if="shown && cutter"
              :key="`${shown.cutter} ${shown.kind}`"
              :shown="shown"
              :cutter="cutter"
              :fetch-history="() => history(at!)"
              @change="change(at!, $event)"
              @clear="clear(at!)"
              @back="back"
            />
          </OnlyFor>
        </div>
        <div v-if="shown && cutter" class="right">
          <OnlyFor role="operator" says="Trial grids are cut, and knives changed, by operators and leads.">
            <TrialGrid
              v-if="shown.kind !== 'pen' && shown.kind !== 'crease'"
              :film="film"
              :cutter="cutter"
              :shown="shown"
              :calibrations="calibrations"
            />
            <KnifeBox :cutter="cutter" :blades="blades">
              <template #default="{ knife }">
                <KnifeWear v-if="knife" :knife="knife" :grids="grids" @raise="raise" />
              </template>
            </KnifeBox>
          </OnlyFor>
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: 14px;
  align-content: start;
  padding: 18px 24px;
}
header {
  display: flex;
  gap: 14px;
  align-items: center;
}
header .button {
  margin-left: auto;
}
h1 {
  font-size: 26px;
}
p {
  margin: 0;
}
.swatch {
  flex: none;
  width: 38px;
  height: 38px;
  background: var(--film);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-field);
}
.columns {
  display: grid;
  grid-template-columns: 312px minmax(0, 1fr);
  gap: 18px;
  align-items: start;
}
.left,
.right {
  display: grid;
  gap: 14px;
}
nav {
  display: grid;
  overflow: hidden;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
nav button {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 1px 8px;
  padding: 9px 14px;
  text-align: left;
  background: none;
  border: 0;
  border-bottom: 1px solid var(--rule);
}
nav button:hover {
  background: var(--rule-soft);
}
nav button[aria-pressed='true'] {
  background: var(--damson-soft);
}
nav .soft {
  font-size: 13px;
  text-align: right;
}
.more {
  padding: 8px 12px;
}
.more :deep(.p-select) {
  width: 100%;
}
</style>
