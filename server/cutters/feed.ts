/**
 * Feeds one cut to one cutter: asks what film is in, sends line after line, and counts a line as cut only when
 * the cutter has answered from behind it.
 */
import type { Question, Standing } from '../../core/devicelang/answers';
import { ask, reachOf, readLimits, readStanding } from '../../core/devicelang/answers';
import { toStrip } from '../../core/devicelang/axes';
import { inStretches, restOf, withoutReset } from '../../core/devicelang/lineText';
import type { Film } from '../../core/films/film';
import type { Cutter } from '../../core/layout/cutter';
import { formatLength, formatRun } from '../../core/units/length';
import { WIDTH_SLACK } from '../../core/films/film';
import type { SentProgram } from '../work/makeCuts';
import type { CutterLink } from './links/link';
import { LinkLost, NoAnswer } from './links/link';
import type { Place } from './whereabouts';

/** One that is at rest answers within this time, or is not there, ms. */
const FIRST_ANSWER_MS = 10_000;
/** A cutter may be busy this long before it answers, ms. */
const LONGEST_LINE_MS = 120_000;
/** The same of one that is stopped, and a piece of either. */
const [STOPPED_MS, PATIENCE_MS] = [10_000, 2500];
/** s of cutting that are sent ahead: a cutter never waits for more, and a person who stops it does not wait long. */
const AHEAD_S = 3;
/** Lines that begin within so many bytes are noted as sent at once: fewer words with the database, few lines in doubt. */
export const ANNOUNCED_BYTES = 1024;

export interface Head {
  /** mm on the strip */
  readonly x: number;
  readonly y: number;
  readonly down: boolean;
}

/** What lies in a cutter by its own sensors, mm; nothing: undefined. */
export interface FilmIn {
  readonly width: number;
  readonly length: number;
}

/**
 * Asks a cutter that is at rest for the film in it.
 * @param patience how long it may take to answer, ms
 */
export async function filmIn(
  link: CutterLink,
  { device, margins }: Cutter,
  patience = FIRST_ANSWER_MS,
): Promise<FilmIn | undefined> {
  const limits = await answered(link, 'OH', readLimits, patience);
  const { along, across } = reachOf(limits, device);
  return across > 0 ? { width: across + margins.far + margins.near, length: along } : undefined;
}

/** Asks the cutter for the film in it. @returns a sentence when it is the wrong one */
export async function checkFilm(
  link: CutterLink,
  film: Pick<Film, 'name'>,
  rollWidth: number,
  cutter: Cutter,
  needs: number,
): Promise<string | undefined> {
  const found = await filmIn(link, cutter);
  if (!found) return `No film is in ${cutter.name}. Load ${film.name} and press again.`;
  if (Math.abs(found.width - rollWidth) > WIDTH_SLACK) {
    return `The film in ${cutter.name} is ${formatLength(found.width, 'mm')} wide, ${film.name} is ${formatLength(rollWidth, 'mm')}. Load ${film.name} and press again.`;
  }
  if (found.length < needs) {
    return `There is ${formatRun(found.length, 'mm')} of film in ${cutter.name}; this cut needs ${formatRun(needs, 'mm')}. Load a longer ${cutter.kind === 'flatbed' ? 'sheet' : 'roll'} and press again.`;
  }
  return undefined;
}

/**
 * Asks the cutter where its head stands, once it has finished what it was sent.
 * Answers to questions of a feeder that went away may still come; the first with limits is to ours.
 */
export async function standingOf(link: CutterLink): Promise<Standing> {
  await answered(link, 'OH', readLimits, LONGEST_LINE_MS);
  return answered(link, 'OA', readStanding, LONGEST_LINE_MS);
}

export interface FeedCallbacks {
  /** The head as the cutter itself reports it, unless it answers nothing, and how many lines are cut. */
  readonly progress: (head: Head | undefined, linesDone: number) => void;
  /** Notes that so many lines may be sent from now on; nothing of them is sent before it is noted. */
  readonly announce: (linesSent: number) => Promise<void>;
  readonly shouldStop: () => boolean;
  /**
   * What is sent instead of the head's bytes, or of a stretch of a line; missing: they are sent as they are.
   * @param line undefined: the head
   */
  readonly say?: (text: string, line: number | undefined, beginsIt: boolean) => string;
}

