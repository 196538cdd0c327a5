/**
 * Reads one page of a PDF from its drawing steps (ISO 32000-1, 8 and 9): paths, fills, strokes, clips, text as
 * outlines, layers and spot colours. The steps come from a parser that runs where it can be stopped (server/files).
 */
import { own } from '../../units/own';
import { append } from '../../geometry/lists';
import type { Answer, Artwork, Clip, Offers, PageBox, Shape, StrokeStyle } from '../artwork';
import { clipToPage } from '../clipToPage';
import { meanColour } from '../paint';
import type { Finding } from '../../findings/finding';
import type { Cap, Fill, Join } from '../../geometry/region';
import type { Matrix } from '../../geometry/matrix';
import { IDENTITY, multiply, translation } from '../../geometry/matrix';
import type { Path } from '../../geometry/path';

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
  readonly spots: Readonly<Record<string, string>>;
  readonly fonts: Readonly<Record<string, PdfFont>>;
  readonly shadings: Readonly<Record<string, readonly (readonly [number, string])[]>>;
  readonly steps: readonly (readonly [string, readonly unknown[] | null])[];
}

/** What the parser tells of a glyph that is shown. */
interface Glyph {
  readonly fontChar: string;
  /** Thousandths of the font's size. */
  readonly width: number;
  readonly isSpace: boolean;
  readonly unicode?: string;
  readonly isInFont?: boolean;
  readonly originalCharCode?: number;
}

interface State {
  readonly matrix: Matrix;
  readonly clips: readonly number[];
  readonly fill: Paint;
  readonly stroke: Paint;
  readonly style: StrokeStyle;
  readonly font: string;
  readonly fontSize: number;
  readonly charSpacing: number;
  readonly wordSpacing: number;
  readonly hScale: number;
  readonly rise: number;
  readonly leading: number;
  readonly textMode: number;
}

interface Paint {
  readonly colour: string | undefined;
  readonly gradient: boolean;
  readonly opacity: number;
}

const PT = 25.4 / 72;
const BLACK: Paint = { colour: '#000000', gradient: false, opacity: 1 };
const START: Omit<State, 'matrix'> = {
  clips: [],
  fill: BLACK,
  stroke: BLACK,
  style: { width: 1, cap: 'butt', join: 'miter', miterLimit: 10, dashes: [], dashStart: 0 },
  font: '',
  fontSize: 0,
  charSpacing: 0,
  wordSpacing: 0,
  hScale: 1,
  rise: 0,
  leading: 0,
  textMode: 0,
};
const CAPS: readonly Cap[] = ['butt', 'round', 'square'];
const JOINS: readonly Join[] = ['miter', 'round', 'bevel'];

/** What each painting step does: fill rule or none, stroke, close first. */
const PAINTS: Readonly<
  Record<number, { readonly fill?: Fill; readonly stroke?: true; readonly close?: true }>
> = {
  20: { stroke: true },
  21: { stroke: true, close: true },
  22: { fill: 'nonzero' },
  23: { fill: 'evenodd' },
  24: { fill: 'nonzero', stroke: true },
  25: { fill: 'evenodd', stroke: true },
  26: { fill: 'nonzero', stroke: true, close: true },
  27: { fill: 'evenodd', stroke: true, close: true },
  28: {},
};

/**
 * Reads the page into artwork.
 * @param box which of the page's boxes is the page; missing or null: what a viewer shows
 */
export function readPdf(pdf: PdfPage, box: PageBox | null): Artwork {
  const { view, rotate, unit } = pdf.pages[pdf.page - 1] ?? { view: [0, 0, 1, 1], rotate: 0, unit: 1 };
  const edge = (box && pdf.boxes[box]) ?? view;
  const { matrix, width, height } = pageMatrix(edge, rotate, unit);
  const drawing = new Drawing(pdf, matrix);
  for (const [name, args] of pdf.steps) drawing.step(name, args ?? []);
  const clipped = clipToPage(drawing.shapes, drawing.clips, { width, height });
  const offers: Offers = { pages: pageAnswers(pdf), boxes: boxAnswers(pdf, unit) };
  return {
    page: { width, height },
    ...clipped,
    findings: [...drawing.findings(), ...clipped.findings],
    offers,
  };
}

