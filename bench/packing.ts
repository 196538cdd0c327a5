/** Letters of five faces packed on a film, beside the same letters' boxes as a general-purpose library packs them. */
import { heightOf, widthOf } from '../core/geometry/bounds';
import type { Bounds } from '../core/geometry/bounds';
import { smallest } from '../core/geometry/lists';
import { flatten } from '../core/geometry/path';
import type { Region } from '../core/geometry/region';
import { regionBounds, weld } from '../core/geometry/region';
import { fill, squareOf } from '../core/packing/fill';
import type { Lying } from '../core/packing/lying';
import { outlineOf } from '../core/packing/outline';
import { createSearch } from '../core/packing/search';
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

interface Letter {
  readonly region: Region;
  readonly box: Bounds;
}

async function lettersOf(count: number): Promise<Letter[]> {
  const known = new Map<string, Letter>();
  const letters: Letter[] = [];
  for (let i = 0; i < count; i++) {
    const [text, font, capHeight] = [LETTERS[i % LETTERS.length], FACES[i % 5], HEIGHTS[i % 3]];
    const key = `${text} ${font} ${capHeight}`;
    const letter = known.get(key) ?? (await letterOf(text, font, capHeight));
    known.set(key, letter);
    letters.push(letter);
  }
  return letters;
}

async function letterOf(text: string, font: string, capHeight: number): Promise<Letter> {
  const how = {
    kind: 'text',
    weight: 700,
    tracking: 0,
    lineSpacing: 1.2,
    align: 'left',
    arcRadius: 0,
  } as const;
  const { shapes } = await setText({ ...how, text, font, capHeight, colour: '#000000' }, undefined);
  const rings = shapes.flatMap(({ path, matrix }) => flatten(path, matrix).map(({ points }) => points));
  const region = weld(rings);
  return { region, box: regionBounds(region) };
}

/** mm of film that the boxes take, by the best of the library's ways: the shortest bin that holds them all. */
const boxesTake = (letters: readonly Letter[]): number =>
  smallest(
    [PACKING_LOGIC.MAX_AREA, PACKING_LOGIC.MAX_EDGE, PACKING_LOGIC.FILL_WIDTH].map((by) =>
      boxesBy(letters, by),
    ),
  );

function boxesBy(letters: readonly Letter[], logic: number): number {
  const fits = (length: number): boolean => {
    const options = { smart: false, pot: false, square: false, allowRotation: true, border: 0, logic };
    const packer = new MaxRectsPacker(ACROSS, length, SPACING, options);
    for (const { box } of letters) packer.add(widthOf(box), heightOf(box), undefined);
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
export async function packLetters(
  count: number,
  seconds: number,
): Promise<{
  readonly first: number;
  readonly atOnce: number;
  readonly packed: number;
  readonly boxes: number;
  readonly rounds: number;
}> {
  const letters = await lettersOf(count);
  const boxes = boxesTake(letters);
  const began = performance.now();
  const known = new Map(
    letters.map((letter) => [letter, undefined as ReturnType<typeof outlineOf> | undefined]),
  );
  for (const letter of known.keys())
    known.set(letter, outlineOf(letter.region, letter.box, SPACING + 2 * squareOf(ACROSS)));
  const bodies = letters.map((letter) => ({
    outline: known.get(letter)!,
    turns: [0, 90, 180, 270],
    isPinned: false,
  }));
  const strip = { across: ACROSS, spacing: SPACING };
  const search = createSearch(bodies, strip, fill(bodies, strip, 1e6) as Lying[], 1);
  const first = performance.now() - began;
  const atOnce = search.best().length;
  let rounds = 0;
  while (performance.now() - began < seconds * 1000 && search.round()) rounds++;
  return { first, atOnce, packed: search.best().length, boxes, rounds };
}
