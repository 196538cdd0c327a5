/** What a trial grid goes through. */
import type { Cutter, Range } from '../../../core/layout/cutter';
import { LEAST_DASHES } from '../../../core/layout/cutter';

export interface Span {
  readonly from: number;
  readonly to: number;
  readonly many: number;
}

/** How a span is asked for. */
export interface SpanAsked {
  readonly key: 'force' | 'speed' | 'on' | 'off';
  readonly name: string;
  /** What its ends are called, and how many there are. */
  readonly of: string;
  readonly counted: string;
  readonly unit: string;
  readonly range: Range;
  readonly fewest: number;
  readonly digits: number;
}

const FORCE = {
  key: 'force',
  name: 'Force',
  of: 'force of the grid',
  counted: 'Columns',
  unit: 'g',
  fewest: 2,
  digits: 0,
} as const;
const SPEED = {
  key: 'speed',
  name: 'Speed',
  of: 'speed of the grid',
  counted: 'Rows',
  unit: 'cm/s',
  fewest: 1,
  digits: 0,
} as const;
const DASHES: readonly SpanAsked[] = [
  {
    key: 'on',
    name: 'Dashes',
    of: 'dash',
    counted: 'How many dashes',
    unit: 'mm',
    range: { least: LEAST_DASHES[0], most: 20 },
    fewest: 1,
    digits: 1,
  },
  {
    key: 'off',
    name: 'Gaps',
    of: 'gap',
    counted: 'How many gaps',
    unit: 'mm',
    range: { least: LEAST_DASHES[1], most: 5 },
    fewest: 1,
    digits: 2,
  },
];

export const spansAsked = ({ force, speed }: Cutter, isPerforated: boolean): SpanAsked[] => [
  { ...FORCE, range: force },
  ...(isPerforated ? DASHES : [{ ...SPEED, range: speed }]),
];
