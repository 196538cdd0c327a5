/** How art that is larger than the cutter is taken apart. */
import type { Axis } from './axis';

/**
 * Ways to place seams. `when-needed` is the least cut, `wandering` goes through the gaps and `pieces` leaves whole what
 * fits, each where a film does not fit; the others apply to every such film too.
 */
export const PANEL_WAYS = [
  'when-needed',
  'wandering',
  'pieces',
  'equal',
  'media',
  'grid',
  'by-hand',
  'never',
] as const;
export type PanelWay = (typeof PANEL_WAYS)[number];

/** Ways of which is said beforehand what they come to; what takes longest comes last. */
export const OFFERED_WAYS = ['when-needed', 'equal', 'media', 'grid', 'pieces', 'wandering'] as const;
export type OfferedWay = (typeof OFFERED_WAYS)[number];

/** What is taken as one where it fits: a line of text, a word, or a letter with all that lies on it. */
export const TOGETHER = ['line', 'word', 'letter'] as const;
export type Together = (typeof TOGETHER)[number];

/** A place on the sign, mm. */
export interface Place {
  readonly x: number;
  readonly y: number;
}

/** What a sign goes on, mm. */
export interface Surface {
  readonly width: number;
  readonly height: number;
  /** Where the sign's upper left corner lies on it. */
  readonly x: number;
  readonly y: number;
  /** Doors, windows and the like, mm from the surface's upper left corner. */
  readonly keepOuts: readonly KeepOut[];
  /** A photograph of it. */
  readonly picture: WallPicture | null;
}

export interface KeepOut extends Place {
  readonly name: string;
  readonly width: number;
  readonly height: number;
}

/** A picture scaled by two places in it that lie a known distance apart. */
export interface WallPicture {
  /** SHA-256 of its file. */
  readonly file: string;
  /** px */
  readonly width: number;
  readonly height: number;
  /** px from its upper left corner */
  readonly from: Place;
  readonly to: Place;
  /** mm between the two on the wall */
  readonly apart: number;
  /** Where `from` lies on the surface, mm. */
  readonly at: Place;
}

export interface PanelChoices {
  readonly way: PanelWay;
  /** For a grid. */
  readonly rows: number;
  readonly columns: number;
  /** Seams by hand, mm on the sign: upright ones by their x, level ones by their y. */
  readonly upright: readonly number[];
  readonly level: readonly number[];
  /** mm that neighbours share at each seam; 0: edge to edge */
  readonly overlap: number;
  /** Seams that differ, by their place in the row from 0; null: as all. */
  readonly overlaps: Readonly<Record<Axis, readonly (number | null)[]>>;
  /** Which neighbour lies on top: the one to the right and below, or the one before it. */
  readonly onTop: 'next' | 'before';
  /** mm that each film's seams lie beside those of the film beneath it. */
  readonly stagger: number;
  /** mm of the cuttable width kept in hand; null: what its cutter keeps. */
  readonly reserve: number | null;
  /** Panels that are not cut, by number. */
  readonly skip: readonly number[];
  /** Letters are not crossed where that can be. */
  readonly keepLetters: boolean;
  /** Shapes that are not crossed where that can be, each named by a place on it. */
  readonly whole: readonly Place[];
  /** For `pieces`: what is taken as one where it fits. */
  readonly together: Together;
  /** For `pieces`: what a person put together, each group by a place on each of its shapes. */
  readonly groups: readonly (readonly Place[])[];
  /** For `pieces`: shapes that stand alone. */
  readonly alone: readonly Place[];
  /** Small shapes across each seam, to line panels up. */
  readonly keys: boolean;
  /** A panel's number, its film and which way is up, in the waste. */
  readonly numbers: 'cut' | 'pen' | 'none';
  readonly surface: Surface | null;
}

/** What seams are placed by. */
export type SeamChoices = Omit<PanelChoices, 'skip' | 'surface' | 'numbers' | 'reserve'>;

export const NO_PANEL_CHOICES: PanelChoices = {
  way: 'when-needed',
  rows: 1,
  columns: 2,
  upright: [],
  level: [],
  overlap: 0,
  overlaps: { upright: [], level: [] },
  onTop: 'next',
  stagger: 0,
  reserve: null,
  skip: [],
  keepLetters: true,
  whole: [],
  together: 'line',
  groups: [],
  alone: [],
  keys: true,
  numbers: 'cut',
  surface: null,
};

/** mm that neighbours share at one seam. */
export const overlapAt = (
  { overlap, overlaps }: Pick<PanelChoices, 'overlap' | 'overlaps'>,
  axis: Axis,
  seam: number,
): number => overlaps[axis][seam] ?? overlap;
