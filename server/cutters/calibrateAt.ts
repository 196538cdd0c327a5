/** What a machine does for a calibration: draws, cuts, reads. Knows its link and its record, nothing of where runs are kept. */
import { forcesByHand } from '../../core/calibration/grid';
import { cutCross, PEN_LINE, penMarks } from '../../core/calibration/patterns';
import type { Pattern, PatternRoom } from '../../core/calibration/patterns';
import { patternFor } from '../../core/calibration/patternFor';
import { testProgram } from '../../core/calibration/program';
import type { FilmTaken } from '../../core/films/booking';
import type { PrintedSetup, Seen, Setup } from '../../core/calibration/run';
import { isPrinted } from '../../core/calibration/run';
import type { CrossSheet } from '../../core/calibration/sheet';
import { crossSheet } from '../../core/calibration/sheet';
import { WIDTH_SLACK } from '../../core/films/film';
import { lineLength } from '../../core/geometry/path';
import type { Spot } from '../../core/geometry/spot';
import { placesMapped } from '../../core/geometry/spot';
import type { Cutter, Recipe } from '../../core/layout/cutter';
import { cuttableWidth } from '../../core/layout/cutter';
import { ontoStrip } from '../../core/plan/sheetStrip';
import type { DesignedMark } from '../../core/registration/readMarks';
import { judgeSheet } from '../../core/registration/verdict';
import { formatLength } from '../../core/units/length';
import { storedProgram } from '../work/makeCuts';
import { feed, filmIn } from './feed';
import type { CutterLink } from './links/link';
import { LinkLost } from './links/link';
import { levelsOf } from './readContrast';
import { bySensor, marksOver, startOf, unreadBecause } from './readSheet';

/** What is at hand for it. */
export interface AtMachine {
  readonly setup: Setup;
  readonly cutter: Cutter;
  /** What its lines are cut with. */
  readonly recipe: Recipe;
  /** Parts of it that are cut already; missing: none. */
  readonly part?: number;
  readonly link: CutterLink;
  readonly isToStop: () => boolean;
  readonly progress: (linesDone: number, lines: number) => void;
}

/** `ready`: it did not begin; `broken`: it began and was not finished; each with a sentence. */
type Came =
  | {
      readonly state: 'measuring';
      readonly seen: Seen | null;
      /** m that were cut. */
      readonly metres: number;
    }
  /** A part of it is cut, and something is to be set by hand before the next. */
  | { readonly state: 'next'; readonly metres: number }
  | { readonly state: 'ready' | 'broken'; readonly problem: string };
/** With the film that is cut in then, once that is used up. */
export type CameToIt = Came & { readonly film?: FilmTaken };

/** @throws LinkLost when the machine goes away before anything of it is cut */
export async function calibrateAt(work: AtMachine): Promise<CameToIt> {
  const { cutter, link } = work;
  const film = await filmIn(link, cutter);
  if (!film) return notYet(`No film is in ${cutter.name}. Load some and press again.`);
  const room = { lead: cutter.margins.lead, cuttable: cuttableWidth(cutter, film.width) };
  let isBegun = false;
  const progress: AtMachine['progress'] = (linesDone, lines) => {
    isBegun ||= linesDone > 0;
    work.progress(linesDone, lines);
  };
  const came = await doAt({ ...work, progress }, room, film).catch((error: unknown): Came => {
    // what is cut is cut: its film is used up, whatever became of the machine
    if (!isBegun || !(error instanceof LinkLost)) throw error;
    return { state: 'broken', problem: brokenOff(error.message) };
  });
  const isUsed = came.state === 'measuring' || came.state === 'broken';
  return isUsed ? { ...came, film: filmTaken(work, room, film.width) } : came;
}

/** @param why what it met */
export const brokenOff = (why: string): string =>
  `Broken off: ${why}. Look at the machine and its film, then begin again.`;

