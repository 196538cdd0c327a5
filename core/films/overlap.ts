/** How films lie under one another: whole, with a little under the edge of what covers them, or edge to edge. */
import { own } from '../units/own';
import type { Finding } from '../findings/finding';
import { boundsTouch } from '../geometry/bounds';
import { liesOn, componentsOf } from '../geometry/nesting';
import { append } from '../geometry/lists';
import { boxesOf } from '../geometry/boxes';
import type { Region, Ring } from '../geometry/region';
import { simplify } from '../geometry/simplify';
import type { Spot } from '../geometry/spot';
import {
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

/** What is cut of a film, and what of that lies under others (and {@link ROUNDING} past the edge of what does not). */
export interface Under {
  readonly cut: Region;
  readonly hidden: Region;
}

/**
 * What is cut of a film so that it lies under those above it as chosen; never past what covers it.
 * @param uppers what is seen of the films above it
 * @param painted what is painted in its colours, seen or not: counts for films that lie whole beneath
 */
export function layUnder(
  region: Region,
  uppers: readonly Region[],
  { mode, by }: Overlap,
  painted: Region,
): Under {
  if (mode === 'butt' || region.length === 0 || uppers.length === 0) return { cut: region, hidden: [] };
  return mode === 'trap' ? trapUnder(region, uppers, by) : wholeUnder(region, uppers, painted);
}

/** A film that lies under all that covers its colours. */
function wholeUnder(region: Region, uppers: readonly Region[], painted: Region): Under {
  const reach = [...region, ...painted];
  const box = regionBounds(reach);
  const above = uppers.flatMap((upper) => upper.filter((ring) => boundsTouch(box, ringBounds(ring))));
  return underneath(reach, region, above);
}

/** A film with what of `reach` lies under the rings above it. */
function underneath(reach: Region, region: Region, above: Region): Under {
  if (above.length === 0) return { cut: region, hidden: [] };
  // let out by more than rounding, so that what goes under and what is seen become one outline
  const hidden = dropSlivers(intersection(reach, letOut(above, ROUNDING)));
  return { cut: dropSlivers(weld([...region, ...hidden])), hidden };
}

/** A film that goes on a little under the edge of what lies beside it; shapes with nothing beside them stay as they are. */
function trapUnder(region: Region, uppers: readonly Region[], by: number): Under {
  const above = uppers.flat();
  if (above.length === 0) return { cut: region, hidden: [] };
  const index = boxesOf(above);
  const touched = new Set<number>();
  const near: Ring[] = [];
  const alone: Ring[] = [];
  for (const shape of componentsOf(region)) {
    const { minX, minY, maxX, maxY } = ringBounds(shape[0]);
    const found = index.search(minX - by, minY - by, maxX + by, maxY + by);
    for (const ring of found) touched.add(ring);
    append(found.length > 0 ? near : alone, shape);
  }
  const reach = grow(roughly(near, by * ROUGH), by);
  const { cut, hidden } = underneath(
    reach,
    near,
    [...touched].map((ring) => above[ring]),
  );
  return { cut: [...alone, ...cut], hidden };
}

const ROUNDING = 0.002;
/** How far the hidden edge of a trap may lie from where it should, as a share of the trap: nobody sees it. */
const ROUGH = 0.02;

const roughly = (region: Region, tolerance: number): Region =>
  region.map((points) => simplify({ points, closed: true }, tolerance).points);

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
