/**
 * Reads DXF text: lines, arcs, circles, ellipses, bulged polylines, splines, blocks and hatches, with layers,
 * colours and units, after the published DXF Reference. Strokes that meet are joined; closed ones are filled.
 */
import { MM_PER_INCH } from '../../units/length';
import type { Answer, Artwork, DrawingUnit, Shape } from '../artwork';
import type { Vertex } from './curves';
import {
  arcOf,
  circlePath,
  ellipsePath,
  linePath,
  lwVertices,
  polylinePath,
  splineOf,
  splinePath,
} from './curves';
import { indexColour, trueColour } from './colours';
import type { DxfFile, Item } from './groups';
import { numberOf, parseDxf, textOf } from './groups';
import { hatchOutlines } from './hatch';
import type { Stroke } from '../outlines';
import { joinStrokes, shapesOf } from '../outlines';
import { onOwnPage } from '../ownPage';
import type { Finding } from '../../findings/finding';
import { heightOf, widthOf } from '../../geometry/bounds';
import type { Matrix } from '../../geometry/matrix';
import { IDENTITY, multiply, scaling, translation } from '../../geometry/matrix';
import type { Path } from '../../geometry/path';
import { mapPath, pathBounds } from '../../geometry/path';

/** mm in one drawing unit, by $INSUNITS (DXF Reference, header variables). */
const UNIT_MM: Readonly<Record<number, number>> = {
  1: MM_PER_INCH,
  2: 304.8,
  3: 1_609_344,
  4: 1,
  5: 10,
  6: 1000,
  7: 1e6,
  8: MM_PER_INCH * 1e-6,
  9: 0.0254,
  10: 914.4,
  13: 0.001,
  14: 100,
};

/** mm in one unit that a person can answer with. */
export const MM_IN: Readonly<Record<DrawingUnit, number>> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  ft: 304.8,
  pt: MM_PER_INCH / 72,
};
const ASKED: readonly DrawingUnit[] = ['mm', 'cm', 'm', 'in', 'ft'];

/** How far apart the ends of strokes may lie to be joined, as a share of the drawing's size. */
const JOIN_SHARE = 2e-6;
const DEEPEST_BLOCK = 16;
const MOST_STROKES = 200_000;

interface Reader {
  readonly file: DxfFile;
  readonly blocks: ReadonlyMap<string, readonly Item[]>;
  readonly layerColours: ReadonlyMap<string, string>;
  readonly hidden: ReadonlySet<string>;
  readonly strokes: Stroke[];
  readonly hatches: Stroke[][];
  readonly leftOut: Map<string, number>;
}

interface Inherited {
  readonly matrix: Matrix;
  readonly layer: string;
  readonly colour: string;
  readonly depth: number;
}

/**
 * Reads a DXF drawing.
 * @param units what a person said a unit is, for drawings that do not say it
 * @throws Error when the text is no DXF or stops in the middle
 */
export function readDxf(text: string, units: DrawingUnit | null): Artwork {
  const file = parseDxf(text);
  const reader: Reader = {
    file,
    blocks: new Map(file.blocks.map((items) => [(textOf(items[0], 2) ?? '').toUpperCase(), items])),
    layerColours: new Map(
      file.layers.map((layer) => [textOf(layer, 2) ?? '0', indexColour(Math.abs(numberOf(layer, 62, 7)))]),
    ),
    hidden: new Set(file.layers.filter(isHidden).map((layer) => textOf(layer, 2) ?? '0')),
    strokes: [],
    hatches: [],
    leftOut: new Map(),
  };
  readItems(reader, file.entities, { matrix: IDENTITY, layer: '0', colour: '#000000', depth: 0 });
  const box = boxOf(reader);
  const declared = UNIT_MM[Number(file.header.get('$INSUNITS')?.value ?? 0)];
  const mm = declared ?? MM_IN[units ?? 'mm'];
  const reach = Math.max(widthOf(box), heightOf(box)) * JOIN_SHARE;
  const joined = joinStrokes(reader.strokes, reach);
  // millimetres, and y down as everywhere here
  const toPage = multiply(scaling(mm, -mm), translation(-box.minX, -box.maxY));
  const { kept, covered } = withoutHatched(joined, reader.hatches, reach);
  const shapes = [
    ...reader.hatches.flatMap((outlines) => hatchShape(outlines, toPage)),
    ...shapesOf(kept, toPage),
  ];
  const asks = declared === undefined && widthOf(box) > 0;
  const findings = [
    ...leftOutFindings(reader.leftOut),
    ...(covered > 0 ? [edgeOfHatch(covered)] : []),
    ...(asks && units === null ? [noUnits()] : []),
  ];
  const offers = asks ? { units: ASKED.map((unit) => answer(unit, widthOf(box), heightOf(box))) } : undefined;
  return { ...onOwnPage(shapes, findings), offers };
}

