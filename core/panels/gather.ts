/** What of the art belongs together: letters, words and lines of text, shapes that lie on one another. */
import type { PreparedLine, PreparedShape } from '../artwork/preparePiece';
import type { FilmLayer } from '../films/separate';
import type { Bounds } from '../geometry/bounds';
import { emptyBounds, heightOf, joinBounds, outset, sharedBounds, widthOf } from '../geometry/bounds';
import { indexOfBoxes } from '../geometry/boxes';
import { largest } from '../geometry/lists';
import { componentsOf, liesOn } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { regionBounds } from '../geometry/region';
import type { Place } from './choices';

/** A connected area of one film, or a line on it that a tool follows. */
export interface FilmShape {
  /** The film's id. */
  readonly film: string;
  readonly region: Region;
  readonly lines: readonly PreparedLine[];
  readonly bounds: Bounds;
}

/** Shapes that belong together, and the smaller groups that they are. */
export interface Group {
  readonly level: 'line' | 'word' | 'letter' | 'shape';
  readonly bounds: Bounds;
  readonly shapes: readonly FilmShape[];
  readonly parts: readonly Group[];
}

/** A letter of typed text: where it lies, and its word and line. */
export interface TypedLetter {
  readonly bounds: Bounds;
  /** `pieceId/line/word` */
  readonly word: string;
}

/** Letters that were typed here: nobody has to guess where their words end. */
export const typedLetters = (shapes: readonly PreparedShape[]): TypedLetter[] =>
  shapes.flatMap(({ bounds, word }) => (word === undefined ? [] : [{ bounds, word }]));

/** What a person put together, or stands alone. */
export interface Gathering {
  readonly groups: readonly (readonly Place[])[];
  readonly alone: readonly Place[];
}

export const shapesOf = (layers: readonly FilmLayer[]): FilmShape[] =>
  layers.flatMap((layer) => [
    ...componentsOf(layer.marks.length > 0 ? withoutMarks(layer) : layer.region).map((region) => ({
      film: layer.film.id,
      region,
      lines: [],
      bounds: regionBounds(region),
    })),
    ...layer.lines.map((line) => ({
      film: layer.film.id,
      region: [],
      lines: [line],
      bounds: line.bounds,
    })),
  ]);

/** Layer marks line up films as wholes: they belong to nothing. */
function withoutMarks({ region, marks }: FilmLayer): Region {
  const own = new Set(marks.map(String));
  const lengths = new Set(marks.map(({ length }) => length));
  // only outlines of as many points are looked at point by point
  return region.filter((ring) => !lengths.has(ring.length) || !own.has(String(ring)));
}

/**
 * Gathers shapes into letters, letters into words and words into lines, by nearness and a common base line.
 * Cost: n log n, as long as shapes have few neighbours.
 * @param fits what does not fit by itself holds nothing together, such as a ground that all lies on
 */
export function gather(
  shapes: readonly FilmShape[],
  typed: readonly TypedLetter[],
  { groups, alone }: Gathering,
  fits: (box: Bounds) => boolean,
): Group[] {
  const single = shapes.map((shape): Group => ({
    level: 'shape',
    bounds: shape.bounds,
    shapes: [shape],
    parts: [],
  }));
  const small = single.filter(({ bounds }) => fits(bounds));
  const large = single.filter(({ bounds }) => !fits(bounds));
  const letters = joined(small, 'letter', (box) => box, isOneLetter);
  const { put, free } = putTogether(letters, groups);
  const isAlone = ({ shapes: own }: Group): boolean =>
    alone.some((place) => own.some((shape) => isOn(shape, place)));
  const others = free.filter((letter) => !isAlone(letter));
  const typedAt = typedIndex(typed);
  const words = joined(others, 'word', reach(IN_WORD), nextTo(IN_WORD, typedAt), typedAt);
  const lineAt = (group: Group): string | undefined =>
    typedAt(group.parts[0] ?? group)?.replace(/\/\d+$/, '');
  const lines = joined(words, 'line', reach(IN_LINE), nextTo(IN_LINE, lineAt), lineAt);
  return [...put, ...free.filter(isAlone), ...lines, ...large];
}

