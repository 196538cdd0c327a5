/** Where a sheet that was loaded lies, read by the cutter's sensor or taken by hand, and its cut moved there. */
import type { CutSheet, ReadSheet, TakenMarks } from '../../contracts/print';
import { lookAlong, readSeen } from '../../core/devicelang/answers';
import { toStrip, toUnits } from '../../core/devicelang/axes';
import type { Spot } from '../../core/geometry/spot';
import type { Cutter } from '../../core/layout/cutter';
import type { Look, SheetReading } from '../../core/registration/readMarks';
import { readMarks } from '../../core/registration/readMarks';
import { unpack } from '../services/pack';
import type { Drawing } from '../../contracts/cuts';
import type { SheetDesign } from '../work/makeCuts';
import { standingOf } from './feed';
import type { CutterLink } from './link';
import type { CutRow, Services } from './settle';

/** A look takes no longer, ms. */
const LOOK_MS = 60_000;
/** mm: a head that stands nearer to its origin than this was not put anywhere. */
const AT_ORIGIN = 1;
/** mm around what the head reaches that its sensor may see too. */
const BEYOND = 25;

/** What became of it: a sentence when the sheet is not cut as it lies. */
export interface SheetRead {
  readonly reading: ReadSheet;
  readonly problem?: string;
  readonly moved?: { readonly program: object; readonly drawing: object };
}

export async function readSheet(
  { pool }: Services,
  cut: CutRow,
  cutter: Cutter,
  link: CutterLink,
  isToStop: () => boolean,
): Promise<SheetRead> {
  const { sheet, design } = cut;
  if (!sheet || !design) throw new Error('a cut of plain film has no marks');
  const read = cut.taken ? byHand(cut.taken) : await bySensor(cut, sheet, cutter, link, isToStop);
  if (typeof read === 'string') return { reading: NOTHING_READ, problem: read };
  const registered = await pool.run('registerSheet', {
    sheet,
    design: unpack<SheetDesign>(design),
    drawing: unpack<Drawing>(cut.drawing),
    cuttable: cut.cuttable,
    device: cutter.device,
    taken: read,
    noise: (!cut.taken && cutter.sensor?.noise) || HAND_NOISE,
    limits: cutter.fitLimits,
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

/** A mark that is known: which, where, and what a sensor saw of it. */
type KnownMark = Omit<ReadSheet['marks'][number], 'off'>;

const byHand = (taken: TakenMarks): KnownMark[] => taken.map((one) => ({ ...one, scan: null }));

/** @returns a sentence when they cannot be read */
async function bySensor(
  cut: CutRow,
  { marks, line, width }: CutSheet,
  cutter: Cutter,
  link: CutterLink,
  isToStop: () => boolean,
): Promise<KnownMark[] | string> {
  const { sensor, name } = cutter;
  if (!sensor) return `${name} has no sensor to read marks with. Take them by hand.`;
  const look = lookBy(link, cut, cutter, sensor.offset);
  const read = await readMarks(marks, await startOf(link, cut, cutter), {
    look: (from, to, values) => {
      if (isToStop()) throw new ReadingStopped();
      return look(from, to, values);
    },
    reach: sensor.reach,
    line,
    sees: { minX: 0, minY: -BEYOND, maxX: width + BEYOND, maxY: cut.cuttable + BEYOND },
  }).catch((error: unknown) => {
    if (error instanceof ReadingStopped) return undefined;
    throw error;
  });
  if (!read) return 'Stopped while its marks were read. Press again to read them, or take them by hand.';
  if (!read.isRead) return unreadBecause(read, name);
  return read.marks.map(({ at, contrast, scans }, mark) => ({
    mark,
    at,
    scan: { ...shownOf(scans[0]), contrast },
  }));
}

/** A person has the sensor stop. */
class ReadingStopped extends Error {}

/** mm: how well a person puts a pointer onto a mark (our own). */
const HAND_NOISE = 0.1;
const NOTHING_READ: ReadSheet = { marks: [], fit: null, notes: [] };

/** The first mark should be where the head was put; a head at its origin leaves it to the design. */
async function startOf(link: CutterLink, cut: CutRow, { device }: Cutter): Promise<Spot> {
  const head = await standingOf(link);
  const isPut = Math.hypot(head.x, head.y) * device.step > AT_ORIGIN;
  return isPut ? toStrip(device, cut.cuttable)(head.x, head.y) : cut.sheet!.marks[0].at;
}

/** Moves the sensor over what is looked at, not the knife. */
function lookBy(link: CutterLink, cut: CutRow, { device }: Cutter, offset: readonly [number, number]): Look {
  const units = toUnits(device, cut.cuttable);
  const under = ([x, y]: Spot): Spot => {
    const [ux, uy] = units(x, y);
    return [ux - Math.round(offset[0] / device.step), uy - Math.round(offset[1] / device.step)];
  };
  return async (from, to, values) => {
    await link.send(lookAlong(under(from), under(to), values));
    for (;;) {
      const seen = readSeen(await link.answer(LOOK_MS), values);
      if (seen) return seen;
    }
  };
}

const shownOf = ({ from, to, values, found }: Scan) => ({
  step: Math.hypot(to[0] - from[0], to[1] - from[1]) / (values.length - 1),
  values,
  edges: typeof found === 'object' ? found.edges : null,
});
type Scan = (SheetReading & { readonly isRead: true })['marks'][number]['scans'][number];

function unreadBecause({ mark, why }: SheetReading & { readonly isRead: false }, name: string): string {
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