/** What is only read is used again. */
function filmTaken({ setup, recipe }: AtMachine, room: PatternRoom, width: number): FilmTaken {
  if (isPrinted(setup))
    return { width: setup.height, length: setup.kind === 'contrast' ? 0 : setup.width, isSheet: true };
  const pattern = patternFor(setup, room, recipe);
  return { width, length: typeof pattern === 'string' ? 0 : pattern.length, isSheet: false };
}

async function doAt(
  work: AtMachine,
  room: PatternRoom,
  film: { readonly width: number; readonly length: number },
): Promise<Came> {
  const { cutter, setup, recipe, part = 0 } = work;
  if (setup.kind === 'sensor-pen') return drawAndRead(work, room, film.length);
  if (isPrinted(setup))
    return setup.kind === 'contrast'
      ? readStock(work, setup, film.width)
      : cutOnPrint(work, setup, film.width);
  const pattern = patternFor(setup, room, recipe);
  const byHand = setup.kind === 'force' && !cutter.device.sendsForce ? forcesByHand(setup.cells) : [];
  if (byHand.length === 0 || typeof pattern === 'string') return cutAll(work, pattern, room, film.length);
  const lines = pattern.lines.filter(({ force }) => force === byHand[part]);
  const came = await cutAll(work, { ...pattern, lines }, room, film.length);
  return came.state === 'measuring' && part + 1 < byHand.length
    ? { state: 'next', metres: came.metres }
    : came;
}

const notYet = (problem: string): Came => ({ state: 'ready', problem });

/** Cuts all of a pattern. @param pattern a sentence: it does not fit */
async function cutAll(
  { cutter, link, isToStop, progress }: AtMachine,
  pattern: Pattern | string,
  room: PatternRoom,
  there: number,
): Promise<Came> {
  if (typeof pattern === 'string') return notYet(pattern);
  if (pattern.length > there)
    return notYet(
      `This takes ${formatLength(pattern.length, 'mm')} of film, and ${formatLength(there, 'mm')} is in ${cutter.name}. Load more and press again.`,
    );
  const { chunks, doneAt, ways } = testProgram(pattern, cutter, room);
  const program = storedProgram(chunks, doneAt);
  const lines = program.lines.length;
  const done = await feed(
    link,
    program,
    cutter,
    room.cuttable,
    { line: 0, point: 0 },
    {
      announce: async () => {},
      shouldStop: isToStop,
      progress: (_head, linesDone) => progress(linesDone, lines),
    },
  );
  if (done === lines) {
    const mm = ways.reduce((sum, points) => sum + lineLength({ points, closed: false }), 0);
    return { state: 'measuring', seen: null, metres: mm / 1000 };
  }
  return {
    state: 'broken',
    problem: `Stopped after line ${done} of ${lines}. Begin again on fresh film.`,
  };
}

/** A pen draws marks and the sensor reads them: what it sees aside of them is how far it sits from where it is believed to. */
async function drawAndRead(work: AtMachine, room: PatternRoom, length: number): Promise<Came> {
  const { cutter, link, isToStop, recipe } = work;
  const { sensor } = cutter;
  if (!sensor) return notYet(`${cutter.name} has no sensor.`);
  const drawn = await cutAll(work, patternFor({ kind: 'sensor-pen' }, room, recipe), room, length);
  if (drawn.state !== 'measuring') return drawn;
  const marks = penMarks(room);
  const { cuttable } = room;
  const there = { marks, first: marks[0].at, line: PEN_LINE, length, cuttable };
  const read = await marksOver(link, cutter, there, isToStop);
  if (!read) return { state: 'broken', problem: 'Stopped while the sensor read. Begin again on fresh film.' };
  if (!read.isRead)
    return {
      state: 'broken',
      problem: `Mark ${read.mark + 1} was drawn and not found again. See that the pen draws a dark, whole line, that ${cutter.name} looks no further aside than ${formatLength(sensor.reach, 'mm')}, and begin again on fresh film.`,
    };
  const seen: Seen = {
    places: marks.map(({ at }) => at),
    off: read.marks.map(({ at }, i): Spot => [at[0] - marks[i].at[0], at[1] - marks[i].at[1]]),
    shared: 0,
  };
  return { state: 'measuring', seen, metres: 0 };
}

