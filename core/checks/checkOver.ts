/** The check-over: everything in the prepared art that would spoil film, each with its place, measure and limit. */
import { PRINT_IT } from '../readers/waysOut';
import { lineLength } from '../geometry/path';
import { append } from '../geometry/lists';
import type { Artwork } from '../readers/artwork';
import type { Finding, Fix } from '../findings/finding';
import type { ArtworkChoices, Piece } from '../artwork/choices';
import { isFixed, sourceKey } from '../artwork/choices';
import type { PreparedArtwork } from '../artwork/prepare';
import type { PreparedLine, PreparedShape } from '../artwork/preparePiece';
import { AUTO_CLOSE } from '../artwork/preparePiece';
import { limitsOf } from '../films/film';
import { placeRef } from '../films/mend';
import type { FilmLayer, Separation } from '../films/separate';
import type { Bounds } from '../geometry/bounds';
import { emptyBounds, growBounds, joinBounds } from '../geometry/bounds';
import { regionArea, regionBounds } from '../geometry/region';
import { componentsOf } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { findCrossings } from '../geometry/crossings';
import { DOUBLE_WITHIN, findDoubles } from '../artwork/doubles';
import { narrowPlaces } from '../geometry/narrow';

/** Past this many findings of one kind the rest is told in one. */
const MOST_OF_A_KIND = 60;
/** Ends further apart than this share of an open line's length were meant to be ends. */
const MEANT_OPEN = 0.2;
/** Fewer points than this that lie too close together are no trouble for any machine. */
const FEW_NODES = 24;

/** A check-over on its way: yields its share done, 0 … 1, after each step; gives what was found. */
export type CheckSteps = Generator<number, Finding[], void>;

/**
 * Checks the sign over, in steps, so that whoever runs it can show how far it is, or give it up.
 * @param step the machine's step in mm, when a cutter is chosen
 */
export function* checkOver(
  artworks: ReadonlyMap<string, Artwork>,
  choices: Omit<ArtworkChoices, 'ignored'>,
  prepared: PreparedArtwork,
  separation: Separation,
  step: number | undefined,
): CheckSteps {
  const { films } = separation;
  const shapes = cutShapes(prepared, separation);
  const tasks: readonly (() => Finding[])[] = [
    () => paintFindings(artworks, choices, boundsByRef(shapes)),
    ...lineTasks(films),
    ...films.flatMap((film) => filmTasks(film, prepared)),
    () => (step === undefined ? [] : nodeFindings(shapes, step)),
  ];
  const found: Finding[] = [];
  for (const [done, task] of tasks.entries()) {
    append(found, task());
    yield (done + 1) / tasks.length;
  }
  return found;
}

