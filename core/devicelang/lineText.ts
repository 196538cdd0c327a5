/** One line of a program as it goes over the wire, taken apart: where it can be broken off and gone on with. */
import { createHpglReader } from '../hpgl/readHpgl';
import type { Instruction } from '../hpgl/readHpgl';

export interface UnitPoint {
  readonly x: number;
  readonly y: number;
  /** What the line says of the speed to it; missing: nothing. */
  readonly speed?: number;
}

/** What is set before it, and its points; the first is gone to with the knife up. */
export interface OpenedLine {
  readonly settings: readonly Instruction[];
  readonly points: readonly UnitPoint[];
}

export function opened(line: string): OpenedLine {
  const settings: Instruction[] = [];
  const points: UnitPoint[] = [];
  let own: { readonly speed?: number } = {};
  for (const instruction of createHpglReader().push(line)) {
    const { code, values } = instruction;
    if (code === 'PU' || code === 'PD')
      for (let i = 0; i + 1 < values.length; i += 2) points.push({ x: values[i], y: values[i + 1], ...own });
    else if (points.length === 0) settings.push(instruction);
    else if (code === 'VS') own = { speed: values[0] };
  }
  return { settings, points };
}

/** The rest of a line from one of its points on: up to there, then down. */
export function restOf(line: string, point: number): string {
  if (point === 0) return line;
  const { settings, points } = opened(line);
  return written({ settings, points: points.slice(point) });
}

/** The text of a line. */
export function written({ settings, points }: OpenedLine): string {
  const set = settings.map(({ code, values }) => `${code}${values.join(',')};`).join('');
  const [first, ...others] = points;
  let last: number | undefined;
  const downs = others.map(({ x, y, speed }) => {
    const slower = speed === last ? '' : `VS${speed};`;
    last = speed;
    return `${slower}PD${x},${y};`;
  });
  return `${set}PU${first.x},${first.y};${downs.join('')}PU;`;
}

/** Bytes of one stretch between two questions: short enough for a live head. */
const STRETCH = 240;

/** Cuts a line's bytes at instruction ends. */
export function inStretches(line: string): string[] {
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

/** A program's head for going on after a stop: a reset would forget how the blade lies. */
export const withoutReset = (head: string): string => head.replace(/^IN;/, '');
