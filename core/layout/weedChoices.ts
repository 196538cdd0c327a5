/** What a person chooses about how waste is taken apart for weeding. */
import type { Axis } from '../panels/axis';

export const BORDERS = ['none', 'box', 'order', 'copy', 'follow'] as const;
/** A box around all, one around each order, one around each copy, or an outline that follows the art. */
export type BorderKind = (typeof BORDERS)[number];

/** mm from line to line, at least and at most */
export const LEAST_STEP = 10;
export const MOST_STEP = 5000;

/** More lines than this on one stretch of waste are not laid. */
export const MOST_LINES = 400;

export const WEED_LINE_WAYS = ['none', 'step', 'lift', 'hand'] as const;

export interface WeedLineChoices {
  /** At a step, so that every strip of waste can be lifted in one go, or by hand. */
  readonly way: (typeof WEED_LINE_WAYS)[number];
  /** mm from line to line; of what is to be lifted, the widest strip. */
  readonly step: number;
  /** Lines across the film, along it, or both. */
  readonly direction: 'across' | 'along' | 'both';
  /** mm kept clear of what is cut */
  readonly away: number;
  /** Lines by hand, by strip. */
  readonly byHand: Readonly<Record<string, readonly WeedLineAt[]>>;
}

/** Where a line is wanted: across the film at some x, or along it at some y of its strip, mm. */
export interface WeedLineAt {
  readonly axis: Axis;
  readonly at: number;
}

export const NO_WEED_LINES: WeedLineChoices = {
  way: 'none',
  step: 120,
  direction: 'across',
  away: 1,
  byHand: {},
};
