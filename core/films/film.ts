import type { Build } from './overlap';

/** A film as the shop stocks it. */
export interface Film {
  readonly id: string;
  readonly name: string;
  readonly code: string;
  /** Lower-case `#rrggbb`. */
  readonly colour: string;
  /** Width of the roll in stock, mm. */
  readonly rollWidth: number;
  /** mm left on that roll. */
  readonly lengthLeft: number;
  /** Cut from the back, so the cut is mirrored: garment film. */
  readonly cutFromBack: boolean;
  readonly kind: 'sign' | 'garment';
  readonly limits?: FilmLimits;
  /** What it is made of; missing: opaque, flock for garments. */
  readonly build?: Build;
  /** The shop's own money, for a metre of the roll. */
  readonly price?: number;
}

/** What a film can hold together when it is weeded. */
export interface FilmLimits {
  /** Narrowest stem that stays, mm. */
  readonly narrowest: number;
  /** Smallest loose piece that stays, mm². */
  readonly island: number;
  /** Narrowest gap between two cuts that stays, mm. */
  readonly gap: number;
}

/** Ordinary limits (common practice, no source): flock is thicker and wants more. */
const ORDINARY: Readonly<Record<Film['kind'], FilmLimits>> = {
  sign: { narrowest: 1.5, island: 3, gap: 0.3 },
  garment: { narrowest: 2, island: 6, gap: 0.5 },
};

/** A film's own limits, or those of its kind. */
export const limitsOf = (film: Film): FilmLimits => film.limits ?? ORDINARY[film.kind];