const isOn = ({ region, bounds, lines }: FilmShape, { x, y }: Place): boolean =>
  x >= bounds.minX && x <= bounds.maxX && y >= bounds.minY && y <= bounds.maxY
    ? lines.length > 0 || liesOn(region, [x, y])
    : false;

/** Whether a place lies on one of a group's shapes. */
export const holds = ({ shapes }: Group, place: Place): boolean => shapes.some((shape) => isOn(shape, place));

function putTogether(
  letters: readonly Group[],
  groups: readonly (readonly Place[])[],
): { readonly put: readonly Group[]; readonly free: readonly Group[] } {
  let free = [...letters];
  const put = groups.flatMap((places) => {
    const own = free.filter((letter) => places.some((place) => holds(letter, place)));
    free = free.filter((letter) => !own.includes(letter));
    // whatever its size among the levels, it is asked for as one
    return own.length === 0 ? [] : [together(own, 'letter')];
  });
  return { put, free };
}

function together(parts: readonly Group[], level: Group['level']): Group {
  if (parts.length === 1) return parts[0];
  return {
    level,
    bounds: parts.reduce((box, { bounds }) => joinBounds(box, bounds), emptyBounds()),
    shapes: parts.flatMap(({ shapes }) => shapes),
    parts,
  };
}

/**
 * Groups of which any two are joined by a chain of pairs that belong together.
 * @param known what belongs together wherever it lies
 */
function joined(
  groups: readonly Group[],
  level: Group['level'],
  around: (box: Bounds) => Bounds,
  belong: (a: Group, b: Group) => boolean,
  known: (group: Group) => string | undefined = () => undefined,
): Group[] {
  if (groups.length === 0) return [];
  const index = indexOfBoxes(groups.map(({ bounds }) => bounds));
  const root = groups.map((_, i) => i);
  const find = (i: number): number => {
    while (root[i] !== i) i = root[i] = root[root[i]];
    return i;
  };
  const join = (a: number, b: number): void => {
    root[Math.max(a, b)] = Math.min(a, b);
  };
  const firstKnown = new Map<string, number>();
  groups.forEach((group, i) => {
    const key = known(group);
    if (key === undefined) return;
    const first = firstKnown.get(key);
    if (first === undefined) firstKnown.set(key, i);
    else join(find(first), find(i));
  });
  groups.forEach((group, i) => {
    const { minX, minY, maxX, maxY } = around(group.bounds);
    index.search(minX, minY, maxX, maxY, (k) => {
      const [a, b] = [find(i), find(k)];
      if (a !== b && belong(group, groups[k])) join(a, b);
      return false;
    });
  });
  const sets = new Map<number, Group[]>();
  groups.forEach((group, i) => {
    const set = sets.get(find(i));
    if (set) set.push(group);
    else sets.set(find(i), [group]);
  });
  return [...sets.values()].map((set) => together(set, level));
}

/** Shapes share a letter, or a picture, where at least half of the smaller one's box lies in the other's. */
function isOneLetter(a: Group, b: Group): boolean {
  const shared = sharedBounds(a.bounds, b.bounds);
  const area = (box: Bounds): number => Math.max(widthOf(box), 1e-3) * Math.max(heightOf(box), 1e-3);
  const least = Math.min(area(a.bounds), area(b.bounds));
  return shared.minX <= shared.maxX && shared.minY <= shared.maxY && area(shared) >= least / 2;
}

/** Gaps in a word and between words, in heights of letters (common practice, no source: a space is about a third). */
const IN_WORD = 0.28;
const IN_LINE = 1.1;
/** A dot or an accent is this much smaller than what it belongs to. */
const DOT = 3;

