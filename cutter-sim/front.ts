/** The language front of a simulated cutter: a finite buffer, and instructions that become steps as fast as they can be planned. */
import type { Question } from '../core/devicelang/answers';
import { createHpglReader } from '../core/hpgl/readHpgl';
import type { Instruction } from '../core/hpgl/readHpgl';
import type { Reach, Spot } from './spec';

export type Step =
  | { readonly kind: 'move'; readonly x: number; readonly y: number; readonly down: boolean }
  | { readonly kind: 'answer'; readonly question: Question }
  | { readonly kind: 'seen'; readonly from: Spot; readonly to: Spot; readonly values: number }
  | { readonly kind: 'pen'; readonly down: boolean }
  | { readonly kind: 'reset' }
  | { readonly kind: 'set'; readonly what: 'speed' | 'force' | 'tool'; readonly value: number };

export type Move = Step & { readonly kind: 'move' };

export interface Front {
  readonly receive: (text: string) => void;
  /** Turns what is buffered into steps while there is room for them. */
  readonly fill: () => void;
  readonly steps: readonly Step[];
  readonly take: () => void;
  readonly buffered: () => number;
  /** An instruction was unknown, or led out of reach. */
  readonly hasError: () => boolean;
  /** What is in the buffer is gone; the next move starts here. */
  readonly clear: (x: number, y: number) => void;
}

/** Values that are told of one look at the most. */
const MOST_VALUES = 4000;
/** Steps planned ahead. */
const AHEAD = 160;

const SETTINGS = { VS: 'speed', FS: 'force', SP: 'tool' } as const;

/** @param reach what the head reaches now @param step mm a unit */
export function createFront(reach: () => Reach, step: number): Front {
  const reader = createHpglReader();
  let incoming = '';
  const steps: Step[] = [];
  let [x, y] = [0, 0];
  let down = false;
  let relative = false;
  let error = false;

  function plan({ code, values }: Instruction): void {
    switch (code) {
      case 'IN':
        [error, relative, down] = [false, false, false];
        steps.push({ kind: 'reset' }, { kind: 'pen', down });
        return;
      case 'PA':
      case 'PR':
        relative = code === 'PR';
        return moves(values);
      case 'PU':
      case 'PD':
        if (down !== (code === 'PD')) steps.push({ kind: 'pen', down: !down });
        down = code === 'PD';
        return moves(values);
      case 'SP':
      case 'VS':
      case 'FS':
        if (values[0] !== undefined) steps.push({ kind: 'set', what: SETTINGS[code], value: values[0] });
        return;
      case 'OA':
      case 'OH':
      case 'OI':
      case 'OS':
        steps.push({ kind: 'answer', question: code });
        return;
      case 'RS':
        return scan(values);
      default:
        error = true;
    }
  }

  /** Straight from one place to another, looking all the way: x1, y1, x2, y2 and how many values are told. */
  function scan([x1, y1, x2, y2, many]: readonly number[]): void {
    if (!(many >= 2 && many <= MOST_VALUES) || ![x1, y1, x2, y2].every(Number.isFinite)) {
      error = true;
      return;
    }
    if (down) steps.push({ kind: 'pen', down: false });
    [down, relative] = [false, false];
    moves([x1, y1]);
    const from = { x, y };
    moves([x2, y2]);
    steps.push({ kind: 'seen', from, to: { x, y }, values: Math.round(many) });
  }

  function moves(values: readonly number[]): void {
    const { x: xs, y: ys } = reach();
    for (let i = 0; i + 1 < values.length; i += 2) {
      const [dx, dy] = [values[i] * step, values[i + 1] * step];
      const [toX, toY] = relative ? [x + dx, y + dy] : [dx, dy];
      // what lies past the hard limits is not reached; the head stops at them
      x = Math.min(Math.max(toX, xs[0]), xs[1]);
      y = Math.min(Math.max(toY, ys[0]), ys[1]);
      error ||= x !== toX || y !== toY;
      steps.push({ kind: 'move', x, y, down });
    }
  }

  function fill(): void {
    while (incoming.length > 0 && steps.length < AHEAD) {
      const end = incoming.indexOf(';') + 1;
      if (end === 0) return;
      for (const instruction of reader.push(incoming.slice(0, end))) plan(instruction);
      incoming = incoming.slice(end);
    }
  }

  return {
    receive: (text) => {
      incoming += text;
      fill();
    },
    fill,
    steps,
    take: () => void steps.shift(),
    buffered: () => incoming.length,
    hasError: () => error,
    clear: (toX, toY) => {
      incoming = '';
      steps.length = 0;
      down = false;
      [x, y] = [toX, toY];
    },
  };
}
