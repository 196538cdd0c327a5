/** A cut as the page shows it, of film or of a sheet. */
import type { LineKind } from '../../core/artwork/choices';
import type { Film } from '../../core/films/film';
import { offOf } from '../../core/films/leftover';
import type { Recipe } from '../../core/layout/cutter';
import type { PlannedCut } from '../../core/plan/planned';

/** With what a strip or a sheet is cut, and how long that takes. */
export interface CutView {
  readonly film: Film;
  readonly cutter: string;
  /** The shop's, before this order's changes. */
  readonly shopRecipe: Recipe;
  /** Kinds of line on it beside what is kiss cut, each with the shop's recipe. */
  readonly otherKinds: readonly { readonly kind: LineKind; readonly shopRecipe: Recipe }[];
  /** mm of its film that leave the shelf */
  readonly takes: number;
  readonly seconds: number;
  readonly cutLength: number;
  /** Half of all cuts take within this share of that long; missing: nobody knows. */
  readonly within?: number;
}

export const cutView = ({ strip, cutter, shopRecipe, shopKinds, program }: PlannedCut): CutView => ({
  film: strip.film,
  cutter: cutter.id,
  shopRecipe,
  otherKinds: [...new Set(program.lines.map(({ kind }) => kind))]
    .filter((kind) => kind !== 'kiss')
    .map((kind) => ({ kind, shopRecipe: shopKinds[kind] })),
  takes: offOf(strip.roll, strip.length),
  seconds: program.seconds,
  cutLength: program.cutLength,
  within: cutter.motion.paceWithin,
});
