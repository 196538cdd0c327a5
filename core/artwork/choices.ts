/** What a person decided about the artwork of an order. */
import type { Fix, FixKind } from '../findings/finding';
import type { DrawingUnit, PageBox } from '../readers/artwork';
import type { TraceChoices } from '../tracing/choices';

/** Kinds of line that a tool follows, each with a recipe. */
export const TOOL_KINDS = ['kiss', 'through', 'perforated', 'crease', 'pen'] as const;
export type ToolKind = (typeof TOOL_KINDS)[number];
/** What a line is for. Print-only lines are shown and never cut. */
export type LineKind = ToolKind | 'print';
/** How a line with a width is cut: along its middle, or around the area its pen leaves. */
export type StrokeManner = 'line' | 'outline';

/** A customer's file with what had to be decided to read it; null where nothing had to be. */
export interface FileSource {
  readonly kind: 'file';
  readonly hash: string;
  readonly name: string;
  readonly page: number | null;
  readonly box: PageBox | null;
  readonly units: DrawingUnit | null;
  readonly trace: TraceChoices | null;
  /** Typeface of the shop for text whose own is not in the file. */
  readonly font: string | null;
}

/** What of a file is seen: of a picture there is only one part. */
export type FilePart = Pick<FileSource, 'page' | 'box' | 'font'>;

/** Words typed on the spot. */
export interface TextSource {
  readonly kind: 'text';
  readonly text: string;
  readonly font: string;
  /** Weight on the font's own axis, where it has one. */
  readonly weight: number;
  /** Height of a capital, mm. */
  readonly capHeight: number;
  /** Room between letters, in thousandths of the em. */
  readonly tracking: number;
  /** From line to line, in em. */
  readonly lineSpacing: number;
  readonly align: 'left' | 'middle' | 'right';
  /** mm; above nought the lines bend up over a circle, below they hang in one; nought is straight. */
  readonly arcRadius: number;
  readonly colour: string;
}

export type Source = FileSource | TextSource;

/** One piece of artwork on the sign; later pieces lie in front. */
export interface Piece {
  readonly id: string;
  readonly name: string;
  readonly source: Source;
  /** Finished size before turning; null follows the other side, or the source. mm. */
  readonly width: number | null;
  readonly height: number | null;
  readonly lockAspect: boolean;
  /** Upper left corner of its box as it lies, mm. */
  readonly x: number;
  readonly y: number;
  /** Degrees clockwise. */
  readonly turn: number;
  readonly mirror: boolean;
  /** Pieces of one group are picked and moved together. */
  readonly group: string | null;
}

/** Line kinds by `#rrggbb`, by layer name and by shape (`pieceId/shape`); the narrower rule counts. */
export interface LineRules {
  readonly colour: Readonly<Record<string, LineKind>>;
  readonly layer: Readonly<Record<string, LineKind>>;
  readonly shape: Readonly<Record<string, LineKind>>;
  /** How lines with a width are cut, by shape or `*`; missing: hairlines along, others around. */
  readonly stroke: Readonly<Record<string, StrokeManner>>;
}

/** A finding a person has looked at and leaves as it is. */
export interface Ignored {
  readonly key: string;
  readonly reason: string;
}

/** All of it. The size is that of the whole sign: a missing side follows the other one, or the pieces. */
export interface ArtworkChoices {
  readonly width: number | null;
  readonly height: number | null;
  readonly lockAspect: boolean;
  readonly pieces: readonly Piece[];
  readonly lines: LineRules;
  readonly fixes: readonly Fix[];
  readonly ignored: readonly Ignored[];
}

export const NO_LINE_RULES: LineRules = { colour: {}, layer: {}, shape: {}, stroke: {} };

export const DEFAULT_TRACE: TraceChoices = {
  by: 'brightness',
  threshold: 0.5,
  invert: false,
  colours: 4,
  dropGround: true,
  despeckle: 8,
  smooth: 0.6,
  corner: 60,
};

/** Cut around where it is opaque. */
export const PRINTED_AS_IT_IS: TraceChoices = { ...DEFAULT_TRACE, by: 'print' };

/** A file as a piece, read as it comes. */
export function pieceOfFile(hash: string, name: string, more: Partial<FileSource> = {}, id = 'p1'): Piece {
  const source: FileSource = {
    kind: 'file',
    hash,
    name,
    page: null,
    box: null,
    units: null,
    trace: null,
    font: null,
    ...more,
  };
  return { ...LYING_STRAIGHT, id, name: name.replace(/\.[^.]*$/, ''), source };
}

/** A piece at its own size, at the upper left, neither turned nor mirrored. */
export const LYING_STRAIGHT = {
  width: null,
  height: null,
  lockAspect: true,
  x: 0,
  y: 0,
  turn: 0,
  mirror: false,
  group: null,
} as const;

/** Stands for what a source reads as: two sources with one key are one artwork. */
export function sourceKey(source: Source): string {
  if (source.kind === 'text') return stable(source);
  const { name: _name, ...reading } = source;
  return stable(reading);
}

/** JSON with its keys in order: a database gives them back in another one. */
const stable = (value: object): string =>
  JSON.stringify(value, (_key, inner: unknown) =>
    inner !== null && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );

/** Whether one of the fixes is for this very thing or for all of its kind. */
/** Fixes of places on a film, not of shapes in the artwork. */
export const PLACE_FIXES: ReadonlySet<FixKind> = new Set(['thicken', 'island']);

export const isFixed = (fixes: readonly Fix[], kind: FixKind, at: string): boolean =>
  fixes.some((fix) => fix.kind === kind && (fix.at === '*' || isSame(fix.at, at)));

/** How far a place may wander when other fixes change the size of the sign, as a share of it. */
const WANDER = 0.012;

/** Whether two names mean the same thing: letter by letter, or places `…@u,v` that lie close together. */
export function isSame(a: string, b: string): boolean {
  if (a === b) return true;
  const [nameA, placeA] = a.split('@');
  const [nameB, placeB] = b.split('@');
  if (nameA !== nameB || placeA === undefined || placeB === undefined) return false;
  const [ua, va] = placeA.split(',').map(Number);
  const [ub, vb] = placeB.split(',').map(Number);
  return Math.abs(ua - ub) <= WANDER && Math.abs(va - vb) <= WANDER;
}
