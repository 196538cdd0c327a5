/** What a person chooses about a printed sheet and the lines that are cut around its art. */
import type { LineKind } from '../artwork/choices';

/** A line that is cut around printed art. */
export interface CutLineChoices {
  readonly kind: LineKind & ('kiss' | 'perforated' | 'through');
  /** mm outside the art; below 0 inside it */
  readonly offset: number;
  readonly corners: 'round' | 'mitre';
  /** How far a pointed corner may reach, in offsets; beyond that it is cut off. */
  readonly mitreLimit: number;
  /** mm: no corner is tighter, inwards or outwards */
  readonly smallestRadius: number;
  /** mm²: holes that are smaller are dropped; 0: all are kept, Infinity: none is */
  readonly dropHoles: number;
  /** mm: what lies nearer together than this gets one line */
  readonly join: number;
}

export const USUAL_CUT_LINE: CutLineChoices = {
  kind: 'kiss',
  offset: 2,
  corners: 'round',
  mitreLimit: 3,
  smallestRadius: 0.5,
  dropHoles: Infinity,
  join: 2,
};

export const MARK_KINDS = ['in', 'out', 'dots'] as const;

/** Print marks: corners with their arms along the art or away from it, or dots. */
export interface PrintMarkChoices {
  readonly kind: (typeof MARK_KINDS)[number];
  /** mm that an arm is long */
  readonly arm: number;
  /** mm that a line is wide; of dots, four times that is their width */
  readonly line: number;
  /** mm from the art with its bleed */
  readonly away: number;
  /** mm from mark to mark along the longer edges at the most */
  readonly between: number;
}

/** 15 mm from the art unless drawn tight (common practice, no source); the rest is our own. */
export const USUAL_MARKS: PrintMarkChoices = { kind: 'in', arm: 20, line: 1, away: 15, between: 400 };

/** What is printed on: one sheet. */
export interface PrintStock {
  /** mm as it is fed: along the way of the paper, and across it */
  readonly width: number;
  readonly height: number;
  /** mm at every edge that printer, rollers and sensor leave */
  readonly edge: number;
}

/** Marks stay an inch off the sheet's edge (common practice, no source). */
export const USUAL_EDGE = 25.4;

/** Sizes by ISO 216, short side first, mm. */
export const ISO_SHEETS: Readonly<Record<string, readonly [number, number]>> = {
  A5: [148, 210],
  A4: [210, 297],
  A3: [297, 420],
  A2: [420, 594],
  A1: [594, 841],
  A0: [841, 1189],
};
