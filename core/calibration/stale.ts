/** Calibrations that are not to be relied on any more: how old they are, and what has happened to the machine since. */
import type { CalibrationKind } from './run';

/** What a machine is calibrated for. */
export const QUANTITIES = ['sensor', 'contrast', 'length', 'blade', 'overcut'] as const;
export type Quantity = (typeof QUANTITIES)[number];

/** What people call them. */
export const QUANTITY_NAMES: Readonly<Record<Quantity, string>> = {
  sensor: 'Sensor',
  contrast: 'Contrast',
  length: 'Length',
  blade: 'Blade offset',
  overcut: 'Overcut',
};

const OF_KIND: Readonly<Record<Exclude<CalibrationKind, 'force'>, Quantity>> = {
  'sensor-pen': 'sensor',
  'sensor-print': 'sensor',
  contrast: 'contrast',
  length: 'length',
  'blade-row': 'blade',
  'blade-gap': 'blade',
  'overcut-row': 'overcut',
};
/** What a kind of run finds; undefined: nothing of the machine, but of a film's recipe. */
export const quantityOf = (kind: CalibrationKind): Quantity | undefined =>
  kind === 'force' ? undefined : OF_KIND[kind];

/** What is found by a sensor: nothing is where there is none. */
export const BY_SENSOR: readonly (Quantity | undefined)[] = ['sensor', 'contrast'];

/** Days after which a calibration is old (our own). */
export const OLD_DAYS = 30;
const DAY_MS = 86_400_000;

/** Whole days from one time to another, both ms since 1970. */
export const daysBetween = (from: number, to: number): number => Math.floor((to - from) / DAY_MS);

/** The last run of a quantity that was kept, times as ms since 1970. */
export interface LastKept {
  readonly quantity: Quantity;
  /** The film that it is about; missing: all. */
  readonly film?: string;
  readonly keptAt: number;
  /** The knife that cut it; missing: nobody said which was in. */
  readonly knife?: number;
}

/** What has happened to its machine. */
export interface MachineSince {
  /** When it was last moved to another place; missing: never. */
  readonly movedAt?: number;
  /** The knife that is in it now; missing: nobody said. */
  readonly knife?: number;
}

/** Why a calibration is not relied on. A machine that is moved stands otherwise; another knife trails otherwise. */
export const STALE = ['moved', 'knife', 'age'] as const;
export type Stale = (typeof STALE)[number];

/** @param now ms since 1970 @returns undefined: it still holds */
export function staleness(last: LastKept, machine: MachineSince, now: number): Stale | undefined {
  const isOfKnife = last.quantity === 'blade' || last.quantity === 'overcut';
  if (!isOfKnife && machine.movedAt !== undefined && machine.movedAt > last.keptAt) return 'moved';
  const isKnown = last.knife !== undefined && machine.knife !== undefined;
  if (isOfKnife && isKnown && machine.knife !== last.knife) return 'knife';
  return daysBetween(last.keptAt, now) > OLD_DAYS ? 'age' : undefined;
}

/** One that is not to be relied on. */
export interface StaleCalibration {
  readonly cutter: string;
  readonly quantity: Quantity;
  /** The film that it is about; missing: all. */
  readonly film?: string;
  readonly why: Stale;
  /** Days since it was kept. */
  readonly days: number;
}
