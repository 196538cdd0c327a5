/** Where a sheet that was loaded lies, read by the cutter's sensor or taken by hand, and its cut moved there. */
import type { CutSheet, ReadSheet, TakenMarks } from '../../contracts/print';
import { and, desc, eq, isNotNull, sql } from 'drizzle-orm';
import { lookAlong, readSeen } from '../../core/devicelang/answers';
import { offOnStrip, toStrip, toUnits } from '../../core/devicelang/axes';
import type { Bounds } from '../../core/geometry/bounds';
import type { Spot } from '../../core/geometry/spot';
import type { Cutter } from '../../core/layout/cutter';
import type { DesignedMark, Sensor, SheetReading, StockContrast } from '../../core/registration/readMarks';
import { readMarks } from '../../core/registration/readMarks';
import type { Distortion } from '../../core/registration/distortion';
import type { Db } from '../db/connect';
import { cuts } from '../db/schema';
import { unpack } from '../services/pack';
import type { Drawing } from '../../contracts/cuts';
import type { SheetDesign } from '../work/makeCuts';
import { standingOf } from './feed';
import type { CutterLink } from './links/link';
import type { CutRow, Services } from './settle';

/** A look takes no longer, ms. */
const LOOK_MS = 60_000;
/** mm: a head that stands nearer to its origin than this was not put anywhere. */
const AT_ORIGIN = 1;

/** What became of it: a sentence when the sheet is not cut as it lies. */
export interface SheetRead {
  readonly reading: ReadSheet;
  readonly problem?: string;
  readonly moved?: { readonly program: object; readonly drawing: object };
}

export async function readSheet(
  { db, pool }: Services,
  cut: CutRow,
  cutter: Cutter,
  link: CutterLink,
  isToStop: () => boolean,
): Promise<SheetRead> {
  const { sheet } = cut;
  if (!sheet || !cut.design) throw new Error('a cut of plain film has no marks');
  const design = unpack<SheetDesign>(cut.design);
  const read = cut.taken
    ? byHand(cut.taken)
    : await bySensor({ ...sheet, cuttable: cut.cuttable, stock: cut.film.id }, cutter, link, isToStop);
  if (typeof read === 'string') return { reading: NOTHING_READ, problem: read };
  const registered = await pool.run('registerSheet', {
    sheet,
    design,
    // it may have been moved to where a sheet before this one lay
    drawing: design.drawing ?? unpack<Drawing>(cut.drawing),
    cuttable: cut.cuttable,
    device: cutter.device,
    taken: read,
    noise: (!cut.taken && cutter.sensor?.noise) || HAND_NOISE,
    limits: cutter.fitLimits,
    earlier: await earlierDistortion(db, cutter.id),
  });
  const { fit, off, findings, moved } = registered;
  const stop = findings.find(({ severity }) => severity === 'stop');
  const reading: ReadSheet = {
    marks: read.map(({ mark, at, scan }, i) => ({ mark, at, off: off[i], scan })),
    fit,
    notes: findings.filter((one) => one !== stop).map(({ message }) => message),
  };
  return stop
    ? { reading, problem: [stop.message, ...(stop.waysOut ?? [])].join(' · ') }
    : { reading, moved };
}

/** Sheets that are looked back on. */
const LOOKED_BACK = 40;

/** What the last sheets at a cutter showed of their distortion, newest first. */
async function earlierDistortion(db: Db, cutterId: string): Promise<Partial<Distortion>[]> {
  const distortion = sql<Partial<Distortion> | null>`${cuts.reading} -> 'fit' -> 'distortion'`;
  const rows = await db
    .select({ distortion })
    .from(cuts)
    .where(and(eq(cuts.cutterId, cutterId), isNotNull(distortion)))
    .orderBy(desc(cuts.id))
    .limit(LOOKED_BACK);
  return rows.flatMap((row) => row.distortion ?? []);
}

/** A mark that is known: which, where, and what a sensor saw of it. */
type KnownMark = Omit<ReadSheet['marks'][number], 'off'>;

const byHand = (taken: TakenMarks): KnownMark[] => taken.map((one) => ({ ...one, scan: null }));

/** What is read of a sheet, and mm that the knife reaches across it. */
type SheetLying = Pick<CutSheet, 'marks' | 'line' | 'width'> & {
  readonly cuttable: number;
  /** The film that it is printed on. */
  readonly stock: string;
};

