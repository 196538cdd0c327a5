/** Film that slipped in the middle of a cut: it goes on where the film lies now. */
import { eq } from 'drizzle-orm';
import type { Cut, SlippedAsked } from '../../contracts/cuts';
import { toStrip } from '../../core/devicelang/axes';
import { opened } from '../../core/devicelang/lineText';
import { movedLine } from '../../core/devicelang/movedLine';
import { largest } from '../../core/geometry/lists';
import type { Matrix } from '../../core/geometry/matrix';
import { inverse, mapped } from '../../core/geometry/matrix';
import type { Spot } from '../../core/geometry/spot';
import type { Device } from '../../core/layout/cutter';
import { LEAST_APART, MOST_OFF, slipFrom } from '../../core/registration/slip';
import { formatLength } from '../../core/units/length';
import { HAND_NOISE } from '../cutters/readSheet';
import { cutters, cuts } from '../db/schema';
import { notFound, Trouble } from '../problem';
import type { StoredProgram } from '../work/makeCuts';
import type { CutServices } from './cuts';
import { fromLine, move } from './cuts';
import { unpack } from './pack';

/** A program for film that lies elsewhere than it was written for. */
export const slippedProgram = (
  program: StoredProgram,
  slip: Matrix | null,
  device: Device,
  cuttable: number,
): StoredProgram =>
  slip
    ? { ...program, lines: program.lines.map((line) => movedLine(line, slip, device, cuttable)) }
    : program;

/** mm that a line may be expected to lie off: more is seen (our own). */
const MOST_UNSURE = 0.5;
/** mm past what the knife reaches that still count as in reach: rounding */
const SLACK = 0.05;

/**
 * Goes on with a stopped cut where two places of what was cut were found.
 * @throws Trouble when they were not met, or some of what is left lies out of reach now
 */
export async function filmSlipped(
  services: CutServices,
  id: number,
  { line, places, anyway }: SlippedAsked,
): Promise<Cut> {
  const { db } = services;
  const [row] = await db.select().from(cuts).where(eq(cuts.id, id));
  if (!row) throw notFound('cut');
  const [{ data: cutter }] = await db.select().from(cutters).where(eq(cutters.id, row.cutterId));
  const [a, b] = places;
  const slip = slipFrom(a, b);
  if (!slip)
    throw new Trouble(
      422,
      'too-near',
      `The two places lie nearer than ${formatLength(LEAST_APART, 'mm')}: take others.`,
    );
  if (Math.abs(slip.off) > MOST_OFF)
    throw new Trouble(
      422,
      'not-met',
      `The two places lie ${formatLength(Math.abs(slip.off), 'mm')} ${slip.off > 0 ? 'further apart' : 'nearer to one another'} than they were cut: one was not met.`,
      ['Put the head over both once more', 'Look whether these are the corners that are shown'],
    );
  const program = unpack<StoredProgram>(row.program);
  const from = fromLine(program, line);
  const rest = slippedProgram(
    { ...program, lines: program.lines.slice(line - 1) },
    slip.matrix,
    cutter.device,
    row.cuttable,
  );
  const out = rest.lines.filter((text) => !isInReach(text, cutter.device, row.cuttable)).length;
  if (out > 0)
    throw new Trouble(
      422,
      'out-of-reach',
      `The film lies so far aside that ${out === 1 ? 'a line is' : `${out} lines are`} past what the knife reaches.`,
      ['Straighten the film and take the places again', 'Start this film again'],
    );
  const unsure =
    HAND_NOISE * largestOf(rest.lines, cutter.device, row.cuttable, slip.expectedAt, slip.matrix);
  if (unsure > MOST_UNSURE && !anyway)
    throw new Trouble(
      422,
      'too-unsure',
      `The two places lie so near to one another that lines far from them may be ${formatLength(unsure, 'mm')} off.`,
      ['Take two that lie further apart', 'Start this film again'],
    );
  const what = `turned ${slip.turn.toFixed(2)}°, from line ${line}`;
  const also = { paused: false, slip: slip.matrix, ...from };
  const cut = await move(services, id, ['stopped'], 'checking', 'slipped', { also, what });
  await services.dispatch({ cutId: id });
  return cut;
}

/** The most that `expected` is at any place of these lines, which lie where film is that slipped. */
function largestOf(
  lines: readonly string[],
  device: Device,
  cuttable: number,
  expected: (at: Spot) => number,
  slip: Matrix,
): number {
  const [onStrip, back] = [toStrip(device, cuttable), inverse(slip)];
  const at = (text: string): number[] =>
    opened(text).points.map(({ x, y }) => {
      const [fx, fy] = mapped(onStrip(x, y), back);
      return expected([fx, fy]);
    });
  return largest(lines.map((text) => largest(at(text))));
}

/** Whether the knife can go all along a line. */
export function isInReach(line: string, device: Device, cuttable: number): boolean {
  const onStrip = toStrip(device, cuttable);
  return opened(line).points.every(({ x, y }) => {
    const [along, across] = onStrip(x, y);
    return along >= -SLACK && across >= -SLACK && across <= cuttable + SLACK;
  });
}
