<script setup lang="ts">
import { addressOf } from '../../../contracts/address';
import { computed, ref } from 'vue';
import type { LineKind, ToolKind } from '../../../core/artwork/choices';
import type { Recipe } from '../../../core/layout/cutter';
import { MOST_PASSES } from '../../../core/layout/cutter';
import { changedRecipe, kindSuffix } from '../../../core/plan/recipes';
import { kindName } from './artwork/kinds';
import NudgeRow from './NudgeRow.vue';
import CurveRows from '../../parts/CurveRows.vue';
import DashRows from '../../parts/DashRows.vue';
import FilmChips from '../../parts/FilmChips.vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import LengthRow from '../../parts/LengthRow.vue';
import { USUAL_CORNER } from '../../../core/toolpath/compensate';
import { call } from '../../stores/api';
import { useMe } from '../../stores/me';
import { useTold } from '../../stores/told';
import { useOrder } from '../../stores/order';
import { duration } from '../../stores/units';
import { cutsOf } from '../../workers/packed';

const film = defineModel<string | undefined>('film');
const store = useOrder();
const strips = computed(() => cutsOf(store.plan!));
const isSheet = computed(() => store.plan!.printed?.film.id === shown.value.film.id);
/** One recipe a film, however many strips it goes over. */
const films = computed(() => [...new Map(strips.value.map((s) => [s.film.id, s.film])).values()]);
const shown = computed(() => strips.value.find((s) => s.film.id === film.value) ?? strips.value[0]);
const own = computed(() => strips.value.filter((s) => s.film.id === shown.value.film.id));
const cutter = computed(() => store.shop!.cutters.find(({ id }) => id === shown.value.cutter)!);
const FIELDS = [
  { key: 'force', label: 'Force', unit: 'g', digits: 0, usual: 80 },
  { key: 'speed', label: 'Speed', unit: 'cm/s', digits: 2, usual: 20 },
] as const;
const sum = (of: 'cutLength' | 'seconds'): number => own.value.reduce((all, strip) => all + strip[of], 0);

/** Every kind of line on the film with its recipe; the kiss cut first. */
const kinds = computed(() => {
  const others = own.value.flatMap(({ otherKinds }) => otherKinds);
  return [
    { kind: 'kiss' as LineKind, shopRecipe: shown.value.shopRecipe },
    ...new Map(others.map((one) => [one.kind, one])).values(),
  ];
});
const picked = ref<LineKind>('kiss');
/** As the order has it now: what was just changed is not planned yet, and the next change goes on from it. */
const line = computed(() => {
  const { kind, shopRecipe } = kinds.value.find((one) => one.kind === picked.value) ?? kinds.value[0];
  const changed = changedRecipe(store.choices!.cut, store.shop!, cutter.value, shown.value.film, kind);
  return { kind, shopRecipe, recipe: { ...shopRecipe, ...changed } };
});

const RECIPE_KEYS = [
  'force',
  'speed',
  'blade',
  'bladeOffset',
  'overcut',
  'passes',
  'dashes',
  'slowRadius',
  'cornerAngle',
] as const;
/** What of a recipe is another than the shop has it. */
const differing = (recipe: Recipe, shopRecipe: Recipe): Pick<Partial<Recipe>, (typeof RECIPE_KEYS)[number]> =>
  Object.fromEntries(
    RECIPE_KEYS.flatMap((key) =>
      String(recipe[key]) === String(shopRecipe[key]) ? [] : [[key, recipe[key]]],
    ),
  );
const TIMES = Array.from({ length: MOST_PASSES }, (_, i) => ({
  value: i + 1,
  label: i === 0 ? 'once' : i === 1 ? 'twice' : `${i + 1} times`,
}));
/** Keeps what differs from the shop's recipe, for this film on this cutter and this kind of line. */
function keep(recipe: Recipe): void {
  const { film: cutFilm, cutter: here } = shown.value;
  const { kind, shopRecipe } = line.value;
  const { recipes } = store.choices!.cut;
  const name = `${cutFilm.id}${kindSuffix(kind)}`;
  const all = { ...recipes[here], [name]: differing(recipe, shopRecipe) };
  store.change({ cut: { recipes: { ...recipes, [here]: all } } });
}
function set(change: Partial<Recipe>): void {
  keep({ ...line.value.recipe, ...change });
}
const USUAL: Partial<Recipe> = { passes: 1, slowRadius: 0, cornerAngle: USUAL_CORNER };
/** What the shop's recipe says nothing of is left unsaid where it is as usual. */
const unlessUsual = (change: Partial<Recipe>): Partial<Recipe> =>
  Object.fromEntries(
    (Object.keys(change) as (keyof Recipe)[]).map((key) => [
      key,
      line.value.shopRecipe[key] === undefined && change[key] === USUAL[key] ? undefined : change[key],
    ]),
  );
