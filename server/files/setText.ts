/** Text into outlines: shaping and kerning by HarfBuzz, layout in core. */
import { readFile } from 'node:fs/promises';
import type { Artwork } from '../../core/readers/artwork';
import type { TextSource } from '../../core/artwork/choices';
import type { ShapedGlyph } from '../../core/artwork/layText';
import { layText } from '../../core/artwork/layText';
import { parsePathData } from '../../core/readers/svg/pathData';
import { mapPath } from '../../core/geometry/path';
import { scaling } from '../../core/geometry/matrix';
import { FileProblem } from './fileProblem';
import { DRAWS_NOTHING, fontFiles } from './fonts';
import { SHIPPED_FONTS } from './shippedFonts';
import { toSfnt } from './sfnt';

// loaded when text is set: it is WebAssembly, and most files carry none
const harfbuzz = () => import('harfbuzzjs');
type Harfbuzz = Awaited<ReturnType<typeof harfbuzz>>;
type Font = InstanceType<Harfbuzz['Font']>;

/** A part of a typeface, ready to shape with. */
interface LoadedFont {
  readonly font: Font;
  readonly upem: number;
  readonly letters: ReadonlySet<number>;
  readonly weights: readonly [number, number] | undefined;
  /** Height of a capital in em, at the weight that is set. */
  readonly capHeight: () => number;
  readonly name: string;
}

const loaded = new Map<string, Promise<readonly LoadedFont[]>>();

/**
 * Sets text.
 * @param uploaded the typeface's file, when it is one that the shop brought
 * @throws FileProblem when the typeface cannot be read
 */
export async function setText(source: TextSource, uploaded: Uint8Array | undefined): Promise<Artwork> {
  const hb = await harfbuzz();
  const fonts = await fontsFor(hb, source.font, uploaded);
  for (const { font, weights } of fonts) {
    if (!weights) continue;
    const weight = Math.min(weights[1], Math.max(weights[0], source.weight));
    font.setVariations([new hb.Variation('wght', weight)]);
  }
  const text = source.text.replace(/\r\n?/g, '\n').split('\n');
  const others = await fallbackFor(hb, source.text, fonts);
  const missing = new Set<string>();
  const borrowed = new Set<string>();
  const lines = text.map((line) =>
    runsOf(line, fonts, others, missing, borrowed).flatMap(([run, font]) => shapeRun(hb, run, font, missing)),
  );
  return layText(
    {
      lines,
      capHeight: fonts[0].capHeight(),
      face: SHIPPED_FONTS.find(({ id }) => id === source.font)?.name ?? fonts[0].name,
      missing: [...missing],
      borrowed: [...borrowed],
    },
    source,
  );
}

/** The shipped typefaces that have what a typeface lacks; none when it lacks nothing. */
async function fallbackFor(
  hb: Harfbuzz,
  text: string,
  fonts: readonly LoadedFont[],
): Promise<readonly LoadedFont[]> {
  const lacks = [...text].some(
    (letter) => !DRAWS_NOTHING.test(letter) && !fonts.some((font) => has(font, letter)),
  );
  return lacks ? (await Promise.all(SHIPPED_FONTS.map(({ id }) => fontsFor(hb, id, undefined)))).flat() : [];
}

const has = ({ letters }: LoadedFont, letter: string): boolean => letters.has(letter.codePointAt(0)!);

async function fontsFor(
  hb: Harfbuzz,
  id: string,
  uploaded: Uint8Array | undefined,
): Promise<readonly LoadedFont[]> {
  const known = loaded.get(id);
  if (known) return known;
  const shipped = SHIPPED_FONTS.find((font) => font.id === id);
  if (!shipped && !uploaded) {
    throw new FileProblem(
      'font-missing',
      'The typeface of this text is not in the shop. Pick another under Artwork.',
    );
  }
  const loading = (async () => {
    const files = shipped
      ? await Promise.all((await fontFiles(shipped)).map((file) => readFile(file)))
      : [await toSfnt(uploaded!)];
    return files.map((bytes) => loadFont(hb, bytes));
  })();
  loaded.set(id, loading);
  loading.catch(() => loaded.delete(id));
  return loading;
}

