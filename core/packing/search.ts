/**
 * The search for a shorter strip: overlap is driven out of one that is a little too short, one piece at a time, to where
 * what it lies in weighs least; pairs that stay in conflict weigh more from round to round (guided local search on
 * overlap: Egeblad, Nielsen & Odgaard 2007; Umetani et al. 2009; from memory).
 */
import { largest } from '../geometry/lists';
import { random } from '../random';
import type { Body, Room } from './body';
import { leastAlong } from './body';
import { Crowd } from './crowd';
import { fillFinely } from './fill';
import type { Lying } from './lying';
import { move, press } from './moving';

export interface Packed {
  readonly lying: readonly Lying[];
  /** mm from the strip's beginning to the end of the last piece. */
  readonly length: number;
}

/** What a step did; done: no round can help any more. */
export type Stepped = 'moved' | 'round' | 'done';

export interface Search {
  /** The shortest so far. */
  readonly best: () => Packed;
  /** Moves a few pieces that lie in others, so that whoever waits can look up; so long as it says `moved`, the round goes on. */
  readonly step: () => Stepped;
  /** Moves every piece that lies in another once. @returns whether more rounds can help */
  readonly round: () => boolean;
}

/** Pieces that are moved in one step. */
const AT_ONCE = 12;
/** Pieces that are laid or pressed in one step. */
const LITTLE = 2;
/** The least share that a strip is shortened by. */
const LEAST = 0.0005;
/** Less overlap than before counts from this share of it on. */
const LESS = 0.98;
/** No more pieces than these are few. */
const FEW = 24;

/** How long a strip is tried at one length, by how much it is shortened, and how often by as much. */
interface Patience {
  readonly rounds: number;
  readonly shorten: number;
  readonly tries: number;
}

/** A few pieces are turned over again and again; many are only pressed closer. */
const patienceFor = (pieces: number): Patience => ({
  rounds: Math.min(100, Math.max(20, Math.round(1200 / pieces))),
  shorten: Math.min(0.04, Math.max(0.012, 0.6 / pieces)),
  tries: pieces <= FEW ? 3 : 1,
});

/** Pieces pressed together as far as they go by themselves. */
export function pressed(bodies: readonly Body[], room: Room, start: readonly Lying[]): Packed {
  const pressing = pressingIn(new Crowd(bodies, room, start), movableOf(bodies));
  for (;;) {
    const { done, value } = pressing.next();
    if (done) return value;
  }
}

const movableOf = (bodies: readonly Body[]): number[] =>
  bodies.flatMap(({ isPinned }, i) => (isPinned ? [] : [i]));

function* pressingIn(crowd: Crowd, movable: readonly number[]): Generator<void, Packed, void> {
  const before = { lying: crowd.lying(), length: crowd.extent() };
  yield* press(crowd, movable);
  return crowd.crossing() ? before : { lying: crowd.lying(), length: crowd.extent() };
}

/** No strip is shorter than its pieces' area, than the longest of them, or than what is pinned. */
const shortestOf = (crowd: Crowd): number =>
  Math.max(
    crowd.bodies.reduce((sum, { outline }) => sum + outline.area, 0) / crowd.room.across,
    largest(
      crowd.bodies.map((body) => leastAlong(body, crowd.room.across)),
      0,
    ),
    largest(
      crowd.poses.map((pose, i) => (crowd.bodies[i].isPinned ? pose.x + pose.box.maxX : 0)),
      0,
    ),
  );

/**
 * @param start where the pieces lie; nothing overlaps
 * @param seed the same seed and number of rounds give the same strip
 */