const reach =
  (gap: number) =>
  (box: Bounds): Bounds =>
    outset(box, gap * heightOf(box));

/** Side by side on a common base line, no further apart than that; a dot or an accent over or under its letter. */
function nextTo(gap: number, typed: (group: Group) => string | undefined) {
  return (a: Group, b: Group): boolean => {
    const [ofA, ofB] = [typed(a), typed(b)];
    if (ofA !== undefined || ofB !== undefined) return ofA === ofB;
    const [p, q] = [a.bounds, b.bounds];
    const [low, high] = [heightOf(p), heightOf(q)].sort((m, n) => m - n);
    const size = gap * Math.min(high, DOT * low);
    const across = Math.max(p.minX, q.minX) - Math.min(p.maxX, q.maxX);
    const down = Math.max(p.minY, q.minY) - Math.min(p.maxY, q.maxY);
    if (-down >= low / 2) return across <= size;
    return low * DOT <= high && -across >= Math.min(widthOf(p), widthOf(q)) / 2 && down <= size;
  };
}

/** The word of a typed letter that a group's middle lies on. */
function typedIndex(typed: readonly TypedLetter[]): (group: Group) => string | undefined {
  if (typed.length === 0) return () => undefined;
  const index = indexOfBoxes(typed.map(({ bounds }) => bounds));
  return ({ bounds: { minX, minY, maxX, maxY } }) => {
    const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2];
    const [found] = index.search(x, y, x, y);
    return found === undefined ? undefined : typed[found].word;
  };
}

/** Larger groups first as far as they fit, of at most that level; what fits nowhere is left. */
export function largestThatFit(
  groups: readonly Group[],
  most: Group['level'],
  fits: (box: Bounds) => boolean,
): { readonly whole: readonly Group[]; readonly rest: readonly Group[] } {
  const whole: Group[] = [];
  const rest: Group[] = [];
  const take = (group: Group): void => {
    if (LEVELS[group.level] <= LEVELS[most] && fits(group.bounds)) whole.push(group);
    else if (group.parts.length > 0) group.parts.forEach(take);
    else rest.push(group);
  };
  groups.forEach(take);
  return { whole: inReadingOrder(whole), rest };
}

const LEVELS: Readonly<Record<Group['level'], number>> = { shape: 0, letter: 1, word: 2, line: 3 };

/** Row by row, from the left: a row holds what reaches over the middle of its first. */
function inReadingOrder(groups: readonly Group[]): Group[] {
  const rows: Group[][] = [];
  for (const group of [...groups].sort((a, b) => a.bounds.minY - b.bounds.minY)) {
    const row = rows.at(-1);
    const first = row?.[0].bounds;
    if (first && group.bounds.minY < (first.minY + first.maxY) / 2) row.push(group);
    else rows.push([group]);
  }
  return rows.flatMap((row) => row.sort((a, b) => a.bounds.minX - b.bounds.minX));
}

/** Letters of words: what is kept whole where nobody says otherwise. */
export function lettersIn(groups: readonly Group[]): Group[] {
  const ofWord = ({ level, parts }: Group): Group[] => {
    if (level !== 'word') return parts.flatMap(ofWord);
    const tallest = largest(parts.map(({ bounds }) => heightOf(bounds)));
    const tall = parts.filter(({ bounds }) => heightOf(bounds) >= tallest / 2);
    return tall.length >= LEAST_LETTERS && 2 * tall.length > parts.length ? [...parts] : [];
  };
  return groups.flatMap(ofWord);
}

/** Fewer tall shapes side by side are no word. */
const LEAST_LETTERS = 3;

/** Letters, and shapes that belong to none. */
export const lettersOf = (groups: readonly Group[]): Group[] =>
  groups.flatMap((group) => (LEVELS[group.level] <= LEVELS.letter ? [group] : lettersOf(group.parts)));