function loadFont(hb: Harfbuzz, bytes: Uint8Array): LoadedFont {
  const data = new ArrayBuffer(bytes.length);
  new Uint8Array(data).set(bytes);
  const face = new hb.Face(new hb.Blob(data));
  const letters = new Set(face.collectUnicodes());
  if (!(face.upem > 0) || letters.size === 0) {
    throw new FileProblem(
      'font-damaged',
      'This typeface is damaged and cannot be read. Ask for the file again.',
    );
  }
  const font = new hb.Font(face);
  const os2 = face.referenceTable('OS/2');
  const h = glyphOf(hb, font, 'H');
  const axis = face.getAxisInfos().wght;
  return {
    font,
    upem: face.upem,
    letters,
    weights: axis ? [axis.min, axis.max] : undefined,
    capHeight: () => capHeight(os2, font, face.upem, h),
    name: face.getName(1, 'en') || 'Unnamed',
  };
}

/** Height of a capital in em: its H as drawn, or what the font says (OS/2, sCapHeight, from version 2 on), or 0.7. */
function capHeight(
  os2: Uint8Array | undefined,
  font: Font,
  upem: number,
  hGlyph: number | undefined,
): number {
  const h = hGlyph === undefined ? undefined : font.glyphExtents(hGlyph);
  if (h && h.yBearing > 0) return h.yBearing / upem;
  if (!os2 || os2.length < 90) return 0.7;
  const table = new DataView(os2.buffer, os2.byteOffset, os2.length);
  const height = table.getInt16(88);
  return table.getUint16(0) >= 2 && height > 0 ? height / upem : 0.7;
}

function glyphOf(hb: Harfbuzz, font: Font, letter: string): number | undefined {
  const buffer = new hb.Buffer();
  buffer.addText(letter);
  buffer.guessSegmentProperties();
  hb.shape(font, buffer);
  const glyph = buffer.getGlyphInfos()[0]?.codepoint;
  return glyph === 0 ? undefined : glyph;
}

/** The line in runs, each with the first part of the typeface that has its letters, or of another that does. */
function runsOf(
  line: string,
  fonts: readonly LoadedFont[],
  others: readonly LoadedFont[],
  missing: Set<string>,
  borrowed: Set<string>,
): [string, LoadedFont][] {
  const runs: [string, LoadedFont][] = [];
  for (const letter of line) {
    const last = runs[runs.length - 1];
    const own = last && fonts.includes(last[1]) && has(last[1], letter) ? last[1] : undefined;
    const font = own ?? [...fonts, ...others].find((one) => has(one, letter));
    if (!font) {
      if (!DRAWS_NOTHING.test(letter)) missing.add(letter);
      continue;
    }
    if (!fonts.includes(font)) borrowed.add(letter);
    if (last && last[1] === font) last[0] += letter;
    else runs.push([letter, font]);
  }
  return runs;
}

function shapeRun(
  hb: Harfbuzz,
  text: string,
  { font, upem }: LoadedFont,
  missing: Set<string>,
): ShapedGlyph[] {
  const buffer = new hb.Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  hb.shape(font, buffer);
  const em = scaling(1 / upem);
  return buffer
    .getGlyphInfosAndPositions()
    .flatMap(({ codepoint, cluster, xAdvance = 0, xOffset = 0, yOffset = 0 }) => {
      const letter = String.fromCodePoint(text.codePointAt(cluster) ?? 32);
      // glyph 0 is the box that stands for what a typeface lacks
      if (codepoint === 0) {
        if (!DRAWS_NOTHING.test(letter)) missing.add(letter);
        return [];
      }
      const path = mapPath(parsePathData(font.glyphToPath(codepoint)), em);
      return [{ path, advance: xAdvance / upem, dx: xOffset / upem, dy: yOffset / upem }];
    });
}

/** Looks a typeface over before the shop keeps it. @throws FileProblem when it cannot be used */
export async function inspectFont(
  bytes: Uint8Array,
): Promise<{ name: string; weights: readonly [number, number] }> {
  const { name, weights } = loadFont(await harfbuzz(), await toSfnt(bytes));
  return { name, weights: weights ?? [400, 400] };
}
