/**
 * A blade that begins somewhere in a program, on film that was put in or slipped, or at a line that a person found, lies as
 * what was cut last left it, and not as the line before would have: it would come down up to two offsets beside its line.
 */
import type { LineKind } from '../artwork/choices';
import { tipPath } from '../swivel/tractrix';
import { swing } from './compensate';
import { isKnifes } from './kinds';

/** Lines with the knife, as they were planned. */
export interface TurnedFor {
  /** The holder's way of every line, x0, y0, x1, y1 … mm; the first one turns the blade, in the waste. */
  readonly lines: readonly ArrayLike<number>[];
  /** Of each line; missing: all are cut with the knife. */
  readonly kinds?: readonly LineKind[];
  readonly bladeOffset: number;
  /** The line that is begun with, from 0. */
  readonly before: number;
}

/**
 * The holder's way that turns the blade as the line before left it: the first line's stroke once more, and on its end a swing
 * about the tip, which takes no room.
 * @returns x0, y0, x1, y1 … mm, where the first line lies
 */
export function turnedAgain({ lines, kinds, bladeOffset: d, before }: TurnedFor): number[] {
  let wanted = 0;
  for (let i = 0; i < before; i++) if (isKnifes(kinds?.[i])) wanted = tipPath(lines[i], d, wanted).angle;
  const stroke = Array.from(lines[0]);
  const { angle } = tipPath(stroke, d, 0);
  const [x, y] = [stroke[stroke.length - 2], stroke[stroke.length - 1]];
  const [from, to] = [angle, wanted].map((a) => [Math.cos(a), Math.sin(a)] as const);
  swing(stroke, x - d * from[0], y - d * from[1], d, from, to);
  return stroke;
}
