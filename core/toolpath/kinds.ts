/** How a film's recipe changes with what a line is for. */
import type { LineKind } from '../artwork/choices';
import type { Recipe } from '../layout/cutter';

export interface KindRecipe extends Recipe {
  /** 1: the knife; 2: what the second holder holds */
  readonly tool: 1 | 2;
  /** mm cut, mm left, in turn */
  readonly dashes?: readonly [number, number];
}

/** Through the backing takes two to three times the kiss-cut force (common practice, no source). */
const THROUGH_FORCE = 2.5;
/** Dashes of 2 to 4 mm, gaps of 0.2 to 0.5 mm (common practice, no source). */
const PERFORATION: readonly [number, number] = [3, 0.4];
/** g: a pen only has to touch (common practice, no source). */
const PEN_FORCE = 30;
/** The largest force any recipe may ask for, g. */
const MOST_FORCE = 600;

/** The recipe that a kind of line is cut with. */
export function kindRecipe(recipe: Recipe, kind: LineKind): KindRecipe {
  const through = {
    ...recipe,
    tool: 1 as const,
    force: Math.min(MOST_FORCE, Math.round(recipe.force * THROUGH_FORCE)),
  };
  switch (kind) {
    case 'through':
      return through;
    case 'perforated':
      return { ...through, overcut: 0, dashes: PERFORATION };
    case 'crease':
      return { ...through, bladeOffset: 0, overcut: 0, tool: 2 };
    case 'pen':
      return { ...recipe, force: PEN_FORCE, bladeOffset: 0, overcut: 0, tool: 2 };
    default:
      return { ...recipe, tool: 1 };
  }
}

/** Tool holders a cutter must have for a kind. */
export const toolsNeeded = (kind: LineKind): number => (kind === 'pen' || kind === 'crease' ? 2 : 1);
