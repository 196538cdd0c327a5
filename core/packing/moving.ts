/** How one piece finds a better place: tried anywhere and nearby, then slid out of what it lies in. */
import type { Posed } from './body';
import type { Crowd } from './crowd';
import type { Push } from './overlap';

/** Places that are tried for a piece in one go: anywhere, and near where it lies. */
const ANYWHERE = 30;
const NEARBY = 10;
/** The best of them are slid on, so often. */
const SLID = 2;
const SLIDES = 12;
/** A piece that is tried nearby mostly lies as it did. */
const AS_IT_LAY = 0.7;
/** A slide that would have to be this much shorter leads nowhere. */
const SHORTEST_SLIDE = 0.05;

interface Weighed {
  readonly pose: Posed;
  readonly weight: number;
}

/**
 * Moves a piece to the best of the places that are tried.
 * @param weight of it where it lies
 * @param next numbers of chance
 */
export function move(crowd: Crowd, i: number, weight: number, next: () => number): void {
  const kept: Weighed[] = [];
  for (const one of tried(crowd, i, next)) {
    if (!crowd.fits(one)) continue;
    const pose = crowd.inside(one);
    const most = kept.length < SLID ? Infinity : kept[SLID - 1].weight;
    const its = crowd.about(i, pose, most);
    if (its >= most) continue;
    kept.push({ pose, weight: its });
    kept.sort((a, b) => a.weight - b.weight);
    kept.length = Math.min(kept.length, SLID);
  }
  let better: Weighed = slide(crowd, i, { pose: crowd.poses[i], weight });
  for (const { pose } of kept) {
    if (better.weight === 0) break;
    const slid = slide(crowd, i, { pose, weight: crowd.weigh(i, pose, Infinity) });
    if (slid.weight < better.weight) better = slid;
  }
  crowd.poses[i] = better.pose;
}

function* tried(crowd: Crowd, i: number, next: () => number): Generator<Posed> {
  const own = crowd.poses[i];
  const { outline, turns } = crowd.bodies[i];
  const anyTurn = (): number =>
    turns.length > 0 ? turns[Math.floor(next() * turns.length)] : Math.floor(next() * 360);
  for (let k = 0; k < NEARBY; k++) {
    const turn = next() < AS_IT_LAY ? own.turn : anyTurn();
    const [dx, dy] = [(2 * next() - 1) * outline.radius, (2 * next() - 1) * outline.radius];
    yield crowd.posed(i, { turn, x: own.x + dx, y: own.y + dy });
  }
  for (let k = 0; k < ANYWHERE; k++)
    yield crowd.posed(i, { turn: anyTurn(), x: next() * crowd.length, y: next() * crowd.room.across });
}

/**
 * Slides a piece out of what it lies in as far as that weighs less, by Polyak's step: as far as its overlap would take to
 * vanish if it fell evenly.
 */
function slide(crowd: Crowd, i: number, from: Weighed): Weighed {
  const { outline, turns } = crowd.bodies[i];
  const isFree = turns.length === 0;
  let { pose, weight } = from;
  let push = noPush();
  crowd.weigh(i, pose, Infinity, push);
  let share = 1;
  for (let k = 0; k < SLIDES && weight > 0 && share > SHORTEST_SLIDE; k++) {
    const round = isFree ? push.round / outline.radius : 0;
    const norm2 = push.x * push.x + push.y * push.y + round * round;
    if (norm2 < 1e-12) break;
    const step = (share * weight) / norm2;
    const turn = isFree ? pose.turn + ((step * round) / outline.radius) * (180 / Math.PI) : pose.turn;
    const at = { turn, x: pose.x + step * push.x, y: pose.y + step * push.y };
    const there = crowd.inside(isFree ? crowd.posed(i, at) : { ...pose, ...at });
    const nextPush = noPush();
    const weighs = crowd.fits(there) ? crowd.weigh(i, there, weight, nextPush) : Infinity;
    if (weighs < weight) [pose, weight, push, share] = [there, weighs, nextPush, Math.min(1, share * 1.6)];
    else share /= 2;
  }
  return { pose, weight };
}

const noPush = (): Push => ({ round: 0, x: 0, y: 0 });

/** Ways that pieces are pressed together by, mm, and how far aside they go for each mm. */
const STEPS: readonly number[] = [16, 4, 1, 0.25];
const SLANTS: readonly number[] = [0, 1, -1];
const PASSES = 5;

/** Moves pieces towards the beginning as far as nothing is in their way, straight or aslant; piece by piece. */
export function* press(crowd: Crowd, movable: readonly number[]): Generator<void, void, void> {
  const { poses } = crowd;
  const start = (i: number): number => poses[i].x + poses[i].box.minX;
  let before = Infinity;
  for (let pass = 0; pass < PASSES && before - crowd.extent() > STEPS[STEPS.length - 1]; pass++) {
    before = crowd.extent();
    const order = [...movable].sort((a, b) => start(a) - start(b));
    for (const i of order) {
      for (const step of STEPS) while (nudged(crowd, i, step));
      yield;
    }
  }
}

function nudged(crowd: Crowd, i: number, step: number): boolean {
  return SLANTS.some((slant) => {
    const own = crowd.poses[i];
    const pose = crowd.inside({ ...own, x: own.x - step, y: own.y + slant * step });
    if (pose.x > own.x - step / 2 || crowd.weigh(i, pose, 0) > 0) return false;
    crowd.poses[i] = pose;
    return true;
  });
}
