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
import type { Place, Standing } from './whereabouts';
import { inStretches, restOf } from './whereabouts';

/** Roll width read back may differ by what the cutter's width sensor can tell, mm (common practice, no source). */
const WIDTH_SLACK = 4;
/** One that is at rest answers within this time, or is not there, ms. */
const FIRST_ANSWER_MS = 10_000;
/** A cutter may be busy this long before it answers, ms. */
const LONGEST_LINE_MS = 120_000;
/** Lines that begin within so many bytes are noted as sent at once: fewer words with the database, few lines in doubt. */
const ANNOUNCED_BYTES = 1024;

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
  const [x1, y1, x2, y2] = await ask(link, 'OH', 4, FIRST_ANSWER_MS);
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

/**
 * Asks the cutter where its head stands, once it has finished what it was sent.
 * Answers to questions of a feeder that went away may still come; the first with four numbers is to ours.
 */
export async function standingOf(link: CutterLink): Promise<Standing> {
  await ask(link, 'OH', 4, LONGEST_LINE_MS);
  const [x, y, pen] = await ask(link, 'OA', 3, LONGEST_LINE_MS);
  return { x, y, down: pen === 1 };
}

export interface FeedCallbacks {
  /** The head as the cutter itself reports it, and how many lines are surely cut. */
  readonly progress: (head: Head, linesDone: number) => void;
  /** Notes that so many lines may be sent from now on; nothing of them is sent before it is noted. */
  readonly announce: (linesSent: number) => Promise<void>;
  readonly shouldStop: () => boolean;
}

/**
 * Sends the program from a place on. Never more is under way than the cutter's buffer holds, so that a stop
 * takes hold after the lines already there.
 * @returns how many lines are cut in all: fewer than the program has after a stop
 */
export async function feed(
  link: CutterLink,
  program: StoredProgram,
  cutter: Cutter,
  cuttable: number,
  from: Place,
  { progress, announce, shouldStop }: FeedCallbacks,
): Promise<number> {
  let underWay = 0;
  let linesDone = from.line;
  let announced = from.line;
  const questions: { bytes: number; endsLine: boolean }[] = [];
  const settle = async (): Promise<void> => {
    const question = questions.shift()!;
    const [x, y, pen] = numbers(await link.answer(LONGEST_LINE_MS), 3);
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
  const isStart = from.line === 0 && from.point === 0;
  await sendAsking(isStart ? program.head : program.head.replace(/^IN;/, ''), false);
  for (let i = from.line; i < program.lines.length; i++) {
    if (i >= announced) {
      announced = linesWithin(program.lines, i, ANNOUNCED_BYTES);
      await announce(announced);
    }
    if (shouldStop()) break;
    const stretches = inStretches(i === from.line ? restOf(program.lines[i], from.point) : program.lines[i]);
    for (const [k, text] of stretches.entries()) await sendAsking(text, k === stretches.length - 1);
  }
  while (questions.length > 0) await settle();
  if (linesDone === program.lines.length) {
    await sendAsking(program.tail, false);
    await settle();
  }
  return linesDone;
}

/** The line behind those that begin within so many bytes; at least the next one. */
function linesWithin(lines: readonly string[], from: number, bytes: number): number {
  let to = from;
  for (let left = bytes; to < lines.length && left > 0; to++) left -= lines[to].length;
  return to;
}

function onStrip(x: number, y: number, down: boolean, { device }: Cutter, cuttable: number): Head {
  const [feedUnits, acrossUnits] = device.feedAxis === 'x' ? [x, y] : [y, x];
  const along = feedUnits * device.step * (device.feedReversed ? -1 : 1);
  const across = acrossUnits * device.step;
  return { x: along, y: device.acrossReversed ? across : cuttable - across, down };
}

/** Asks one question. Answers of another length are to questions that somebody else asked before. */
async function ask(link: CutterLink, question: string, count: number, patience: number): Promise<number[]> {
  await link.send(`${question};`);
  for (;;) {
    const values = (await link.answer(patience)).split(',').map(Number);
    if (values.length === count && values.every(Number.isFinite)) return values;
  }
}

function numbers(answer: string, count: number): number[] {
  const values = answer.split(',').map(Number);
  if (values.length < count || !values.every(Number.isFinite))
    throw new LinkLost(`the cutter answered “${answer}”`);
  return values;
}
