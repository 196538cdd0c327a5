import { own } from '../../units/own';
import type { PrintInk } from '../../colour/ink';
import type { Clip, ClipOutline, Shape, StrokeStyle } from '../artwork';
import type { Bounds } from '../../geometry/bounds';
import type { Fill } from '../../geometry/region';
import type { Matrix } from '../../geometry/matrix';
import { multiply } from '../../geometry/matrix';
import type { Path } from '../../geometry/path';
import { unpackPath } from './packedPath';
import type { PdfPage, PdfShading } from './parsed';
import { shadingClips, shadingColour } from './shading';
import type { Told } from './told';

/** The graphics state and, in it, the text state (ISO 32000-2, 8.4 and 9.3). */
export interface State {
  readonly matrix: Matrix;
  readonly clips: readonly number[];
  readonly fill: Paint;
  readonly stroke: Paint;
  /** Opacity of the groups around, which apply as a whole (ISO 32000-2, 11.4.5). */
  readonly groupOpacity: number;
  /** Mixed with what lies beneath by other than covering it (ISO 32000-2, 11.3.5). */
  readonly isBlended: boolean;
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

export interface Paint {
  /** Undefined: a repeating pattern. */
  readonly colour: string | undefined;
  readonly ink?: PrintInk;
  readonly gradient?: { readonly shading: PdfShading | undefined; readonly matrix: Matrix };
  readonly opacity: number;
  /** The ink that leaves no mark anywhere (ISO 32000-2, 8.6.6.4). */
  readonly isNone?: boolean;
}

const BLACK: Paint = { colour: '#000000', opacity: 1 };
const START: Omit<State, 'matrix'> = {
  clips: [],
  fill: BLACK,
  stroke: BLACK,
  groupOpacity: 1,
  isBlended: false,
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
  // the outline of a glyph that is a picture of pixels
  94: { fill: 'nonzero' },
};
const PIXEL_GLYPH = 94;

/** A page while it is drawn: the graphics state, and what has been painted. */
export class Drawing {
  readonly shapes: Shape[] = [];
  readonly clips: Clip[] = [];
  state: State;
  private readonly kept: State[] = [];
  private pendingClip: Fill | undefined;
  private readonly layers: { name: string | undefined; visible: boolean }[] = [];
  /** Default space of the page or the form that is being drawn: patterns lie in it (ISO 32000-2, 8.7.3.1). */
  private readonly bases: Matrix[];
  /** How many soft masks are being drawn: what they hold is never seen itself. */
  private masks = 0;

  constructor(
    private readonly pdf: PdfPage,
    readonly told: Told,
    matrix: Matrix,
    private readonly page: Bounds,
  ) {
    this.state = { ...START, matrix };
    this.bases = [matrix];
  }

