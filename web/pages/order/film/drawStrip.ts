/** A strip as it will lie in the cutter. */
import { lineToPathData } from '../../../../core/geometry/pathText';
import { hatch } from '../../../stage/hatch';
import { fillAll, strokeAll } from '../../../stage/paths';
import type { PlacementView, StripView } from '../../../workers/packed';

const EDGE = '#8c8188';
const INK = '#261c2c';
const DAMSON = '#5e2750';
const HELD = '#b9a98f';
const BILBERRY = '#33568f';
/** Film is shown so far at least, px. */
const FAR = 2600;

export interface StripLook {
  /** mm of film that is shown at least */
  readonly run: number;
  /** Outlines only. */
  readonly asLines: boolean;
  /** What is held over the film is left out. */
  readonly without?: PlacementView;
}

/** Draws a strip, yielding wherever it may be interrupted. */
export const stripDrawer = (strip: StripView, { run, asLines, without }: StripLook) =>
  function* draw(context: CanvasRenderingContext2D, scale: number): Generator<void> {
    drawFilm(
      context,
      scale,
      strip,
      strip.roll.sheets === undefined ? Math.max(run, FAR / scale) : strip.roll.lengthLeft,
    );
    context.translate(0, strip.edges.far);
    for (const placement of strip.placements) {
      if (placement === without) continue;
      const { region, waste, order } = strip.parts[placement.part];
      context.save();
      context.transform(...(placement.matrix as [number, number, number, number, number, number]));
      if (asLines) yield* strokeAll(context, region, INK, scale);
      else yield* fillAll(context, region, order === undefined ? strip.film.colour : paler(strip), scale);
      context.strokeStyle = DAMSON;
      context.lineWidth = 1 / scale;
      context.stroke(new Path2D(waste));
      context.restore();
    }
    const { borders, lines } = strip.weeding;
    context.strokeStyle = DAMSON;
    context.lineWidth = 1 / scale;
    context.stroke(new Path2D(borders.flat().map(lineToPathData).join('')));
    context.strokeStyle = BILBERRY;
    context.setLineDash([6 / scale, 4 / scale]);
    context.stroke(new Path2D(lines.flat().map(lineToPathData).join('')));
    context.setLineDash([]);
  };

/** What is another order's is told apart. */
const paler = ({ film }: StripView): string => `color-mix(in srgb, ${film.colour} 62%, #fffdf7)`;

function drawFilm(context: CanvasRenderingContext2D, scale: number, strip: StripView, run: number): void {
  const { edges, length, film } = strip;
  const { width } = strip.roll;
  context.fillStyle = `color-mix(in srgb, ${film.colour} 12%, #fffdf7)`;
  context.fillRect(0, 0, run, width);
  context.fillStyle = `color-mix(in srgb, ${film.colour} 26%, #fffdf7)`;
  context.fillRect(0, 0, length, width);
  // what the rollers hold and the knife does not reach
  hatch(context, scale, { minX: 0, minY: 0, maxX: run, maxY: edges.far }, HELD);
  hatch(context, scale, { minX: 0, minY: width - edges.near, maxX: run, maxY: width }, HELD);
  context.strokeStyle = INK;
  context.lineWidth = 1.5 / scale;
  context.beginPath();
  context.moveTo(0, 0);
  context.lineTo(0, width);
  context.stroke();
  context.strokeStyle = EDGE;
  context.lineWidth = 1 / scale;
  context.setLineDash([4 / scale, 4 / scale]);
  context.beginPath();
  context.moveTo(length, 0);
  context.lineTo(length, width);
  context.stroke();
  context.setLineDash([]);
}
