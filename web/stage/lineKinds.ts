import type { LineKind } from '../../core/artwork/choices';
import type { LineView } from '../workers/packed';
import { pathOfLine } from './paths';

/** Told apart by stroke pattern first, colour second; lengths in px. */
const STYLE: Readonly<
  Record<LineKind, { readonly colour: string; readonly width: number; readonly dash: readonly number[] }>
> = {
  kiss: { colour: '#261c2c', width: 1.5, dash: [] },
  through: { colour: '#5e2750', width: 4, dash: [] },
  perforated: { colour: '#33568f', width: 1.8, dash: [11, 5] },
  crease: { colour: '#415a18', width: 1.8, dash: [9, 4, 1.5, 4] },
  pen: { colour: '#7a5206', width: 1.8, dash: [1.8, 3.6] },
  print: { colour: '#8b8290', width: 0.7, dash: [] },
};

/** Lines as what they are for. */
export function* drawLines(
  context: CanvasRenderingContext2D,
  lines: readonly Pick<LineView, 'kind' | 'points' | 'closed'>[],
  scale: number,
  ground: string,
): Generator<void> {
  for (const line of lines) {
    const { colour, width, dash } = STYLE[line.kind];
    const path = pathOfLine(line.points, line.closed);
    context.strokeStyle = colour;
    context.lineWidth = width / scale;
    context.setLineDash(dash.map((d) => d / scale));
    context.stroke(path);
    if (line.kind === 'through') {
      // a double line: the wide one with its middle taken out
      context.strokeStyle = ground;
      context.lineWidth = 1.6 / scale;
      context.stroke(path);
    }
    context.setLineDash([]);
    yield;
  }
}
