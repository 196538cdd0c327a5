/** Which recipe a film is cut with on a cutter: the shop's, and what an order changes in it. */
import type { Film } from '../films/film';
import type { LineKind } from '../artwork/choices';
import type { Finding } from '../findings/finding';
import type { Cutter, Recipe } from '../layout/cutter';
import type { KindRecipes, OwnRecipes } from '../toolpath/kinds';
import { kindRecipes } from '../toolpath/kinds';
import { own } from '../units/own';
import type { CutChoices } from './choices';
import type { Shop } from './shop';

/** What a recipe's name ends in, by cutter and film. */
export const kindSuffix = (kind: LineKind): string => (kind === 'kiss' ? '' : `/${kind}`);

export const recipeOf = (
  shop: Shop,
  cutter: Cutter,
  film: Film,
  kind: LineKind = 'kiss',
): Recipe | undefined =>
  own(shop.recipes, `${cutter.id}/${film.id}${kindSuffix(kind)}`) ??
  own(shop.recipes, `${cutter.id}/*${kindSuffix(kind)}`);

/** Kinds of line that may have a recipe of their own. */
const OTHER_KINDS = ['through', 'perforated', 'crease', 'pen'] as const;

export const ownRecipes = (shop: Shop, cutter: Cutter, film: Film): OwnRecipes =>
  Object.fromEntries(
    OTHER_KINDS.flatMap((kind) => {
      const found = recipeOf(shop, cutter, film, kind);
      return found ? [[kind, found]] : [];
    }),
  );

/** What an order changes in a film's recipe on one cutter; `*` stands for the shop's first, as older orders have it. */
export function changedRecipe(
  { recipes }: CutChoices,
  shop: Shop,
  cutter: Cutter,
  film: Film,
  kind: LineKind = 'kiss',
): Partial<Recipe> | undefined {
  const older = shop.cutters[0]?.id === cutter.id ? own(recipes, '*') : undefined;
  const name = `${film.id}${kindSuffix(kind)}`;
  return own(own(recipes, cutter.id) ?? {}, name) ?? own(older ?? {}, name);
}

/** The recipes of all kinds with what an order changes in those of other lines than the kiss cut's. */
export function changedKinds(
  kinds: KindRecipes,
  cut: CutChoices,
  shop: Shop,
  cutter: Cutter,
  film: Film,
): KindRecipes {
  const changes = OTHER_KINDS.flatMap((kind) => {
    const changed = changedRecipe(cut, shop, cutter, film, kind);
    return changed ? [[kind, { ...kinds[kind], ...changed }] as const] : [];
  });
  return { ...kinds, ...Object.fromEntries(changes) };
}

/** With what a film is cut on a cutter. */
export interface FilmRecipes {
  readonly recipe: Recipe;
  /** The shop's recipe, before an order's changes. */
  readonly shopRecipe: Recipe;
  /** The recipes of all kinds of line, before what an order changes in those of others than the kiss cut. */
  readonly shopKinds: KindRecipes;
  readonly kinds: KindRecipes;
}

/** @returns undefined: the cutter has none for the film, nor one for all films */
export function recipesFor(shop: Shop, cutter: Cutter, film: Film, cut: CutChoices): FilmRecipes | undefined {
  const shopRecipe = recipeOf(shop, cutter, film);
  if (!shopRecipe) return undefined;
  const recipe = { ...shopRecipe, ...changedRecipe(cut, shop, cutter, film) };
  const shopKinds = kindRecipes(recipe, ownRecipes(shop, cutter, film), cutter.force.most);
  return { recipe, shopRecipe, shopKinds, kinds: changedKinds(shopKinds, cut, shop, cutter, film) };
}

export const noRecipe = ({ id, name }: Film, cutter: Cutter): Finding => ({
  stage: 'cut',
  code: 'no-recipe',
  film: name,
  severity: 'stop',
  message: `${cutter.name} has no recipe for ${name}, nor one for all films.`,
  waysOut: ['Pick another cutter or film', `Give ${cutter.name} a recipe for ${name}`],
  key: `no-recipe ${id}`,
});