function asShop(): void {
  keep(line.value.shopRecipe);
}
/** What the order changed becomes the shop's recipe, and the order follows that again. */
function intoRecipe(): Promise<void> {
  const { film: cutFilm, cutter: here } = shown.value;
  const { kind, recipe, shopRecipe } = line.value;
  const params = { cutter: here, film: cutFilm.id, kind: kind as ToolKind };
  return tell(async () => {
    await call('PATCH /api/cutters/{cutter}/recipes/{film}/{kind}', {
      params,
      body: { ...differing(recipe, shopRecipe), why: `order #${store.order!.number}` },
    });
    asShop();
  });
}
const me = useMe();
const { problem, tell } = useTold();
const changed = computed(() => {
  const { recipe, shopRecipe } = line.value;
  return Object.keys(differing(recipe, shopRecipe)).length > 0;
});
function file(strip: string, ending: 'plt' | 'svg'): string {
  const { id } = store.order!;
  return isSheet.value
    ? addressOf('GET /api/orders/{id}/sheets/{sheet}', {
        params: { id, sheet: strip },
        query: { as: ending },
      })
    : addressOf(`GET /api/orders/{id}/strips/{strip}.${ending}`, { params: { id, strip } });
}
</script>

<template>
  <p v-if="!shown" class="hint">No film is laid out yet.</p>
  <template v-else>
    <FilmChips label="Film" :films="films" :picked="shown.film.id" @pick="film = $event" />
    <div v-if="kinds.length > 1" class="films" role="group" aria-label="Kind of line">
      <button
        v-for="one in kinds"
        :key="one.kind"
        class="kind"
        :aria-pressed="one.kind === line.kind"
        @click="picked = one.kind"
      >
        {{ kindName(one.kind) }}
      </button>
    </div>
    <NudgeRow
      v-for="field in FIELDS"
      :key="field.key"
      :label="field.label"
      :unit="field.unit"
      :value="line.recipe[field.key]"
      :usual="line.shopRecipe[field.key] ?? field.usual"
      :range="cutter[field.key]"
      :digits="field.digits"
      @change="set({ [field.key]: $event })"
    />
    <p v-if="!cutter.device.sendsForce" class="hint">
      {{ cutter.name }} takes no force from here: it is set by hand at the machine.
    </p>
    <div class="row">
      <span>Blade</span><b class="number">{{ line.recipe.blade }}</b>
    </div>
    <LengthRow
      label="Blade offset"
      fine
      :value="line.recipe.bladeOffset"
      :max="2"
      @change="set({ bladeOffset: $event })"
    />
    <LengthRow
      label="Overcut"
      fine
      :value="line.recipe.overcut"
      :max="10"
      @change="set({ overcut: $event })"
    />
    <DashRows
      v-if="line.kind === 'perforated' && line.recipe.dashes"
      :dashes="line.recipe.dashes"
      @change="set($event)"
    />
    <CurveRows
      :recipe="line.recipe"
      :swings="line.kind !== 'pen' && line.kind !== 'crease'"
      :is-told="cutter.device.sendsSpeed"
      @change="set(unlessUsual($event))"
    />
    <ChoiceRow
      label="Each line is cut"
      :value="line.recipe.passes ?? 1"
      :options="TIMES"
      @change="set(unlessUsual({ passes: $event }))"
    />
    <div class="row">
      <span class="hint"
        >{{ (sum('cutLength') / 1000).toFixed(2) }} m of cutting, {{ duration(sum('seconds'))
        }}{{ own[0]?.within ? ` ± ${Math.max(1, Math.round(100 * own[0].within))} %` : '' }}</span
      >
      <button class="button small" :disabled="!changed" @click="asShop">Shop's recipe</button>
    </div>
    <div v-if="changed && line.kind !== 'print'" class="row">
      <span class="hint">Changed for this order alone</span>
      <button class="button small" :disabled="!me.may('lead')" @click="intoRecipe">Into the recipe</button>
    </div>
    <p v-if="problem" class="hint" role="alert">{{ problem }}</p>
    <div v-for="(strip, i) in own" :key="strip.id" class="row">
      <span class="hint">{{
        own.length === 1
          ? 'The cut as a file'
          : `${isSheet ? 'Sheet' : 'Strip'} ${i + 1} of ${own.length} as a file`
      }}</span>
      <span class="files">
        <a class="button small" :href="file(strip.id, 'plt')" download>HP-GL</a>
        <a class="button small" :href="file(strip.id, 'svg')" download>SVG</a>
      </span>
    </div>
  </template>
</template>

<style scoped>
.films {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.films button {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 2px 9px 2px 4px;
  font-size: 13.5px;
  border: 1px solid var(--rule);
  border-radius: 99px;
  background: var(--card);
}
.films button[aria-pressed='true'] {
  border-color: var(--damson);
  background: var(--damson-soft);
}
.films .kind {
  padding: 2px 9px;
}
.small {
  min-height: 28px;
  padding: 0 10px;
  font-size: 13.5px;
}
.files {
  display: flex;
  gap: 6px;
}
</style>
