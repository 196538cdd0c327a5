/**
 * One simulated cutter: takes HP-GL into a finite buffer, moves with acceleration, drags a trailing blade through
 * the film and remembers where the tip went and how deep. Knows nothing of the program that feeds it.
 */
import { createHpglReader } from '../core/devicelang/readHpgl';
import type { Instruction } from '../core/devicelang/readHpgl';
import { dragStraight } from '../core/swivel/tractrix';

export interface MachineSpec {
  readonly name: string;
  /** mm */
  readonly widestRoll: number;
  readonly rollerMargin: number;
  readonly bufferBytes: number;
  /** mm/s² and cm/s */
  readonly acceleration: number;
  readonly travelSpeed: number;
  /** The blade that is really in: its offset, and g of force it needs per unit of film toughness when new. */
  readonly bladeOffset: number;
  readonly wear: number;
}

export interface LoadedFilm {
  readonly name: string;
  readonly width: number;
  readonly length: number;
  /** g that a new blade needs to cut it cleanly */
  readonly toughness: number;
}

export type Depth = 'not-through' | 'clean' | 'into-backing' | 'through';

export interface CutStroke {
  readonly points: number[];
  readonly depth: Depth;
}

export interface Machine {
  /** Takes bytes off the line. @returns false when the buffer is full and the sender has to wait */
  readonly receive: (text: string) => boolean;
  /** Lets time pass, in seconds of the machine's own time. */
  readonly advance: (seconds: number) => void;
  readonly load: (film: LoadedFilm | undefined) => void;
  readonly status: () => MachineStatus;
  readonly strokes: () => readonly CutStroke[];
  readonly isFull: () => boolean;
  /** Switched off and on: what is in the buffer is gone, the knife is up, the head stays where it is. */
  readonly drop: () => void;
}

export interface MachineStatus {
  readonly name: string;
  readonly film: LoadedFilm | undefined;
  readonly x: number;
  readonly y: number;
  readonly down: boolean;
  readonly busy: boolean;
  readonly buffered: number;
  readonly display: string;
}

/** HP-GL: 0.025 mm a unit (HP 7475A manual). */
const STEP = 0.025;
/** Corner rounding in time terms, mm. */
const CORNER = 0.03;
const PEN_SECONDS = 0.04;
/** Moves planned ahead. */
const AHEAD = 160;
/** Tip samples are at most this far apart, mm. */
const SAMPLE = 0.1;

type Step =
  | { readonly kind: 'move'; readonly x: number; readonly y: number; readonly down: boolean }
  | { readonly kind: 'answer'; readonly code: string }
  | { readonly kind: 'pen'; readonly down: boolean }
  | { readonly kind: 'set'; readonly code: string; readonly value: number };

