/** What the parser of PDFs tells (server/files): plain data, made where it can be stopped. */
import type { PrintInk } from '../../colour/ink';
import type { PageBox } from '../artwork';

/** x0, y0, x1, y1 in the page's units, y up. */
export type PdfBox = readonly [number, number, number, number];

export interface PdfFont {
  readonly name?: string;
  /** Not in the file: drawn in `standIn`. */
  readonly missing: boolean;
  readonly standIn?: string;
  readonly type3: boolean;
  /** Its characters are numbers of glyphs; 0 is the one for letters that it lacks (ISO 32000-1, 9.7.6.3). */
  readonly composite?: boolean;
  readonly fontMatrix?: readonly number[];
  /** Outlines by character, packed as in `constructPath`. */
  readonly glyphs: Readonly<Record<string, readonly number[]>>;
}

/** What the parser tells of a file. */
export interface PdfPage {
  readonly pages: readonly { readonly view: PdfBox; readonly rotate: number; readonly unit: number }[];
  /** The page that `steps` draw, from 1. */
  readonly page: number;
  readonly boxes: Partial<Record<PageBox, PdfBox>>;
  readonly layers: Readonly<Record<string, { readonly name: string | null; readonly visible: boolean }>>;
  /** Of inks that the file names, by the numbers in marks behind the steps that set them. */
  readonly inks: readonly PrintInk[];
  readonly spots: Readonly<Record<string, string>>;
  readonly fonts: Readonly<Record<string, PdfFont>>;
  readonly shadings: Readonly<Record<string, readonly (readonly [number, string])[]>>;
  readonly steps: readonly (readonly [string, readonly unknown[] | null])[];
}

/** A glyph that is shown. */
export interface Glyph {
  readonly fontChar: string;
  /** Thousandths of the font's size. */
  readonly width: number;
  readonly isSpace: boolean;
  readonly unicode?: string;
  readonly isInFont?: boolean;
  readonly originalCharCode?: number;
}
