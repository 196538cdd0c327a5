import type { Cut } from '../../../contracts/api';

/** A cut's outlines, and how many of its lines are on the film already. */
export interface CutLines {
  readonly design: Path2D;
  readonly paths: readonly Path2D[];
  readonly done: number;
}

export interface Head {
  readonly x: number;
  readonly y: number;
  readonly down: boolean;
}

/** The film in the machine: what is cut of it, and where the head stands. */
export function* drawCut(
  context: CanvasRenderingContext2D,
  scale: number,
  cut: Cut,
  lines: CutLines | undefined,
  head: Head | undefined,
  color: (name: string) => string,
): Generator<void> {
  context.fillStyle = color('--card');
  context.strokeStyle = color('--rule');
  context.lineWidth = 1 / scale;
  context.fillRect(0, 0, cut.length, cut.rollWidth);
  context.strokeRect(0, 0, cut.length, cut.rollWidth);
  context.fillStyle = color('--rule-soft');
  const { far, near } = cut.edges;
  context.fillRect(0, 0, cut.length, far);
  context.fillRect(0, cut.rollWidth - near, cut.length, near);
  context.translate(0, far);
  if (lines) yield* drawLines(context, scale, cut, lines, color);
  if (head && cut.state !== 'wants-film') drawHead(context, scale, head, color('--currant'));
}

function* drawLines(
  context: CanvasRenderingContext2D,
  scale: number,
  cut: Cut,
  { design, paths, done }: CutLines,
  color: (name: string) => string,
): Generator<void> {
  context.globalAlpha = 0.28;
  context.fillStyle = cut.film.colour;
  context.fill(design);
  context.globalAlpha = 1;
  for (const [i, path] of paths.entries()) {
    context.lineWidth = (i < done ? 2.4 : 1) / scale;
    context.strokeStyle = i < done ? color('--gooseberry') : color('--ink-soft');
    context.stroke(path);
    yield;
  }
}

function drawHead(context: CanvasRenderingContext2D, scale: number, { x, y, down }: Head, ink: string): void {
  const r = 9 / scale;
  context.strokeStyle = ink;
  context.lineWidth = 2 / scale;
  context.beginPath();
  context.arc(x, y, r, 0, 7);
  context.moveTo(x - 2 * r, y);
  context.lineTo(x + 2 * r, y);
  context.moveTo(x, y - 2 * r);
  context.lineTo(x, y + 2 * r);
  context.stroke();
  if (!down) return;
  context.fillStyle = ink;
  context.beginPath();
  context.arc(x, y, r / 2.5, 0, 7);
  context.fill();
}
