/**
 * Reads HP-GL as a drawing: IN DF PU PD PA PR AA AR CI EA ER RA RR EW SP SC IP IW RO, after the HP 7475A
 * Interfacing and Programming Manual (1983), and PM EP FP of HP-GL/2 as plain outlines. Strokes that meet become
 * outlines, pens become colours.
 */
import { append } from '../../geometry/lists';
import type { Artwork, Clip, Shape } from '../artwork';
import type { Stroke } from '../outlines';
import { joinStrokes, shapesOf } from '../outlines';
import { onOwnPage } from '../ownPage';
import type { Instruction } from '../../hpgl/readHpgl';
import { createHpglReader } from '../../hpgl/readHpgl';
import type { Finding } from '../../findings/finding';
import { addArc, arcPath } from '../../geometry/arc';
import type { Matrix } from '../../geometry/matrix';
import { scaling } from '../../geometry/matrix';

/** mm a plotter unit (HP 7475A manual). */
const UNIT = 0.025;
/** Scaling points of A4 on the plotter of the manual, from memory; only counts for files that scale without them. */
const DEFAULT_POINTS: readonly number[] = [250, 279, 10250, 7479];
/** Ends no further apart than this were one line before they were rounded to units, in units. */
const JOIN_UNITS = 1.5;
const MOST_POINTS = 5_000_000;
/** Lines and outlines that can be joined and nested in a few seconds. */
const MOST_STROKES = 250_000;
/** Characters that are taken apart at a time. */
const PART = 1 << 16;

/** What each pen is shown and separated as; more pens start over. */
const PENS = ['#000000', '#c8102e', '#00763a', '#0b4ea2', '#e87200', '#6d2077', '#8a5a2b', '#5f6a72'];

type Spot = readonly [number, number];

/** A plotter's state while it draws. */
class Plotter {
  readonly strokes: Stroke[][] = [[]];
  readonly windows: (readonly number[] | undefined)[] = [undefined];
  readonly leftOut = new Map<string, number>();
  /** Instructions with a coordinate that has no partner. */
  odd = 0;
  private at: Spot = [0, 0];
  private down = false;
  private relative = false;
  private pen = 1;
  private p: readonly number[] = DEFAULT_POINTS;
  private scale: readonly number[] | undefined;
  private turn = 0;
  private xy: number[] = [];
  private ops = '';
  private points = 0;
  private count = 0;

  take({ code, values }: Instruction): void {
    switch (code) {
      case 'IN':
      case 'DF':
        return this.reset();
      case 'SP':
        this.lift();
        this.pen = Math.round(values[0] ?? 0);
        return;
      case 'PA':
      case 'PR':
        this.relative = code === 'PR';
        return this.moves(values);
      case 'PU':
        this.lift();
        this.down = false;
        return this.moves(values);
      case 'PD':
        this.down = true;
        return this.moves(values);
      case 'AA':
      case 'AR':
        return this.arc(values, code === 'AR');
      case 'CI':
        return this.circle(values[0] ?? 0);
      case 'EA':
      case 'RA':
        return this.box([values[0], values[1]], false);
      case 'ER':
      case 'RR':
        return this.box([values[0], values[1]], true);
      case 'EW':
      case 'WG':
        return this.wedge(values);
      case 'SC':
        this.lift();
        this.scale = values.length >= 4 ? values : undefined;
        return;
      case 'IP':
        this.lift();
        this.p = values.length >= 4 ? values.slice(0, 4) : DEFAULT_POINTS;
        return;
      case 'IW':
        return this.window(values);
      case 'RO':
        this.lift();
        this.turn = (((Math.round((values[0] ?? 0) / 90) * 90) % 360) + 360) % 360;
        return;
      case 'PM':
        return this.polygon(values[0] ?? 0);
      default:
        if (!SILENT.has(code)) this.leftOut.set(code, (this.leftOut.get(code) ?? 0) + 1);
    }
  }

  private reset(): void {
    this.lift();
    Object.assign(this, { down: false, relative: false, p: DEFAULT_POINTS, scale: undefined, turn: 0 });
    if (this.windows[this.windows.length - 1] !== undefined) this.window([]);
  }

  /** Ends the line being drawn. */
  lift(): void {
    if (this.ops.length > 1) this.put(this.ops, this.xy);
    this.ops = '';
    this.xy = [];
  }

  private put(ops: string, xy: readonly number[]): void {
    if (this.pen === 0) return;
    this.points += xy.length / 2;
    if (this.points > MOST_POINTS) throw new Error('too many points');
    if (++this.count > MOST_STROKES) throw new Error('too many lines');
    const colour = PENS[(Math.abs(this.pen) + PENS.length - 1) % PENS.length];
    this.strokes[this.strokes.length - 1].push({ path: { ops, xy }, colour, layer: `Pen ${this.pen}` });
  }

