/**
 * Feeds one cut to one cutter: asks what film is in, sends line after line, and counts a line as cut only when
 * the cutter has answered from behind it.
 */
import type { Film } from '../../core/films/film';
import type { Cutter } from '../../core/layout/cutter';
import { formatLength } from '../../core/units/length';
import type { StoredProgram } from '../work/tasks';
import type { CutterLink } from './link';
import { LinkLost } from './link';

/** Roll width read back may differ by what the cutter's width sensor can tell, mm (common practice, no source). */
const WIDTH_SLACK = 4;
/** Bytes of one stretch between two questions: short enough for a live head. */
const STRETCH = 240;

export interface Head {
  /** mm on the strip */
  readonly x: number;
  readonly y: number;
  readonly down: boolean;
}

/** Asks the cutter for the film in it. @returns a sentence when it is the wrong one */
export async function checkFilm(
  link: CutterLink,
  film: Pick<Film, 'name'>,
  rollWidth: number,
  cutter: Cutter,
  needs: number,
): Promise<string | undefined> {
  await link.send('OH;');
  const [x1, y1, x2, y2] = numbers(await link.answer(), 4);
  const units =
    cutter.device.feedAxis === 'x' ? { across: y2 - y1, feed: x2 - x1 } : { across: x2 - x1, feed: y2 - y1 };
  if (units.across <= 0) return `No film is in ${cutter.name}. Load ${film.name} and press again.`;
  const width = units.across * cutter.device.step + 2 * cutter.rollerMargin;
  if (Math.abs(width - rollWidth) > WIDTH_SLACK) {
    return `The film in ${cutter.name} is ${formatLength(width, 'mm')} wide, ${film.name} is ${formatLength(rollWidth, 'mm')}. Load ${film.name} and press again.`;
  }
  const length = units.feed * cutter.device.step;
  if (length < needs) {
    return `There is ${(length / 1000).toFixed(2)} m of film in ${cutter.name}; this cut needs ${(needs / 1000).toFixed(2)} m. Load a longer roll and press again.`;
  }
  return undefined;
}

export interface FeedCallbacks {
  /** The head as the cutter itself reports it, and how many lines are surely cut. */
  readonly progress: (head: Head, linesDone: number) => void;
  readonly shouldStop: () => boolean;
}

/**
 * Sends the program from `firstLine` on. Never more is under way than the cutter's buffer holds, so that a stop
 * takes hold after the lines already there.
 * @returns how many lines are cut in all: fewer than the program has after a stop
 */
export async function feed(
  link: CutterLink,
  program: StoredProgram,
  cutter: Cutter,
  cuttable: number,
  firstLine: number,
  { progress, shouldStop }: FeedCallbacks,
): Promise<number> {
  let underWay = 0;
  let linesDone = firstLine;
  const questions: { bytes: number; endsLine: boolean }[] = [];
  const settle = async (): Promise<void> => {
    const question = questions.shift()!;
    const [x, y, pen] = numbers(await link.answer(120_000), 3);
    underWay -= question.bytes;
    if (question.endsLine) linesDone++;
    progress(onStrip(x, y, pen === 1, cutter, cuttable), linesDone);
  };
  const sendAsking = async (text: string, endsLine: boolean): Promise<void> => {
    const bytes = text.length + 3;
    while (questions.length > 0 && underWay + bytes > cutter.device.bufferBytes) await settle();
    await link.send(`${text}OA;`);
    underWay += bytes;
    questions.push({ bytes, endsLine });
  };
  // going on after a stop must not reset the cutter: its blade still lies as the line before left it
  await sendAsking(firstLine === 0 ? program.head : program.head.replace(/^IN;/, ''), false);
  for (let i = firstLine; i < program.lines.length && !shouldStop(); i++) {
    const stretches = inStretches(program.lines[i]);
    for (const [k, text] of stretches.entries()) await sendAsking(text, k === stretches.length - 1);
  }
  while (questions.length > 0) await settle();
  if (linesDone === program.lines.length) {
    await sendAsking(program.tail, false);
    await settle();
  }
  return linesDone;
}

/** Cuts a line's bytes at instruction ends. */
function inStretches(line: string): string[] {
  const out: string[] = [];
  let from = 0;
  while (from < line.length) {
    const end = line.indexOf(';', Math.min(line.length - 1, from + STRETCH)) + 1;
    // what would be left behind is only the pen going up: it belongs to this stretch
    const to = end === 0 || line.length - end < 8 ? line.length : end;
    out.push(line.slice(from, to));
    from = to;
  }
  return out;
}

function onStrip(x: number, y: number, down: boolean, { device }: Cutter, cuttable: number): Head {
  const [feedUnits, acrossUnits] = device.feedAxis === 'x' ? [x, y] : [y, x];
  const along = feedUnits * device.step * (device.feedReversed ? -1 : 1);
  const across = acrossUnits * device.step;
  return { x: along, y: device.acrossReversed ? across : cuttable - across, down };
}

function numbers(answer: string, count: number): number[] {
  const values = answer.split(',').map(Number);
  if (values.length < count || !values.every(Number.isFinite))
    throw new LinkLost(`the cutter answered “${answer}”`);
  return values;
}
