/** Files of the typefaces that come with the app, and which letters they have. */
import { existsSync } from 'node:fs';
import { readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Font } from 'fontkit';
import { openSync } from 'fontkit';
import { ownFolder } from './ownFolder';
import { toSfnt } from './sfnt';
import type { ShippedFont } from './shippedFonts';
import { SHIPPED_FONTS } from './shippedFonts';

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
