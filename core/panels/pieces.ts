/** A film's art taken apart where it comes apart by itself, to lie closer on the film: words, or letters and shapes. */
import type { FilmLayer } from '../films/separate';
import { growBounds } from '../geometry/bounds';
import { regionArea, regionBounds } from '../geometry/region';
import type { TypedLetter } from './gather';
import { gather, largestThatFit, shapesOf } from './gather';
import type { Part } from './part';

/**
 * The pieces of a film in reading order, each a part. Layer marks line up films as wholes: they are left out.
 * @param typed letters whose words are known
 */
export function piecesOf(
  layer: FilmLayer,
  as: 'word' | 'piece',
  typed: readonly TypedLetter[],
): readonly Part[] {
  const { film, copies } = layer;
  const groups = gather(shapesOf([layer]), typed, { groups: [], alone: [] }, () => true);
  const { whole } = largestThatFit(groups, as === 'word' ? 'word' : 'letter', () => true);
  return whole.map(({ shapes }, i): Part => {
    const region = shapes.flatMap((shape) => shape.region);
    const lines = shapes.flatMap((shape) => shape.lines);
    const bounds = lines.reduce((box, { points }) => growBounds(box, points), regionBounds(region));
    return {
      id: `${film.id}~${i + 1}`,
      film,
      label: `piece ${i + 1} of ${film.name}`,
      region,
      marks: [],
      lines,
      waste: [],
      bounds,
      area: regionArea(region),
      number: i + 1,
      copies,
    };
  });
}
