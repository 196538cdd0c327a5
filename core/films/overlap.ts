/** How films lie under one another: whole, with a little under the edge of what covers them, or edge to edge. */
import { own } from '../units/own';
import type { PreparedShape } from '../artwork/preparePiece';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { boundsTouch } from '../geometry/bounds';
import { liesOn } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { simplify } from '../geometry/simplify';
import type { Spot } from '../geometry/spot';
import {
  difference,
  dropSlivers,
  grow,
  intersection,
  letOut,
  regionArea,
  regionBounds,
  ringBounds,
  weld,
} from '../geometry/region';
import type { Build, Film } from './film';
import { buildOf, limitsOf } from './film';

export type OverlapMode = 'full' | 'trap' | 'butt';

export interface Overlap {
  readonly mode: OverlapMode;
  /** mm that a film goes on under what covers it; counts for `trap` */
  readonly by: number;
}

/** Sensible to begin with (common practice, no source): see-through film and flock never lie under another. */
const ORDINARY: Readonly<Record<Build, Overlap>> = {
  opaque: { mode: 'trap', by: 0.8 },
  metallic: { mode: 'trap', by: 0.5 },
  translucent: { mode: 'butt', by: 0 },
  flock: { mode: 'butt', by: 0 },
};

export const overlapOf = (film: Film, chosen: Readonly<Record<string, Overlap>>): Overlap =>
  own(chosen, film.id) ?? ORDINARY[buildOf(film)];

/** One film of the pile, base first. */
export interface Layered {
  readonly film: Film;
  /** What is seen of it. */
  readonly region: Region;
  /** Colours of the artwork that it stands for. */
  readonly colours: readonly string[];
}

/**
 * What is cut of each film so that it lies under those above it as chosen; never past what covers it.
 * @param shapes all that is painted, for films that lie whole beneath
 */
export function withOverlaps(
  films: readonly Layered[],
  chosen: Readonly<Record<string, Overlap>>,
  shapes: readonly PreparedShape[],
): Region[] {
  return films.map(({ film, region, colours }, i) => {
    const { mode, by } = overlapOf(film, chosen);
    if (mode === 'butt' || region.length === 0) return region;
    const uppers = films.slice(i + 1).map((upper) => upper.region);
    if (uppers.length === 0) return region;
    const before = mode === 'trap' ? trapped.get(region) : undefined;
    if (before?.by === by && isSameList(before.uppers, uppers)) return before.cut;
    const reach =
      mode === 'trap' ? grow(roughly(region, by * ROUGH), by) : [...region, ...paintedIn(shapes, colours)];
    const box = regionBounds(reach);
    const above = uppers.flatMap((upper) => ringsIn(box, upper));
    if (above.length === 0) return region;
    // let out by more than rounding, so that what goes under and what is seen stay one outline
    const cut = dropSlivers(intersection(reach, [...region, ...letOut(above, ROUNDING)]));
    if (mode === 'trap') trapped.set(region, { by, uppers, cut });
    return cut;
  });
}

/** The last trap of each region: another film on one colour leaves all the outlines, and so all the traps, as they are. */
const trapped = new WeakMap<Region, { by: number; uppers: readonly Region[]; cut: Region }>();

const isSameList = (a: readonly Region[], b: readonly Region[]): boolean =>
  a.length === b.length && a.every((region, i) => region === b[i]);

const ROUNDING = 0.002;
/** How far the hidden edge of a trap may lie from where it should, as a share of the trap: nobody sees it. */
const ROUGH = 0.02;

const roughly = (region: Region, tolerance: number): Region =>
  region.map((points) => simplify({ points, closed: true }, tolerance).points);

const paintedIn = (shapes: readonly PreparedShape[], colours: readonly string[]): Region =>
  shapes.filter((shape) => colours.includes(shape.colour)).flatMap((shape) => shape.region);

/** The rings of a region that reach into a box: those left out make no difference inside it. */
const ringsIn = (box: Bounds, region: Region): Region =>
  region.filter((ring) => boundsTouch(box, ringBounds(ring)));

/** What of a film lies under others. */
export function hiddenPart(cut: Region, seen: Region): Region {
  const before = hidden.get(cut);
  if (before?.seen === seen) return before.part;
  const part = dropSlivers(difference(cut, seen));
  hidden.set(cut, { seen, part });
  return part;
}

const hidden = new WeakMap<Region, { seen: Region; part: Region }>();

/** Choices that will show or lift, and places where too many films lie on one another. */
export function overlapFindings(
  films: readonly Layered[],
  cut: readonly Region[],
  chosen: Readonly<Record<string, Overlap>>,
): Finding[] {
  const findings: Finding[] = [];
  films.forEach(({ film, region }, i) => {
    const build = buildOf(film);
    const { mode } = overlapOf(film, chosen);
    if (mode === 'butt' || regionArea(cut[i]) - regionArea(region) < 1) return;
    if (build !== 'translucent' && !(build === 'flock' && mode === 'full')) return;
    findings.push({
      code: 'overlap-shows',
      severity: 'check',
      message:
        build === 'translucent'
          ? `${film.name} is see-through: where it lies under another film it shows darker.`
          : `${film.name} is flock: another film pressed on all of it lifts.`,
      waysOut: ['Set it to lie edge to edge under Films'],
      where: regionBounds(region),
      key: `overlap-shows ${film.id}`,
    });
  });
  return [...findings, ...stackFindings(films, cut, chosen)];
}

/** Places where more films lie on one than it bears, told once for each such film. */
function stackFindings(
  films: readonly Layered[],
  cut: readonly Region[],
  chosen: Readonly<Record<string, Overlap>>,
): Finding[] {
  // only whole layers pile up; trapped edges are a line wide
  const isFull = ({ film }: Layered): boolean => overlapOf(film, chosen).mode === 'full';
  if (!films.some(isFull)) return [];
  const layers = films.map((layer, i) => (isFull(layer) ? cut[i] : layer.region));
  return films.flatMap(({ film }, i): Finding[] => {
    const { stack } = limitsOf(film);
    if (films.length - i <= stack) return [];
    const levels = pileOn(layers[i], layers.slice(i + 1)).filter((level) => regionArea(level) >= 1);
    const tooMany = levels[stack - 1];
    if (!tooMany) return [];
    const most = levels.length + 1;
    return [
      {
        code: 'stacked',
        severity: 'check',
        message: `${most} films lie on one another here; on ${film.name} it should be no more than ${stack}.`,
        waysOut: ['Set films to lie with an edge or edge to edge under Films'],
        where: regionBounds(tooMany),
        measured: most,
        limit: stack,
        key: `stacked ${film.id}`,
      },
    ];
  });
}

/** Where at least k + 1 of the films above lie on a region: level k. */
function pileOn(region: Region, above: readonly Region[]): Region[] {
  const levels: Region[] = [];
  for (const upper of above) {
    const on = intersection(upper, region);
    if (on.length === 0) continue;
    for (let k = levels.length; k >= 0; k--) {
      const there = k === 0 ? on : intersection(levels[k - 1], on);
      if (there.length > 0) levels[k] = weld([...(levels[k] ?? []), ...there]);
    }
  }
  return levels;
}

/** Films whose cut covers a place, base first. */
export const pileAt = <F extends { readonly region: Region }>(films: readonly F[], at: Spot): F[] =>
  films.filter(({ region }) => liesOn(region, at));
