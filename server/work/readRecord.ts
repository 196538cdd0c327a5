/** What a simulated cutter recorded of a cut, set against what was to be cut. */
import { z } from 'zod';
import type { AsCutSaid, CutRecord, Drawing } from '../../contracts/cuts';
import { DEPTHS } from '../../contracts/cuts';
import type { LineKind } from '../../core/artwork/choices';
import { toStrip } from '../../core/devicelang/axes';
import { placesMapped } from '../../core/geometry/spot';
import type { Device } from '../../core/layout/cutter';
import type { NewFilm } from '../../core/swivel/asCut';
import { asCut } from '../../core/swivel/asCut';
import { isKnifes } from '../../core/toolpath/kinds';
import { deviationOf } from '../../core/swivel/deviation';
import { pack, unpack } from '../services/pack';

/** As the cutter tells it: mm on its own axes. */
const toldSchema = z.object({
  lines: z.array(
    z.object({ points: z.array(z.number()).min(2), depth: z.enum(DEPTHS), film: z.number().int().min(0) }),
  ),
});

export interface Recorded {
  /** JSON as it came. */
  readonly told: string;
  readonly device: Device;
  readonly cuttable: number;
  /** Packed. */
  readonly drawing: Uint8Array;
  /** Of each line. */
  readonly kinds?: readonly LineKind[];
  readonly bladeOffset: number;
  /** Film that was put in meanwhile. */
  readonly films: readonly NewFilm[];
}

export interface ReadRecord {
  /** Packed. */
  readonly record: Uint8Array;
  readonly asCut: AsCutSaid;
  readonly deviation: number;
  readonly deviationAt: { readonly x: number; readonly y: number };
}

/** @throws ZodError when it is no record */
export function readRecord({
  told,
  device,
  cuttable,
  drawing: packed,
  kinds = [],
  bladeOffset,
  films,
}: Recorded): ReadRecord {
  const { lines: recorded } = toldSchema.parse(JSON.parse(told));
  const drawing = unpack<Drawing>(packed);
  const place = toStrip({ ...device, step: 1 }, cuttable);
  const strokes = recorded.map(({ points, film }) => ({
    points: placesMapped(points, ([x, y]) => place(x, y)),
    film,
  }));
  const lines = drawing.lines.map((points, i) => ({
    points,
    bladeOffset: isKnifes(kinds[i]) ? bladeOffset : 0,
    turns: drawing.parts[i] === 'align',
  }));
  // on new film the blade was turned anew, where that begins
  const turned = films.flatMap(({ along }) =>
    drawing.parts[0] === 'align'
      ? [{ ...lines[0], points: drawing.lines[0].map((v, i) => (i % 2 === 0 ? v + along : v)) }]
      : [],
  );
  const { parts, elsewhere, twice, missing } = asCut(strokes, [...lines, ...turned], films);
  const record: CutRecord = {
    lines: parts.map(({ points, line, stroke }) => ({
      points: Array.from(points),
      depth: recorded[stroke].depth,
      line,
    })),
  };
  const [deviation, deviationAt] = deviationFrom(record, drawing);
  return { record: pack(record), asCut: { elsewhere, twice, missing }, deviation, deviationAt };
}

/** How far what lies on lines is from the design; the aligning stroke and weed borders do not count. */
function deviationFrom({ lines }: CutRecord, drawing: Drawing): [number, { x: number; y: number }] {
  const counts = new Set(['art', 'waste']);
  const cut = lines
    .filter(({ line = -1 }) => counts.has(drawing.parts[line]))
    .map(({ points }) => Float64Array.from(points));
  const design = drawing.design.map((ring) => Float64Array.from(ring));
  const { largest, at } = deviationOf(cut, design, drawing.followed);
  return [largest, { x: at[0], y: at[1] }];
}
