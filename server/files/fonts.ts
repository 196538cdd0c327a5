/** The typefaces that come with the app; all under the SIL Open Font License. */
import { existsSync } from 'node:fs';
import { readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Font } from 'fontkit';
import { openSync } from 'fontkit';
import { ownFolder } from './ownFolder';
import { toSfnt } from './sfnt';

export interface ShippedFont {
  readonly id: string;
  readonly name: string;
  /** Lightest and heaviest; one and the same for a font of one weight. */
  readonly weights: readonly [number, number];
  /** Files in the order in which they are asked for a letter. */
  readonly files: readonly string[];
}

const variable = (id: string, name: string, weights: readonly [number, number]): ShippedFont => ({
  id,
  name,
  weights,
  files: ['latin', 'latin-ext'].map(
    (part) => `@fontsource-variable/${id}/files/${id}-${part}-wght-normal.woff2`,
  ),
});

const single = (
  id: string,
  name: string,
  weight = 400,
  parts = ['latin', 'latin-ext'],
  folder = id,
): ShippedFont => ({
  id: weight === 400 ? id : `${id}-${weight}`,
  name,
  weights: [weight, weight],
  files: parts.map((part) => `@fontsource/${folder}/files/${folder}-${part}-${weight}-normal.woff2`),
});

export const SHIPPED_FONTS: readonly ShippedFont[] = [
  variable('archivo', 'Archivo', [100, 900]),
  variable('oswald', 'Oswald', [200, 700]),
  variable('rubik', 'Rubik', [300, 900]),
  variable('bitter', 'Bitter', [100, 900]),
  variable('playfair-display', 'Playfair Display', [400, 900]),
  variable('bricolage-grotesque', 'Bricolage Grotesque', [200, 800]),
  variable('atkinson-hyperlegible-next', 'Atkinson Hyperlegible Next', [200, 800]),
  single('barlow-condensed', 'Barlow Condensed SemiBold', 600),
  single('bebas-neue', 'Bebas Neue'),
  single('anton', 'Anton'),
  single('alfa-slab-one', 'Alfa Slab One'),
  single('lobster', 'Lobster'),
  single('pacifico', 'Pacifico'),
  single('stardos-stencil', 'Stardos Stencil Bold', 700, ['latin']),
];

/** The typeface that stands in for one that is not there. */
export const STAND_IN = SHIPPED_FONTS[0].id;

const MODULES = join(process.cwd(), 'node_modules');

/** The font's files as plain OpenType, unpacked once for this machine's user. */
export async function fontFiles(font: ShippedFont): Promise<string[]> {
  const dir = await ownFolder('fonts');
  return Promise.all(
    font.files.map(async (file) => {
      const target = join(dir, `${file.split('/').pop()}.ttf`);
      if (existsSync(target)) return target;
      const bytes = await toSfnt(await readFile(join(MODULES, file)));
      // another thread may be writing the same file: each writes its own and the last one counts
      const draft = `${target}.${process.pid}.${Math.random().toString(36).slice(2)}`;
      await writeFile(draft, bytes);
      await rename(draft, target);
      return target;
    }),
  );
}

/** Characters that say how others are set, and draw nothing themselves. */
export const DRAWS_NOTHING = /^[\s\p{Default_Ignorable_Code_Point}\p{Cc}]$/u;

const covered = new Map<string, Promise<ReadonlySet<number>>>();

/** Every character that a typeface has. */
function lettersOf(font: ShippedFont): Promise<ReadonlySet<number>> {
  const known = covered.get(font.id);
  if (known) return known;
  const reading = fontFiles(font).then((files) => {
    const parts = files.map((file) => openSync(file) as Font);
    return new Set(parts.flatMap(({ characterSet }) => characterSet));
  });
  covered.set(font.id, reading);
  reading.catch(() => covered.delete(font.id));
  return reading;
}

/**
 * Which letters no shipped typeface has, and in which of them the others are, beside those given.
 * @param known ids of typefaces that are there anyway
 */
export async function whoHas(
  letters: ReadonlySet<string>,
  known: readonly string[],
): Promise<{ missing: readonly string[]; fonts: readonly ShippedFont[] }> {
  let missing = [...letters].filter((letter) => !DRAWS_NOTHING.test(letter));
  const fonts: ShippedFont[] = [];
  const given = SHIPPED_FONTS.filter(({ id }) => known.includes(id));
  const others = SHIPPED_FONTS.filter(({ id }) => !known.includes(id));
  for (const font of [...given, ...others]) {
    if (missing.length === 0) break;
    const own = await lettersOf(font);
    const left = missing.filter((letter) => !own.has(letter.codePointAt(0)!));
    if (left.length < missing.length && others.includes(font)) fonts.push(font);
    missing = left;
  }
  return { missing, fonts };
}
