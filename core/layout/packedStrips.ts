/** Packed pieces as they are cut. */
import { largest } from '../geometry/lists';
import { multiply, translation } from '../geometry/matrix';
import type { Body } from '../packing/body';
import type { Lying } from '../packing/lying';
import { cosOf, sinOf } from '../packing/lying';
import { finishedStrip, topOf } from './finishedStrip';
import type { OnFilm } from './onFilm';
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
  return on.batches.map((batch, k): Strip => {
    const across = largest(batch.lying.map((one, i) => one.y + boxOf(batch.bodies[i], one).maxY));
    const corner = [lead + rim, topOf(choices, cuttable, across + 2 * rim) + rim] as const;
    const placements = batch.items.map((item, i) =>
      placed(item, batch.bodies[i], batch.lying[i], mirrored, corner),
    );
    placements.sort((a, b) => a.box.minX - b.box.minX || a.box.minY - b.box.minY);
    return finishedStrip(film, k, on, cutter, {
      mirrored,
      turned: batch.lying.some(({ turn }) => turn % 360 !== 0),
      placements,
      length: lead + rim + lengthOf(batch) + rim + tail,
    });
  });
}

function placed(
  item: Item,
  body: Body,
  lying: Lying,
  mirrored: boolean,
  [left, top]: readonly [number, number],
): Placement {
  const { part, copy } = item;
  const { bounds } = part;
  const [mx, my] = body.outline.middle;
  const [cos, sin] = [cosOf(lying.turn), sinOf(lying.turn)];
  const at = translation(left + lying.x, top + lying.y);
  const turned = multiply([cos, sin, -sin, cos, 0, 0], translation(-mx, -my));
  const matrix = multiply(at, mirrored ? multiply(turned, mirrorOf(bounds)) : turned);
  const { minX, minY, maxX, maxY } = boxOf(body, lying);
  const [x, y] = [left + lying.x, top + lying.y];
  return {
    part,
    copy,
    matrix,
    kept: keptPiece(item, body, lying),
    box: { minX: x + minX, minY: y + minY, maxX: x + maxX, maxY: y + maxY },
  };
}