const answer = (unit: DrawingUnit, width: number, height: number): Answer<DrawingUnit> => ({
  value: unit,
  width: width * MM_IN[unit],
  height: height * MM_IN[unit],
});

const noUnits = (): Finding => ({
  code: 'no-units',
  severity: 'stop',
  message: 'This drawing does not say its unit. Millimetres are taken until you pick one.',
  waysOut: ['Pick the unit under Artwork'],
});

/** Frozen or switched off. */
const isHidden = (layer: Item): boolean => (numberOf(layer, 70) & 1) === 1 || numberOf(layer, 62, 7) < 0;

function readItems(reader: Reader, items: readonly Item[], inherited: Inherited): void {
  for (let i = 0; i < items.length; i++) {
    const item = items[i];
    if (item.type === 'POLYLINE') {
      const vertices: Item[] = [];
      while (items[i + 1]?.type === 'VERTEX') vertices.push(items[++i]);
      if (items[i + 1]?.type === 'SEQEND') i++;
      readEntity(reader, item, inherited, vertices);
    } else readEntity(reader, item, inherited, []);
    if (reader.strokes.length > MOST_STROKES) throw new Error('too many strokes');
  }
}

function readEntity(reader: Reader, item: Item, inherited: Inherited, vertices: readonly Item[]): void {
  const ownLayer = textOf(item, 8) ?? '0';
  const layer = ownLayer === '0' ? inherited.layer : ownLayer;
  if (reader.hidden.has(ownLayer)) return count(reader, 'HIDDEN');
  const colour = colourOf(reader, item, layer, inherited);
  // seen from behind: the entity's own plane is mirrored
  const flipped = numberOf(item, 230, 1) < 0 && MIRRORED.has(item.type);
  const matrix = flipped ? multiply(inherited.matrix, scaling(-1, 1)) : inherited.matrix;
  const add = (path: Path | undefined): void => {
    if (path) reader.strokes.push({ path: mapPath(path, matrix), colour, layer });
  };
  switch (item.type) {
    case 'LINE':
      return add(linePath(item));
    case 'CIRCLE':
      return add(circlePath(item));
    case 'ARC':
      return add(arcOf(item));
    case 'ELLIPSE':
      return add(ellipsePath(item));
    case 'LWPOLYLINE':
      return add(polylinePath(lwVertices(item), (numberOf(item, 70) & 1) === 1));
    case 'POLYLINE':
      return readPolyline(reader, item, vertices, add);
    case 'SPLINE':
      return add(splinePath(splineOf(item)));
    case 'SOLID':
    case 'TRACE':
      return void reader.hatches.push([{ path: mapPath(solidPath(item), matrix), colour, layer }]);
    case 'HATCH':
      return void reader.hatches.push(
        hatchOutlines(item).map((path) => ({ path: mapPath(path, matrix), colour, layer })),
      );
    case 'INSERT':
      return readInsert(reader, item, { ...inherited, matrix, layer, colour });
    case 'POINT':
    case 'VIEWPORT':
    case 'ATTDEF':
      return;
    default:
      return count(reader, item.type);
  }
}

/** Entities whose coordinates lie in a plane of their own. */
const MIRRORED = new Set(['CIRCLE', 'ARC', 'LWPOLYLINE', 'POLYLINE', 'SOLID', 'TRACE', 'HATCH', 'INSERT']);

const count = ({ leftOut }: Reader, type: string): void =>
  void leftOut.set(type, (leftOut.get(type) ?? 0) + 1);

function colourOf({ layerColours }: Reader, item: Item, layer: string, inherited: Inherited): string {
  const exact = textOf(item, 420);
  if (exact !== undefined) return trueColour(Number(exact));
  const index = numberOf(item, 62, 256);
  if (index === 0) return inherited.colour;
  return index === 256 ? (layerColours.get(layer) ?? '#000000') : indexColour(index);
}

/** Meshes are surfaces in space; nothing of them can be cut. */
function readPolyline(
  reader: Reader,
  item: Item,
  vertices: readonly Item[],
  add: (path?: Path) => void,
): void {
  const flags = numberOf(item, 70);
  if (flags & (16 | 64)) return count(reader, 'MESH');
  const points = vertices
    // control points of a curve that was straightened when it was saved
    .filter((vertex) => (numberOf(vertex, 70) & 16) === 0)
    .map((vertex): Vertex => ({
      x: numberOf(vertex, 10),
      y: numberOf(vertex, 20),
      bulge: numberOf(vertex, 42),
    }));
  add(polylinePath(points, (flags & 1) === 1));
}

/** Four corners, the last two crosswise. */
function solidPath(item: Item): Path {
  const corner = (k: number): number[] => [numberOf(item, 10 + k), numberOf(item, 20 + k)];
  return { ops: 'MLLLZ', xy: [corner(0), corner(1), corner(3), corner(2)].flat() };
}

