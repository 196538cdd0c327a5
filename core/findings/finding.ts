import type { Bounds } from '../geometry/bounds';

/** How much a finding matters: `stop` keeps the order from the cutter, `check` wants a look, `note` only tells. */
export type Severity = 'stop' | 'check' | 'note';

/** Something a stage has to say about the art or the choices. Stages return findings; they never throw them. */
export interface Finding {
  readonly code: string;
  readonly severity: Severity;
  readonly message: string;
  /** What a person can do about it, one way a line. */
  readonly waysOut?: readonly string[];
  /** Where on the finished sign, mm, face view. */
  readonly where?: Bounds;
  readonly measured?: number;
  readonly limit?: number;
}