/** User space → mm from the upper left corner of a box, the page's own turn carried out. */
function pageMatrix(
  [x0, y0, x1, y1]: PdfBox,
  rotate: number,
  unit: number,
): { matrix: Matrix; width: number; height: number } {
  const k = PT * unit;
  const [w, h] = [(x1 - x0) * k, (y1 - y0) * k];
  const upright = multiply([k, 0, 0, -k, 0, h], translation(-x0, -y0));
  const turns: Readonly<Record<number, Matrix>> = {
    90: [0, 1, -1, 0, h, 0],
    180: [-1, 0, 0, -1, w, h],
    270: [0, -1, 1, 0, 0, w],
  };
  const quarter = ((rotate % 360) + 360) % 360;
  const matrix = multiply(turns[quarter] ?? IDENTITY, upright);
  return quarter % 180 === 90 ? { matrix, width: h, height: w } : { matrix, width: w, height: h };
}

const sized = <T>(value: T, [x0, y0, x1, y1]: PdfBox, unit: number): Answer<T> => ({
  value,
  width: (x1 - x0) * PT * unit,
  height: (y1 - y0) * PT * unit,
});

const pageAnswers = ({ pages }: PdfPage): Offers['pages'] =>
  pages.length < 2 ? undefined : pages.map(({ view, unit }, i) => sized(i + 1, view, unit));

/** Boxes that differ from one another; a page with one size for all of them leaves nothing to choose. */
function boxAnswers({ boxes }: PdfPage, unit: number): Offers['boxes'] {
  const known = new Set<string>();
  const answers = (Object.entries(boxes) as [PageBox, PdfBox][]).flatMap(([name, box]) => {
    if (known.has(box.join())) return [];
    known.add(box.join());
    return [sized(name, box, unit)];
  });
  return answers.length < 2 ? undefined : answers;
}

/** A page while it is drawn. */
class Drawing {
  readonly shapes: Shape[] = [];
  readonly clips: Clip[] = [];
  private state: State;
  private readonly kept: State[] = [];
  private pendingClip: Fill | undefined;
  private textMatrix: Matrix = IDENTITY;
  private lineMatrix: Matrix = IDENTITY;
  private readonly layers: { name: string | undefined; visible: boolean }[] = [];
  private readonly counts = new Map<string, number>();
  private readonly missingFonts = new Map<string, string>();
  /** Characters without an outline, by typeface. */
  private readonly missingLetters = new Map<string, Set<string>>();

  constructor(
    private readonly pdf: PdfPage,
    matrix: Matrix,
  ) {
    this.state = { ...START, matrix };
  }

  step(name: string, args: readonly unknown[]): void {
    const mark = own(MARKS, name);
    if (mark) return mark(this, args);
    if (this.layers.some((layer) => !layer.visible) && PAINTING.has(name)) return this.count('hidden');
    own(STEPS, name)?.(this, args);
  }

  count(what: string): void {
    this.counts.set(what, (this.counts.get(what) ?? 0) + 1);
  }

  set(change: Partial<State>): void {
    this.state = { ...this.state, ...change };
  }
  style(change: Partial<StrokeStyle>): void {
    this.set({ style: { ...this.state.style, ...change } });
  }
  save(): void {
    this.kept.push(this.state);
  }
  restore(): void {
    this.state = this.kept.pop() ?? this.state;
  }
  transform(matrix: Matrix): void {
    this.set({ matrix: multiply(this.state.matrix, matrix) });
  }
  paint(which: 'fill' | 'stroke', change: Partial<Paint>): void {
    this.set({ [which]: { ...this.state[which], ...change } });
  }
  shade(which: 'fill' | 'stroke', [kind, id]: readonly unknown[]): void {
    if (kind === 'Shading') this.paint(which, { colour: this.shadingColour(String(id)), gradient: true });
    else this.paint(which, { colour: undefined, gradient: false });
  }
  private shadingColour(id: string): string {
    return meanColour((own(this.pdf.shadings, id) ?? []).map(([at, colour]) => ({ at, colour })));
  }
  clipNext(rule: Fill): void {
    this.pendingClip = rule;
  }
  openLayer(properties: unknown): void {
    const { id } = (properties ?? {}) as { id?: string };
    const layer = id === undefined ? undefined : own(this.pdf.layers, id);
    this.layers.push({ name: layer?.name ?? undefined, visible: layer?.visible ?? true });
  }
  openMark(): void {
    this.layers.push({ name: undefined, visible: true });
  }
  closeMark(): void {
    this.layers.pop();
  }

  path(operation: number, data: readonly number[] | null): void {
    const how = PAINTS[operation] ?? {};
    const path = data ? unpackPath(data) : { ops: '', xy: [] };
    if (path.ops !== '') {
      if (how.fill) this.put(path, this.state.matrix, this.state.fill, how.fill);
      const outline = how.close && !path.ops.endsWith('Z') ? { ...path, ops: `${path.ops}Z` } : path;
      if (how.stroke)
        this.put(outline, this.state.matrix, this.state.stroke, 'nonzero', true, how.fill !== undefined);
    }
    if (this.pendingClip) {
      this.clips.push({ outlines: [{ path, matrix: this.state.matrix, fill: this.pendingClip }] });
      this.set({ clips: [...this.state.clips, this.clips.length - 1] });
      this.pendingClip = undefined;
    }
  }

