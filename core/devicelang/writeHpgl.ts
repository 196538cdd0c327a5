/**
 * HP-GL, the part that every cutter takes. Mnemonics and unit from the published plotter manuals (HP 7475A
 * Interfacing and Programming Manual, 1983: 0.025 mm a unit; IN PA PU PD SP VS FS).
 */
import type { LineKind } from '../artwork/choices';
import type { Device } from '../layout/cutter';
import type { CutLine, CutProgram } from '../toolpath/program';
import type { Point } from './axes';
import { toUnits } from './axes';

/** The bytes for a cutter, cut up where the knife is up. */
export interface HpglChunks {
  readonly head: Uint8Array;
  /** One for each line of the program; each ends with the knife up. */
  readonly lines: readonly Uint8Array[];
  readonly tail: Uint8Array;
}

const ascii = (text: string): Uint8Array => new TextEncoder().encode(text);

/**
 * Writes a program as HP-GL chunks.
 * @param cuttable width the knife reaches, mm: strip y counts from its far edge, the plotter's from the near one
 */
export function writeHpgl(
  program: Pick<CutProgram, 'lines' | 'recipes' | 'length'>,
  device: Device,
  cuttable: number,
): HpglChunks {
  const settings = (kind: LineKind): string => {
    const { force, speed, tool } = program.recipes[kind];
    const sent = (code: string, value: number | null, isSent: boolean): string =>
      isSent && value !== null ? `${code}${value};` : '';
    return `SP${tool};${sent('VS', speed, device.sendsSpeed)}${sent('FS', force, device.sendsForce)}`;
  };
  // said again before each line where lines differ: a cut that goes on after a stop goes on with the right ones
  const mixed = program.lines.some((line) => line.kind !== 'kiss' || line.speeds);
  const place = toUnits(device, cuttable);
  const { pointsInDown } = device;
  const end = place(program.length, cuttable);
  return {
    head: ascii(`IN;PA;${settings('kiss')}`),
    lines: program.lines.map((line) =>
      lineBytes(mixed ? settings(line.kind) : '', line, place, pointsInDown),
    ),
    tail: ascii(`PU${end[0]},${end[1]};SP0;`),
  };
}

/** All chunks as one file. */
export function hpglBytes(chunks: HpglChunks): Uint8Array {
  const parts = [chunks.head, ...chunks.lines, chunks.tail];
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

function lineBytes(
  settings: string,
  { points, speeds }: Pick<CutLine, 'points' | 'speeds'>,
  place: (x: number, y: number) => Point,
  pointsInDown: number,
): Uint8Array {
  // at most 12 characters a number, a comma or semicolon behind each, and a mnemonic a PD; a speed before some
  const downs = speeds ? points.length / 2 : Math.ceil(points.length / 2 / pointsInDown);
  const buffer = new Uint8Array(points.length * 13 + (speeds ? 24 : 3) * downs + 48 + settings.length);
  let at = put(buffer, 0, settings);
  at = mnemonic(buffer, at, 80, 85);
  const start = place(points[0], points[1]);
  at = pair(buffer, at, start);
  buffer[at++] = 59;
  let speed: number | undefined;
  // the first one opens a PD, as one does that comes when it is full or has another speed
  for (let i = 2, n = pointsInDown; i < points.length; i += 2, n++) {
    const next = speeds?.[i / 2 - 1];
    if (next !== speed || n === pointsInDown) {
      if (i > 2) buffer[at++] = 59;
      if (next !== speed) at = put(buffer, at, `VS${next};`);
      at = mnemonic(buffer, at, 80, 68);
      [speed, n] = [next, 0];
    } else buffer[at++] = 44;
    at = pair(buffer, at, place(points[i], points[i + 1]));
  }
  if (points.length > 2) buffer[at++] = 59;
  at = mnemonic(buffer, at, 80, 85);
  buffer[at++] = 59;
  return buffer.slice(0, at);
}

function put(buffer: Uint8Array, at: number, text: string): number {
  for (let i = 0; i < text.length; i++) buffer[at + i] = text.charCodeAt(i);
  return at + text.length;
}

function mnemonic(buffer: Uint8Array, at: number, a: number, b: number): number {
  buffer[at] = a;
  buffer[at + 1] = b;
  return at + 2;
}

function pair(buffer: Uint8Array, at: number, [x, y]: Point): number {
  const behind = integer(buffer, at, x);
  buffer[behind] = 44;
  return integer(buffer, behind + 1, y);
}

function integer(buffer: Uint8Array, at: number, value: number): number {
  let rest = value;
  if (rest < 0) {
    buffer[at++] = 45;
    rest = -rest;
  }
  let digits = 1;
  for (let ten = 10; ten <= rest; ten *= 10) digits++;
  for (let i = at + digits - 1; i >= at; i--) {
    const next = Math.trunc(rest / 10);
    buffer[i] = 48 + rest - next * 10;
    rest = next;
  }
  return at + digits;
}