/**
 * Sends the program from a place on. Never more is under way than the cutter's buffer holds, nor than it cuts in a few seconds,
 * so that a stop, and what is nudged, takes hold soon.
 * @returns how many lines are cut in all: fewer than the program has after a stop
 */
export async function feed(
  link: CutterLink,
  program: SentProgram,
  { device }: Pick<Cutter, 'device'>,
  cuttable: number,
  from: Place,
  callbacks: FeedCallbacks,
): Promise<number> {
  const { progress, announce, shouldStop } = callbacks;
  const say = saidAs(callbacks);
  const onStrip = toStrip(device, cuttable);
  let underWay = 0;
  let linesDone = from.line;
  let announced = from.line;
  const questions: { bytes: number; endsLine: boolean }[] = [];
  const settle = async (): Promise<void> => {
    const question = questions.shift()!;
    const answer = await awaited(link, shouldStop);
    const head = readStanding(answer);
    if (!head) throw new LinkLost(`the cutter answered “${answer}”`);
    underWay -= question.bytes;
    if (question.endsLine) linesDone++;
    const [x, y] = onStrip(head.x, head.y);
    progress({ x, y, down: head.down }, linesDone);
  };
  const sendAsking = async (text: string, endsLine: boolean): Promise<void> => {
    const asking = text + ask('OA');
    const bytes = asking.length;
    while (questions.length > 0 && underWay + bytes > device.bufferBytes) await settle();
    await link.send(asking);
    underWay += bytes;
    questions.push({ bytes, endsLine });
  };
  const secondsOf = (lines: number): number => (lines > 0 ? program.doneAt[lines - 1] : 0);
  await sendAsking(startOf(program, from, say), false);
  for (let i = from.line; i < program.lines.length; i++) {
    if (i >= announced) {
      announced = linesWithin(program.lines, i, ANNOUNCED_BYTES);
      await announce(announced);
    }
    while (questions.length > 0 && secondsOf(i) - secondsOf(linesDone) > AHEAD_S) await settle();
    if (shouldStop()) break;
    const stretches = inStretches(i === from.line ? restOf(program.lines[i], from.point) : program.lines[i]);
    for (const [k, text] of stretches.entries())
      await sendAsking(say(text, i, k === 0), k === stretches.length - 1);
  }
  while (questions.length > 0) await settle();
  if (linesDone === program.lines.length) {
    await sendAsking(program.tail, false);
    await settle();
  }
  return linesDone;
}

/** One that stands still because something is wrong with it is not waited for when a person has stopped it. */
async function awaited(link: CutterLink, shouldStop: () => boolean): Promise<string> {
  for (let waited = 0; ; waited += PATIENCE_MS) {
    try {
      return await link.answer(PATIENCE_MS);
    } catch (error) {
      const isOver = waited + PATIENCE_MS >= (shouldStop() ? STOPPED_MS : LONGEST_LINE_MS);
      if (!(error instanceof NoAnswer) || isOver) throw error;
    }
  }
}

type Say = NonNullable<FeedCallbacks['say']>;
export const saidAs = ({ say = (text) => text }: FeedCallbacks): Say => say;

/** What is sent before the first line. Going on after a stop must not reset the cutter: its blade still lies as the line before left it. */
export function startOf({ head, turn }: SentProgram, { line, point }: Place, say: Say): string {
  const isFresh = line === 0 && point === 0;
  const turned = turn?.before === line && point === 0 ? turn.text : '';
  return say((isFresh ? head : withoutReset(head)) + turned, undefined, true);
}

/** The line behind those that begin within so many bytes; at least the next one. */
export function linesWithin(lines: readonly string[], from: number, bytes: number): number {
  let to = from;
  for (let left = bytes; to < lines.length && left > 0; to++) left -= lines[to].length;
  return to;
}

/** Asks one question. Answers that are none to it are to questions that somebody else asked before. */
async function answered<T>(
  link: CutterLink,
  question: Question,
  read: (line: string) => T | undefined,
  patience: number,
): Promise<T> {
  await link.send(ask(question));
  for (;;) {
    const answer = read(await link.answer(patience));
    if (answer !== undefined) return answer;
  }
}