  /** Whether what is painted now is seen; what is not is counted. */
  isSeen(): boolean {
    if (this.masks > 0) return false;
    if (!this.layers.some((layer) => !layer.visible)) return true;
    this.told.count('hidden');
    return false;
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
  setColour(which: 'fill' | 'stroke', colour: string | undefined): void {
    this.paint(which, { colour, gradient: undefined, ink: undefined, isNone: false });
  }
  setInk(which: 'fill' | 'stroke', number: number): void {
    this.paint(which, { ink: this.pdf.inks[number] });
  }
  /** @param pattern its kind, name and matrix */
  setPattern(which: 'fill' | 'stroke', [kind, id, matrix]: readonly unknown[]): void {
    if (kind !== 'Shading') return this.setColour(which, undefined);
    const shading = own(this.pdf.shadings, String(id));
    const base = this.bases[this.bases.length - 1];
    const space = Array.isArray(matrix) ? multiply(base, matrix as unknown as Matrix) : base;
    this.paint(which, { ...this.gradient(shading, space), ink: undefined, isNone: false });
  }
  private gradient(shading: PdfShading | undefined, matrix: Matrix): Pick<Paint, 'colour' | 'gradient'> {
    return { colour: shading ? shadingColour(shading) : undefined, gradient: { shading, matrix } };
  }

  clipNext(rule: Fill): void {
    this.pendingClip = rule;
  }
  /** From now on only what lies inside these outlines is seen. */
  clipTo(outlines: readonly ClipOutline[]): void {
    this.clips.push({ outlines });
    this.set({ clips: [...this.state.clips, this.clips.length - 1] });
  }

  openLayer(properties: unknown): void {
    const { name, visible } = (properties ?? {}) as { name?: string | null; visible?: boolean };
    this.layers.push({ name: name ?? undefined, visible: visible ?? true });
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
    const { matrix } = this.state;
    if (path.ops !== '' && (how.fill || how.stroke) && this.isSeen()) {
      if (operation === PIXEL_GLYPH) this.told.count('pixels');
      if (how.fill) this.put(path, matrix, this.state.fill, how.fill);
      const outline = how.close && !path.ops.endsWith('Z') ? { ...path, ops: `${path.ops}Z` } : path;
      if (how.stroke) this.put(outline, matrix, this.state.stroke, 'nonzero', true, how.fill !== undefined);
    }
    if (this.pendingClip) {
      this.clipTo([{ path, matrix, fill: this.pendingClip }]);
      this.pendingClip = undefined;
    }
  }

  /** Paints an outline; whoever calls has asked whether it is seen. */
  put(path: Path, matrix: Matrix, paint: Paint, fill: Fill, stroked = false, alsoFilled = false): void {
    const { colour, ink, gradient } = paint;
    const { groupOpacity, isBlended, style } = this.state;
    const opacity = paint.opacity * groupOpacity;
    if (opacity < 1 / 255 || paint.isNone) return;
    if (colour === undefined) return this.told.count(gradient ? 'shading' : 'pattern');
    if (isBlended) this.told.count('blend');
    const look = gradient ? 'gradient' : opacity < 0.995 ? 'translucent' : undefined;
    const layer = this.layers.findLast(({ name }) => name !== undefined)?.name;
    const spot = own(this.pdf.spots, colour);
    const known = ink && !gradient ? { ink } : {};
    const clips = [...this.state.clips, ...this.clipsOf(gradient)];
    const common = { path, matrix, colour, ...known, look, layer, spot, clips } as const;
    if (!stroked) this.shapes.push({ ...common, fill });
    else this.shapes.push({ ...common, fill, stroke: style, alsoFilled });
  }

  /** Where a gradient ends, as clips of the page. */
  private clipsOf(gradient: Paint['gradient']): number[] {
    if (!gradient?.shading) return [];
    const { shading, matrix } = gradient;
    return shadingClips(shading, matrix, this.page).map((outlines) => this.clips.push({ outlines }) - 1);
  }

  /** A gradient over all that the clips leave. */
  fillWithShading(id: string): void {
    if (!this.isSeen()) return;
    const { minX, minY, maxX, maxY } = this.page;
    const path = { ops: 'MLLLZ', xy: [minX, minY, maxX, minY, maxX, maxY, minX, maxY] };
    const shading = own(this.pdf.shadings, id);
    const paint = { ...this.state.fill, ...this.gradient(shading, this.state.matrix) };
    this.put(path, [1, 0, 0, 1, 0, 0], paint, 'nonzero');
  }

  openForm(matrix: unknown, box: unknown): void {
    this.save();
    if (Array.isArray(matrix)) this.transform(matrix as unknown as Matrix);
    this.bases.push(this.state.matrix);
    if (Array.isArray(box)) this.clipToBox(box as number[], this.state.matrix);
  }
  closeForm(): void {
    this.bases.pop();
    this.restore();
  }

  /** A group is drawn opaque in itself, and laid down as a whole; a soft mask is not laid down at all. */
  openGroup({ bbox, matrix, smask }: Group): void {
    this.save();
    const { fill, stroke, groupOpacity, isBlended } = this.state;
    const space = matrix ? multiply(this.state.matrix, matrix) : this.state.matrix;
    if (bbox) this.clipToBox(bbox, space);
    this.set({
      fill: { ...fill, opacity: 1 },
      stroke: { ...stroke, opacity: 1 },
      groupOpacity: groupOpacity * fill.opacity,
      isBlended,
    });
    if (smask) this.masks++;
  }
  closeGroup({ smask }: Group): void {
    if (smask) this.masks--;
    this.restore();
  }

  /** A glyph that gives its own bounds is not seen outside them; without any they bound nothing. */
  clipToGlyph(box: readonly number[]): void {
    const [x0, y0, x1, y1] = box;
    if (x0 !== x1 && y0 !== y1) this.clipToBox(box, this.state.matrix);
  }

  private clipToBox([x0, y0, x1, y1]: readonly number[], matrix: Matrix): void {
    this.clipTo([{ path: { ops: 'MLLLZ', xy: [x0, y0, x1, y0, x1, y1, x0, y1] }, matrix, fill: 'nonzero' }]);
  }
}

export interface Group {
  readonly bbox?: readonly number[] | null;
  readonly matrix?: Matrix | null;
  readonly smask?: unknown;
}
