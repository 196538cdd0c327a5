/** One calibration: what is cut for it, what was seen of it, and what that says. */
import type { ToolKind } from '../artwork/choices';
import type { Spot } from '../geometry/spot';
import type { Range } from '../layout/cutter';
import { onOwnStep, stepSize } from '../layout/ownSteps';
import { formatLength } from '../units/length';
import { fromRow, offsetFromGaps } from './blade';
import type { MarkLevels } from './contrast';
import { contrastFrom } from './contrast';
import type { Change, Estimate } from './estimate';
import { agree, changeOf, combined } from './estimate';
import type { Cell, CellLook, CutAs, ForceFound } from './grid';
import { bestCell, bestDashes, judgeGrid } from './grid';
import { lengthFrom } from './length';
import { liesOff } from './liesOff';
import type { Odd } from './odd';
import { oddOnes } from './odd';
import { stationsOf } from './patterns';

/** What is set up for a run. */
export type Setup =
  | { readonly kind: 'sensor-pen' }
  /** A sheet of so much, mm as it is fed. */
  | {
      /** Read, and cut onto; or only read. */
      readonly kind: 'sensor-print' | 'contrast';
      readonly film: string;
      readonly width: number;
      readonly height: number;
    }
  | { readonly kind: 'length'; readonly axis: 'along' | 'across'; readonly whole: number }
  | { readonly kind: 'blade-gap'; readonly blade: string }
  | {
      readonly kind: 'blade-row' | 'overcut-row';
      readonly blade: string;
      readonly values: readonly number[];
    }
  | {
      readonly kind: 'force';
      readonly film: string;
      readonly line: ToolKind;
      readonly columns: number;
      readonly cells: readonly Cell[];
    };
export type CalibrationKind = Setup['kind'];
/** One that goes by a printed sheet. */
export type PrintedSetup = Extract<Setup, { readonly width: number }>;
export const isPrinted = (setup: Setup): setup is PrintedSetup => 'width' in setup;

/** What was entered; what is missing or null was not measured. */
export interface Measured {
  /** How far a cut lies off its print at each place, mm on the strip. */
  readonly off?: readonly (Spot | null)[];
  /** mm from the first tick to each other one, or of each gap. */
  readonly lengths?: readonly (number | null)[];
  /** The best of a row, or of a grid. */
  readonly picked?: number | null;
  /** How each cell looks. */
  readonly looks?: readonly (CellLook | null)[];
  /** Measurements that are surely right although they do not fit the others. */
  readonly trusted?: readonly number[];
  /** Measurements that are left out. */
  readonly leftOut?: readonly number[];
}

/** What a machine saw by itself. */
export interface Seen {
  /** mm on the strip: where crosses or marks are */
  readonly places: readonly Spot[];
  /** The same read by the sensor, less where they were drawn. */
  readonly off?: readonly Spot[];
  /** mm: what may have moved all of them alike */
  readonly shared: number;
  /** What was seen of each mark and beside it. */
  readonly levels?: readonly MarkLevels[];
}

/** What a run says. */
export interface RunFound {
  /** Of this run alone. */
  readonly own: readonly Estimate[];
  /** Together with runs before it that agree with it. */
  readonly changes: readonly Change[];
  /** Runs that are in it, this one included. */
  readonly runs: number;
  /** Degrees and a share by which the places lie turned and stretched, where that stands out. */
  readonly turn?: Estimate;
  readonly stretch?: Estimate;
  /** mm that every length is longer by. */
  readonly constant?: Estimate;
  readonly force?: CutAs & { readonly clean: ForceFound; readonly backing?: ForceFound };
  /** Cells of a grid that look otherwise than all others say. */
  readonly oddCells?: readonly number[];
}

/** What is asked before anything is said. */
export interface AskedAbout extends Odd {
  readonly message: string;
}

export type RunSays =
  | { readonly says: 'found'; readonly found: RunFound }
  /** Measurements that do not fit. */
  | { readonly says: 'odd'; readonly odd: readonly AskedAbout[] }
  | { readonly says: 'more'; readonly message: string };

/** What a run is judged with. */
export interface Ground {
  /** Values as they were when it was cut: mm that the sensor sits along the film and down it, mm for each mm, mm, g. */
  readonly before: readonly number[];
  /** mm of a machine step */
  readonly step: number;
  /** g that the machine has; missing: any. */
  readonly force?: Range;
  /** What runs before it found, newest first. */
  readonly earlier: readonly (readonly Estimate[])[];
}

/** mm by which people read a loupe or a rule differently (common practice, no source). */
const [LOUPE, RULE] = [0.05, 0.2];
/** Smallest changes that make a difference: share of a length, mm of a blade's offset, g, of a reflectance (our own). */
const [LEAST_SCALE, LEAST_OFFSET, LEAST_FORCE, LEAST_LIGHT] = [0.00005, 0.01, 1, 0.005];
/** Runs that are taken together at the most. */
const MOST_TOGETHER = 4;

