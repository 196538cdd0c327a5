/**
 * A short way through places: 2-opt and Or-opt moves along neighbour lists with don't-look bits, and after that small kicks
 * that are kept when they pay (Johnson & McGeoch, The Traveling Salesman Problem: A Case Study in Local Optimization, 1997;
 * Martin, Otto & Felten 1991 for the kick, which swaps two stretches that lie behind one another).
 */
import Flatbush from 'flatbush';
import { random } from '../random';

/** Neighbours that are looked at from each place. */
const NEAR = 8;
/** Longest stretch that is moved as a whole to another place. */
const MOVED = 3;
/** Kicks for each place, in all, and places of a stretch that a kick swaps at the most. */
const KICKS = 5;
const MOST_KICKS = 10_000;
const KICKED = 50;
/** mm: less is no gain but rounding. */
const GAIN = 1e-9;

/**
 * Shortens an order of places.
 * @param xy places, x0, y0, x1, y1 …
 * @param order all of them by their number: an open way that begins at its first and ends anywhere, or a round
 * @param how with kicks it takes several times as long, and is some 4 % shorter
 * @returns another order that is no longer; the same for the same input
 */
export function shortened(
  xy: Float64Array,
  order: Int32Array,
  { isRound = false, isKicked = true }: { readonly isRound?: boolean; readonly isKicked?: boolean } = {},
): Int32Array {
  if (order.length < (isRound ? 5 : 4)) return order;
  const tour = new Tour(xy, isRound ? order : withEnd(order));
  tour.improve();
  if (isKicked) tour.kick(Math.min(MOST_KICKS, KICKS * order.length));
  return isRound ? tour.from(order[0]) : withoutEnd(tour.from(order[0]), order.length);
}

/** Places behind one another, mm. */
export function tourLength(xy: Float64Array, order: ArrayLike<number>, isRound = false): number {
  let length = 0;
  for (let i = isRound ? 0 : 1; i < order.length; i++) {
    const [a, b] = [order[(i + order.length - 1) % order.length], order[i]];
    length += Math.hypot(xy[2 * a] - xy[2 * b], xy[2 * a + 1] - xy[2 * b + 1]);
  }
  return length;
}

/** An open way is a round over a place that is near to all and stays beside the first. */
function withEnd(order: Int32Array): Int32Array {
  const round = new Int32Array(order.length + 1);
  round.set(order);
  round[order.length] = order.length;
  return round;
}

/** Whichever way round it came out, the end lies behind the last. */
function withoutEnd(round: Int32Array, end: number): Int32Array {
  if (round[round.length - 1] === end) return round.subarray(0, -1);
  const back = Int32Array.from(round.subarray(2)).reverse();
  const out = new Int32Array(round.length - 1);
  out[0] = round[0];
  out.set(back, 1);
  return out;
}

/** A round, as an array of places and where each place is in it. */
class Tour {
  private readonly n: number;
  private readonly places: Int32Array;
  private readonly at: Int32Array;
  private readonly near: Int32Array;
  private readonly first: number;
  /** Places that are still to be looked at. */
  private readonly open: Int32Array;
  private openFrom = 0;
  private openCount = 0;
  private readonly isOpen: Uint8Array;
  /** Turns made since the last kick, as pairs of positions: each undoes itself. */
  private made: number[] = [];

  constructor(
    private readonly xy: Float64Array,
    order: Int32Array,
  ) {
    this.n = order.length;
    this.first = order[0];
    this.places = Int32Array.from(order);
    this.at = new Int32Array(this.n);
    order.forEach((place, i) => (this.at[place] = i));
    this.near = nearestOf(xy);
    this.open = new Int32Array(this.n);
    this.isOpen = new Uint8Array(this.n);
  }

  /** The round, beginning at a place. */
  from(first: number): Int32Array {
    const out = new Int32Array(this.n);
    for (let i = 0, k = this.at[first]; i < this.n; i++, k = k + 1 === this.n ? 0 : k + 1)
      out[i] = this.places[k];
    return out;
  }

