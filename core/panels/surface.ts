/** What a sign goes on: whether the art and its seams keep clear of doors, windows and edges. */
import type { FilmLayer } from '../films/separate';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { emptyBounds, joinBounds, sharedBounds } from '../geometry/bounds';
import { cutToBox, regionArea } from '../geometry/region';
import { formatLength } from '../units/length';
import { AXES } from './axis';
import type { KeepOut, Surface, WallPicture } from './choices';
import type { Seams } from './seams';

/** Rounding that does not count, mm and mm². */
const SLACK = 0.01;

/** Something of a surface as it lies on the sign. */
const onSign = (place: Omit<KeepOut, 'name'>, { x, y }: Surface): Bounds => ({
  minX: place.x - x,
  minY: place.y - y,
  maxX: place.x + place.width - x,
  maxY: place.y + place.height - y,
});

/** The whole surface as it lies on the sign. */
export const surfaceOnSign = (surface: Surface): Bounds => onSign({ ...surface, x: 0, y: 0 }, surface);

/**
 * What of a sign lies off its surface or on a part of it that is to be kept clear.
 * @param layers all films of the sign
 * @param taken the seams and what they go through; undefined: the sign is in one
 */
export function surfaceFindings(
  surface: Surface,
  layers: readonly Pick<FilmLayer, 'region' | 'bounds'>[],
  taken: { readonly seams: Seams; readonly box: Bounds } | undefined,
): Finding[] {
  const art = layers.reduce((all, { bounds }) => joinBounds(all, bounds), emptyBounds());
  const { width, height, x, y } = surface;
  const off = Math.max(-x - art.minX, -y - art.minY, art.maxX + x - width, art.maxY + y - height);
  return [
    ...(off > SLACK ? [offSurface(off, art)] : []),
    ...surface.keepOuts.flatMap((keepOut) => {
      const box = onSign(keepOut, surface);
      const isCovered = layers.some(({ region }) => Math.abs(regionArea(cutToBox(region, box))) > SLACK);
      // at its upper edge: its middle is where numbers of panels stand
      const shared = sharedBounds(art, box);
      const where = { ...shared, maxY: shared.minY };
      if (isCovered) return [onKeepOut(keepOut, 'art', where)];
      return taken && crosses(taken.seams, taken.box, box) ? [onKeepOut(keepOut, 'seam', where)] : [];
    }),
  ];
}

function crosses(seams: Seams, art: Bounds, box: Bounds): boolean {
  const shared = sharedBounds(art, box);
  if (shared.minX > shared.maxX || shared.minY > shared.maxY) return false;
  return AXES.some((axis) =>
    seams[axis].some((at, i) => {
      const way = seams.ways?.[axis][i];
      if (way) return passes(way, shared);
      return axis === 'upright' ? at > shared.minX && at < shared.maxX : at > shared.minY && at < shared.maxY;
    }),
  );
}

/** Whether a line goes through a box: by points along it, close enough for a door. */
function passes(way: Float64Array, { minX, minY, maxX, maxY }: Bounds): boolean {
  for (let i = 2; i < way.length; i += 2) {
    const length = Math.hypot(way[i] - way[i - 2], way[i + 1] - way[i - 1]);
    const count = Math.max(1, Math.ceil(length));
    for (let k = 0; k <= count; k++) {
      const [px, py] = [
        way[i - 2] + ((way[i] - way[i - 2]) * k) / count,
        way[i - 1] + ((way[i + 1] - way[i - 1]) * k) / count,
      ];
      if (px > minX && px < maxX && py > minY && py < maxY) return true;
    }
  }
  return false;
}

/** Where a picture lies on the surface so that its two places are as far apart as they are there, mm. */
export function placeOfPicture({ width, height, from, to, apart, at }: WallPicture): {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
} {
  const pixels = Math.hypot(to.x - from.x, to.y - from.y);
  const scale = pixels > 0 ? apart / pixels : 1;
  return { x: at.x - from.x * scale, y: at.y - from.y * scale, width: width * scale, height: height * scale };
}

const offSurface = (off: number, where: Bounds): Finding => ({
  code: 'off-surface',
  severity: 'check',
  message: `The art reaches ${formatLength(off, 'mm')} past the edge of its surface.`,
  waysOut: ['Move the sign on its surface', 'Make the sign smaller under Artwork'],
  where,
  measured: off,
  limit: 0,
  key: 'off-surface',
});

const onKeepOut = ({ name }: KeepOut, what: 'art' | 'seam', where: Bounds): Finding => ({
  code: what === 'art' ? 'art-on-keep-out' : 'seam-on-keep-out',
  severity: 'check',
  message: `${what === 'art' ? 'Art lies' : 'A seam runs'} on ${name || 'a place'} that is to be kept clear.`,
  waysOut: [
    'Move the sign on its surface',
    what === 'art' ? 'Take that part out of the art' : 'Move the seam',
  ],
  where,
  key: `${what} on ${name}`,
});
