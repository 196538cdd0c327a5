import type { Film } from './film';
import type { SeenColour } from './seen';

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
