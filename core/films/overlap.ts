/** How films lie under one another: whole, with a little under the edge of what covers them, or edge to edge. */
import type { PreparedShape } from '../artwork/preparePiece';
import type { Finding } from '../findings/finding';
import { boundsTouch } from '../geometry/bounds';
import type { Region } from '../geometry/region';
import {
  difference,
  dropSlivers,
  grow,
  intersection,
  letOut,
  regionArea,
  regionBounds,
  weld,
} from '../geometry/region';
import type { Film } from './film';

export type OverlapMode = 'full' | 'trap' | 'butt';

export interface Overlap {
  readonly mode: OverlapMode;
  /** mm that a film goes on under what covers it; counts for `trap` */
  readonly by: number;
}

/** How a film behaves under another: what it is made of decides. */
export type Build = 'opaque' | 'metallic' | 'translucent' | 'flock';

/** A film's build; where it is not said, that of its kind. */
export const buildOf = (film: Film): Build => film.build ?? (film.kind === 'garment' ? 'flock' : 'opaque');

/** Sensible to begin with (common practice, no source): see-through film and flock never lie under another. */
const ORDINARY: Readonly<Record<Build, Overlap>> = {
  opaque: { mode: 'trap', by: 0.8 },
  metallic: { mode: 'trap', by: 0.5 },
  translucent: { mode: 'butt', by: 0 },
  flock: { mode: 'butt', by: 0 },
};

/** Films that may lie on one another at one place, by the build of the lowest (common practice, no source). */
const MOST_STACKED: Readonly<Record<Build, number>> = { opaque: 3, metallic: 2, translucent: 1, flock: 2 };

export const overlapOf = (film: Film, chosen: Readonly<Record<string, Overlap>>): Overlap =>
  chosen[film.id] ?? ORDINARY[buildOf(film)];

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
    const reach = mode === 'trap' ? grow(region, by) : [...region, ...paintedIn(shapes, colours)];
    const above = films.slice(i + 1).flatMap((upper) => near(reach, upper.region));
    if (above.length === 0) return region;
    // let out by more than rounding, so that what goes under and what is seen stay one outline
    return dropSlivers(intersection(reach, [...region, ...letOut(above, ROUNDING)]));
  });
}

const ROUNDING = 0.002;

const paintedIn = (shapes: readonly PreparedShape[], colours: readonly string[]): Region =>
  shapes.filter((shape) => colours.includes(shape.colour)).flatMap((shape) => shape.region);

/** The rings of a region that come near another. */
function near(region: Region, other: Region): Region {
  const box = regionBounds(region);
  return boundsTouch(box, regionBounds(other)) ? other : [];
}

/** What of a film lies under others. */
export const hiddenPart = (cut: Region, seen: Region): Region => dropSlivers(difference(cut, seen));

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

/** Counts films at every place: level k holds where more than k of them lie. */
function stackFindings(
  films: readonly Layered[],
  cut: readonly Region[],
  chosen: Readonly<Record<string, Overlap>>,
): Finding[] {
  // only whole layers pile up; trapped edges are a line wide
  if (films.filter(({ film }) => overlapOf(film, chosen).mode === 'full').length < 2) return [];
  const levels: Region[] = [];
  let base = films[0];
  for (const [i, region] of cut.entries()) {
    for (let k = levels.length; k >= 0; k--) {
      const there = k === 0 ? region : intersection(levels[k - 1], region);
      if (there.length > 0) levels[k] = weld([...(levels[k] ?? []), ...there]);
    }
    if (regionArea(region) > regionArea(base.region)) base = films[i];
  }
  const limit = MOST_STACKED[buildOf(base.film)];
  const tooMany = levels[limit];
  if (!tooMany || regionArea(tooMany) < 1) return [];
  return [
    {
      code: 'stacked',
      severity: 'check',
      message: `${levels.length} films lie on one another here; on ${base.film.name} it should be no more than ${limit}.`,
      waysOut: ['Set films to lie with an edge or edge to edge under Films'],
      where: regionBounds(tooMany),
      measured: levels.length,
      limit,
      key: 'stacked',
    },
  ];
}
