/**
 * One simulated cutter: takes HP-GL into a finite buffer, moves with acceleration, drags a trailing blade through
 * the film and remembers where the tip went and how deep. Knows nothing of the program that feeds it.
 */
import type { Question } from '../core/devicelang/answers';
import { writeLimits, writeName, writeSeen, writeStanding, writeStatus } from '../core/devicelang/answers';
import type { Move, Step } from './front';
import { createFront } from './front';
import { SLOWEST, travel } from './motion';
import { gaussian } from '../core/random';
import type { LoadedFilm, MachineSpec, SensorSpec, Slip, Spot } from './spec';
import { createInk } from './ink';
import { onFilm, reachOf } from './spec';
import type { Depth, Point } from './tool';
import { createPoint } from './tool';

export interface CutStroke {
  /** mm on the machine's own axes */
  readonly points: number[];
  readonly depth: Depth;
  /** Which of the films it lies on that were in since the machine was told to begin anew, from 0. */
  readonly film: number;
}

export interface Machine {
  /** Takes bytes off the line. @returns false when the buffer is full and the sender has to wait */
  readonly receive: (text: string) => boolean;
  /** Lets time pass, in seconds of the machine's own time. */
  readonly advance: (seconds: number) => void;
  readonly load: (film: LoadedFilm | undefined) => void;
  /** The film slips: what is cut of it is somewhere else from now on. */
  readonly slip: (how: Slip) => void;
  /** An operator moves the head by the machine's own keys. */
  readonly put: (to: Spot) => void;
  readonly status: () => MachineStatus;
  readonly strokes: () => readonly CutStroke[];
  readonly isFull: () => boolean;
  /** Switched off and on: what is in the buffer is gone, the knife is up, the head stays where it is. */
  readonly drop: () => void;
  /** Turns the force knob, g; nothing happens where force is sent. */
  readonly turnKnob: (force: number) => void;
  readonly setUp: (to: SetUp) => void;
  /** What it is like by now. */
  readonly spec: () => MachineSpec;
  /** How worn the blade in its first holder is: 0 new, 1 done for. */
  readonly wear: () => number;
}

export interface MachineStatus {
  readonly name: string;
  readonly film: LoadedFilm | undefined;
  readonly x: number;
  readonly y: number;
  readonly down: boolean;
  readonly busy: boolean;
  readonly buffered: number;
  /** g now; `knob` when it is set by hand. */
  readonly force: number;
  readonly knob: boolean;
  /** Holder in use, from 1. */
  readonly tool: number;
  readonly display: string;
}

/** Places of a spot that is looked at, in its radius. */
const SPOT = [
  [0, 0],
  [0.7, 0],
  [-0.7, 0],
  [0, 0.7],
  [0, -0.7],
  [0.6, 0.6],
  [-0.6, 0.6],
  [0.6, -0.6],
  [-0.6, -0.6],
] as const;
const UNMOVED = { cos: 1, sin: 0, dx: 0, dy: 0 };
const PEN_SECONDS = 0.04;
/** Of the noise that its sensor sees. */
const SEED = 20_250_601;
/** Tip samples are at most this far apart, mm. */
const SAMPLE = 0.1;
const OWN_FORCE = 80;
/** Reflectance of an ordinary film, and of a pen's ink (common practice, no source). */
const [WHITE, DRAWN] = [0.9, 0.08];

/** What a person changes of a machine: what is in its holders, where its sensor is screwed on, how its rollers draw. */
export type SetUp = Partial<Pick<MachineSpec, 'tools' | 'sensor' | 'trueness'>>;