/** Runs a check-over to its end. */
export function atOnce(steps: CheckSteps): Finding[] {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

type Size = Pick<PreparedArtwork, 'width' | 'height'>;

/** Nothing is found in what is not cut: shapes of colours that go to print or to nothing. */
function cutShapes({ shapes }: PreparedArtwork, { colours }: Separation): readonly PreparedShape[] {
  const left = new Set(colours.flatMap(({ colour, goesTo }) => (goesTo === 'film' ? [] : [colour])));
  return left.size === 0 ? shapes : shapes.filter(({ colour }) => !left.has(colour));
}

function boundsByRef(shapes: readonly PreparedShape[]): Map<string, Bounds> {
  const out = new Map<string, Bounds>();
  for (const { ref, bounds } of shapes) {
    const known = out.get(ref);
    out.set(ref, known ? joinBounds(known, bounds) : bounds);
  }
  return out;
}

/** The first so many of a kind, and one that stands for the rest. */
function capped(findings: readonly Finding[], rest: (more: number) => string): Finding[] {
  if (findings.length <= MOST_OF_A_KIND) return [...findings];
  const [first] = findings;
  const more = findings.length - MOST_OF_A_KIND;
  const { code, severity } = first;
  const fixes = first.fixes?.map((fix) => ({ ...fix, at: '*' }));
  return [
    ...findings.slice(0, MOST_OF_A_KIND),
    { code, severity, message: rest(more), key: `${code} and more`, fixes },
  ];
}

const mm = (value: number): string => `${value.toFixed(value < 10 ? 2 : 1)} mm`;

function paintFindings(
  artworks: ReadonlyMap<string, Artwork>,
  { pieces, fixes }: Omit<ArtworkChoices, 'ignored'>,
  places: ReadonlyMap<string, Bounds>,
): Finding[] {
  const found: Record<'gradient' | 'translucent', Finding[]> = { gradient: [], translucent: [] };
  for (const piece of pieces) {
    artworks.get(sourceKey(piece.source))?.shapes.forEach(({ look, colour }, index) => {
      const ref = `${piece.id}/${index}`;
      if (!look || !places.has(ref) || isFixed(fixes, 'flat', ref) || isFixed(fixes, 'print', ref)) return;
      found[look].push(paintFinding(look, colour, piece, ref, places.get(ref)!));
    });
  }
  return [
    ...capped(found.gradient, (n) => `${n} more shapes with a colour gradient.`),
    ...capped(found.translucent, (n) => `${n} more shapes that are see-through.`),
  ];
}

function paintFinding(
  look: 'gradient' | 'translucent',
  colour: string,
  piece: Piece,
  ref: string,
  where: Bounds,
): Finding {
  const message =
    look === 'gradient'
      ? `A colour gradient in ${piece.name}: film has one colour, so it is cut in its mean, ${colour}.`
      : `A see-through shape in ${piece.name}: on film it is cut in its full colour, ${colour}.`;
  return {
    code: look,
    severity: 'check',
    message,
    waysOut: ['Take the one colour', 'Leave the shape uncut', PRINT_IT],
    where,
    key: `${look} ${ref}`,
    fixes: [
      { kind: 'flat', at: ref },
      { kind: 'print', at: ref },
    ],
  };
}

const CUTTING = new Set(['kiss', 'through']);

function lineTasks(films: readonly FilmLayer[]): (() => Finding[])[] {
  const all = films.flatMap(({ lines }) => lines);
  const cut = all.filter((line) => CUTTING.has(line.kind));
  return [
    () => capped(openFindings(cut), (n) => `${n} more lines are open.`),
    () => capped(films.flatMap(doubleFindings), (n) => `${n} more lines lie on one another.`),
    () => capped(films.flatMap(crossingFindings), (n) => `${n} more outlines cross.`),
    () => capped(hairlineFindings(all), (n) => `${n} more hairlines.`),
  ];
}

function openFindings(lines: readonly PreparedLine[]): Finding[] {
  return lines.flatMap((line) => {
    const { points, closed, ref } = line;
    const n = points.length;
    if (closed || n < 6) return [];
    const gap = Math.hypot(points[n - 2] - points[0], points[n - 1] - points[1]);
    if (gap > MEANT_OPEN * lineLength(line)) return [];
    const where = growBounds(emptyBounds(), [points[0], points[1], points[n - 2], points[n - 1]]);
    return [
      {
        code: 'open-line',
        severity: 'check' as const,
        message: `An outline is open by ${mm(gap)}: what lies in it will not come free.`,
        waysOut: ['Close it with a straight line'],
        where,
        measured: gap,
        limit: AUTO_CLOSE,
        key: `open-line ${ref}`,
        fixes: [{ kind: 'close' as const, at: ref }],
      },
    ];
  });
}

function doubleFindings({ lines, film }: FilmLayer): Finding[] {
  return findDoubles(lines).map(({ line, length, whole, where }) => ({
    code: 'double',
    severity: 'check',
    message: whole
      ? `A line of ${mm(length)} lies on another in ${film.name}: it would be cut twice.`
      : `${mm(length)} of a line lies on another in ${film.name}: that much would be cut twice.`,
    waysOut: ['Remove the double'],
    where,
    measured: length,
    limit: DOUBLE_WITHIN,
    key: `double ${lines[line].ref}`,
    fixes: [{ kind: 'double', at: lines[line].ref }],
  }));
}

function crossingFindings({ lines, film }: FilmLayer): Finding[] {
  const kiss = lines.filter((line) => line.kind === 'kiss' && line.closed);
  return findCrossings(kiss).map(({ a, b, at }) => {
    const [first, second] = [kiss[a].ref, kiss[b].ref];
    const fixes: Fix[] = [...new Set([first, second])].map((ref) => ({ kind: 'weld', at: ref }));
    return {
      code: first === second ? 'self-crossing' : 'not-welded',
      severity: 'check' as const,
      message:
        first === second
          ? `An outline in ${film.name} crosses itself: the knife would cut through the shape.`
          : `Two outlines in ${film.name} overlap: the knife would cut through both.`,
      waysOut: ['Weld what they enclose'],
      where: growBounds(emptyBounds(), at),
      key: `weld ${first} ${second}`,
      fixes,
    };
  });
}

function hairlineFindings(lines: readonly PreparedLine[]): Finding[] {
  const seen = new Map<string, PreparedLine>();
  for (const line of lines) if (line.hairline && !seen.has(line.ref)) seen.set(line.ref, line);
  return [...seen.values()].map((line) => ({
    code: 'hairline',
    severity: 'note',
    message: 'A line without a width to speak of: it is cut along its middle, once.',
    waysOut: ['Give it a width and cut around it'],
    where: line.bounds,
    key: `hairline ${line.ref}`,
    fixes: [{ kind: 'outline', at: line.ref }],
  }));
}

function filmTasks(layer: FilmLayer, size: Size): (() => Finding[])[] {
  const { name } = layer.film;
  return [
    () => capped(narrowFindings(layer, size), (n) => `${n} more stems in ${name} are too thin to weed.`),
    () => capped(gapFindings(layer, size), (n) => `${n} more gaps in ${name} are too narrow.`),
    () =>
      capped(islandFindings(layer, size), (n) => `${n} more loose shapes of ${name} are too small to hold.`),
  ];
}

// what goes under other films and layer marks is held by what lies around it: only what is seen is measured

function narrowFindings({ film, seen }: FilmLayer, size: Size): Finding[] {
  const { narrowest } = limitsOf(film);
  return narrowPlaces(seen, narrowest).map(({ width, where }) => ({
    code: 'narrow',
    severity: 'check',
    message: `A stem is ${mm(width)} wide; ${film.name} weeds down to ${mm(narrowest)}.`,
    waysOut: ['Thicken it to the limit', 'Pick a film that holds finer parts'],
    where,
    measured: width,
    limit: narrowest,
    key: `narrow ${placeRef(film.id, where, size)}`,
    fixes: [{ kind: 'thicken', at: placeRef(film.id, where, size) }],
  }));
}

function gapFindings({ film, seen }: FilmLayer, size: Size): Finding[] {
  const { gap } = limitsOf(film);
  return narrowPlaces(seen, gap, 'outside').map(({ width, where }) => ({
    code: 'gap',
    severity: 'check',
    message: `A gap is ${mm(width)} wide; the strip between two cuts in ${film.name} tears below ${mm(gap)}.`,
    waysOut: ['Move the shapes apart or let them touch in the drawing'],
    where,
    measured: width,
    limit: gap,
    key: `gap ${placeRef(film.id, where, size)}`,
  }));
}

function islandFindings({ film, seen }: FilmLayer, size: Size): Finding[] {
  const { island } = limitsOf(film);
  return islandsIn(seen, island).map((piece) => {
    const where = regionBounds(piece);
    const area = regionArea(piece);
    return {
      code: 'island',
      severity: 'check',
      message: `A loose shape of ${area.toFixed(2)} mm²; ${film.name} holds shapes from ${island} mm².`,
      waysOut: ['Leave the shape out'],
      where,
      measured: area,
      limit: island,
      key: `island ${placeRef(film.id, where, size)}`,
      fixes: [{ kind: 'island', at: placeRef(film.id, where, size) }],
    };
  });
}

function islandsIn(region: Region, limit: number): Region[] {
  const small = region.filter((ring) => {
    const area = regionArea([ring]);
    return area > 0 && area < limit * 4;
  });
  if (small.length === 0) return [];
  return componentsOf(region).filter((shape) => regionArea(shape) < limit);
}

function nodeFindings(shapes: readonly PreparedShape[], step: number): Finding[] {
  const found = shapes.flatMap(({ region, bounds, ref }): Finding[] => {
    const count = shortSteps(region, step);
    if (count < FEW_NODES) return [];
    return [
      {
        code: 'crowded-nodes',
        severity: 'note',
        message: `${count} points of a shape lie closer together than the machine's step of ${step} mm: the cutter slows down for nothing.`,
        waysOut: ['Simplify the outline'],
        where: bounds,
        measured: count,
        limit: FEW_NODES,
        key: `crowded-nodes ${ref}`,
        fixes: [{ kind: 'simplify', at: ref }],
      },
    ];
  });
  return capped(found, (n) => `${n} more shapes with crowded points.`);
}

function shortSteps(region: Region, step: number): number {
  let count = 0;
  for (const ring of region) {
    const n = ring.length;
    for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
      if (
        Math.abs(ring[i] - ring[j]) < step &&
        Math.hypot(ring[i] - ring[j], ring[i + 1] - ring[j + 1]) < step
      )
        count++;
    }
  }
  return count;
}