  private put(
    path: Path,
    matrix: Matrix,
    paint: Paint,
    fill: Fill,
    stroked = false,
    alsoFilled = false,
  ): void {
    const { colour, gradient, opacity } = paint;
    if (opacity < 1 / 255) return;
    if (colour === undefined) return this.count('pattern');
    const look = gradient ? 'gradient' : opacity < 0.995 ? 'translucent' : undefined;
    const layer = this.layers.findLast(({ name }) => name !== undefined)?.name;
    const spot = own(this.pdf.spots, colour);
    const common = { path, matrix, colour, look, layer, spot, clips: this.state.clips } as const;
    if (!stroked) this.shapes.push({ ...common, fill });
    else this.shapes.push({ ...common, fill, stroke: this.state.style, alsoFilled });
  }

  /** A gradient over all that the clips leave. */
  shading(id: string, page: PdfBox): void {
    const [x0, y0, x1, y1] = page;
    const path = { ops: 'MLLLZ', xy: [x0, y0, x1, y0, x1, y1, x0, y1] };
    const fill = { ...this.state.fill, colour: this.shadingColour(id), gradient: true };
    // the page itself, whatever the matrix is: what the clips leave of it is painted
    const matrix = this.kept[0]?.matrix ?? this.state.matrix;
    this.put(path, matrix, fill, 'nonzero');
  }
  fillWithShading(id: string): void {
    this.shading(id, this.pdf.pages[this.pdf.page - 1].view);
  }

  form(matrix: unknown, box: unknown): void {
    this.save();
    if (Array.isArray(matrix)) this.transform(matrix as unknown as Matrix);
    if (!Array.isArray(box)) return;
    const [x0, y0, x1, y1] = box as number[];
    this.clipNext('nonzero');
    this.path(28, [0, x0, y0, 1, x1, y0, 1, x1, y1, 1, x0, y1, 4]);
  }

  beginText(): void {
    this.textMatrix = this.lineMatrix = IDENTITY;
  }
  setTextMatrix(matrix: Matrix): void {
    this.textMatrix = this.lineMatrix = matrix;
  }
  moveText(x: number, y: number): void {
    this.textMatrix = this.lineMatrix = multiply(this.lineMatrix, translation(x, y));
  }
  nextLine(): void {
    this.moveText(0, -this.state.leading);
  }

  showText(glyphs: readonly unknown[]): void {
    const { fontSize, charSpacing, wordSpacing, hScale, rise, textMode } = this.state;
    const font = own(this.pdf.fonts, this.state.font);
    if (!font || font.type3) return this.count('text');
    if (font.missing) this.missingFonts.set(font.name ?? 'unnamed', font.standIn ?? 'a look-alike');
    const [perWidth = 0.001] = font.fontMatrix ?? [];
    for (const glyph of glyphs) {
      if (typeof glyph === 'number') {
        this.advance((-glyph / 1000) * fontSize * hScale);
        continue;
      }
      const { fontChar, width, isSpace, unicode = '', isInFont, originalCharCode } = glyph as Glyph;
      const data = own(font.glyphs, fontChar);
      const isBlank = unicode.trim() === '' && unicode !== '';
      // what the face lacks would be drawn as its box for missing letters
      const isNotDefined = !isInFont || (font.composite === true && originalCharCode === 0);
      const isMissing = font.missing ? data === undefined : isNotDefined;
      if (isMissing && !isBlank && width > 0) this.missLetter(font.name, unicode || fontChar);
      if (data && data.length > 0 && !isBlank && !isMissing) {
        const place = multiply(this.textMatrix, [fontSize * hScale, 0, 0, fontSize, 0, rise]);
        this.showGlyph(unpackPath(data), multiply(this.state.matrix, place), textMode, fontSize);
      }
      this.advance((width * perWidth * fontSize + charSpacing + (isSpace ? wordSpacing : 0)) * hScale);
    }
  }

  private missLetter(face = 'unnamed', letter: string): void {
    const letters = this.missingLetters.get(face) ?? new Set();
    this.missingLetters.set(face, letters.add(letter));
  }

