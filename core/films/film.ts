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
}