  improve(): void {
    for (const place of this.places) this.look(place);
    this.settle();
  }

  /** Swaps two stretches somewhere, sees where that leads, and goes back when it is no gain. */
  kick(times: number): void {
    const next = random(1);
    const longest = Math.min(KICKED, Math.floor(this.n / 4));
    if (longest < 1) return;
    for (let k = 0; k < times; k++) {
      this.made = [];
      const gain = this.swap(
        Math.floor(next() * this.n),
        1 + Math.floor(next() * longest),
        1 + Math.floor(next() * longest),
      );
      if (gain + this.settle() > GAIN) continue;
      this.undo();
    }
  }

  private undo(): void {
    const turns = this.made;
    for (let i = turns.length - 2; i >= 0; i -= 2) this.turn(turns[i], turns[i + 1]);
  }

  /** Stretches of two lengths behind a position change places. @returns how much shorter it is then */
  private swap(from: number, first: number, second: number): number {
    const place = (i: number): number => this.places[(from + i) % this.n];
    const [a, b, c, d, e, f] = [0, 1, first, first + 1, first + second, first + second + 1].map(place);
    this.turn(from + 1, first + second);
    this.turn(from + 1, second);
    this.turn(from + 1 + second, first);
    for (const one of [a, b, c, d, e, f]) this.look(one);
    return this.d(a, b) + this.d(c, d) + this.d(e, f) - this.d(a, d) - this.d(e, b) - this.d(c, f);
  }

  private look(place: number): void {
    if (this.isOpen[place]) return;
    this.isOpen[place] = 1;
    this.open[(this.openFrom + this.openCount++) % this.n] = place;
  }

  /** Until no place has a move that pays. @returns how much shorter it became */
  private settle(): number {
    let gained = 0;
    while (this.openCount > 0) {
      const place = this.open[this.openFrom];
      this.openFrom = (this.openFrom + 1) % this.n;
      this.openCount--;
      this.isOpen[place] = 0;
      for (let gain = this.better(place); gain > 0; gain = this.better(place)) gained += gain;
    }
    return gained;
  }

  private better(place: number): number {
    return this.crossed(place) || this.moved(place);
  }

  /** 2-opt: two ways are exchanged, and what lies between is gone through the other way round. */
  private crossed(a: number): number {
    for (const isOn of [true, false]) {
      const b = isOn ? this.after(a) : this.before(a);
      const ab = this.d(a, b);
      for (let k = NEAR * a; k < NEAR * a + NEAR; k++) {
        const c = this.near[k];
        if (c < 0) break;
        const ac = this.d(a, c);
        if (ac >= ab) break;
        const e = isOn ? this.after(c) : this.before(c);
        const gain = ab + this.d(c, e) - ac - this.d(b, e);
        if (gain <= GAIN || c === b || e === a) continue;
        if (isOn) this.turnPath(b, c);
        else this.turnPath(c, b);
        for (const one of [a, b, c, e]) this.look(one);
        return gain;
      }
    }
    return 0;
  }

  /** Or-opt: a short stretch that begins at a place goes beside a neighbour of that place, either way round. */
  private moved(s: number): number {
    for (const isOn of [true, false]) {
      const p = isOn ? this.before(s) : this.after(s);
      let t = s;
      for (let length = 1; length <= MOVED; length++, t = isOn ? this.after(t) : this.before(t)) {
        const q = isOn ? this.after(t) : this.before(t);
        if (q === p) return 0;
        const freed = this.d(p, s) + this.d(t, q) - this.d(p, q);
        if (freed <= GAIN) continue;
        for (let k = NEAR * s; k < NEAR * s + NEAR; k++) {
          const c = this.near[k];
          if (c < 0) break;
          const sc = this.d(s, c);
          if (sc >= freed) break;
          if (this.isWithin(c, s, t, isOn)) continue;
          for (const e of [this.after(c), this.before(c)]) {
            // where it was
            if (this.isWithin(e, s, t, isOn)) continue;
            const gain = freed + this.d(c, e) - sc - this.d(t, e);
            if (gain <= GAIN) continue;
            this.move(p, s, t, q, c, e);
            return gain;
          }
        }
      }
    }
    return 0;
  }

