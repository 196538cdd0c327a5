/** What is played, on canvas: all of it faintly, and what is done so far. */
import type { Play, Played } from '../../../../core/toolpath/play';
import { lineOf, PLAYED } from '../../../../core/toolpath/play';
import { hatch } from '../../../stage/hatch';
import { pathOfLine } from '../../../stage/paths';
import type { PlayView } from '../../../workers/packedPlay';

export const PLAYED_COLOURS: Readonly<Record<Played, string>> = {
  kiss: '#261c2c',
  through: '#5e2750',
  perforated: '#33568f',
  crease: '#5b7a28',
  pen: '#c98a12',
  weed: '#8c8188',
  align: '#b9a98f',
};
const FAINT = '#c4b7a3';
const UP = '#33568f';
const TWICE = 'rgb(179 38 58 / 55%)';
const HOLDER = '#33568f';
/** Places drawn between two looks at the clock. */
const AT_ONCE = 3000;
/** px for a mm: from here on the holder's own way is seen beside the tip's. */
const CLOSE = 14;

export const isClose = (scale: number): boolean => scale >= CLOSE;

/** Film, everything that is going to be cut, and what is cut twice. */
export const playDrawer = (view: PlayView, showsUp: boolean) =>
  function* draw(context: CanvasRenderingContext2D, scale: number): Generator<void> {
    const { play, twice } = view;
    drawFilm(context, scale, view);
    context.strokeStyle = TWICE;
    context.lineWidth = 7 / scale;
    for (const points of twice) context.stroke(pathOfLine(points, false));
    yield;
    context.lineWidth = 1 / scale;
    for (const [from, to] of slices(play)) {
      context.strokeStyle = FAINT;
      context.stroke(waysPath(play, play.tip, from, to));
      if (isClose(scale)) {
        context.strokeStyle = 'rgb(51 86 143 / 30%)';
        context.stroke(waysPath(play, play.holder, from, to));
      }
      yield;
    }
    if (showsUp) yield* drawUp(context, scale, play);
  };

function drawFilm(context: CanvasRenderingContext2D, scale: number, view: PlayView): void {
  const { length, cuttable, edges, colour } = view;
  const wide = cuttable + edges.far + edges.near;
  context.fillStyle = `color-mix(in srgb, ${colour} 16%, #fffdf7)`;
  context.fillRect(0, -edges.far, length, wide);
  hatch(context, scale, { minX: 0, minY: -edges.far, maxX: length, maxY: 0 }, '#b9a98f');
  hatch(context, scale, { minX: 0, minY: cuttable, maxX: length, maxY: cuttable + edges.near }, '#b9a98f');
  context.strokeStyle = '#8c8188';
  context.lineWidth = 1 / scale;
  context.strokeRect(0, -edges.far, length, wide);
}

/** Ways with the knife up, from where a line ends to where the next begins. */
function* drawUp(context: CanvasRenderingContext2D, scale: number, play: Play): Generator<void> {
  const { holder, starts } = play;
  context.strokeStyle = UP;
  context.globalAlpha = 0.5;
  context.lineWidth = 1 / scale;
  context.setLineDash([2 / scale, 4 / scale]);
  const path = new Path2D();
  path.moveTo(0, 0);
  for (let i = 0; i + 1 < starts.length; i++) {
    path.lineTo(holder[2 * starts[i]], holder[2 * starts[i] + 1]);
    path.moveTo(holder[2 * starts[i + 1] - 2], holder[2 * starts[i + 1] - 1]);
  }
  context.stroke(path);
  context.setLineDash([]);
  context.globalAlpha = 1;
  yield;
}

function* slices({ moments }: Play): Generator<readonly [number, number]> {
  for (let from = 0; from < moments.length; from += AT_ONCE)
    yield [from, Math.min(moments.length - 1, from + AT_ONCE)];
}

/** Ways with the tool down from one place to another, of all lines or of a kind. */
function waysPath(play: Play, xy: Float64Array, from: number, to: number, kind = -1): Path2D {
  const { starts, kinds } = play;
  const path = new Path2D();
  for (let line = lineOf(play, from); line < kinds.length && starts[line] <= to; line++) {
    if (kind >= 0 && kinds[line] !== kind) continue;
    const first = Math.max(from, starts[line]);
    path.moveTo(xy[2 * first], xy[2 * first + 1]);
    for (let i = first + 1; i <= Math.min(to, starts[line + 1] - 1); i++)
      path.lineTo(xy[2 * i], xy[2 * i + 1]);
  }
  return path;
}

/** What is done from one place to another, over what was drawn before. */
export function drawDone(
  context: CanvasRenderingContext2D,
  scale: number,
  play: Play,
  from: number,
  to: number,
): void {
  for (const [kind, name] of PLAYED.entries()) {
    context.strokeStyle = PLAYED_COLOURS[name];
    context.lineWidth = 1.8 / scale;
    context.stroke(waysPath(play, play.tip, from, to, kind));
  }
  if (!isClose(scale)) return;
  context.strokeStyle = HOLDER;
  context.lineWidth = 1 / scale;
  context.stroke(waysPath(play, play.holder, from, to));
}