  private showGlyph(path: Path, matrix: Matrix, mode: number, scale: number): void {
    const how = mode & 3;
    if (how === 3) return;
    if (how !== 1) this.put(path, matrix, this.state.fill, 'nonzero');
    if (how === 0) return;
    // the pen is as wide as on the page, though the outline is drawn in the font's own units
    const { style } = this.state;
    this.set({ style: { ...style, width: style.width / Math.max(Math.abs(scale), 1e-9) } });
    this.put(path, matrix, this.state.stroke, 'nonzero', true, how === 2);
    this.set({ style });
  }

  private advance(x: number): void {
    this.textMatrix = multiply(this.textMatrix, translation(x, 0));
  }

  findings(): Finding[] {
    const out: Finding[] = [];
    for (const [what, tell] of Object.entries(TELLS)) {
      const n = this.counts.get(what) ?? 0;
      if (n > 0) out.push(tell(n));
    }
    for (const [name, standIn] of this.missingFonts) {
      out.push({
        code: 'font-missing',
        severity: 'check',
        message: `${plainName(name)} is not in the file: its text is drawn in ${standIn}.`,
        waysOut: ['Turn text into outlines in the drawing, or type it here in a typeface of the shop'],
      });
    }
    for (const [name, letters] of this.missingLetters) {
      const printable = [...letters].filter((letter) => /^[\p{L}\p{N}\p{P}\p{S}\p{M}]+$/u.test(letter));
      const which = printable.length > 0 ? `: ${printable.slice(0, 12).join(' ')}` : '';
      out.push({
        code: 'letters-missing',
        severity: 'check',
        message: `${letters.size === 1 ? '1 character has' : `${letters.size} characters have`} no outline in ${plainName(name)} and ${letters.size === 1 ? 'is' : 'are'} left out${which}.`,
        waysOut: ['Turn text into outlines in the drawing, or type it here in a typeface of the shop'],
      });
    }
    return out;
  }
}

/** A typeface's name without the six letters that mark a part of it (ISO 32000-1, 9.6.4). */
const plainName = (name: string): string => name.replace(/^[A-Z]{6}\+/, '');

const TELLS: Readonly<Record<string, (n: number) => Finding>> = {
  image: (n) => ({
    code: 'image',
    severity: 'check',
    message: `${n === 1 ? '1 picture is' : `${n} pictures are`} left out: a knife cannot cut a picture.`,
    waysOut: ['Bring the picture in by itself and trace it', 'Send the graphic to print'],
  }),
  pattern: (n) => ({
    code: 'pattern',
    severity: 'check',
    message: `${n === 1 ? '1 shape' : `${n} shapes`} filled with a repeating pattern left out.`,
    waysOut: ['Turn the pattern into shapes in the drawing and bring the file in again'],
  }),
  mask: () => ({
    code: 'mask',
    severity: 'check',
    message: 'Parts of the page are faded by a mask, which is not applied.',
    waysOut: ['Cut the shapes to their outline in the drawing and bring the file in again'],
  }),
  text: () => ({
    code: 'text-left-out',
    severity: 'check',
    message: 'Text in a typeface that is drawn and not outlined is left out.',
    waysOut: ['Turn text into outlines in the drawing, or type it here'],
  }),
  hidden: (n) => ({
    code: 'hidden-layer',
    severity: 'note',
    message: `${n === 1 ? '1 step' : `${n} steps`} on layers that are switched off left out.`,
  }),
};

type Step = (drawing: Drawing, args: readonly unknown[]) => void;

const PAINTING = new Set([
  'constructPath',
  'showText',
  'shadingFill',
  'paintImageXObject',
  'paintImageMaskXObject',
]);

const MARKS: Readonly<Record<string, Step>> = {
  beginMarkedContentProps: (d, [tag, properties]) => (tag === 'OC' ? d.openLayer(properties) : d.openMark()),
  beginMarkedContent: (d) => d.openMark(),
  endMarkedContent: (d) => d.closeMark(),
};

const picture: Step = (d) => d.count('image');
const n = (value: unknown): number => (Number.isFinite(value) ? (value as number) : 0);

