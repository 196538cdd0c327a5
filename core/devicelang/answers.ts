/**
 * What cutters are asked and what they answer: output instructions of the published plotter manuals (HP 7475A Interfacing
 * and Programming Manual, 1983), integers apart by commas, closed by a carriage return.
 */
import type { Axes } from '../layout/cutter';
import { stepsOf } from '../layout/cutter';

/** OA: place and pen; OH: hard limits; OI: name; OS: status. */
export type Question = 'OA' | 'OH' | 'OI' | 'OS';

export const ask = (question: Question): string => `${question};`;

/** Ends an answer. */
export const ANSWER_END = '\r';

/** Where the head stands, on the cutter's own axes in its units. */
export interface Standing {
  readonly x: number;
  readonly y: number;
  readonly down: boolean;
}

/** Corners of what the head can reach, in the cutter's units. */
export interface HardLimits {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

/** HP 7475A status bits. */
const [READY, ERROR] = [16, 32];

export const writeStanding = ({ x, y, down }: Standing): string => `${x},${y},${down ? 1 : 0}${ANSWER_END}`;
export const writeLimits = ({ x1, y1, x2, y2 }: HardLimits): string => `${x1},${y1},${x2},${y2}${ANSWER_END}`;
export const writeName = (name: string): string => `${name.toUpperCase()}${ANSWER_END}`;
export const writeStatus = (ready: boolean, error: boolean): string =>
  `${(ready ? READY : 0) + (error ? ERROR : 0)}${ANSWER_END}`;

/** What a sensor saw, in thousandths of the light that white throws back. */
export const writeSeen = (values: readonly number[]): string =>
  `${values.map((value) => Math.round(1000 * value)).join(',')}${ANSWER_END}`;

/**
 * Has a sensor look along a straight line. No published instruction does that: every make has its own, and this one is the
 * simulated shop's.
 */
export const lookAlong = (from: UnitSpot, to: UnitSpot, values: number): string =>
  `RS${from.join(',')},${to.join(',')},${values};`;
type UnitSpot = readonly [x: number, y: number];

/** @returns undefined when the line is an answer to something else */
export function readSeen(line: string, values: number): number[] | undefined {
  return integers(line, values)?.map((value) => value / 1000);
}

/** @returns undefined when the line is an answer to something else */
export function readStanding(line: string): Standing | undefined {
  const values = integers(line, 3);
  return values && { x: values[0], y: values[1], down: values[2] === 1 };
}

/** @returns undefined when the line is an answer to something else */
export function readLimits(line: string): HardLimits | undefined {
  const values = integers(line, 4);
  return values && { x1: values[0], y1: values[1], x2: values[2], y2: values[3] };
}

function integers(line: string, count: number): number[] | undefined {
  const values = line.split(',').map(Number);
  return values.length === count && values.every(Number.isFinite) ? values : undefined;
}

/** What the head reaches along the film and across it, mm; nothing of either without film. */
export function reachOf({ x1, y1, x2, y2 }: HardLimits, axes: Axes) {
  const [x, y] = [Math.abs(x2 - x1), Math.abs(y2 - y1)];
  const [long, wide] = stepsOf(axes);
  return axes.feedAxis === 'x'
    ? { along: x * long, across: y * wide }
    : { along: y * long, across: x * wide };
}