  /** Polygon mode (HP-GL/2, PM): 1 closes an outline and 2 the last one, whether or not the pen went back. */
  polygon(mode: number): void {
    if (mode !== 0 && this.ops.length > 2) this.ops += 'Z';
    this.lift();
  }

  private moves(values: readonly number[]): void {
    if (values.length % 2 === 1) this.odd++;
    for (let i = 0; i + 1 < values.length; i += 2) {
      const [x, y] = this.at;
      this.at = this.relative ? [x + values[i], y + values[i + 1]] : [values[i], values[i + 1]];
      if (this.down) this.lineTo([x, y], this.at);
    }
  }

  private lineTo(from: Spot, to: Spot): void {
    if (this.ops === '') {
      this.ops = 'M';
      append(this.xy, this.plot(from));
    }
    this.ops += 'L';
    append(this.xy, this.plot(to));
  }

  private arc([a = 0, b = 0, angle = 0]: readonly number[], relative: boolean): void {
    const centre: Spot = relative ? [this.at[0] + a, this.at[1] + b] : [a, b];
    const radius = Math.hypot(this.at[0] - centre[0], this.at[1] - centre[1]);
    const from = Math.atan2(this.at[1] - centre[1], this.at[0] - centre[0]);
    const to = from + (angle * Math.PI) / 180;
    if (this.down && radius > 0) {
      if (this.ops === '') {
        this.ops = 'M';
        append(this.xy, this.plot(this.at));
      }
      const { c, u, v } = this.frame(centre, radius);
      this.ops += addArc(this.xy, c, u, v, from, to);
    }
    this.at = [centre[0] + radius * Math.cos(to), centre[1] + radius * Math.sin(to)];
  }

  private circle(radius: number): void {
    if (radius === 0) return;
    this.lift();
    const { c, u, v } = this.frame(this.at, Math.abs(radius));
    const path = arcPath(c, u, v, 0, 2 * Math.PI);
    this.put(path.ops, path.xy);
  }

  private box([a = 0, b = 0]: readonly (number | undefined)[], relative: boolean): void {
    this.lift();
    const [x, y] = this.at;
    const [X, Y] = relative ? [x + a, y + b] : [a, b];
    const corners: Spot[] = [
      [x, y],
      [X, y],
      [X, Y],
      [x, Y],
    ];
    this.put(
      'MLLLZ',
      corners.flatMap((corner) => this.plot(corner)),
    );
  }

  private wedge([radius = 0, start = 0, sweep = 0]: readonly number[]): void {
    this.lift();
    const { c, u, v } = this.frame(this.at, radius);
    const from = (start * Math.PI) / 180;
    const [cos, sin] = [Math.cos(from), Math.sin(from)];
    const xy = [...c, c[0] + cos * u[0] + sin * v[0], c[1] + cos * u[1] + sin * v[1]];
    const ops = addArc(xy, c, u, v, from, from + (sweep * Math.PI) / 180);
    this.put(`ML${ops}Z`, xy);
  }

  private window(values: readonly number[]): void {
    this.lift();
    const corners =
      values.length >= 4
        ? [...this.plot([values[0], values[1]]), ...this.plot([values[2], values[3]])]
        : undefined;
    this.windows.push(corners);
    this.strokes.push([]);
  }

  /** A circle's centre and its two half axes on the plotter: scaling can make it an ellipse. */
  private frame(centre: Spot, radius: number): { c: Spot; u: Spot; v: Spot } {
    const c = this.plot(centre);
    const right = this.plot([centre[0] + radius, centre[1]]);
    const up = this.plot([centre[0], centre[1] + radius]);
    return { c, u: [right[0] - c[0], right[1] - c[1]], v: [up[0] - c[0], up[1] - c[1]] };
  }

  /** The file's own units → plotter units, y up. */
  private plot([x, y]: Spot): Spot {
    let [X, Y] = [x, y];
    if (this.scale) {
      const [x0, x1, y0, y1] = this.scale;
      const [p1x, p1y, p2x, p2y] = this.p;
      let sx = (p2x - p1x) / (x1 - x0);
      let sy = (p2y - p1y) / (y1 - y0);
      if (this.scale[4] === 1) sx = sy = Math.min(Math.abs(sx), Math.abs(sy));
      X = p1x + (x - x0) * sx;
      Y = p1y + (y - y0) * sy;
    }
    if (!Number.isFinite(X) || !Number.isFinite(Y) || Math.abs(X) > 1e9 || Math.abs(Y) > 1e9) {
      throw new Error('a place that no plotter reaches');
    }
    if (this.turn === 90) return [-Y, X];
    if (this.turn === 180) return [-X, -Y];
    return this.turn === 270 ? [Y, -X] : [X, Y];
  }
}

