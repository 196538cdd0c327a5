/** A drawing's page as it is: all that it paints, in its own inks and with its own pictures, to be printed and to be looked at. */
import { join } from 'node:path';
import type { FilePart } from '../../core/artwork/choices';
import type { Picture } from '../../core/tracing/picture';
import type { FileKind } from './fileKind';
import { kindOf } from './fileKind';
import type { HeadedAnswer } from './launch';
import { askForBytes } from './launch';
import { pdfOfEps, problemOf } from './readPdfFile';
import { resolvedSvg } from './readSvg';
import { unpacked } from './unpacked';

const CHILD = join(process.cwd(), 'server/files/page-child.mjs');

/** Kinds of file that have pages. */
const DRAWN: ReadonlySet<FileKind> = new Set(['svg', 'pdf', 'eps']);
export const hasPages = (kind: FileKind): boolean => DRAWN.has(kind);

/** px that a page is drawn in: to find its outline, 290 to the inch on A4, and to draw its edges out for the bleed (our own). */
export const PAGE_PIXELS = { outline: 8_000_000, bleed: 3_000_000 } as const;

/** A page with nothing behind it. */
export interface OpenedPage {
  readonly picture: Picture;
  /** Its size, mm: the picture covers it exactly. */
  readonly across: number;
  readonly down: number;
}

type Asked =
  | { readonly as: 'pixels'; readonly most: number }
  | { readonly as: 'png'; readonly width: number }
  | { readonly as: 'pdf' };

interface PageHead {
  readonly width?: number;
  readonly height?: number;
  readonly across?: number;
  readonly down?: number;
  readonly problem?: string;
}

/** @param most pixels, about; @throws FileProblem when it cannot be drawn */
export async function openPage(bytes: Uint8Array, part: FilePart, most: number): Promise<OpenedPage> {
  const { head, data } = await draw(bytes, part, { as: 'pixels', most });
  const { width = 0, height = 0, across = 0, down = 0 } = head;
  return { picture: { width, height, data }, across, down };
}

/** The page to look at, so many pixels across. @throws FileProblem when it cannot be drawn */
export const pagePng = async (bytes: Uint8Array, part: FilePart, width: number): Promise<Buffer> =>
  (await draw(bytes, part, { as: 'png', width })).data;

/** The page as a PDF of its own that lies upright. @throws FileProblem when it cannot be laid on another */
export const pageForPrint = async (bytes: Uint8Array, part: FilePart): Promise<Buffer> =>
  (await draw(bytes, part, { as: 'pdf' })).data;

async function draw(bytes: Uint8Array, part: FilePart, asked: Asked): Promise<HeadedAnswer<PageHead>> {
  const { page, box } = part;
  const { kind, input } = await drawable(bytes, part);
  const answer = await askForBytes<PageHead>(CHILD, { ...asked, kind, page, box }, input, 'drawing');
  if (answer.head.problem !== undefined) throw problemOf(answer.head.problem);
  return answer;
}

async function drawable(
  bytes: Uint8Array,
  { font }: FilePart,
): Promise<{ readonly kind: 'svg' | 'pdf'; readonly input: Uint8Array | string }> {
  const kind = kindOf(bytes);
  if (kind === 'svg') return { kind, input: await resolvedSvg(unpacked(bytes), font) };
  return { kind: 'pdf', input: kind === 'eps' ? await pdfOfEps(bytes) : bytes };
}
