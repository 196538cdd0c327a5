import type { Film } from './film';
import type { SeenColour } from './seen';

/** It goes to the printed sheets, and nothing of it is painted there: its lines are cut. */
export const isCutLine = ({
  goesTo,
  region,
  lines,
}: Pick<ColourPlan, 'goesTo' | 'region' | 'lines'>): boolean =>
  goesTo === 'print' &&
  region.length === 0 &&
  lines.length > 0 &&
  lines.every(({ kind }) => kind !== 'print');

/** A seen colour with its film. */
export interface ColourPlan extends SeenColour {
  /** Nothing: the surface shows through. */
  readonly goesTo: 'film' | 'print' | 'nothing';
  readonly film: Film | undefined;
  /** ΔE00 between the colour and its film. */
  readonly deltaE: number;
  /** Whether the film is the app's own proposal. */
  readonly proposed: boolean;
}
