/** Films packed and held in one go, as a planner does it step by step. */
import type { Lying } from '../packing/lying';
import type { Held, HeldPiece } from './dragging';
import { holdPiece } from './dragging';
import { laidPieces } from './layOut';
import type { PackStep } from './packCloser';
import { packCloser } from './packCloser';

type Laid = Parameters<typeof laidPieces>;

export function packLaid(
  film: Laid[0],
  parts: Laid[1],
  choices: Laid[2],
  cutter: Laid[3],
  how: Parameters<typeof packCloser>[1],
): Iterable<PackStep> {
  const on = laidPieces(film, parts, choices, cutter);
  return on ? packCloser(on, how) : [];
}

export function holdLaid(
  film: Laid[0],
  parts: Laid[1],
  choices: Laid[2],
  cutter: Laid[3],
  piece: HeldPiece,
): ((lying: Lying) => Held) | undefined {
  const on = laidPieces(film, parts, choices, cutter);
  return on && holdPiece(on, piece);
}
