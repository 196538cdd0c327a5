import type { Bounds } from '../geometry/bounds';
import type { Ring } from '../geometry/region';
import { mapRegion } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import type { Cutter, Recipe } from '../layout/cutter';
import type { Strip } from '../layout/layOut';
import type { Heading } from './compensate';
import { compensate, compensateRing } from './compensate';
import { orderRings } from './order';
import { cutSeconds } from './time';

/** One stretch with the knife down. */
export interface CutLine {
  /** The holder's way, x0, y0, x1, y1 … mm on the strip, on the machine's grid. */
  readonly points: Float64Array;
  readonly part: 'align' | 'art' | 'border';
  /** Which copy it belongs to; -1 for the stroke that aligns the blade. */
  readonly copy: number;
}

/** Everything one cutter does for one strip. */
export interface CutProgram {
  readonly lines: readonly CutLine[];
  readonly recipe: Recipe;
  /** mm with the knife down */
  readonly cutLength: number;
  /** mm with the knife up */
  readonly travelLength: number;
  readonly seconds: number;
  /** Seconds from the start until each line is done. */
  readonly doneAt: Float64Array;
  /** mm along the roll that the strip takes */
  readonly length: number;
}

/** A stroke this many blade offsets long turns the blade from any rest into the way it is dragged. */
const ALIGN_OFFSETS = 12;

/**
 * What the knife does for one strip: a short stroke in the waste that turns the blade into a known direction,
 * then copy by copy (so that film travels little), inside before outside, each copy's weed border last.
 */
export function programFor(strip: Strip, recipe: Recipe, cutter: Cutter): CutProgram {
  const writer = new ProgramWriter(recipe, cutter);
  if (recipe.bladeOffset > 0) writer.align(strip);
  for (const placement of strip.placements) {
    const art = mapRegion(strip.layer.region, placement.matrix);
    for (const ring of orderRings(art, writer.at)) writer.ring(ring, 'art', placement.copy);
    const border = strip.borders[placement.copy];
    if (border) writer.ring(startNearest(boxRing(border), writer.at), 'border', placement.copy);
  }
  return writer.finish(strip.length);
}

class ProgramWriter {
  private readonly lines: CutLine[] = [];
  private readonly doneAt: number[] = [];
  private heading: Heading = [1, 0];
  private cutLength = 0;
  private travelLength = 0;
  private seconds = 0;
  at: Spot = [0, 0];

  constructor(
    private readonly recipe: Recipe,
    private readonly cutter: Cutter,
  ) {}

  align(strip: Strip): void {
    const length = Math.min(ALIGN_OFFSETS * this.recipe.bladeOffset, this.cutter.leadMargin - 1);
    const y = Math.min(strip.cuttable / 2, (strip.placements[0]?.box.minY ?? 0) + 1);
    this.add(
      compensate([0.5, y, 0.5 + length, y], this.recipe.bladeOffset, this.heading).points,
      'align',
      -1,
    );
  }

  ring(ring: Ring, part: CutLine['part'], copy: number): void {
    const path = compensateRing(ring, this.recipe.bladeOffset, this.recipe.overcut, this.heading);
    this.heading = path.heading;
    this.add(path.points, part, copy);
  }

  private add(holder: Float64Array, part: CutLine['part'], copy: number): void {
    const points = ontoGrid(holder, this.cutter.device.step);
    const travel = Math.hypot(points[0] - this.at[0], points[1] - this.at[1]);
    this.seconds += cutSeconds(points, travel, this.recipe.speed, this.cutter.motion);
    this.travelLength += travel;
    this.cutLength += openLength(points);
    this.at = [points[points.length - 2], points[points.length - 1]];
    this.lines.push({ points, part, copy });
    this.doneAt.push(this.seconds);
  }

  finish(length: number): CutProgram {
    const { lines, recipe, cutLength, travelLength, seconds } = this;
    return {
      lines,
      recipe,
      cutLength,
      travelLength,
      seconds,
      doneAt: Float64Array.from(this.doneAt),
      length,
    };
  }
}

/** Rounds to whole machine steps, each point by itself so that no error adds up; repeats are dropped. */
function ontoGrid(points: Float64Array, step: number): Float64Array {
  const out = new Float64Array(points.length);
  let n = 0;
  for (let i = 0; i < points.length; i += 2) {
    const x = Math.round(points[i] / step) * step;
    const y = Math.round(points[i + 1] / step) * step;
    if (n > 0 && out[n - 2] === x && out[n - 1] === y) continue;
    out[n++] = x;
    out[n++] = y;
  }
  return out.slice(0, n);
}

function openLength(points: Float64Array): number {
  let length = 0;
  for (let i = 2; i < points.length; i += 2)
    length += Math.hypot(points[i] - points[i - 2], points[i + 1] - points[i - 1]);
  return length;
}

const boxRing = (b: Bounds): Ring =>
  Float64Array.of(b.minX, b.minY, b.maxX, b.minY, b.maxX, b.maxY, b.minX, b.maxY);

const startNearest = (ring: Ring, at: Spot): Ring => orderRings([ring], at)[0];