/** Instructions that draw nothing. */
const SILENT = new Set(
  'VS FS AS PT SI SR DI DR CS CA SS SA LT LA FT PW PS PG NP TL XT YT OI OH OS OA OE OF OP OD OC OW IM CO BP EC RP TD TR UL WU CR PC SB MC QL SM EP FP ST AF AH FR CT CM'.split(
    ' ',
  ),
);

/**
 * Reads HP-GL text.
 * @throws Error when it holds no drawing instruction, or places that no plotter reaches
 */
export function readPlt(text: string): Artwork {
  const { plain, labels, encoded } = withoutLabels(text);
  const plotter = new Plotter();
  const reader = createHpglReader();
  // part by part: all instructions of a large file at once take more memory than the drawing
  for (let at = 0; at <= plain.length; at += PART)
    for (const instruction of reader.push(plain.slice(at, at + PART))) plotter.take(instruction);
  for (const instruction of reader.push(';')) plotter.take(instruction);
  plotter.lift();
  const { shapes, clips } = shapesIn(plotter);
  return { ...onOwnPage(shapes, findingsOf(plotter, labels, encoded)), clips };
}

/** Labels run to an end-of-text mark and may hold anything; encoded polylines hold letters too. */
function withoutLabels(text: string): { plain: string; labels: number; encoded: number } {
  let labels = 0;
  let encoded = 0;
  const plain = text
    .replace(/\x1b%-?\d*[AB]|\x1bE/g, '')
    .replace(/LB[^\x03]*(?:\x03|$)/g, () => {
      labels++;
      return ';';
    })
    .replace(/PE[^;]*;/g, () => {
      encoded++;
      return ';';
    });
  return { plain, labels, encoded };
}

function shapesIn({ strokes, windows }: Plotter): { shapes: Shape[]; clips: Clip[] } {
  const toMm: Matrix = scaling(UNIT, -UNIT);
  const clips: Clip[] = [];
  const shapes = strokes.flatMap((own, i) => {
    const made = shapesOf(joinStrokes(own, JOIN_UNITS), toMm);
    const window = windows[i];
    if (!window || made.length === 0) return made;
    const [x0, y0, x1, y1] = window;
    const path = { ops: 'MLLLZ', xy: [x0, y0, x1, y0, x1, y1, x0, y1] };
    clips.push({ outlines: [{ path, matrix: toMm, fill: 'nonzero' }] });
    return made.map((shape) => ({ ...shape, clips: [clips.length - 1] }));
  });
  return toCorner(shapes, clips);
}

/** Lays the drawing's upper left corner at 0, 0. */
function toCorner(shapes: Shape[], clips: Clip[]): { shapes: Shape[]; clips: Clip[] } {
  let minX = Infinity;
  let minY = Infinity;
  for (const { path } of shapes) {
    for (let i = 0; i < path.xy.length; i += 2) {
      minX = Math.min(minX, path.xy[i] * UNIT);
      minY = Math.min(minY, -path.xy[i + 1] * UNIT);
    }
  }
  if (!Number.isFinite(minX)) return { shapes, clips };
  const matrix: Matrix = [UNIT, 0, 0, -UNIT, -minX, -minY];
  const moved = clips.map(({ outlines }) => ({
    outlines: outlines.map((outline) => ({ ...outline, matrix })),
  }));
  return { shapes: shapes.map((shape) => ({ ...shape, matrix })), clips: moved };
}

function findingsOf({ leftOut, odd }: Plotter, labels: number, encoded: number): Finding[] {
  const findings: Finding[] = [];
  if (labels > 0) {
    findings.push({
      code: 'text-left-out',
      severity: 'check',
      message: `${labels === 1 ? '1 label is' : `${labels} labels are`} left out: a plotter writes them in its own typeface.`,
      waysOut: ['Type the text here'],
    });
  }
  if (encoded > 0) {
    findings.push({
      code: 'encoded-lines',
      severity: 'check',
      message: `${encoded === 1 ? '1 packed line is' : `${encoded} packed lines are`} left out.`,
      waysOut: ['Save the drawing as plain HP-GL, or as SVG or PDF'],
    });
  }
  if (odd > 0) {
    findings.push({
      code: 'odd-coordinates',
      severity: 'check',
      message: `${odd === 1 ? '1 instruction has' : `${odd} instructions have`} a place with only one coordinate, which is passed over: the file may be damaged.`,
      waysOut: ['Compare with the drawing', 'Save it again and bring it in'],
    });
  }
  if (leftOut.size > 0) {
    findings.push({
      code: 'left-out',
      severity: 'check',
      message: `Instructions that are not known are left out: ${[...leftOut.keys()].join(', ')}.`,
    });
  }
  return findings;
}
