/** Packed pieces as they are cut. */
import { largest } from '../geometry/lists';
import { multiply } from '../geometry/matrix';
import type { Body } from '../packing/body';
import type { Lying } from '../packing/lying';
import { placeOf } from '../packing/outline';
import { finishedStrip, topOf } from './finishedStrip';
import type { Batch, OnFilm } from './onFilm';
import { boxOf, keptPiece, lengthOf, mirrorOf } from './onFilm';
import { rimOf, startOf } from './roll';
import type { Item } from './shelves';
import type { Placement, Strip } from './strip';

/** Strips as they are cut: pieces in the order in which they lie along the film. */
export function packedStrips(on: OnFilm): Strip[] {
  const { film, cuttable, packing } = on;
  const { choices, cutter, mirrored } = packing;
  const rim = rimOf(choices);
  const { tail } = cutter.margins;
  const lead = cutter.margins.lead + startOf(choices).along;
  return stretchesOf(on).map((stretches, k): Strip => {
    const across = largest(stretches.map(({ batch }) => acrossOf(batch)));
    const top = topOf(choices, cuttable, across + 2 * rim) + rim;
    const placements = stretches.flatMap(({ batch, from }) =>
      batch.items.map((item, i) =>
        placed(item, batch.bodies[i], batch.lying[i], mirrored, [lead + rim + from, top]),
      ),
    );
    const last = stretches[stretches.length - 1];
    placements.sort((a, b) => a.box.minX - b.box.minX || a.box.minY - b.box.minY);
    return finishedStrip(film, k, on, cutter, {
      mirrored,
      turned: stretches.some(({ batch }) => batch.lying.some(({ turn }) => turn % 360 !== 0)),
      placements,
      length: lead + rim + last.from + lengthOf(last.batch) + rim + tail,
    });
  });
}

const acrossOf = ({ bodies, lying }: Batch): number =>
  largest(lying.map((one, i) => one.y + boxOf(bodies[i], one).maxY));

/** A batch where it begins on its strip, mm. */
interface Stretch {
  readonly batch: Batch;
  readonly from: number;
}

/** Batches strip by strip: orders that have stretches of their own lie one behind the other, each within its border. */
function stretchesOf({ batches, along, packing: { choices } }: OnFilm): Stretch[][] {
  const strips: Stretch[][] = [];
  const apart = 2 * rimOf(choices) + choices.between;
  for (const batch of batches) {
    const strip = strips.at(-1);
    const before = strip?.at(-1);
    const from = before ? before.from + lengthOf(before.batch) + apart : 0;
    const isNext = batch.order !== undefined && before?.batch.order !== batch.order;
    if (strip && isNext && from + lengthOf(batch) <= along) strip.push({ batch, from });
    else strips.push([{ batch, from: 0 }]);
  }
  return strips;
}

function placed(
  item: Item,
  body: Body,
  lying: Lying,
  mirrored: boolean,
  [left, top]: readonly [number, number],
): Placement {
  const { part, copy } = item;
  const { matrix, box } = placeOf(body.outline, { ...lying, x: left + lying.x, y: top + lying.y });
  return {
    part,
    copy,
    matrix: mirrored ? multiply(matrix, mirrorOf(part.bounds)) : matrix,
    kept: keptPiece(item, body, lying),
    box,
  };
}
