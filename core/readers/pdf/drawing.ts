import { own } from '../../units/own';
import type { PrintInk } from '../../colour/ink';
import type { Clip, Shape, StrokeStyle } from '../artwork';
import type { Fill } from '../../geometry/region';
import type { Matrix } from '../../geometry/matrix';
import { multiply } from '../../geometry/matrix';
import type { Path } from '../../geometry/path';
import { meanColour } from '../paint';
import { unpackPath } from './packedPath';
import type { PdfBox, PdfPage } from './parsed';
import type { Told } from './told';

/** The graphics state and, in it, the text state (ISO 32000-1, 8.4 and 9.3). */
export interface State {
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

export interface Paint {
  readonly colour: string | undefined;
  readonly ink?: PrintInk;
  readonly gradient: boolean;
  readonly opacity: number;
}

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

/** A page while it is drawn: the graphics state, and what has been painted. */
export class Drawing {
  readonly shapes: Shape[] = [];
  readonly clips: Clip[] = [];
  state: State;
  private readonly kept: State[] = [];
  private pendingClip: Fill | undefined;
  private readonly layers: { name: string | undefined; visible: boolean }[] = [];

  constructor(
    private readonly pdf: PdfPage,
    private readonly told: Told,
    matrix: Matrix,
  ) {
    this.state = { ...START, matrix };
  }

  get isHidden(): boolean {
    return this.layers.some((layer) => !layer.visible);
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
  ink(which: 'fill' | 'stroke', number: number): void {
    this.paint(which, { ink: this.pdf.inks[number] });
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

  put(path: Path, matrix: Matrix, paint: Paint, fill: Fill, stroked = false, alsoFilled = false): void {
    const { colour, ink, gradient, opacity } = paint;
    if (opacity < 1 / 255) return;
    if (colour === undefined) return this.told.count('pattern');
    const look = gradient ? 'gradient' : opacity < 0.995 ? 'translucent' : undefined;
    const layer = this.layers.findLast(({ name }) => name !== undefined)?.name;
    const spot = own(this.pdf.spots, colour);
    const known = ink && !gradient ? { ink } : {};
    const common = { path, matrix, colour, ...known, look, layer, spot, clips: this.state.clips } as const;
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
}
