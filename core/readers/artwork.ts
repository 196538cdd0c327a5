import type { PrintInk } from '../colour/ink';
import type { Cap, Fill, Join } from '../geometry/region';
import type { Matrix } from '../geometry/matrix';
import type { Path } from '../geometry/path';
import type { Finding } from '../findings/finding';

export type PageBox = 'crop' | 'media' | 'trim' | 'bleed' | 'art';
export type DrawingUnit = 'mm' | 'cm' | 'm' | 'in' | 'ft' | 'pt';

/** How a line is drawn with width; lengths in the shape's own units, before its matrix. */
export interface StrokeStyle {
  readonly width: number;
  readonly join: Join;
  readonly cap: Cap;
  readonly miterLimit: number;
  readonly dashes: readonly number[];
  readonly dashStart: number;
}

/** An outline of a clip: its inside, or the line with width when `stroke` is there. */
export interface ClipOutline {
  readonly path: Path;
  readonly matrix: Matrix;
  readonly fill: Fill;
  readonly stroke?: StrokeStyle;
  /** Takes away from those before it. */
  readonly isHole?: boolean;
}

/** A clip: its outlines over each other, cut by its own parent clip when it has one (index into `clips`). */
export interface Clip {
  readonly outlines: readonly ClipOutline[];
  readonly parent?: number;
}

/** One painted thing: a filled outline, or a line with width when `stroke` is there. */
export interface Shape {
  readonly id?: string;
  /** Of typed text: `line/word`, from 0. */
  readonly word?: string;
  /** Name of the layer it lies on, where the file has layers. */
  readonly layer?: string;
  readonly ink?: PrintInk;
  /** The file's own name for its colour: a spot colour. */
  readonly spot?: string;
  /** What film cannot show of its paint: each takes one decision. */
  readonly look?: 'gradient' | 'translucent';
  /** It shows a picture of so many pixels where it is opaque; the path is in them. */
  readonly picture?: { readonly width: number; readonly height: number };
  /** For a line with width: its inside is painted too, as a shape of its own. */
  readonly alsoFilled?: boolean;
  readonly path: Path;
  /** Own units → mm on the artwork's page, y down. */
  readonly matrix: Matrix;
  /** Lower-case `#rrggbb`. */
  readonly colour: string;
  readonly fill: Fill;
  readonly stroke?: StrokeStyle;
  /** Clips that all apply (indices into `clips`). */
  readonly clips: readonly number[];
}

/** One answer to a question that a file leaves open, and the size it would give, mm. */
export interface Answer<T> {
  readonly value: T;
  readonly width: number;
  readonly height: number;
}

/** What a person can choose of a file, or has to. */
export interface Offers {
  readonly pages?: readonly Answer<number>[];
  readonly boxes?: readonly Answer<PageBox>[];
  /** The file does not say its unit: which one is it? */
  readonly units?: readonly Answer<DrawingUnit>[];
  /** Typefaces the file names and does not carry. */
  readonly fonts?: readonly string[];
  /** A drawing that may be printed as it is, and cut around. */
  readonly asIs?: true;
  /** A picture of so many pixels, traced; of a drawing the one of its page. */
  readonly picture?: TracedPicture;
}

/** A picture's size in pixels, and what its trace left out. */
export interface TracedPicture {
  readonly width: number;
  readonly height: number;
  readonly mmPerPixel: number;
  /** Outlines that are too small to be kept, and px that the largest is across; missing: nothing was looked for. */
  readonly specks?: { readonly count: number; readonly largest: number };
}

/** What was read from a customer's file: bottom shape first, as painted. */
export interface Artwork {
  /** The file's page in mm. */
  readonly page: { readonly width: number; readonly height: number };
  readonly shapes: readonly Shape[];
  readonly clips: readonly Clip[];
  readonly findings: readonly Finding[];
  readonly offers?: Offers;
}
