/** How a film is cut on each cutter: shown and changed at once, one change after the other. */
import { computed, shallowRef } from 'vue';
import type { RecipeChange, RecipeHistory, ShopNow } from '../../../contracts/shop';
import type { ToolKind } from '../../../core/artwork/choices';
import { TOOL_KINDS } from '../../../core/artwork/choices';
import type { Film } from '../../../core/films/film';
import type { Recipe } from '../../../core/layout/cutter';
import { kindSuffix, recipeOf, recipesFor } from '../../../core/plan/recipes';
import { own } from '../../../core/units/own';
import { call } from '../../stores/api';
import { useShopNow } from '../../stores/shopNow';

/** Where a recipe is for. */
export interface RecipeAt {
  readonly cutter: string;
  readonly kind: ToolKind;
}

export interface ShownRecipe extends RecipeAt {
  readonly name: string;
  readonly recipe: Recipe;
  /** The film's own; else that of all films, or made from the kiss cut's. */
  readonly isOwn: boolean;
}

export function useRecipes(filmId: () => string) {
  const shop = shallowRef<ShopNow>();
  const take = (now: ShopNow): void => void (shop.value = now);
  const { state, problem, underWay, keep } = useShopNow(take, take);

  const film = computed<Film | undefined>(() => shop.value?.films.find(({ id }) => id === filmId()));

  /** What lines of a kind are cut with on a cutter; undefined: the film is not cut there. */
  function recipeAt({ cutter: id, kind }: RecipeAt): ShownRecipe | undefined {
    const cutter = shop.value?.cutters.find((one) => one.id === id);
    if (!shop.value || !film.value || !cutter) return undefined;
    const recipe = recipesFor(shop.value, cutter, film.value, { recipes: {} })?.kinds[kind];
    const isOwn = own(shop.value.recipes, `${id}/${film.value.id}${kindSuffix(kind)}`) !== undefined;
    return recipe && { cutter: id, kind, name: cutter.name, recipe, isOwn };
  }
  /** The kiss cut of every cutter, and what else has a recipe of its own. */
  const recipes = computed(() =>
    (shop.value?.cutters ?? []).flatMap((cutter) =>
      TOOL_KINDS.flatMap((kind): ShownRecipe[] => {
        const isThere = kind === 'kiss' || recipeOf(shop.value!, cutter, film.value!, kind);
        const found = film.value && isThere ? recipeAt({ cutter: cutter.id, kind }) : undefined;
        return found ? [found] : [];
      }),
    ),
  );
  const params = ({ cutter, kind }: RecipeAt) => ({ cutter, film: filmId(), kind });
  return {
    shop,
    film,
    recipes,
    state,
    problem,
    underWay,
    recipeAt,
    change: (at: RecipeAt, what: RecipeChange): Promise<void> =>
      keep(() =>
        call('PATCH /api/cutters/{cutter}/recipes/{film}/{kind}', { params: params(at), body: what }),
      ),
    clear: (at: RecipeAt): Promise<void> =>
      keep(() => call('POST /api/cutters/{cutter}/recipes/{film}/{kind}/clear', { params: params(at) })),
    back: (change: number): Promise<void> =>
      keep(() => call('POST /api/recipe-changes/{id}/back', { params: { id: change } })),
    raise: (grid: number): Promise<void> =>
      keep(() => call('POST /api/calibrations/{id}/raise', { params: { id: grid } })),
    history: (at: RecipeAt): Promise<RecipeHistory[]> =>
      call('GET /api/cutters/{cutter}/recipes/{film}/{kind}/history', { params: params(at) }),
  };
}