const STEPS: Readonly<Record<string, Step>> = {
  save: (d) => d.save(),
  restore: (d) => d.restore(),
  transform: (d, args) => d.transform(args as unknown as Matrix),
  setLineWidth: (d, [width]) => d.style({ width: n(width) }),
  setLineCap: (d, [cap]) => d.style({ cap: CAPS[n(cap)] ?? 'butt' }),
  setLineJoin: (d, [join]) => d.style({ join: JOINS[n(join)] ?? 'miter' }),
  setMiterLimit: (d, [limit]) => d.style({ miterLimit: n(limit) }),
  setDash: (d, [dashes, start]) => d.style({ dashes: dashes as number[], dashStart: n(start) }),
  setGState: (d, [states]) =>
    (states as [string, unknown][]).forEach(([key, value]) => graphicsState(d, key, value)),
  setFillRGBColor: (d, [colour]) =>
    d.paint('fill', { colour: String(colour).toLowerCase(), gradient: false }),
  setStrokeRGBColor: (d, [colour]) =>
    d.paint('stroke', { colour: String(colour).toLowerCase(), gradient: false }),
  setFillTransparent: (d) => d.paint('fill', { opacity: 0 }),
  setStrokeTransparent: (d) => d.paint('stroke', { opacity: 0 }),
  setFillColorN: (d, args) => d.shade('fill', args),
  setStrokeColorN: (d, args) => d.shade('stroke', args),
  shadingFill: (d, [id]) => d.fillWithShading(String(id)),
  clip: (d) => d.clipNext('nonzero'),
  eoClip: (d) => d.clipNext('evenodd'),
  constructPath: (d, [operation, data]) => d.path(n(operation), (data as (number[] | null)[])[0]),
  paintFormXObjectBegin: (d, [matrix, box]) => d.form(matrix, box),
  paintFormXObjectEnd: (d) => d.restore(),
  beginText: (d) => d.beginText(),
  setFont: (d, [font, size]) => d.set({ font: String(font), fontSize: n(size) }),
  setCharSpacing: (d, [spacing]) => d.set({ charSpacing: n(spacing) }),
  setWordSpacing: (d, [spacing]) => d.set({ wordSpacing: n(spacing) }),
  setHScale: (d, [scale]) => d.set({ hScale: n(scale) / 100 }),
  setLeading: (d, [leading]) => d.set({ leading: -n(leading) }),
  setTextRenderingMode: (d, [mode]) => d.set({ textMode: n(mode) }),
  setTextRise: (d, [rise]) => d.set({ rise: n(rise) }),
  setTextMatrix: (d, [matrix]) => d.setTextMatrix(Object.values(matrix as object) as unknown as Matrix),
  moveText: (d, [x, y]) => d.moveText(n(x), n(y)),
  nextLine: (d) => d.nextLine(),
  showText: (d, [glyphs]) => d.showText(glyphs as unknown[]),
  paintImageXObject: picture,
  paintImageMaskXObject: picture,
  paintInlineImageXObject: picture,
  paintImageMaskXObjectGroup: picture,
  paintInlineImageXObjectGroup: picture,
  paintImageXObjectRepeat: picture,
  paintImageMaskXObjectRepeat: picture,
  paintSolidColorImageMask: picture,
};

function graphicsState(drawing: Drawing, key: string, value: unknown): void {
  if (key === 'LW') drawing.style({ width: n(value) });
  else if (key === 'LC') drawing.style({ cap: CAPS[n(value)] ?? 'butt' });
  else if (key === 'LJ') drawing.style({ join: JOINS[n(value)] ?? 'miter' });
  else if (key === 'ML') drawing.style({ miterLimit: n(value) });
  else if (key === 'D')
    drawing.style({ dashes: (value as [number[], number])[0], dashStart: (value as [number[], number])[1] });
  else if (key === 'ca') drawing.paint('fill', { opacity: n(value) });
  else if (key === 'CA') drawing.paint('stroke', { opacity: n(value) });
  else if (key === 'SMask' && value) drawing.count('mask');
}

/** The parser packs paths as numbers: 0 move, 1 line, 2 cubic, 3 quadratic, 4 close, each followed by its points. */
function unpackPath(data: readonly number[]): Path {
  let ops = '';
  const xy: number[] = [];
  for (let i = 0; i < data.length;) {
    const code = data[i++];
    if (code === 4) {
      ops += 'Z';
      continue;
    }
    const takes = code === 2 ? 6 : code === 3 ? 4 : 2;
    const points = data.slice(i, i + takes);
    i += takes;
    if (!points.every(Number.isFinite)) break;
    if (code === 3) {
      const [x0, y0, [x1, y1, x2, y2]] = [xy[xy.length - 2], xy[xy.length - 1], points];
      xy.push(
        x0 + (2 / 3) * (x1 - x0),
        y0 + (2 / 3) * (y1 - y0),
        x2 + (2 / 3) * (x1 - x2),
        y2 + (2 / 3) * (y1 - y2),
        x2,
        y2,
      );
      ops += 'C';
    } else {
      append(xy, points);
      ops += code === 0 ? 'M' : code === 1 ? 'L' : 'C';
    }
  }
  return { ops, xy };
}