  /** Whether a place is one of the few of a stretch. */
  private isWithin(place: number, s: number, t: number, isOn: boolean): boolean {
    for (let one = s; ; one = isOn ? this.after(one) : this.before(one)) {
      if (one === place) return true;
      if (one === t) return false;
    }
  }

  /** The stretch from s to t leaves p and q and comes to lie between c and e, s beside c. */
  private move(p: number, s: number, t: number, q: number, c: number, e: number): void {
    const { n, at, places } = this;
    const isOn = this.after(p) === s;
    const from = at[isOn ? s : t];
    const to = at[isOn ? t : s];
    const length = ((to - from + n) % n) + 1;
    const gap = this.after(c) === e ? at[c] : at[e];
    const [ahead, behind] = [(gap - to + n) % n, (from - gap - 1 + n) % n];
    // what lies between is turned with the stretch, and back: the stretch has changed sides with it
    let now: number;
    if (ahead <= behind) {
      this.turn(from, length + ahead);
      this.turn(from, ahead);
      now = (from + ahead) % n;
    } else {
      this.turn(gap + 1, behind + length);
      this.turn(gap + 1 + length, behind);
      now = (gap + 1) % n;
    }
    const isBeside = places[(now + n - 1) % n] === c ? places[now] === s : places[now] === t;
    if (!isBeside) this.turn(now, length);
    for (const one of [p, s, t, q, c, e]) this.look(one);
  }

  /** What lies from one place on to another is gone through the other way round; of the round the shorter part is turned. */
  private turnPath(first: number, last: number): void {
    const { n, at } = this;
    const length = ((at[last] - at[first] + n) % n) + 1;
    if (2 * length <= n) this.turn(at[first], length);
    else this.turn(at[last] + 1, n - length);
  }

  /** So many positions from one on, the other way round. Made again it is undone. */
  private turn(from: number, length: number): void {
    const { n, places, at } = this;
    this.made.push(from, length);
    let i = from % n;
    let j = (from + length - 1) % n;
    for (let k = length >> 1; k > 0; k--) {
      const [a, b] = [places[i], places[j]];
      places[i] = b;
      places[j] = a;
      at[b] = i;
      at[a] = j;
      i = i + 1 === n ? 0 : i + 1;
      j = j === 0 ? n - 1 : j - 1;
    }
  }

  private after(place: number): number {
    const i = this.at[place] + 1;
    return this.places[i === this.n ? 0 : i];
  }
  private before(place: number): number {
    const i = this.at[place];
    return this.places[i === 0 ? this.n - 1 : i - 1];
  }

  /** mm; the end of an open way is near to all, and never leaves the first. */
  private d(a: number, b: number): number {
    const { xy } = this;
    if (2 * a === xy.length || 2 * b === xy.length) return a === this.first || b === this.first ? -STUCK : 0;
    const dx = xy[2 * a] - xy[2 * b];
    const dy = xy[2 * a + 1] - xy[2 * b + 1];
    return Math.sqrt(dx * dx + dy * dy);
  }
}

/** More than there is between any two places, mm. */
const STUCK = 1e6;

/** The nearest places of each, nearest first; −1 where there are no more. */
function nearestOf(xy: Float64Array): Int32Array {
  const n = xy.length / 2;
  const index = new Flatbush(n);
  for (let i = 0; i < n; i++) index.add(xy[2 * i], xy[2 * i + 1], xy[2 * i], xy[2 * i + 1]);
  index.finish();
  // one more: the end of an open way has none
  const near = new Int32Array((n + 1) * NEAR).fill(-1);
  for (let i = 0; i < n; i++) {
    let k = NEAR * i;
    for (const other of index.neighbors(xy[2 * i], xy[2 * i + 1], NEAR + 1))
      if (other !== i && k < NEAR * i + NEAR) near[k++] = other;
  }
  return near;
}
