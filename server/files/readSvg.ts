import { join } from 'node:path';
import type { Artwork } from '../../core/readers/artwork';
import { readResolvedSvg } from '../../core/readers/svg/readResolvedSvg';
import { lettersMissing } from '../../core/artwork/layText';
import type { Finding } from '../../core/findings/finding';
import { FileProblem } from './fileProblem';
import { fontFiles, whoHas } from './fonts';
import { LARGEST_UPLOAD, tooBig } from './limits';
import { SHIPPED_FONTS, STAND_IN } from './shippedFonts';
import type { Words } from './svg/tidySvg';
import { tidySvg, withoutLetters } from './svg/tidySvg';
import type { Tell } from './tell';
import { askChild } from './launch';

const CHILD = join(process.cwd(), 'server/files/resolve-child.mjs');

/**
 * Reads a customer's SVG.
 * @param font typeface of the shop for text whose own is not here
 * @throws FileProblem with a sentence for a person when it cannot be read
 */
export async function readSvg(bytes: Uint8Array, font: string | null = null, tell?: Tell): Promise<Artwork> {
  if (bytes.length > LARGEST_UPLOAD) throw tooBig(bytes.length);
  const { text, findings, layers, words } = tidySvg(bytes);
  tell?.(0.2);
  const fonts = words ? await typefaces(words, font) : undefined;
  const svg = await resolve(text, fonts);
  tell?.(0.6);
  const artwork = readResolvedSvg(svg, [...findings, ...(fonts?.findings ?? [])], layers);
  return fonts && fonts.missing.length > 0 ? { ...artwork, offers: { fonts: fonts.missing } } : artwork;
}

/** The drawing with its pictures, resolved into what every renderer shows alike. @throws FileProblem when it cannot be read */
export async function resolvedSvg(bytes: Uint8Array, font: string | null): Promise<string> {
  const { text, words } = tidySvg(bytes, { pictures: 'kept' });
  return resolve(text, words ? await typefaces(words, font) : undefined);
}

interface Typefaces {
  readonly files: readonly string[];
  /** What text in an unknown typeface is set in. */
  readonly standIn: string;
  readonly missing: readonly string[];
  /** Characters that no typeface has: they would be drawn as boxes. */
  readonly lacking: readonly string[];
  readonly findings: readonly Finding[];
}

const GENERIC = new Set(['serif', 'sans-serif', 'monospace', 'cursive', 'fantasy', 'system-ui', 'inherit']);

async function typefaces({ families, letters }: Words, font: string | null): Promise<Typefaces> {
  const standIn = SHIPPED_FONTS.find(({ id }) => id === (font ?? STAND_IN)) ?? SHIPPED_FONTS[0];
  const known = new Map(SHIPPED_FONTS.map((shipped) => [shipped.name.toLowerCase(), shipped]));
  const used = families.flatMap((family) => known.get(family.toLowerCase()) ?? []);
  const missing = families.filter(
    (family) => !known.has(family.toLowerCase()) && !GENERIC.has(family.toLowerCase()),
  );
  const own = [...new Set([standIn, ...used])];
  const { missing: lacking, fonts: others } = await whoHas(
    letters,
    own.map(({ id }) => id),
  );
  const files = (await Promise.all([...own, ...others].map(fontFiles))).flat();
  const unset = missing.length > 0 || families.some((family) => GENERIC.has(family.toLowerCase()));
  return {
    files,
    standIn: standIn.name,
    missing,
    lacking,
    findings: [
      ...(unset ? [notHere(missing, standIn.name, font !== null)] : []),
      ...lettersMissing(lacking, (used[0] ?? standIn).name),
    ],
  };
}

const notHere = (missing: readonly string[], standIn: string, chosen: boolean): Finding => ({
  code: 'font-missing',
  severity: chosen ? 'note' : 'check',
  message:
    missing.length === 0
      ? `The text names no typeface: it is set in ${standIn}.`
      : `${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} not in the file: the text is set in ${standIn}.`,
  waysOut: ['Pick the typeface under Artwork', 'Ask for the file with its text as outlines'],
});

async function resolve(text: string, fonts: Typefaces | undefined): Promise<string> {
  const options = JSON.stringify({ files: fonts?.files ?? [], standIn: fonts?.standIn ?? '' });
  const settable = fonts ? withoutLetters(text, fonts.lacking) : text;
  const answer = await askChild<{ svg: string; problem?: string }>(CHILD, [options], settable);
  if (answer.problem === undefined) return answer.svg;
  if (/size/i.test(answer.problem)) {
    throw new FileProblem(
      'no-size',
      'The drawing says it is nought wide or high. Give its page a size in the drawing, save it and bring it in again.',
    );
  }
  throw new FileProblem(
    'unreadable',
    'The drawing cannot be read as SVG. Save it again as SVG and bring that in.',
  );
}
