/** A way in whole machine steps. */
import type { Steps } from '../layout/cutter';
import type { HolderPath } from './compensate';
import type { Heading } from './dragged';
import { dragged } from './dragged';

/** A way on the grid. */
export interface GridWay {
  readonly points: Float64Array;
  /** Which of the points it was made from each of these is. */
  readonly kept: Uint32Array;
}

/** Rounds to whole machine steps, each point by itself so that no error adds up; repeats are dropped. */
export function ontoGrid(points: Float64Array, [long, wide]: Steps): GridWay {
  const out = new Float64Array(points.length);
  const kept = new Uint32Array(points.length / 2);
  let n = 0;
  for (let i = 0; i < points.length; i += 2) {
    const x = Math.round(points[i] / long) * long;
    const y = Math.round(points[i + 1] / wide) * wide;
    if (n > 0 && out[n - 2] === x && out[n - 1] === y) continue;
    kept[n / 2] = i / 2;
    out[n++] = x;
    out[n++] = y;
  }
  return { points: out.slice(0, n), kept: kept.slice(0, n / 2) };
}

/** What a step aside costs against the tip being aside: enough that the holder keeps to its way where the tip does not mind. */
const HOLDER_ASIDE = 0.25;

/**
 * The holder's way in whole machine steps. Where the blade swings, the error of each rounded point drags the tip a little, and
 * they would add up; so the tip is followed, and of the four places round each point the one is taken that leaves the tip
 * nearest to where it shall be.
 * @param offset blade offset, mm, > 0
 * @param heading how the tip lies when the knife comes down
 * @returns the way, and how the tip lies at its end
 */
export function trailedOntoGrid(
  { points, tips }: Pick<HolderPath, 'points' | 'tips'>,
  offset: number,
  heading: Heading,
  [long, wide]: Steps,
): GridWay & Pick<HolderPath, 'heading'> {
  const out = new Float64Array(points.length);
  const kept = new Uint32Array(points.length / 2);
  out[0] = Math.round(points[0] / long) * long;
  out[1] = Math.round(points[1] / wide) * wide;
  let n = 2;
  let [hx, hy] = heading;
  for (let i = 2; i < points.length; i += 2) {
    const [fromX, fromY] = [out[n - 2], out[n - 1]];
    let least = Infinity;
    let [x, y, toHx, toHy] = [0, 0, 0, 0];
    for (let corner = 0; corner < 4; corner++) {
      const gx = (Math.floor(points[i] / long) + (corner & 1)) * long;
      const gy = (Math.floor(points[i + 1] / wide) + (corner >> 1)) * wide;
      const [nhx, nhy] = dragged(hx, hy, gx - fromX, gy - fromY, offset);
      const cost =
        (gx - offset * nhx - tips[i]) ** 2 +
        (gy - offset * nhy - tips[i + 1]) ** 2 +
        HOLDER_ASIDE * ((gx - points[i]) ** 2 + (gy - points[i + 1]) ** 2);
      if (cost < least) [least, x, y, toHx, toHy] = [cost, gx, gy, nhx, nhy];
    }
    if (x === fromX && y === fromY) continue;
    [hx, hy] = [toHx, toHy];
    kept[n / 2] = i / 2;
    out[n++] = x;
    out[n++] = y;
  }
  return { points: out.slice(0, n), kept: kept.slice(0, n / 2), heading: [hx, hy] };
}
