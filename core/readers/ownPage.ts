import type { Artwork, Shape } from './artwork';
import type { Finding } from '../findings/finding';
import { emptyBounds, heightOf, joinBounds, widthOf } from '../geometry/bounds';
import { pathBounds } from '../geometry/path';

/** Artwork of a file that has no page: what is drawn is the page. */
export function onOwnPage(shapes: readonly Shape[], findings: readonly Finding[]): Artwork {
  const box = shapes.reduce(
    (sum, { path, matrix }) => joinBounds(sum, pathBounds(path, matrix)),
    emptyBounds(),
  );
  return { page: { width: widthOf(box), height: heightOf(box) }, shapes, clips: [], findings };
}
