/** What fixes do to the colours once they are separated: thin stems grow to what the film holds, islands go. */
import type { Fix } from '../findings/finding';
import { isFixed, PLACE_FIXES } from '../artwork/choices';
import { narrowPlaces } from '../geometry/narrow';
import { boundsTouch } from '../geometry/bounds';
import type { Bounds } from '../geometry/bounds';
import { componentsOf } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import {
  difference,
  dropSlivers,
  intersection,
  letOut,
  regionArea,
  regionBounds,
  strokeOutline,
  weld,
} from '../geometry/region';
import { limitsOf } from './film';
import type { ColourPlan } from './colourPlan';

type Size = { readonly width: number; readonly height: number };

/** Names a place on a film in fractions of the sign, so that it stays the same place when the sign changes size. */
export function placeRef(filmId: string, where: Bounds, { width, height }: Size): string {
  const u = (where.minX + where.maxX) / 2 / Math.max(width, 1e-9);
  const v = (where.minY + where.maxY) / 2 / Math.max(height, 1e-9);
  return `${filmId}@${u.toFixed(4)},${v.toFixed(4)}`;
}

/** The colours with what `thicken` and `island` fixes ask for; films that no fix names are left as they are. */
export function mend(colours: readonly ColourPlan[], fixes: readonly Fix[], size: Size): ColourPlan[] {
  const places = fixes.filter(({ kind }) => PLACE_FIXES.has(kind));
  if (places.length === 0) return [...colours];
  const films = new Set(colours.flatMap((c) => (c.goesTo === 'film' && c.film ? [c.film.id] : [])));
  let now = [...colours];
  for (const id of films) {
    const named = places.filter(({ at }) => at === '*' || at.startsWith(`${id}@`));
    if (named.length > 0) now = mendFilm(now, id, named, size);
  }
  return now;
}

function mendFilm(colours: ColourPlan[], filmId: string, fixes: readonly Fix[], size: Size): ColourPlan[] {
  const own = colours.filter((c) => c.goesTo === 'film' && c.film?.id === filmId);
  const { narrowest, island } = limitsOf(own[0].film!);
  const region = weld(own.flatMap((c) => c.region));
  const spines = narrowPlaces(region, narrowest)
    .filter((place) => isFixed(fixes, 'thicken', placeRef(filmId, place.where, size)))
    .flatMap((place) => place.spines);
  const lines = spines.map((points) => ({ points, closed: false }));
  const style = { join: 'round', cap: 'round', miterLimit: 4 } as const;
  // a little over the limit: the check must not find again what was mended
  const grown = lines.length === 0 ? [] : weld(strokeOutline(lines, narrowest * 1.02, style));
  const dropped = componentsOf(region)
    .filter((shape) => regionArea(shape) < island)
    .filter((shape) => isFixed(fixes, 'island', placeRef(filmId, regionBounds(shape), size)));
  return dropped.reduce((now, shape) => giveBack(now, filmId, shape), addTo(colours, filmId, grown));
}

/** Grows a film's nearest colour by a region; every other film gives way, so that films still lie edge to edge. */
function addTo(colours: ColourPlan[], filmId: string, grown: Region): ColourPlan[] {
  if (grown.length === 0) return colours;
  const touched = new Set<string>();
  return colours.map((colour) => {
    if (!touches(colour.region, grown)) return colour;
    if (colour.film?.id !== filmId) return withRegion(colour, difference(colour.region, grown));
    touched.add(colour.colour);
    return withRegion(colour, weld([...colour.region, ...(touched.size === 1 ? grown : [])]));
  });
}

/** Takes an island out of its film and gives it to the film that lies around most of it, or to none. */
function giveBack(colours: ColourPlan[], filmId: string, island: Region): ColourPlan[] {
  const rim = weld(strokeOutline([{ points: island[0], closed: true }], RIM, ROUND));
  let heir: ColourPlan | undefined;
  let most = 0;
  for (const colour of colours) {
    if (colour.film?.id === filmId || !touches(colour.region, rim)) continue;
    const shared = regionArea(intersection(colour.region, rim));
    if (shared > most) [heir, most] = [colour, shared];
  }
  return colours.map((colour) => {
    if (colour.film?.id === filmId) {
      return touches(colour.region, island) ? withRegion(colour, difference(colour.region, island)) : colour;
    }
    return colour === heir
      ? withRegion(colour, weld([...colour.region, ...letOut(island, ROUNDING)]))
      : colour;
  });
}

/** How far around an island its neighbours are looked for, and more than rounding can part outlines, mm. */
const RIM = 0.2;
const ROUNDING = 0.002;
const ROUND = { join: 'round', cap: 'round', miterLimit: 4 } as const;

const touches = (a: Region, b: Region): boolean => boundsTouch(regionBounds(a), regionBounds(b));

function withRegion(colour: ColourPlan, changed: Region): ColourPlan {
  const region = dropSlivers(changed);
  return { ...colour, region, area: regionArea(region) };
}
