/** What the planning worker hands to the page: plain numbers in arrays that move without being copied. */
import type { Artwork, Offers } from '../../core/readers/artwork';
import type { LineKind, Piece } from '../../core/artwork/choices';
import { sourceKey } from '../../core/artwork/choices';
import type { PlacedPiece, PreparedArtwork } from '../../core/artwork/prepare';
import type { ColourPlan } from '../../core/films/colourPlan';
import { isCutLine } from '../../core/films/colourPlan';
import type { Film, Roll } from '../../core/films/film';
import type { Overlap } from '../../core/films/overlap';
import type { Finding } from '../../core/findings/finding';
import type { Weeding } from '../../core/weeding/weeding';
import type { Bounds } from '../../core/geometry/bounds';
import { sharedBounds } from '../../core/geometry/bounds';
import { lineToPathData } from '../../core/geometry/pathText';
import type { Spot } from '../../core/geometry/spot';
import type { Cutter } from '../../core/layout/cutter';
import type { Share } from '../../core/layout/shares';
import { sharesOf } from '../../core/layout/shares';
import type { Placement, Strip } from '../../core/layout/strip';
import type { Part } from '../../core/panels/part';
import type { Panelling } from '../../core/panels/seams';
import type { Choices } from '../../core/plan/choices';
import type { Plan, PlannedCut, Totals } from '../../core/plan/planned';
import type { CutView } from './packedCut';
import { cutView } from './packedCut';
import type { PackedRegion } from './packedRegion';
import { packRegion } from './packedRegion';
import type { PrintedView } from './packedSheets';
import { printedView } from './packedSheets';

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
  /** It goes to the printed sheets, where its lines are cut and nothing of it is printed. */
  readonly isCutLine: boolean;
}

/** One film of the sign. */
export interface FilmView {
  readonly film: Film;
  readonly overlap: Overlap;
  /** What lies under other films, face view. */
  readonly hidden: PackedRegion;
  readonly colours: readonly string[];
  readonly copies: number;
}

export interface StripView extends CutView {
  readonly id: string;
  /** What lies on it, each part once; a placement says which by its place in this list. */
  readonly parts: readonly {
    readonly id: string;
    /** What a person calls it. */
    readonly label: string;
    /** Number of the order that it is of; missing: of the open one. */
    readonly order?: number;
    readonly region: PackedRegion;
    /** Of its box, face view: what it is turned about. */
    readonly middle: Spot;
    /** Keys and numbers in the waste, as SVG path data. */
    readonly waste: string;
  }[];
  /** What it is cut from, as it was on the shelf. */
  readonly roll: Roll;
  readonly cuttable: number;
  readonly edges: Strip['edges'];
  readonly mirrored: boolean;
  readonly turned: boolean;
  readonly placements: readonly PlacementView[];
  readonly weeding: Weeding;
  /** Whose it is, the open order's own share first. */
  readonly shares: readonly Share[];
  readonly length: number;
  readonly used: number;
}

/** A part where it lies on its strip. */
export interface PlacementView extends Pick<Placement, 'matrix' | 'box' | 'kept' | 'copy'> {
  readonly part: number;
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

/** Where what is larger than its cutter is taken apart. */
export interface PanellingView extends Pick<Panelling, 'box' | 'seams' | 'sum'> {
  readonly panels: readonly {
    readonly id: string;
    readonly film: Film;
    readonly number: number;
    /** What is seen of it, seam to seam, mm on the sign. */
    readonly seen: Bounds;
    readonly bounds: Bounds;
    readonly isCut: boolean;
    /** Cut whole, and not between seams. */
    readonly isPiece: boolean;
    /** Keys and numbers in the waste, as SVG path data. */
    readonly waste: string;
  }[];
}

/** With what everything of an order is cut: strips of film, then printed sheets. */
export const cutsOf = ({
  strips,
  printed,
}: Pick<PlanView, 'strips' | 'printed'>): readonly (CutView & { readonly id: string })[] => [
  ...strips,
  ...(printed?.sheets ?? []),
];

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
  readonly films: readonly FilmView[];
  readonly strips: readonly StripView[];
  readonly printed: PrintedView | undefined;
  readonly panelling: PanellingView | undefined;
  readonly cutter: Cutter | undefined;
  readonly totals: Totals;
  readonly findings: readonly Finding[];
  /** ms the plan took in the worker */
  readonly took: number;
}

export function packPlan(
  plan: Plan,
  took: number,
  choices: Choices,
  artworks: ReadonlyMap<string, Artwork>,
  order: number,
): PlanView {
  const { prepared, separation, panelling, panels, cuts, printed, totals, findings, cutter } = plan;
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
    panelling: panelling && {
      box: panelling.box,
      seams: panelling.seams,
      sum: panelling.sum,
      panels: panels.map(({ id, film, cell, bounds, isCut, waste }) => ({
        id,
        film,
        number: cell.number,
        seen: cell.row < 0 ? cell.seen : sharedBounds(cell.seen, panelling.box),
        bounds,
        isCut,
        isPiece: cell.row < 0,
        waste: waste.map(lineToPathData).join(''),
      })),
    },
    cutter,
    totals,
    findings,
    took,
    colours: separation.colours.map(({ region, lines, ...colour }) => ({
      ...colour,
      followed: lines.length,
      isCutLine: isCutLine({ ...colour, region, lines }),
      region: packRegion(region),
    })),
    films: separation.films.map(({ film, overlap, hidden, colours, copies }) => ({
      film,
      overlap,
      hidden: packRegion(hidden),
      colours,
      copies: copies ?? choices.layout.copies,
    })),
    strips: cuts.map((cut) => stripView(cut, partsOf(cut.strip))),
    printed: printed && printedView(printed, choices.print, order),
  };
}

const partsOf = ({ placements }: Strip): readonly Part[] => [...new Set(placements.map(({ part }) => part))];

function stripView(cut: PlannedCut, parts: readonly Part[]): StripView {
  const { strip } = cut;
  return {
    ...cutView(cut),
    id: strip.id,
    parts: parts.map(({ id, label, order, region, bounds, waste }) => ({
      id,
      label,
      order,
      region: packRegion(region),
      middle: [(bounds.minX + bounds.maxX) / 2, (bounds.minY + bounds.maxY) / 2],
      waste: waste.map(lineToPathData).join(''),
    })),
    roll: strip.roll,
    cuttable: strip.cuttable,
    edges: strip.edges,
    mirrored: strip.mirrored,
    turned: strip.turned,
    placements: strip.placements.map(({ part, ...placed }) => ({ ...placed, part: parts.indexOf(part) })),
    weeding: strip.weeding,
    shares: sharesOf(strip),
    length: strip.length,
    used: strip.used,
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
  [
    ...view.colours.map(({ region }) => region),
    ...view.strips.flatMap(({ parts }) => parts.map(({ region }) => region)),
    ...view.films.map(({ hidden }) => hidden),
    ...(view.printed?.art.map(({ region }) => region) ?? []),
  ].flatMap(({ xy, rings, groups }) => [xy, rings, groups].map((array) => array.buffer as ArrayBuffer));
