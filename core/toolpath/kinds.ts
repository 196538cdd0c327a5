/** How each kind of line is cut. */
import type { LineKind } from '../artwork/choices';
import type { Recipe } from '../layout/cutter';

export interface KindRecipe extends Recipe {
  /** 1: the knife; 2: what the second holder holds */
  readonly tool: 1 | 2;
}

/** What the shop has for kinds of lines beside the kiss cut. */
export type OwnRecipes = Readonly<Partial<Record<LineKind, Recipe>>>;

/** By kind of line. */
export type KindRecipes = Readonly<Record<LineKind, KindRecipe>>;

/** Through the backing takes two to three times the kiss-cut force (common practice, no source). */
const THROUGH_FORCE = 2.5;
/** Dashes of 2 to 4 mm, gaps of 0.2 to 0.5 mm (common practice, no source). */
const PERFORATION: readonly [number, number] = [3, 0.4];
/** g: a pen only has to touch (common practice, no source). */
export const PEN_FORCE = 30;

/**
 * The recipe of every kind: the shop's own, or made from the kiss cut's by common practice. What is left to the machine
 * stays left to it.
 * @param most the largest force the cutter has, g
 */
export function kindRecipes(kiss: Recipe, own: OwnRecipes, most: number): KindRecipes {
  const harder = kiss.force === null ? null : Math.min(most, Math.round(kiss.force * THROUGH_FORCE));
  const through = own.through ?? { ...kiss, force: harder };
  const perforated = own.perforated ?? through;
  const crease = own.crease ?? through;
  const pen = own.pen ?? { ...kiss, force: kiss.force === null ? null : PEN_FORCE };
  return {
    kiss: { ...kiss, ...WHOLE },
    through: { ...through, ...WHOLE },
    perforated: { ...perforated, overcut: 0, tool: 1, dashes: own.perforated?.dashes ?? PERFORATION },
    crease: { ...crease, ...ROLLING },
    pen: { ...pen, ...ROLLING },
    print: { ...kiss, ...WHOLE },
  };
}

/** Only what is perforated is cut in dashes. */
const WHOLE = { tool: 1, dashes: undefined } as const;
/** Neither a pen nor a wheel trails behind its holder or cuts past a start. */
const ROLLING = { bladeOffset: 0, overcut: 0, tool: 2, dashes: undefined } as const;

/** Tool holders a cutter must have for a kind. */
export const toolsNeeded = (kind: LineKind): number => (kind === 'pen' || kind === 'crease' ? 2 : 1);
/** Whether a line is the knife's, as all are of which nothing else is said. */
export const isKnifes = (kind: LineKind = 'kiss'): boolean => toolsNeeded(kind) === 1;