/** Smallest change of each kind that makes a difference. @param step mm of a machine step */
export const leastChange = (kind: CalibrationKind, step: number): number => {
  switch (kind) {
    case 'sensor-pen':
    case 'sensor-print':
      // a head goes to the nearer of two steps
      return step / 2;
    case 'length':
      return LEAST_SCALE;
    case 'force':
      return LEAST_FORCE;
    case 'contrast':
      return LEAST_LIGHT;
    default:
      return LEAST_OFFSET;
  }
};

/** Which runs find the same quantity, whichever way they go about it. */
export function sameQuantity(a: Setup, b: Setup): boolean {
  switch (a.kind) {
    case 'sensor-pen':
    case 'sensor-print':
      return b.kind === 'sensor-pen' || b.kind === 'sensor-print';
    case 'contrast':
      return b.kind === 'contrast' && b.film === a.film;
    case 'length':
      return b.kind === 'length' && b.axis === a.axis;
    case 'blade-gap':
    case 'blade-row':
      return (b.kind === 'blade-gap' || b.kind === 'blade-row') && b.blade === a.blade;
    case 'overcut-row':
      return b.kind === 'overcut-row' && b.blade === a.blade;
    case 'force':
      return b.kind === 'force' && b.film === a.film && b.line === a.line;
  }
}

/** What is said of what was measured so far. */
export function judgeRun(setup: Setup, seen: Seen | null, measured: Measured, ground: Ground): RunSays {
  switch (setup.kind) {
    case 'sensor-pen':
    case 'sensor-print':
      return seen ? sensorFrom(seen, measured, ground, setup.kind) : NOTHING_YET;
    case 'contrast':
      return seen ? contrastOf(seen, ground) : NOTHING_YET;
    case 'length':
      return lengthOf(setup, measured, ground);
    case 'blade-gap':
      return gapsOf(measured, ground);
    case 'blade-row':
    case 'overcut-row':
      return rowOf(setup, measured, ground);
    case 'force':
      return forceOf(setup.cells, measured, ground);
  }
}

const NOTHING_YET: RunSays = { says: 'more', message: 'Nothing was measured yet.' };
const more = (message: string): RunSays => ({ says: 'more', message });

function told(
  kind: CalibrationKind,
  own: readonly Estimate[],
  ground: Ground,
  rest: Partial<RunFound> = {},
): RunSays {
  const alike: (readonly Estimate[])[] = [];
  for (const before of ground.earlier.slice(0, MOST_TOGETHER - 1)) {
    if (before.length !== own.length || !before.every((one, k) => agree(one, own[k]))) break;
    alike.push(before);
  }
  const step = leastChange(kind, ground.step);
  const changes = own.map((one, k) =>
    changeOf(ground.before[k], combined([one, ...alike.map((before) => before[k])])!, step),
  );
  return { says: 'found', found: { own, changes, runs: alike.length + 1, ...rest } };
}

/** Measurements that are neither trusted nor left out, and what does not fit among them. */
function sifted<T>(
  values: readonly (T | null)[],
  { trusted = [], leftOut = [] }: Measured,
  components: readonly ((value: T) => number)[],
  least: number,
): {
  readonly kept: readonly { readonly value: T; readonly at: number }[];
  readonly odd: readonly AskedAbout[];
} {
  const kept = values.flatMap((value, at) => (value === null || leftOut.includes(at) ? [] : [{ value, at }]));
  const odd = components.flatMap((of) =>
    oddOnes(
      kept.map(({ value }) => of(value)),
      least,
    ).map((one) => ({ ...one, at: kept[one.at].at })),
  );
  const worst = new Map<number, Odd>();
  for (const one of odd)
    if (!trusted.includes(one.at) && Math.abs(one.by) > Math.abs(worst.get(one.at)?.by ?? 0))
      worst.set(one.at, one);
  return { kept, odd: [...worst.values()].map((one) => ({ ...one, message: asked(one) })) };
}

const SLIPS: Readonly<Record<NonNullable<Odd['slip']>, string>> = {
  ten: 'It is about ten times the others, or a tenth: did the point slip?',
  inch: 'It is off by an inch’s 25.4: was it said in inches, or in mm where inches were meant?',
  sign: 'It is as large as the others and the other way round: is it on the other side?',
};
const asked = ({ at, by, slip }: Odd): string =>
  `Number ${at + 1} lies ${formatLength(Math.abs(by), 'mm', true)} off the others. ${slip ? SLIPS[slip] : 'Look at it once more.'}`;

function sensorFrom(seen: Seen, measured: Measured, ground: Ground, kind: CalibrationKind): RunSays {
  const off = measured.off ?? seen.off ?? [];
  const { kept, odd } = sifted<Spot>(off, measured, [(spot) => spot[0], (spot) => spot[1]], LOUPE);
  if (odd.length > 0) return { says: 'odd', odd };
  const lies = liesOff(
    kept.map(({ value, at }) => ({ at: seen.places[at], off: value })),
    seen.shared,
  );
  if (!lies) return more('Say how the cut lies at three places at least: that tells moved from turned.');
  const standsOut = (one: Estimate): Estimate | undefined =>
    Math.abs(one.value) > one.sure ? one : undefined;
  const [along, down] = ground.before;
  // a cut lies off by as much as the sensor is believed to sit further than it does
  const own = [
    { value: along - lies.along.value, sure: lies.along.sure },
    { value: down - lies.down.value, sure: lies.down.sure },
  ];
  return told(kind, own, ground, { turn: standsOut(lies.turn), stretch: standsOut(lies.stretch) });
}

