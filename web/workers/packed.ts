/** What the planning worker hands to the page: plain numbers in arrays that move without being copied. */
import type { Artwork, Offers } from '../../core/artwork/artwork';
import type { LineKind, Piece } from '../../core/artwork/choices';
import { sourceKey } from '../../core/artwork/choices';
import type { PlacedPiece, PreparedArtwork } from '../../core/artwork/prepare';
import type { ColourPlan } from '../../core/films/colourPlan';
import type { Film } from '../../core/films/film';
import type { Overlap } from '../../core/films/overlap';
import type { Finding } from '../../core/findings/finding';
import { groupNested } from '../../core/geometry/nesting';
import type { Region } from '../../core/geometry/region';
import type { Bounds } from '../../core/geometry/bounds';
import type { Matrix } from '../../core/geometry/matrix';
import type { Polyline } from '../../core/geometry/path';
import type { Spot } from '../../core/geometry/spot';
import type { Cutter, Recipe } from '../../core/layout/cutter';
import type { Choices, Plan, Totals } from '../../core/plan/plan';

/** Rings one behind the other; `groups` ends an outermost outline with its holes, `rings` each ring. */
export interface PackedRegion {
  readonly xy: Float32Array;
  readonly rings: Uint32Array;
  readonly groups: Uint32Array;
}

export interface ColourView {
  readonly colour: string;
  readonly goesTo: ColourPlan['goesTo'];
  readonly film: Film | undefined;
  readonly deltaE: number;
  readonly proposed: boolean;
  readonly shapes: number;
  readonly area: number;
  readonly region: PackedRegion;
  /** Lines of this colour that a tool follows. */
  readonly followed: number;
}

export interface StripView {
  readonly film: Film;
  readonly overlap: Overlap;
  /** What lies under other films, face view. */
  readonly hidden: PackedRegion;
  readonly copies: number;
  /** mm² and connected pieces of one copy */
  readonly area: number;
  readonly colours: readonly string[];
  readonly region: PackedRegion;
  readonly rollWidth: number;
  readonly cuttable: number;
  readonly rollerMargin: number;
  readonly mirrored: boolean;
  readonly turned: boolean;
  readonly placements: readonly { readonly matrix: Matrix; readonly box: Bounds }[];
  readonly borders: readonly (readonly Polyline[])[];
  readonly length: number;
  readonly used: number;
  readonly recipe: Recipe;
  readonly shopRecipe: Recipe;
  readonly seconds: number;
  readonly cutLength: number;
}

/** A line that a tool follows. */
export interface LineView {
  readonly kind: LineKind;
  readonly colour: string;
  readonly ref: string;
  readonly closed: boolean;
  readonly points: Float32Array;
}

/** A piece as it lies, and what can be chosen about its source. */
export interface PieceView extends PlacedPiece {
  readonly offers: Offers;
  readonly layers: readonly string[];
  readonly colours: readonly string[];
  readonly shapes: number;
}

export interface PlanView {
  readonly width: number;
  readonly height: number;
  readonly natural: { readonly width: number; readonly height: number };
  readonly pieces: readonly PieceView[];
  readonly lines: readonly LineView[];
  readonly marks: PackedRegion;
  /** Middles of the layer marks, mm on the sign. */
  readonly markPlaces: readonly Spot[];
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

export function packPlan(
  plan: Plan,
  took: number,
  choices: Choices,
  artworks: ReadonlyMap<string, Artwork>,
): PlanView {
  const { prepared, separation, cuts, totals, findings, cutter } = plan;
  return {
    marks: packRegion(separation.marks),
    markPlaces: separation.markPlaces,
    pieces: choices.artwork.pieces.flatMap((piece) => pieceView(piece, prepared, artworks)),
    lines: prepared.lines.map(({ kind, colour, ref, closed, points }) => ({
      kind,
      colour,
      ref,
      closed,
      points: Float32Array.from(points),
    })),
    width: prepared.width,
    height: prepared.height,
    natural: prepared.natural,
    cutter,
    totals,
    findings,
    took,
    colours: separation.colours.map(({ region, lines, ...colour }) => ({
      ...colour,
      followed: lines.length,
      region: packRegion(region),
    })),
    strips: cuts.map(({ strip, recipe, shopRecipe, program }) => ({
      film: strip.film,
      overlap: strip.layer.overlap,
      hidden: packRegion(strip.layer.hidden),
      copies: strip.placements.length,
      area: strip.layer.area,
      colours: strip.layer.colours,
      region: packRegion(strip.layer.region),
      rollWidth: strip.roll.width,
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

function pieceView(
  piece: Piece,
  prepared: PreparedArtwork,
  artworks: ReadonlyMap<string, Artwork>,
): PieceView[] {
  const artwork = artworks.get(sourceKey(piece.source));
  const nowhere = { minX: 0, minY: 0, maxX: 0, maxY: 0 };
  const natural = { x: 0, y: 0, width: 0, height: 0 };
  const placed = prepared.pieces.find(({ id }) => id === piece.id);
  if (!artwork) return [];
  return [
    {
      ...(placed ?? { id: piece.id, box: nowhere, width: 0, height: 0, natural }),
      offers: artwork.offers ?? {},
      layers: [...new Set(artwork.shapes.flatMap(({ layer }) => (layer ? [layer] : [])))].slice(0, 200),
      colours: [...new Set(artwork.shapes.map(({ colour }) => colour))],
      shapes: artwork.shapes.length,
    },
  ];
}

/** Everything in a view that can be handed over instead of copied. */
export const buffersOf = (view: PlanView): ArrayBuffer[] =>
  [...view.colours, ...view.strips, ...view.strips.map(({ hidden }) => ({ region: hidden }))].flatMap(
    ({ region }) => [region.xy, region.rings, region.groups].map((array) => array.buffer as ArrayBuffer),
  );
