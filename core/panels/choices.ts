/** How art that is larger than the cutter is taken apart. */

/** Ways to place seams. `when-needed` is the least cut, where a film does not fit; the others apply to every such film too. */
export const PANEL_WAYS = ['when-needed', 'equal', 'media', 'grid', 'by-hand', 'never'] as const;
export type PanelWay = (typeof PANEL_WAYS)[number];

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
  /** Which neighbour lies on top: the one to the right and below, or the one before it. */
  readonly onTop: 'next' | 'before';
  /** mm of the cuttable width kept in hand. */
  readonly reserve: number;
  /** Panels that are not cut, by number. */
  readonly skip: readonly number[];
}

/** Half an inch kept in hand (common practice, no source). */
export const USUAL_RESERVE = 12.7;

export const NO_PANEL_CHOICES: PanelChoices = {
  way: 'when-needed',
  rows: 1,
  columns: 2,
  upright: [],
  level: [],
  overlap: 0,
  onTop: 'next',
  reserve: USUAL_RESERVE,
  skip: [],
};