/** A printed sheet of crosses as it lies in the cutter. */
interface CrossesIn {
  readonly crosses: CrossSheet;
  readonly marks: readonly DesignedMark[];
  readonly line: number;
  readonly width: number;
  readonly cuttable: number;
}

/** @returns a sentence when it is not what is in */
function crossesIn({ cutter }: AtMachine, { width, height }: PrintedSetup, wide: number): CrossesIn | string {
  const { sensor } = cutter;
  const crosses = sensor && crossSheet(width, height, sensor.kinds[0]);
  if (!crosses) return `${cutter.name} cannot read such a sheet.`;
  if (Math.abs(wide - height) > WIDTH_SLACK)
    return `What is in ${cutter.name} is ${formatLength(wide, 'mm')} wide, the sheet ${formatLength(height, 'mm')}. Load the printed sheet and press again.`;
  const onto = ontoStrip(cutter);
  const marks = crosses.sheet.marks.map((mark) => ({ ...mark, at: onto(mark.at) }));
  return { crosses, marks, line: crosses.marks.line, width, cuttable: cuttableWidth(cutter, height) };
}

/** Reads the printed sheet's marks as any sheet's, and cuts crosses onto the crosses. */
async function cutOnPrint(work: AtMachine, setup: PrintedSetup, wide: number): Promise<Came> {
  const { cutter, link, isToStop, recipe } = work;
  const there = crossesIn(work, setup, wide);
  if (typeof there === 'string') return notYet(there);
  const { crosses, marks, width, cuttable } = there;
  const read = await bySensor({ ...there, stock: setup.film }, cutter, link, isToStop);
  if (typeof read === 'string') return notYet(read);
  const { fit, findings } = judgeSheet(
    read.map(({ mark }) => marks[mark].at),
    read.map(({ at }) => at),
    cutter.sensor!.noise,
    cutter.fitLimits,
  );
  const stop = findings.find(({ severity }) => severity === 'stop');
  if (!fit || stop) return notYet(stop?.message ?? 'Its marks do not fit the sheet.');
  const onto = ontoStrip(cutter);
  const lines = crosses.places.flatMap((at) =>
    cutCross(onto(at), recipe).map((line) => ({
      ...line,
      points: Float64Array.from(placesMapped(line.points, fit.map)),
    })),
  );
  const room = { lead: cutter.margins.lead, cuttable };
  const cut = await cutAll(work, { lines, length: width - cutter.margins.tail }, room, width);
  if (cut.state !== 'measuring') return cut;
  const places = crosses.places.map((at) => fit.map(onto(at)));
  const shared = fit.noiseAt(onto(crosses.places[2])) / Math.SQRT2;
  return { ...cut, seen: { places, shared } };
}

/** Marks are looked at however little they differ from their stock. */
const BARELY = { threshold: 1, least: 0.02 };

/** Reads marks however faint they are, and looks at the stock beside them. */
async function readStock(work: AtMachine, setup: PrintedSetup, wide: number): Promise<Came> {
  const { cutter, link, isToStop } = work;
  const there = crossesIn(work, setup, wide);
  if (typeof there === 'string') return notYet(there);
  const { marks, line, width, cuttable } = there;
  const first = await startOf(link, marks[0].at, cuttable, cutter);
  const lying = { marks, first, line, length: width, cuttable, contrast: BARELY };
  const read = await marksOver(link, cutter, lying, isToStop);
  if (!read) return notYet('Stopped while its marks were read. Press again to read them.');
  if (!read.isRead) return notYet(unreadBecause(read, cutter.name));
  const levels = await levelsOf(link, cutter, { marks, seen: read.marks, line, cuttable });
  const seen: Seen = { places: read.marks.map(({ at }) => at), shared: 0, levels };
  return { state: 'measuring', seen, metres: 0 };
}