/** @returns a sentence when they cannot be read */
export async function bySensor(
  { cuttable, marks, line, width, stock }: SheetLying,
  cutter: Cutter,
  link: CutterLink,
  isToStop: () => boolean,
): Promise<KnownMark[] | string> {
  const { sensor, name } = cutter;
  if (!sensor) return `${name} has no sensor to read marks with. Take them by hand.`;
  const first = await startOf(link, marks[0].at, cuttable, cutter);
  const contrast = sensor.stocks?.[stock];
  const there = { marks, first, line, length: width, cuttable, contrast };
  const read = await marksOver(link, cutter, there, isToStop);
  if (!read) return 'Stopped while its marks were read. Press again to read them, or take them by hand.';
  if (!read.isRead) return unreadBecause(read, name);
  return read.marks.map(({ at, contrast, scans }, mark) => ({
    mark,
    at,
    scan: { ...shownOf(scans[0]), contrast },
  }));
}

/** Marks on what is in a cutter, mm on its strip. */
interface MarksThere {
  readonly marks: readonly DesignedMark[];
  /** Where the first one should be. */
  readonly first: Spot;
  /** mm that marks are wide, and that the head reaches along the film and across it */
  readonly line: number;
  readonly length: number;
  readonly cuttable: number;
  /** How they are told from what they are on; missing: as usual. */
  readonly contrast?: StockContrast;
}

/** Has a cutter's sensor read marks. @returns undefined: a person had it stop */
export async function marksOver(
  link: CutterLink,
  cutter: Cutter,
  { marks, first, line, length, cuttable, contrast }: MarksThere,
  isToStop: () => boolean,
): Promise<SheetReading | undefined> {
  const { look, nearest } = sensorOn(link, cuttable, cutter);
  try {
    return await readMarks(marks, first, {
      look: (from, to, values) => {
        if (isToStop()) throw new ReadingStopped();
        return look(from, to, values);
      },
      nearest,
      reach: cutter.sensor?.reach ?? 0,
      line,
      contrast,
      sees: seenBy(cutter, length, cuttable),
    });
  } catch (error) {
    if (error instanceof ReadingStopped) return undefined;
    throw error;
  }
}

/** A person has the sensor stop. */
class ReadingStopped extends Error {}

/** mm: how well a person puts a pointer onto a mark (our own). */
export const HAND_NOISE = 0.1;
const NOTHING_READ: ReadSheet = { marks: [], fit: null, notes: [] };

/** The first mark should be where the head was put; a head at its origin leaves it to the design. */
export async function startOf(
  link: CutterLink,
  first: Spot,
  cuttable: number,
  { device }: Cutter,
): Promise<Spot> {
  const head = await standingOf(link);
  const isPut = Math.hypot(head.x, head.y) * device.step > AT_ORIGIN;
  return isPut ? toStrip(device, cuttable)(head.x, head.y) : first;
}

/** What a sensor sees while the head is where it can go: as far aside of that as it sits of the head, mm on the strip. */
function seenBy({ device, sensor }: Cutter, length: number, cuttable: number): Bounds {
  const [x, y] = offOnStrip(device, sensor?.offset ?? [0, 0]);
  return { minX: x, minY: y, maxX: length + x, maxY: cuttable + y };
}

/** Moves the sensor over what is looked at, not the knife; and the places at which it can be. */
export function sensorOn(
  link: CutterLink,
  cuttable: number,
  { device, sensor }: Cutter,
): Required<Pick<Sensor, 'look' | 'nearest'>> {
  const [units, strip] = [toUnits(device, cuttable), toStrip(device, cuttable)];
  const [dx, dy] = offOnStrip(device, sensor?.offset ?? [0, 0]);
  const headFor = ([x, y]: Spot) => units(x - dx, y - dy);
  return {
    nearest: (at) => {
      const [x, y] = strip(...headFor(at));
      return [x + dx, y + dy];
    },
    look: async (from, to, values) => {
      await link.send(lookAlong(headFor(from), headFor(to), values));
      for (;;) {
        const seen = readSeen(await link.answer(LOOK_MS), values);
        if (seen) return seen;
      }
    },
  };
}

const shownOf = ({ from, to, values, found }: Scan) => ({
  step: Math.hypot(to[0] - from[0], to[1] - from[1]) / (values.length - 1),
  values,
  edges: typeof found === 'object' ? found.edges : null,
});
type Scan = (SheetReading & { readonly isRead: true })['marks'][number]['scans'][number];

export function unreadBecause(
  { mark, why }: SheetReading & { readonly isRead: false },
  name: string,
): string {
  const which = `Mark ${mark + 1}`;
  switch (why) {
    case 'moved':
      return `The sheet moved while ${name} read it. Load it again so that the rollers hold it, and press again.`;
    case 'low-contrast':
      return `${which} is too faint for ${name} to be sure of. Print the sheet again with more ink, or clean it, and press again.`;
    case 'other-width':
      return `What lies where mark ${mark + 1} should be is no mark of this sheet. Load the sheet that was printed for this cut, or put the head over mark 1, and press again.`;
    default:
      return `${which} was not found. Put the head over mark 1 at the machine, see that nothing lies over the marks and that it is the sheet of this cut, and press again, or take its marks by hand.`;
  }
}