export function createSearch(
  bodies: readonly Body[],
  room: Room,
  start: readonly Lying[],
  seed: number,
): Search {
  const next = random(1 + (Math.abs(Math.trunc(seed)) % 2147483645));
  const movable = movableOf(bodies);
  const crowd = new Crowd(bodies, room, start);
  const shortest = shortestOf(crowd);
  const patience = patienceFor(bodies.length);
  let best: Packed = { lying: start, length: crowd.length };
  let shorten = patience.shorten;
  let least = Infinity;
  let idle = 0;
  let strikes = 0;
  /** Pieces whose turn comes in this round. */
  let waiting: number[] = [];
  /** What is under way and takes many steps, with what it comes to. */
  let underWay: Generator<void, Stepped, void> | undefined = begun();

  /** The pieces as they lie, pressed together; then laid anew in small squares: a better start saves many rounds. */
  function* begun(): Generator<void, Stepped, void> {
    best = yield* pressingIn(crowd, movable);
    const fixed = bodies.map(({ isPinned }, i) => (isPinned ? start[i] : undefined));
    const anew = yield* fillFinely(bodies, room, best.length, fixed);
    const laid = anew.filter((lying) => lying !== undefined);
    if (laid.length === bodies.length) {
      const closer = yield* pressingIn(new Crowd(bodies, room, laid), movable);
      if (closer.length < best.length) best = closer;
    }
    crowd.length = best.length;
    return 'moved';
  }

  /** Takes the best strip up again, so much shorter. */
  function shortened(): void {
    const before = best.length;
    crowd.length = Math.max(shortest, before * (1 - shorten));
    // few are drawn together evenly; of many only what lies past the end looks for another place
    const drawn = bodies.length <= FEW ? crowd.length / before : 1;
    best.lying.forEach((lying, i) => {
      const pose = crowd.posed(i, lying);
      crowd.poses[i] = bodies[i].isPinned ? pose : crowd.inside({ ...pose, x: pose.x * drawn });
    });
    crowd.forget();
    [least, idle] = [Infinity, 0];
  }

  /** Two pieces change places, so that the next look begins elsewhere. */
  function shaken(): void {
    if (movable.length < 2) return;
    const { poses } = crowd;
    const [i, j] = [0, 0].map(() => movable[Math.floor(next() * movable.length)]);
    const [p, q] = [poses[i], poses[j]];
    poses[i] = crowd.inside(crowd.posed(i, { turn: p.turn, x: q.x, y: q.y }));
    poses[j] = crowd.inside(crowd.posed(j, { turn: q.turn, x: p.x, y: p.y }));
  }

  function* accepting(): Generator<void, Stepped, void> {
    best = yield* pressingIn(crowd, movable);
    shorten = Math.min(patience.shorten, shorten * 1.5);
    strikes = 0;
    shortened();
    return 'round';
  }

  function giveUp(): void {
    if (++strikes >= patience.tries) {
      strikes = 0;
      shorten = shorten / 2 < LEAST ? patience.shorten / 4 : shorten / 2;
    }
    shortened();
    for (let k = 0; k < strikes; k++) shaken();
  }

  /** Pieces in an order of chance. */
  function shuffled(): number[] {
    const all = [...movable];
    for (let k = all.length - 1; k > 0; k--) {
      const other = Math.floor(next() * (k + 1));
      [all[k], all[other]] = [all[other], all[k]];
    }
    return all;
  }

  /** Goes on with what is under way. */
  function goneOn(work: Generator<void, Stepped, void>): Stepped {
    for (let k = 0; k < LITTLE; k++) {
      const { done, value } = work.next();
      if (!done) continue;
      underWay = undefined;
      return value;
    }
    return 'moved';
  }

  function step(): Stepped {
    if (underWay) return goneOn(underWay);
    if (waiting.length === 0) {
      if (movable.length === 0 || best.length <= shortest * (1 + LEAST)) return 'done';
      if (crowd.length >= best.length) shortened();
      waiting = shuffled();
    }
    for (const i of waiting.splice(0, AT_ONCE)) {
      const weight = crowd.weigh(i, crowd.poses[i], Infinity);
      if (weight > 0) move(crowd, i, weight, next);
    }
    if (waiting.length > 0) return 'moved';
    const total = crowd.settle();
    if (total === 0 && !crowd.crossing()) {
      underWay = accepting();
      return 'moved';
    }
    if (total > 0 && total < LESS * least) [least, idle] = [total, 0];
    else if (++idle > patience.rounds) giveUp();
    return 'round';
  }

  function round(): boolean {
    let did = step();
    while (did === 'moved') did = step();
    return did === 'round';
  }

  return { best: () => best, step, round };
}
