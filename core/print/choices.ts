/** What a person chooses about printed sheets and the lines that are cut around their art. */
import type { LineKind } from '../artwork/choices';
import type { Bounds } from '../geometry/bounds';
import type { MarkKind } from '../registration/readMarks';

/** Lines around one another that anybody tells apart. */
export const MOST_CUT_LINES = 8;
export const CUT_LINE_KINDS = ['kiss', 'perforated', 'through'] as const;

/** A line that is cut around printed art. */
export interface CutLineChoices {
  readonly kind: LineKind & (typeof CUT_LINE_KINDS)[number];
  /** Colours that it goes around; null, and no layers and no shapes: all that is printed. */
  readonly around: readonly string[] | null;
  /** Layers of the artwork that it goes around, by name. */
  readonly layers?: readonly string[];
  /** Single shapes that it goes around, `pieceId/shape`. */
  readonly shapes?: readonly string[];
  /** mm outside the art; below 0 inside it */
  readonly offset: number;
  readonly corners: 'round' | 'mitre';
  /** How far a pointed corner may reach, in offsets; beyond that it is cut off. */
  readonly mitreLimit: number;
  /** mm: no corner is tighter, inwards or outwards */
  readonly smallestRadius: number;
  /** mm²: holes that are smaller are dropped; 0: all are kept, null: none is */
  readonly dropHoles: number | null;
  /** mm: what lies nearer together than this gets one line outside it */
  readonly join: number;
  /** The same for a line inside the art, which else keeps off every edge and crosses no gap; missing: nothing is joined. */
  readonly joinInside?: number;
}

/** mm that art is joined over for a line. */
export const joinOf = ({ offset, join, joinInside = 0 }: CutLineChoices): number =>
  offset < 0 ? joinInside : join;

export const USUAL_CUT_LINE: CutLineChoices = {
  kind: 'kiss',
  around: null,
  offset: 2,
  corners: 'round',
  mitreLimit: 3,
  smallestRadius: 0.5,
  dropHoles: null,
  join: 2,
};

/** Print marks: corners with their arms along the art or away from it, or dots. */
export interface PrintMarkChoices {
  readonly kind: MarkKind;
  /** mm that an arm is long */
  readonly arm: number;
  /** mm that a line is wide; of dots, four times that is their width */
  readonly line: number;
  /** mm from the art with its bleed */
  readonly away: number;
  /** mm from mark to mark along the longer edges at the most */
  readonly between: number;
  /** Corners that have one; a sheet with three is told apart by the one that is missing too. */
  readonly corners: 3 | 4;
  /** A rectangle on the sheet that they were drawn to, mm; null: they keep off the art as far as is said. */
  readonly at: Bounds | null;
}

/** 15 mm from the art unless drawn tight (common practice, no source); the rest is our own. */
export const USUAL_MARKS: PrintMarkChoices = {
  kind: 'in',
  arm: 20,
  line: 1,
  away: 15,
  between: 400,
  corners: 4,
  at: null,
};
/** mm that marks drawn tight stay off the art: what a sensor needs to tell them apart (our own). */
export const TIGHT = 3;

/** mm at each edge of a sheet. */
export interface SheetEdges {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}
export const evenEdges = (mm: number): SheetEdges => ({ left: mm, top: mm, right: mm, bottom: mm });
/** At each edge as much as the one that takes more. */
export const widerEdges = (a: SheetEdges, b: SheetEdges): SheetEdges => ({
  left: Math.max(a.left, b.left),
  top: Math.max(a.top, b.top),
  right: Math.max(a.right, b.right),
  bottom: Math.max(a.bottom, b.bottom),
});

/** One sheet, as it is fed: its width along the way of the paper, its height across. */
export interface SheetRoom {
  /** mm */
  readonly width: number;
  readonly height: number;
  /** mm that are left free of art and marks */
  readonly edges: SheetEdges;
  /** Of a roll: it is cut off where its art ends. */
  readonly isRoll?: boolean;
}

/** Marks stay an inch off the sheet's edge (common practice, no source). */
export const USUAL_EDGE = 25.4;

/** What the shop prints with. */
export interface Printer {
  readonly name: string;
  /** mm that it leaves unprinted at every edge */
  readonly edge: number;
  /** mm: the widest material, and the longest print */
  readonly widest: number;
  readonly longest: number;
}
/** Until the shop says otherwise. */
export const USUAL_PRINTER: Printer = { name: 'Siskin', edge: 5, widest: 640, longest: 3000 };

/** Ways that copies lie on a sheet. */
export const SHEET_PACKS = ['rows', 'close'] as const;

/** Colours that do not show on white film by themselves have a patch behind the marks. */
export const PATCHES = ['when-needed', 'always', 'never'] as const;

/** Everything a person chooses about what is printed. */
export interface PrintChoices {
  /** Innermost first, as they are listed. */
  readonly lines: readonly CutLineChoices[];
  /** mm that colours reach past the innermost line; 0: only the art is printed */
  readonly bleed: number;
  /** The printable film, by its id; null: the shop's first. */
  readonly film: string | null;
  /** mm of one sheet; null: as the film's first sheets are, or as much of its roll as is needed */
  readonly sheet: { readonly width: number; readonly height: number } | null;
  /** mm that art and marks stay off the sheet's edges, at least what printer and cutter leave */
  readonly edge: number;
  /** mm between what is printed of two copies */
  readonly spacing: number;
  /** How copies lie on a sheet: in rows, or by their outlines where that takes less. */
  readonly pack: (typeof SHEET_PACKS)[number];
  /** Copies printed beyond those that are wanted. */
  readonly spare: number;
  readonly marks: PrintMarkChoices;
  readonly patch: (typeof PATCHES)[number];
}

export const NO_PRINT_CHOICES: PrintChoices = {
  lines: [USUAL_CUT_LINE],
  bleed: 0,
  film: null,
  sheet: null,
  edge: USUAL_EDGE,
  spacing: 4,
  pack: 'rows',
  spare: 0,
  marks: USUAL_MARKS,
  patch: 'when-needed',
};

/** Sizes by ISO 216, short side first, mm. */
export const ISO_SHEETS: Readonly<Record<string, readonly [number, number]>> = {
  A5: [148, 210],
  A4: [210, 297],
  A3: [297, 420],
  A2: [420, 594],
  A1: [594, 841],
  A0: [841, 1189],
};