function readInsert(reader: Reader, item: Item, inherited: Inherited): void {
  const block = reader.blocks.get((textOf(item, 2) ?? '').toUpperCase());
  if (!block) return count(reader, 'MISSING BLOCK');
  if (inherited.depth >= DEEPEST_BLOCK) return count(reader, 'BLOCK IN ITSELF');
  const angle = (numberOf(item, 50) * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const scale = scaling(numberOf(item, 41, 1), numberOf(item, 42, 1));
  const base = translation(-numberOf(block[0], 10), -numberOf(block[0], 20));
  const columns = Math.max(1, numberOf(item, 70, 1));
  const rows = Math.max(1, numberOf(item, 71, 1));
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const step = translation(column * numberOf(item, 44), row * numberOf(item, 45));
      const there: Matrix = [c, s, -s, c, numberOf(item, 10), numberOf(item, 20)];
      const matrix = multiply(inherited.matrix, multiply(there, multiply(step, multiply(scale, base))));
      readItems(reader, block.slice(1), { ...inherited, matrix, depth: inherited.depth + 1 });
    }
  }
}

function boxOf({ strokes, hatches }: Reader) {
  const xy = [...strokes, ...hatches.flat()].map(({ path }) => pathBounds(path, IDENTITY));
  return xy.reduce(
    (box, b) => ({
      minX: Math.min(box.minX, b.minX),
      minY: Math.min(box.minY, b.minY),
      maxX: Math.max(box.maxX, b.maxX),
      maxY: Math.max(box.maxY, b.maxY),
    }),
    xy[0] ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 },
  );
}

function hatchShape(outlines: readonly Stroke[], matrix: Matrix): Shape[] {
  if (outlines.length === 0) return [];
  const [{ colour, layer }] = outlines;
  const path = { ops: outlines.map((o) => o.path.ops).join(''), xy: outlines.flatMap((o) => o.path.xy) };
  return [{ path, matrix, colour, layer, fill: 'evenodd', clips: [] }];
}

/** Outlines that lie on the edge of a hatch are the hatch's own: filled again they would hide it. */
function withoutHatched(
  strokes: readonly Stroke[],
  hatches: readonly (readonly Stroke[])[],
  reach: number,
): { kept: Stroke[]; covered: number } {
  const near = Math.max(reach * 50, 1e-6);
  const boxes = hatches.flat().map(({ path }) => pathBounds(path, IDENTITY));
  const kept = strokes.filter(({ path }) => {
    const box = pathBounds(path, IDENTITY);
    return !boxes.some((edge) =>
      (['minX', 'minY', 'maxX', 'maxY'] as const).every((side) => Math.abs(edge[side] - box[side]) <= near),
    );
  });
  return { kept, covered: strokes.length - kept.length };
}

const edgeOfHatch = (n: number): Finding => ({
  code: 'edge-of-hatch',
  severity: 'note',
  message: `${n === 1 ? '1 outline lies' : `${n} outlines lie`} on the edge of a filled area: the area is cut, once.`,
});

const SOLIDS = new Set([
  '3DSOLID',
  'BODY',
  'REGION',
  'SURFACE',
  'MESH',
  '3DFACE',
  'PLANESURFACE',
  'EXTRUDEDSURFACE',
]);
const TEXTS = new Set(['TEXT', 'MTEXT', 'ATTRIB', 'RTEXT']);

function leftOutFindings(leftOut: ReadonlyMap<string, number>): Finding[] {
  const sum = (of: (type: string) => boolean): number =>
    [...leftOut].reduce((total, [type, n]) => total + (of(type) ? n : 0), 0);
  const findings: Finding[] = [];
  const tell = (code: string, n: number, message: string, wayOut: string): void => {
    if (n > 0) findings.push({ code, severity: 'check', message, waysOut: [wayOut] });
  };
  const solids = sum((type) => SOLIDS.has(type));
  const texts = sum((type) => TEXTS.has(type));
  const others = [...leftOut.keys()].filter(
    (type) => !SOLIDS.has(type) && !TEXTS.has(type) && type !== 'HIDDEN',
  );
  tell(
    'solids',
    solids,
    `${solids === 1 ? '1 solid or surface in space is' : `${solids} solids or surfaces in space are`} left out: a knife cuts flat outlines.`,
    'Save the drawing as flat outlines',
  );
  tell(
    'text-left-out',
    texts,
    `${things(texts, 'text')} left out: the typeface is not in the file.`,
    'Turn text into outlines in the drawing, or type it here',
  );
  tell(
    'left-out',
    sum((type) => others.includes(type)),
    `Left out, because they are no outlines: ${others.join(', ').toLowerCase()}.`,
    'Turn them into lines in the drawing if they are to be cut',
  );
  const hidden = leftOut.get('HIDDEN') ?? 0;
  if (hidden > 0) {
    findings.push({
      code: 'hidden-layer',
      severity: 'note',
      message: `${things(hidden, 'line')} on layers that are switched off left out.`,
    });
  }
  return findings;
}

const things = (n: number, one: string): string => (n === 1 ? `1 ${one} is` : `${n} ${one}s are`);