function contrastOf({ levels = [] }: Seen, ground: Ground): RunSays {
  const found = contrastFrom(levels);
  if (!found) return NOTHING_YET;
  const { threshold, least, contrast, isTooFaint } = found;
  if (isTooFaint)
    return more(
      `Marks are ${percent(contrast)} darker than this stock, and the stock by itself shows up to ${percent(least.value)}: they cannot be told from it. Print them on a white patch, or take them by hand.`,
    );
  return told('contrast', [threshold, least], ground);
}
const percent = (share: number): string => `${Math.round(100 * share)} %`;

function lengthOf(
  { whole }: Extract<Setup, { kind: 'length' }>,
  measured: Measured,
  ground: Ground,
): RunSays {
  const stations = stationsOf(whole);
  const lengths = stations.map((_, i) => measured.lengths?.[i] ?? null);
  // by how much each is longer than it was told, as if all were the whole way long
  const { kept, odd } = sifted<{ readonly told: number; readonly measured: number }>(
    lengths.map((length, i) => (length === null ? null : { told: stations[i], measured: length })),
    measured,
    [(one) => one.measured - one.told],
    Math.max(RULE, whole * MOST_WRONG),
  );
  if (odd.length > 0) return { says: 'odd', odd };
  const found = lengthFrom(kept.map(({ value }) => value));
  if (!found) return NOTHING_YET;
  const [before] = ground.before;
  if (Math.abs(found.scale.value - 1) > MOST_OFF)
    return {
      says: 'odd',
      odd: kept.map(({ at, value }) => ({
        at,
        by: value.measured - value.told,
        message: `From the first tick to tick ${at + 1} should be ${formatLength(value.told, 'mm')}. No cutter is so far off: was it measured in mm, between the right ticks?`,
      })),
    };
  const own = { value: before * found.scale.value, sure: before * found.scale.sure };
  return told('length', [own], ground, { constant: found.constant ?? undefined });
}
/** Share of a length by which cutters differ from what they are told, usually and at the most (our own). */
const [MOST_WRONG, MOST_OFF] = [0.003, 0.05];

function gapsOf(measured: Measured, ground: Ground): RunSays {
  const { kept, odd } = sifted<number>(measured.lengths ?? [], measured, [(gap) => gap], LOUPE);
  if (odd.length > 0) return { says: 'odd', odd };
  const own = offsetFromGaps(kept.map(({ value }) => value));
  return own ? told('blade-gap', [own], ground) : NOTHING_YET;
}

function rowOf(
  { kind, values }: Extract<Setup, { kind: 'blade-row' | 'overcut-row' }>,
  { picked }: Measured,
  ground: Ground,
): RunSays {
  if (picked === null || picked === undefined || !(picked in values)) return NOTHING_YET;
  return told(kind, [fromRow(values[picked], values[1] - values[0])], ground);
}

function forceOf(cells: readonly Cell[], { looks, picked }: Measured, ground: Ground): RunSays {
  const best = picked === null || picked === undefined ? undefined : cells[picked];
  const judged = cells.map((cell, i): Cell => ({ ...cell, looks: looks?.[i] ?? undefined }));
  const as: CutAs = {
    speed: best?.speed ?? middleSpeed(cells),
    dashes: best?.dashes ?? bestDashes(judged) ?? cells[0].dashes,
  };
  const found = judgeGrid(judged, as);
  if (!found && !best)
    return more('Tap how cells look until some are cut through and some are not, or only the best one.');
  const clean = found?.clean ?? bestCell(best!, cells);
  const { force = ANY } = ground;
  const proposed = best?.force ?? onOwnStep(force, found!.proposed, 0);
  const own = { value: proposed, sure: (clean.to - clean.from) / 2 };
  // what is proposed is no estimate of what is set: a force inside its noise may still be too much
  const ownStep = stepSize(force);
  const least = ownStep === undefined ? LEAST_FORCE : ownStep / 2;
  const change = { ...changeOf(ground.before[0], { value: proposed, sure: 0 }, least), sure: own.sure };
  return {
    says: 'found',
    found: {
      own: [own],
      changes: [change],
      runs: 1,
      // where no cell went too deep, where that begins is a guess
      force: {
        clean,
        ...(judged.some(({ looks: look }) => look === 'into-backing') && { backing: found?.backing }),
        ...as,
      },
      oddCells: found?.odd,
    },
  };
}

const ANY: Range = { least: 0, most: Infinity };

const middleSpeed = (cells: readonly Cell[]): number => {
  const speeds = [...new Set(cells.map(({ speed }) => speed))].sort((a, b) => a - b);
  return speeds[speeds.length >> 1];
};
