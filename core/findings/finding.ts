import type { Bounds } from '../geometry/bounds';

export type FixKind =
  'close' | 'weld' | 'double' | 'thicken' | 'simplify' | 'island' | 'outline' | 'flat' | 'print';

/**
 * One thing mended: at a shape (`pieceId/shape`), at a place (`#rrggbb@u,v`, fractions of the sign), or `*` for
 * every one of its kind.
 */
export interface Fix {
  readonly kind: FixKind;
  readonly at: string;
}

/** How much a finding matters: `stop` keeps the order from the cutter, `check` wants a look, `note` only tells. */
export type Severity = 'stop' | 'check' | 'note';

/** The section of the run card in which something is found and can be mended. */
export type FindingStage = 'artwork' | 'films' | 'panels' | 'layout' | 'print' | 'cut' | 'cutter';

/** Something a stage has to say about the art or the choices. Stages return findings; they never throw them. */
export interface Finding {
  /** Said by the planner, which knows whose it is. */
  readonly stage?: FindingStage;
  readonly code: string;
  readonly severity: Severity;
  readonly message: string;
  /** What a person can do about it, one way a line. */
  readonly waysOut?: readonly string[];
  /** Name of the film that it is said of: what holds for several is said once, with their names. */
  readonly film?: string;
  /** Where on the finished sign, mm, face view. */
  readonly where?: Bounds;
  readonly measured?: number;
  readonly limit?: number;
  /** Stays the same while the thing found does: what ignoring goes by. */
  readonly key?: string;
  /** One-click ways to mend it; the first is the ordinary one. */
  readonly fixes?: readonly Fix[];
  /** Why a person leaves it as it is. */
  readonly ignored?: string;
}
