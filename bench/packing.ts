/** Letters of five faces, birds and icons packed on a film, beside their boxes as a general-purpose library packs them. */
import { readdirSync, readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { heightOf, widthOf } from '../core/geometry/bounds';
import type { Bounds } from '../core/geometry/bounds';
import { smallest } from '../core/geometry/lists';
import { componentsOf } from '../core/geometry/nesting';
import { flatten } from '../core/geometry/path';
import type { Region } from '../core/geometry/region';
import { mapRegion, regionBounds, weld } from '../core/geometry/region';
import { fill, squareOf } from '../core/packing/fill';
import type { Lying } from '../core/packing/lying';
import { outlineOf } from '../core/packing/outline';
import { createSearch, pressed } from '../core/packing/search';
import { random } from '../core/random';
import { readResolvedSvg } from '../core/readers/svg/readResolvedSvg';
import { setText } from '../server/files/setText';

// its entry for Node is none: a script under the name of a module
const { MaxRectsPacker, PACKING_LOGIC } = (await import(
  'maxrects-packer/dist/maxrects-packer.mjs' as string
)) as typeof import('maxrects-packer');

const ACROSS = 583.6;
const SPACING = 3;
const FACES = ['archivo', 'bitter', 'anton', 'lobster', 'alfa-slab-one'];
const LETTERS = [...'MARSHWRENSLIPWAYQUAYbcdefghkBGJKOTUVXZ24679'];
const HEIGHTS = [60, 90, 40];

/** A piece to be packed; equal ones are one and the same. */
interface Piece {
  readonly region: Region;
  readonly box: Bounds;
}

async function lettersOf(count: number): Promise<Piece[]> {
  const known = new Map<string, Piece>();
  const letters: Piece[] = [];
  for (let i = 0; i < count; i++) {
    const [text, font, capHeight] = [LETTERS[i % LETTERS.length], FACES[i % 5], HEIGHTS[i % 3]];
    const key = `${text} ${font} ${capHeight}`;
    const letter = known.get(key) ?? (await letterOf(text, font, capHeight));
    known.set(key, letter);
    letters.push(letter);
  }
  return letters;
}

async function letterOf(text: string, font: string, capHeight: number): Promise<Piece> {
  const how = {
    kind: 'text',
    weight: 700,
    tracking: 0,
    lineSpacing: 1.2,
    align: 'left',
    arcRadius: 0,
  } as const;
  const { shapes } = await setText({ ...how, text, font, capHeight, colour: '#000000' }, undefined);
  return pieceOf(
    weld(shapes.flatMap(({ path, matrix }) => flatten(path, matrix).map(({ points }) => points))),
  );
}

const pieceOf = (region: Region): Piece => ({ region, box: regionBounds(region) });

/** Shapes of a drawing so wide that its longer side is `size`, mm, each a piece. */
function piecesOf(svg: Buffer, size: number): Piece[] {
  const { shapes } = readResolvedSvg(new Resvg(svg, { font: { loadSystemFonts: false } }).toString());
  const all = weld(shapes.flatMap(({ path, matrix }) => flatten(path, matrix).map(({ points }) => points)));
  const { minX, minY, maxX, maxY } = regionBounds(all);
  const scale = size / Math.max(maxX - minX, maxY - minY);
  return componentsOf(all)
    .map((region) => pieceOf(mapRegion(region, [scale, 0, 0, scale, 0, 0])))
    .filter(({ box }) => Math.min(widthOf(box), heightOf(box)) > LEAST);
}
/** Smaller things lie in every gap, mm. */
const LEAST = 10;

/** The demo shop's drawings again and again, in three sizes. */
function birdsOf(count: number): Piece[] {
  const pieces = ['marsh-wren', 'crew-shirt', 'slipway-sign'].flatMap((name, i) =>
    piecesOf(readFileSync(`demo/art/${name}.svg`), [700, 300, 500][i]),
  );
  return Array.from({ length: count }, (_, i) => pieces[i % pieces.length]);
}

/** Emoji of the registry, all that is drawn of each welded, in an order of chance. */
function iconsOf(count: number): Piece[] {
  const folder = 'node_modules/@twemoji/svg';
  const names = readdirSync(folder).filter((name) => name.endsWith('.svg'));
  const next = random(12);
  const pieces: Piece[] = [];
  while (pieces.length < count) {
    const svg = readFileSync(`${folder}/${names[Math.floor(next() * names.length)]}`);
    pieces.push(...piecesOf(svg, [60, 90, 120][pieces.length % 3]));
  }
  return pieces.slice(0, count);
}

const SETS = { letters: lettersOf, birds: birdsOf, icons: iconsOf } as const;

/** mm of film that the boxes take, by the best of the library's ways: the shortest bin that holds them all. */
const boxesTake = (pieces: readonly Piece[]): number =>
  smallest(
    [PACKING_LOGIC.MAX_AREA, PACKING_LOGIC.MAX_EDGE, PACKING_LOGIC.FILL_WIDTH].map((by) =>
      boxesBy(pieces, by),
    ),
  );

function boxesBy(pieces: readonly Piece[], logic: number): number {
  const fits = (length: number): boolean => {
    const options = { smart: false, pot: false, square: false, allowRotation: true, border: 0, logic };
    const packer = new MaxRectsPacker(ACROSS, length, SPACING, options);
    for (const { box } of pieces) packer.add(widthOf(box), heightOf(box), undefined);
    return packer.bins.length === 1;
  };
  let [least, most] = [100, 50_000];
  while (most - least > 1) {
    const middle = (least + most) / 2;
    if (fits(middle)) most = middle;
    else least = middle;
  }
  return most;
}

/** How long a first answer takes, ms, and mm of film at first, after `seconds`, and as boxes. */
export async function packSet(
  set: keyof typeof SETS,
  count: number,
  seconds: number,
): Promise<{
  readonly first: number;
  readonly atOnce: number;
  readonly packed: number;
  readonly boxes: number;
  readonly rounds: number;
}> {
  const pieces = await SETS[set](count);
  const boxes = boxesTake(pieces);
  const began = performance.now();
  const outlines = new Map(
    [...new Set(pieces)].map((piece) => [
      piece,
      outlineOf(piece.region, piece.box, SPACING + 2 * squareOf(ACROSS)),
    ]),
  );
  const bodies = pieces.map((piece) => ({
    outline: outlines.get(piece)!,
    turns: [0, 90, 180, 270],
    isPinned: false,
  }));
  const strip = { across: ACROSS, spacing: SPACING };
  const { lying, length: atOnce } = pressed(bodies, strip, fill(bodies, strip, 1e6) as Lying[]);
  const first = performance.now() - began;
  const search = createSearch(bodies, strip, lying, 1);
  let rounds = 0;
  while (performance.now() - began < seconds * 1000 && search.round()) rounds++;
  return { first, atOnce, packed: search.best().length, boxes, rounds };
}
