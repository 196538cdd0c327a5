/** Shaped lines of text laid out as a sign: sized by the height of a capital, aligned, straight or along an arc. */
import { largest } from '../geometry/lists';
import type { Artwork, Shape } from '../readers/artwork';
import type { TextSource } from './choices';
import { onOwnPage } from '../readers/ownPage';
import type { Finding } from '../findings/finding';
import type { Matrix } from '../geometry/matrix';
import { multiply, scaling, translation } from '../geometry/matrix';
import type { Path } from '../geometry/path';

/** One glyph as the shaper gives it, in em (1 = the size of the type), y up. */
export interface ShapedGlyph {
  readonly path: Path;
  readonly advance: number;
  readonly dx: number;
  readonly dy: number;
}

export interface ShapedText {
  readonly lines: readonly (readonly ShapedGlyph[])[];
  /** Height of a capital, em. */
  readonly capHeight: number;
  /** Name of the typeface that was asked for. */
  readonly face: string;
  /** Characters that no typeface had. */
  readonly missing: readonly string[];
  /** Characters that were taken from another typeface. */
  readonly borrowed: readonly string[];
}

/** Lays shaped text out. The first line's baseline is where the type begins; y runs down, mm. */
export function layText(shaped: ShapedText, source: TextSource): Artwork {
  const em = source.capHeight / shaped.capHeight;
  const tracking = (source.tracking / 1000) * em;
  const widths = shaped.lines.map((line) => lineWidth(line, em, tracking));
  const widest = largest(widths, 0);
  const shapes = shaped.lines.flatMap((line, i) => {
    const share = source.align === 'left' ? 0 : source.align === 'middle' ? 0.5 : 1;
    // the block's middle stands over the middle of an arc, however its lines are aligned
    const start = (widest - widths[i]) * share - widest / 2;
    return layLine(line, start, i, em, tracking, source);
  });
  return onOwnPage(shapes, findingsOf(shaped));
}

/** Tracking stands between letters, not behind the last one. */
const lineWidth = (line: readonly ShapedGlyph[], em: number, tracking: number): number =>
  line.reduce((sum, glyph) => sum + glyph.advance * em, 0) + Math.max(0, line.length - 1) * tracking;

function layLine(
  line: readonly ShapedGlyph[],
  start: number,
  index: number,
  em: number,
  tracking: number,
  { arcRadius, colour, lineSpacing }: TextSource,
): Shape[] {
  const shapes: Shape[] = [];
  const baseline = index * lineSpacing * em;
  let [x, word] = [start, 0];
  for (const { path, advance, dx, dy } of line) {
    const width = advance * em;
    if (path.ops.length > 0) {
      const own = multiply(scaling(em, -em), translation(dx, dy));
      const place =
        arcRadius === 0
          ? translation(x, baseline)
          : multiply(onArc(x + width / 2, baseline, arcRadius), translation(-width / 2, 0));
      const shape = { path, matrix: multiply(place, own), colour, fill: 'nonzero', clips: [] } as const;
      shapes.push({ ...shape, word: `${index}/${word}` });
    } else word++;
    x += width + tracking;
  }
  return shapes;
}

/**
 * The place s mm along a baseline that bends over a circle. Letters are turned about the middle of their foot, so
 * that none is bent. Lines below the first have the same middle.
 * @param radius of the first baseline; below 0 the line hangs in the circle
 */
function onArc(s: number, baseline: number, radius: number): Matrix {
  const own = radius - baseline;
  const angle = s / radius;
  const [c, sin] = [Math.cos(angle), Math.sin(angle)];
  return [c, sin, -sin, c, own * sin, radius - own * c];
}

const findingsOf = ({ face, missing, borrowed }: ShapedText): Finding[] => [
  ...lettersMissing(missing, face),
  ...lettersBorrowed(borrowed, face),
];

const MOST_SHOWN = 12;
const shown = (letters: readonly string[]): string =>
  letters.slice(0, MOST_SHOWN).join('') + (letters.length > MOST_SHOWN ? ' …' : '');

/** Characters for which nothing is drawn, since no typeface has them. */
export function lettersMissing(letters: readonly string[], face: string): Finding[] {
  if (letters.length === 0) return [];
  return [
    {
      code: 'letters-missing',
      severity: 'check',
      message: `${letters.length === 1 ? '1 character is' : `${letters.length} characters are`} not in ${face}: ${shown(letters)}. Nothing is cut for ${letters.length === 1 ? 'it' : 'them'}.`,
      waysOut: ['Pick another typeface under Artwork', 'Bring a typeface that has them'],
    },
  ];
}

function lettersBorrowed(letters: readonly string[], face: string): Finding[] {
  if (letters.length === 0) return [];
  return [
    {
      code: 'letters-borrowed',
      severity: 'check',
      message: `${letters.length === 1 ? '1 character is' : `${letters.length} characters are`} not in ${face} and ${letters.length === 1 ? 'is' : 'are'} set in another typeface: ${shown(letters)}.`,
      waysOut: ['Pick another typeface under Artwork', 'Bring a typeface that has them'],
    },
  ];
}
