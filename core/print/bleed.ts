/** Colour past the cut line, so that no white shows beside it when the cut lies a little off. */
import { append } from '../geometry/lists';
import type { ShownPicture } from '../artwork/preparePiece';
import type { Region } from '../geometry/region';
import { difference, grow, intersection, regionArea, weld } from '../geometry/region';

/** An area of one colour. */
export interface ColourArea {
  /** `#rrggbb` */
  readonly colour: string;
  readonly region: Region;
  /** What is seen in it: as art the picture, as bleed what its edges grow into ({@link grownPicture}). */
  readonly picture?: ShownPicture;
}

/** Colours grow by so much in one go, mm: where two meet, the border lies about as far off the middle. */
const STEP = 0.25;
/** No bleed is wider than this many steps: gaps between pieces that one line goes around are filled too. */
const MOST_STEPS = 400;
/** It goes on under the art by so much, mm: where two colours only meet, a renderer shows a pale line between them. */
const UNDER = 0.1;
/** What is left to fill is nothing, mm². */
const NOTHING = 0.01;

/**
 * Grows the outermost colours of the art to `bleed` mm past the cut line, each from its own edge on; where two meet, they
 * share what lies between them.
 * @param seen what is seen of each colour; none overlaps another
 * @param inside the area inside the cut line
 * @returns what is printed before the art, and a little way under it; none where the art reaches that far itself
 */
export function bleedOf(seen: readonly ColourArea[], inside: Region, bleed: number): ColourArea[] {
  const art = weld(seen.flatMap(({ region }) => region));
  const reach = bleed > 0 ? grow(inside, bleed) : inside;
  let free = difference(reach, art);
  const grown = seen.map(() => [] as Float64Array[]);
  let edges = seen.map(({ region }) => region);
  const order = seen.map((_, i) => i);
  const backwards = [...order].reverse();
  for (let step = 0; step < MOST_STEPS && regionArea(free) > NOTHING; step++) {
    const before = regionArea(free);
    const next: Region[] = seen.map(() => []);
    // whose turn comes first takes what both reach: in turn, so that no border leans to one side
    for (const i of step % 2 === 0 ? order : backwards) {
      if (edges[i].length === 0) continue;
      const taken = intersection(grow(edges[i], STEP), free);
      if (taken.length === 0) continue;
      free = difference(free, taken);
      append(grown[i], taken);
      next[i] = taken;
    }
    edges = next;
    // what no colour reaches, such as an island of the line with no art in it, stays white
    if (before - regionArea(free) < NOTHING / 10) break;
  }
  return grown.flatMap((rings, i) =>
    rings.length === 0 ? [] : [{ ...seen[i], region: intersection(grow(weld(rings), UNDER), reach) }],
  );
}