export function createMachine(made: MachineSpec, answer: (text: string) => void, seed = SEED): Machine {
  let spec = made;
  let film: LoadedFilm | undefined;
  let ink = createInk();
  const reach = () => reachOf(spec, film);
  const front = createFront(reach, spec.axes.step);
  let points: readonly Point[] = spec.tools.map(createPoint);
  let strokes: CutStroke[] = [];
  let films = 0;
  /** Where the film lies since it slipped: cosine, sine and way. */
  let slipped = UNMOVED;
  let isOut = false;
  let head: Spot = { x: 0, y: 0 };
  let down = false;
  let tool = 1;
  let force = spec.forceKnob ?? OWN_FORCE;
  let speed = spec.ownSpeed;
  /** mm/s at the start of the next move, and seconds not used yet */
  let entry = 0;
  let owed = 0;
  let missingTool = false;
  const blur = gaussian(seed, 1);

  const isFull = (): boolean => front.buffered() >= spec.bufferBytes;
  const next = () =>
    travel(
      head,
      front.steps,
      entry,
      { down: speed, up: spec.travelSpeed, isTold: spec.takesSpeed },
      spec.acceleration,
    );

  function advance(seconds: number): void {
    owed += seconds;
    for (;;) {
      front.fill();
      const step = front.steps[0];
      if (step && isPastEnd(step)) isOut = true;
      if (isOut) owed = 0;
      if (isOut) return;
      if (!step) {
        [owed, entry] = [0, 0];
        return;
      }
      const went = step.kind === 'move' ? next() : undefined;
      const takes = went?.seconds ?? (step.kind === 'pen' && step.down !== down ? PEN_SECONDS : 0);
      if (takes > owed) return;
      owed -= takes;
      carryOut(step, went?.exit ?? entry);
      front.take();
    }
  }

  /** It stands still where its film ends. */
  function isPastEnd(step: Step): boolean {
    if (step.kind !== 'move' || !step.down || film?.ends === undefined) return false;
    return Math.abs(spec.axes.feedAxis === 'x' ? step.x : step.y) > film.ends;
  }

  /** The place of the film as it was put in that lies under a place of the machine. */
  function under({ x, y }: Spot): Spot {
    const { cos, sin, dx, dy } = slipped;
    return { x: cos * (x - dx) + sin * (y - dy), y: cos * (y - dy) - sin * (x - dx) };
  }

  function carryOut(step: Step, exit: number): void {
    switch (step.kind) {
      case 'move':
        return moveTo(step, exit);
      case 'pen':
        return lower(step.down);
      case 'set':
        return set(step.what, step.value);
      case 'reset':
        [strokes, missingTool, films] = [[], false, 0];
        return;
      case 'answer':
        return answer(reply(step.question));
      case 'seen':
        return answer(writeSeen(seenBetween(step.from, step.to, step.values)));
    }
  }

  function moveTo(move: Move, exit: number): void {
    const stroke = strokes[strokes.length - 1];
    if (move.down && stroke) drag(head, move, stroke);
    if (move.down && film && spec.tools[tool - 1].kind === 'pen')
      ink.draw(filmAt(film, head), filmAt(film, move));
    head = { x: move.x, y: move.y };
    entry = exit;
  }

  function drag(from: Spot, to: Spot, stroke: CutStroke): void {
    const parts = Math.max(1, Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) / SAMPLE));
    let before = from;
    for (let k = 1; k <= parts; k++) {
      const here = { x: from.x + ((to.x - from.x) * k) / parts, y: from.y + ((to.y - from.y) * k) / parts };
      points[tool - 1].drag(before, here, film);
      before = here;
      push(stroke, here);
    }
  }

  function push(stroke: CutStroke, holder: Spot): void {
    const { x, y } = under(points[tool - 1].at(holder));
    stroke.points.push(x, y);
  }

  function lower(to: boolean): void {
    down = to;
    entry = 0;
    if (!down) return;
    const stroke: CutStroke = { points: [], depth: points[tool - 1].depth(force, speed, film), film: films };
    push(stroke, head);
    strokes.push(stroke);
  }

  function set(what: 'speed' | 'force' | 'tool', value: number): void {
    if (what === 'speed' && spec.takesSpeed) speed = Math.max(SLOWEST, value);
    if (what === 'force' && spec.forceKnob === null) force = value;
    // holder 0: tools are put away
    if (what !== 'tool' || value === 0) return;
    if (spec.tools[value - 1]) tool = value;
    else missingTool = true;
  }

  /** What the sensor saw on its way, evenly spaced; without one, or without film, all is alike. */
  function seenBetween(from: Spot, to: Spot, values: number): number[] {
    const { sensor } = spec;
    return Array.from({ length: values }, (_, i) => {
      const t = i / (values - 1);
      const at = { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t };
      return sensor && film ? see(at, sensor, film) + blur() * sensor.noise : 0;
    });
  }

  /** The mean of a spot, which is the same whichever way round the axes are. */
  function see({ x, y }: Spot, { offset, spot }: SensorSpec, on: LoadedFilm): number {
    const { print, white = WHITE } = on;
    const [along, across] = filmAt(on, { x: x + offset[0], y: y + offset[1] });
    const isBare = ink.isBare(along, across);
    if (!print && isBare) return white;
    let sum = 0;
    for (const place of SPOT) {
      const u = along + (place[0] * spot) / 2;
      const v = across + (place[1] * spot) / 2;
      const bare = print ? print.reflectance(u, v) : white;
      sum += isBare ? bare : bare + (DRAWN - bare) * ink.at(u, v);
    }
    return sum / SPOT.length;
  }

  const filmAt = (on: LoadedFilm, at: Spot) => {
    const { x, y } = under(at);
    return onFilm(spec, on, x, y);
  };

  function reply(question: Question): string {
    const units = (mm: number): number => Math.round(mm / spec.axes.step);
    const { x, y } = reach();
    if (question === 'OA') return writeStanding({ x: units(head.x), y: units(head.y), down });
    if (question === 'OH')
      return writeLimits({ x1: units(x[0]), y1: units(y[0]), x2: units(x[1]), y2: units(y[1]) });
    if (question === 'OI') return writeName(spec.name);
    return writeStatus(film !== undefined, front.hasError() || missingTool);
  }

  return {
    receive: (text) => {
      front.receive(text);
      return !isFull();
    },
    advance,
    isFull,
    setUp: (to) => {
      spec = { ...spec, ...to };
      if (to.tools) points = spec.tools.map(createPoint);
    },
    spec: () => spec,
    wear: () => points[0].wear(),
    load: (put) => {
      if (strokes.length > 0) films++;
      [film, slipped, isOut] = [put, UNMOVED, false];
      ink = createInk();
      head = { x: 0, y: 0 };
      front.clear(0, 0);
      down = false;
    },
    slip: ({ turn, x, y }) => {
      const t = (turn * Math.PI) / 180;
      const [c, s] = [Math.cos(t), Math.sin(t)];
      const { cos, sin, dx, dy } = slipped;
      slipped = {
        cos: c * cos - s * sin,
        sin: s * cos + c * sin,
        dx: c * dx - s * dy + x,
        dy: s * dx + c * dy + y,
      };
    },
    put: (to) => {
      head = to;
      front.clear(to.x, to.y);
      down = false;
    },
    strokes: () => strokes,
    drop: () => {
      front.clear(head.x, head.y);
      down = false;
    },
    turnKnob: (to) => {
      if (spec.forceKnob !== null) force = to;
    },
    status: () => ({
      name: spec.name,
      film,
      ...head,
      down,
      busy: front.steps.length > 0,
      buffered: front.buffered(),
      force,
      knob: spec.forceKnob !== null,
      tool,
      display: film
        ? isOut
          ? 'END OF FILM'
          : front.steps.length > 0
            ? 'CUTTING'
            : `READY ${film.width.toFixed(0)} mm`
        : 'LOAD FILM',
    }),
  };
}
