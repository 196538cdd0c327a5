/** What the planning worker hands to the page: plain numbers in arrays that move without being copied. */
import type { Film } from '../../core/films/film';
import type { Finding } from '../../core/findings/finding';
import { groupNested } from '../../core/geometry/nesting';
import type { Region } from '../../core/geometry/region';
import type { Bounds } from '../../core/geometry/bounds';
import type { Matrix } from '../../core/geometry/matrix';
import type { Cutter, Recipe } from '../../core/layout/cutter';
import type { Plan, Totals } from '../../core/plan/plan';

/** Rings one behind the other; `groups` ends an outermost outline with its holes, `rings` each ring. */
export interface PackedRegion {
  readonly xy: Float32Array;
  readonly rings: Uint32Array;
  readonly groups: Uint32Array;
}

export interface ColourView {
  readonly colour: string;
  readonly on: boolean;
  readonly film: Film | undefined;
  readonly deltaE: number;
  readonly proposed: boolean;
  readonly shapes: number;
  readonly area: number;
  readonly region: PackedRegion;
}

export interface StripView {
  readonly film: Film;
  readonly colours: readonly string[];
  readonly region: PackedRegion;
  readonly rollWidth: number;
  readonly cuttable: number;
  readonly rollerMargin: number;
  readonly mirrored: boolean;
  readonly turned: boolean;
  readonly placements: readonly { readonly matrix: Matrix; readonly box: Bounds }[];
  readonly borders: readonly Bounds[];
  readonly length: number;
  readonly used: number;
  readonly recipe: Recipe;
  readonly shopRecipe: Recipe;
  readonly seconds: number;
  readonly cutLength: number;
}

export interface PlanView {
  readonly width: number;
  readonly height: number;
  readonly natural: { readonly width: number; readonly height: number };
  readonly colours: readonly ColourView[];
  readonly strips: readonly StripView[];
  readonly cutter: Cutter | undefined;
  readonly totals: Totals;
  readonly findings: readonly Finding[];
  /** ms the plan took in the worker */
  readonly took: number;
}

export function packRegion(region: Region): PackedRegion {
  const groups = groupNested(region);
  const count = region.reduce((sum, ring) => sum + ring.length, 0);
  const xy = new Float32Array(count);
  const rings = new Uint32Array(region.length);
  const ends = new Uint32Array(groups.length);
  let at = 0;
  let ring = 0;
  groups.forEach((group, g) => {
    for (const index of group.rings) {
      xy.set(region[index], at);
      at += region[index].length;
      rings[ring++] = at;
    }
    ends[g] = ring;
  });
  return { xy, rings, groups: ends };
}

export function packPlan(plan: Plan, took: number): PlanView {
  const { prepared, separation, cuts, totals, findings, cutter } = plan;
  return {
    width: prepared.width,
    height: prepared.height,
    natural: prepared.natural,
    cutter,
    totals,
    findings,
    took,
    colours: separation.colours.map(({ region, ...colour }) => ({ ...colour, region: packRegion(region) })),
    strips: cuts.map(({ strip, recipe, shopRecipe, program }) => ({
      film: strip.film,
      colours: strip.layer.colours,
      region: packRegion(strip.layer.region),
      rollWidth: strip.rollWidth,
      cuttable: strip.cuttable,
      rollerMargin: strip.rollerMargin,
      mirrored: strip.mirrored,
      turned: strip.turned,
      placements: strip.placements.map(({ matrix, box }) => ({ matrix, box })),
      borders: strip.borders,
      length: strip.length,
      used: strip.used,
      recipe,
      shopRecipe,
      seconds: program.seconds,
      cutLength: program.cutLength,
    })),
  };
}

/** Everything in a view that can be handed over instead of copied. */
export const buffersOf = (view: PlanView): ArrayBuffer[] =>
  [...view.colours, ...view.strips].flatMap(({ region }) =>
    [region.xy, region.rings, region.groups].map((array) => array.buffer as ArrayBuffer),
  );
