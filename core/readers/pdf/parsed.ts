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
  /** Lines run downwards (ISO 32000-2, 9.7.4.3). */
  readonly vertical?: boolean;
  /** Of characters without one of their own: advance, then the place of the vertical origin, thousandths. */
  readonly defaultVMetrics?: VerticalMetrics;
  /** Its characters are numbers of glyphs; 0 is the one for letters that it lacks (ISO 32000-1, 9.7.6.3). */
  readonly composite?: boolean;
  readonly fontMatrix?: readonly number[];
  /** Outlines by character, packed as in `constructPath`. */
  readonly glyphs: Readonly<Record<string, readonly number[]>>;
  /** Of a Type 3 font: the drawing steps of each glyph (ISO 32000-2, 9.6.4). */
  readonly procedures?: Readonly<Record<string, Steps>>;
}

/** Advance downwards (negative), and the vertical origin seen from the horizontal one; thousandths of the size. */
export type VerticalMetrics = readonly [advance: number, x: number, y: number];

/** The parser's drawing steps: a name and its arguments. */
export type Steps = readonly (readonly [string, readonly unknown[] | null])[];

/** A gradient; places in its own space. */
export type PdfShading = SweptShading | MeshShading;

/** Along a line, or from circle to circle. */
export interface SweptShading {
  readonly kind: 'axial' | 'radial';
  /** From 0 to 1, with `#rrggbb`. */
  readonly stops: readonly (readonly [number, string])[];
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  /** Radii at both ends; 0 for an axial one. */
  readonly radii: readonly [number, number];
  /** Whether it is painted before its start and past its end. */
  readonly extends: readonly [boolean, boolean];
  readonly box: PdfBox | null;
}

export interface MeshShading {
  readonly kind: 'mesh';
  /** Mean of its corners. */
  readonly colour: string;
  /** Corners of its triangles, x0, y0, x1, y1, x2, y2 each. */
  readonly triangles: readonly number[];
  readonly box: PdfBox | null;
}

/** A page's box in its own units, how far a viewer turns it clockwise (degrees), and its unit, 1/72 in. */
export interface PdfSheet {
  readonly view: PdfBox;
  readonly rotate: number;
  readonly unit: number;
}

/** What the parser tells of a file. */
export interface PdfPage {
  /** The pages that can be chosen from. */
  readonly pages: readonly PdfSheet[];
  /** The page that `steps` draw, from 1. */
  readonly page: number;
  readonly sheet: PdfSheet;
  readonly boxes: Partial<Record<PageBox, PdfBox>>;
  /** Of inks that the file names, by the numbers in marks behind the steps that set them. */
  readonly inks: readonly PrintInk[];
  readonly spots: Readonly<Record<string, string>>;
  readonly fonts: Readonly<Record<string, PdfFont>>;
  readonly shadings: Readonly<Record<string, PdfShading>>;
  /** Parts of the page that the parser had to leave out because they are damaged. */
  readonly skipped?: number;
  readonly steps: Steps;
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
  /** Of a Type 3 font: the name of its procedure. */
  readonly operatorListId?: string;
  readonly vmetric?: VerticalMetrics;
  /** A second outline drawn with it, so many sizes away. */
  readonly accent?: {
    readonly fontChar: string;
    readonly offset: { readonly x: number; readonly y: number };
  };
}