export function createMachine(spec: MachineSpec, answer: (text: string) => void): Machine {
  const reader = createHpglReader();
  let incoming = '';
  const queue: Step[] = [];
  let strokes: CutStroke[] = [];
  let film: LoadedFilm | undefined;
  let [x, y] = [0, 0];
  let [planX, planY] = [0, 0];
  let down = false;
  let planDown = false;
  let relative = false;
  let force = 80;
  let speed = 30;
  let rod = 2.1; // the blade lies as it was left: nobody knows how
  let joint = 0;
  let owed = 0;
  let error = 0;

  const limits = (): { across: number; feed: number } =>
    film
      ? { across: Math.min(film.width, spec.widestRoll) - 2 * spec.rollerMargin, feed: film.length }
      : { across: 0, feed: 0 };

  function receive(text: string): boolean {
    incoming += text;
    parseSome();
    return !isFull();
  }

  const isFull = (): boolean => incoming.length >= spec.bufferBytes;

  /** Instructions leave the buffer only as fast as they can be planned. */
  function parseSome(): void {
    while (incoming.length > 0 && queue.length < AHEAD) {
      const end = incoming.indexOf(';') + 1;
      if (end === 0) return;
      for (const instruction of reader.push(incoming.slice(0, end))) plan(instruction);
      incoming = incoming.slice(end);
    }
  }

  function plan({ code, values }: Instruction): void {
    switch (code) {
      case 'IN':
        strokes = [];
        error = 0;
        relative = false;
        queue.push({ kind: 'pen', down: false });
        planDown = false;
        return;
      case 'PA':
      case 'PR':
        relative = code === 'PR';
        return moves(values);
      case 'PU':
      case 'PD':
        if (planDown !== (code === 'PD')) queue.push({ kind: 'pen', down: code === 'PD' });
        planDown = code === 'PD';
        return moves(values);
      case 'SP':
        return;
      case 'VS':
      case 'FS':
        queue.push({ kind: 'set', code, value: values[0] ?? (code === 'VS' ? 30 : 80) });
        return;
      case 'OA':
      case 'OH':
      case 'OI':
      case 'OS':
        queue.push({ kind: 'answer', code });
        return;
      default:
        error |= 1; // unknown instruction
    }
  }

  function moves(values: readonly number[]): void {
    for (let i = 0; i + 1 < values.length; i += 2) {
      const mm = [values[i] * STEP, values[i + 1] * STEP];
      const { across, feed } = limits();
      const wanted = relative ? [planX + mm[0], planY + mm[1]] : mm;
      // what lies past the hard limits is not reached; the head stops at them
      planX = Math.min(Math.max(wanted[0], 0), feed);
      planY = Math.min(Math.max(wanted[1], 0), across);
      if (planX !== wanted[0] || planY !== wanted[1]) error |= 2;
      queue.push({ kind: 'move', x: planX, y: planY, down: planDown });
    }
  }

  function advance(seconds: number): void {
    owed += seconds;
    for (;;) {
      parseSome();
      const step = queue[0];
      if (!step) {
        owed = 0;
        joint = 0;
        return;
      }
      const takes = secondsFor(step);
      if (takes > owed) return;
      owed -= takes;
      queue.shift();
      carryOut(step);
    }
  }

  function secondsFor(step: Step): number {
    if (step.kind === 'pen') return step.down === down ? 0 : PEN_SECONDS;
    if (step.kind !== 'move') return 0;
    const s = Math.hypot(step.x - x, step.y - y);
    const top = (step.down ? speed : spec.travelSpeed) * 10;
    const exit = exitSpeed(step, top);
    const peak = Math.min(top, Math.sqrt((2 * spec.acceleration * s + joint ** 2 + exit ** 2) / 2));
    if (s === 0) return 0;
    const ramps = (2 * peak ** 2 - joint ** 2 - exit ** 2) / (2 * spec.acceleration);
    return Math.max(0, (2 * peak - joint - exit) / spec.acceleration) + Math.max(0, s - ramps) / peak;
  }

  /** Fastest speed at the end of this move from which the head can still take every corner it knows of. */
  function exitSpeed(step: Step & { kind: 'move' }, top: number): number {
    const chain: { x: number; y: number }[] = [{ x, y }, step];
    for (let i = 1; i < queue.length && chain.length < AHEAD; i++) {
      const next = queue[i];
      if (next.kind === 'answer') continue; // a question does not stop the head
      if (next.kind !== 'move' || next.down !== step.down) break;
      chain.push(next);
    }
    let exit = 0;
    for (let i = chain.length - 1; i >= 2; i--) {
      const length = Math.hypot(chain[i].x - chain[i - 1].x, chain[i].y - chain[i - 1].y);
      const corner = cornerSpeed(chain[i - 2], chain[i - 1], chain[i], top);
      exit = Math.min(corner, Math.sqrt(exit ** 2 + 2 * spec.acceleration * length));
    }
    const length = Math.hypot(step.x - x, step.y - y);
    return Math.min(exit, top, Math.sqrt(joint ** 2 + 2 * spec.acceleration * length));
  }

  function cornerSpeed(
    a: { x: number; y: number },
    b: { x: number; y: number },
    c: { x: number; y: number },
    top: number,
  ): number {
    const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y];
    const lengths = Math.hypot(ux, uy) * Math.hypot(vx, vy);
    if (lengths === 0) return top;
    const sinHalf = Math.sqrt(Math.max(0, (1 + (ux * vx + uy * vy) / lengths) / 2));
    return sinHalf > 0.9999
      ? top
      : Math.min(top, Math.sqrt((spec.acceleration * CORNER * sinHalf) / (1 - sinHalf)));
  }

  function carryOut(step: Step): void {
    if (step.kind === 'move') return moveTo(step);
    if (step.kind === 'pen') {
      down = step.down;
      joint = 0;
      if (down) strokes.push({ points: tip(), depth: depthNow() });
      return;
    }
    if (step.kind === 'set') {
      if (step.code === 'VS') speed = Math.max(1, step.value);
      else force = step.value;
      return;
    }
    answer(`${reply(step.code)}\r`);
  }

  const tip = (): number[] => [x - spec.bladeOffset * Math.cos(rod), y - spec.bladeOffset * Math.sin(rod)];

  function moveTo(step: Step & { kind: 'move' }): void {
    const exit = exitSpeed(step, (step.down ? speed : spec.travelSpeed) * 10);
    const stroke = strokes[strokes.length - 1];
    if (step.down && stroke) {
      const parts = Math.max(1, Math.ceil(Math.hypot(step.x - x, step.y - y) / SAMPLE));
      const [fromX, fromY] = [x, y];
      for (let k = 1; k <= parts; k++) {
        const toX = fromX + ((step.x - fromX) * k) / parts;
        const toY = fromY + ((step.y - fromY) * k) / parts;
        if (spec.bladeOffset > 0) rod = dragStraight(rod, x, y, toX, toY, spec.bladeOffset);
        [x, y] = [toX, toY];
        const [tipX, tipY] = tip();
        stroke.points.push(tipX, tipY);
      }
    }
    [x, y] = [step.x, step.y];
    joint = exit;
  }

  /** Force against what the film asks of a blade this worn (common practice: a worn blade wants about three times). */
  function depthNow(): Depth {
    const needed = (film?.toughness ?? 60) * (1 + 2 * spec.wear);
    if (force < needed * 0.85) return 'not-through';
    if (force <= needed * 1.8) return 'clean';
    return force <= needed * 2.8 ? 'into-backing' : 'through';
  }

  function reply(code: string): string {
    const units = (mm: number): number => Math.round(mm / STEP);
    const { across, feed } = limits();
    if (code === 'OA') return `${units(x)},${units(y)},${down ? 1 : 0}`;
    if (code === 'OH') return `0,0,${units(feed)},${units(across)}`;
    if (code === 'OI') return spec.name.toUpperCase();
    // HP 7475A status: 16 ready for data, 32 error
    return String((film ? 16 : 0) + (error ? 32 : 0));
  }

  return {
    receive,
    advance,
    isFull,
    load: (next) => {
      film = next;
      [x, y, planX, planY] = [0, 0, 0, 0];
    },
    strokes: () => strokes,
    drop: () => {
      incoming = '';
      queue.length = 0;
      down = false;
      planDown = false;
      [planX, planY] = [x, y];
    },
    status: () => ({
      name: spec.name,
      film,
      x,
      y,
      down,
      busy: queue.length > 0,
      buffered: incoming.length,
      display: film ? (queue.length > 0 ? 'CUTTING' : `READY ${film.width.toFixed(0)} mm`) : 'LOAD FILM',
    }),
  };
}
