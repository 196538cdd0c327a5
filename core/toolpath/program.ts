import { lineLength } from '../geometry/path';
import type { LineKind } from '../artwork/choices';
import { mapped } from '../geometry/matrix';
import type { Matrix } from '../geometry/matrix';
import type { Part } from '../panels/part';
import type { Polyline } from '../geometry/path';
import type { Ring } from '../geometry/region';
import { mapRegion } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import type { Machine } from '../layout/cutter';
import { headAtFirst, stepsOf } from '../layout/cutter';
import type { Placement } from '../layout/strip';
import type { WeededStrip } from '../weeding/weeding';
import type { KindRecipes } from './kinds';
import { followedOn } from './followed';
import { orderLines } from './orderLines';
import type { HolderPath } from './compensate';
import type { Heading } from './dragged';
import { compensate, compensateRing, turningStroke } from './compensate';
import type { GridWay } from './machineSteps';
import { ontoGrid, trailedOntoGrid } from './machineSteps';
import { orderRings } from './order';
import { perforated } from './perforation';
import { speedsAlong } from './slower';
import { thinned } from './thinned';
import { cutSeconds } from './time';

/** One stretch with the knife down. */
export interface CutLine {
  /** The holder's way, x0, y0, x1, y1 … mm on the strip, on the machine's grid. */
  readonly points: Float64Array;
  readonly part: 'align' | 'art' | 'waste' | 'border' | 'weed';
  /** Which copy it belongs to; -1 for the stroke that aligns the blade. */
  readonly copy: number;
  readonly kind: LineKind;
  /** cm/s of each move; missing: the speed of its recipe all along. */
  readonly speeds?: Float64Array;
}

/** Everything one cutter does for one strip. */
export interface CutProgram {
  /** Where the head is before it begins, mm on the strip. */
  readonly from: Spot;
  readonly lines: readonly CutLine[];
  readonly recipes: KindRecipes;
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

/** Machine steps: a head chatters at shorter moves (our own). */
const LEAST_MOVE = 4;

/**
 * What the knife does for one strip: a short stroke in the waste that turns the blade into a known direction,
 * then part by part and copy by copy (so that film travels little): pen and crease first, then what is kiss cut, inside before outside,
 * the weed lines there and the copy's weed border, and last what goes through the backing.
 */
export function programFor(strip: WeededStrip, recipes: KindRecipes, cutter: Machine): CutProgram {
  const writer = new ProgramWriter(recipes, cutter, strip.cuttable);
  const ordered = orderingOnce();
  if (recipes.kiss.bladeOffset > 0) writer.align(strip);
  strip.placements.forEach((placement, i) => {
    writer.lines(placement, ['pen', 'crease', 'kiss']);
    for (const ring of ordered(placement, writer.at)) writer.ring(ring, 'art', placement.copy);
    writer.weeding(strip.weeding.lines[i], 'weed', placement.copy);
    writer.weeding(strip.weeding.borders[i], 'border', placement.copy);
    writer.lines(placement, ['perforated', 'through']);
  });
  return writer.finish(strip.length);
}

/**
 * What is done to a printed sheet: kind by kind over all of it, so that it lies whole until everything else is done; what goes
 * through comes last, inside before outside.
 * @param alignAt where in the waste the blade is turned into its way
 */
export function programByKind(
  strip: WeededStrip,
  recipes: KindRecipes,
  cutter: Machine,
  alignAt: Spot,
): CutProgram {
  const writer = new ProgramWriter(recipes, cutter, strip.cuttable);
  const ordered = orderingOnce();
  if (recipes.kiss.bladeOffset > 0) writer.alignFrom(alignAt);
  for (const kind of ['pen', 'crease'] as const)
    for (const placement of strip.placements) writer.lines(placement, [kind]);
  for (const placement of strip.placements) {
    writer.lines(placement, ['kiss']);
    for (const ring of ordered(placement, writer.at)) writer.ring(ring, 'art', placement.copy);
  }
  for (const placement of strip.placements) writer.lines(placement, ['perforated']);
  writer.through(strip.placements);
  return writer.finish(strip.length);
}

/** Orders a part's outlines; copies of it that lie the same way are ordered once, and moved. */
function orderingOnce(): (placement: Placement, from: Spot) => readonly Ring[] {
  const known = new Map<Part, { readonly matrix: Matrix; readonly rings: readonly Ring[] }[]>();
  return ({ part, matrix }, from) => {
    const ways = known.get(part) ?? [];
    const way = ways.find((one) => one.matrix.slice(0, 4).every((value, i) => value === matrix[i]));
    if (way) {
      const [dx, dy] = [matrix[4] - way.matrix[4], matrix[5] - way.matrix[5]];
      return way.rings.map((ring) => ring.map((v, i) => v + (i % 2 === 0 ? dx : dy)));
    }
    const rings = orderRings(mapRegion(part.region, matrix), from);
    known.set(part, [...ways, { matrix, rings }]);
    return rings;
  };
}

class ProgramWriter {
  private readonly done: CutLine[] = [];
  private readonly doneAt: number[] = [];
  private heading: Heading = [1, 0];
  private cutLength = 0;
  private travelLength = 0;
  private seconds = 0;
  private readonly from: Spot;
  at: Spot;

  constructor(
    private readonly recipes: KindRecipes,
    private readonly cutter: Machine,
    cuttable: number,
  ) {
    this.from = this.at = headAtFirst(cutter.device, cuttable);
  }

  align(strip: WeededStrip): void {
    this.alignFrom([0.5, Math.min(strip.cuttable / 2, (strip.placements[0]?.box.minY ?? 0) + 1)]);
  }

  alignFrom(at: Spot): void {
    const { bladeOffset } = this.recipes.kiss;
    const stroke = turningStroke(at, bladeOffset, this.cutter.lead);
    this.add(compensate(stroke, bladeOffset, this.heading), 'align', -1, 'kiss');
  }

  weeding(lines: readonly Polyline[], part: 'weed' | 'border', copy: number): void {
    for (const line of orderLines(lines, this.at)) {
      if (line.closed) this.ring(line.points, part, copy);
      else this.drag(line.points, part, copy);
    }
  }

  /** An open line cut with the knife. */
  private drag(points: Float64Array, part: CutLine['part'], copy: number): void {
    this.follow({ points, closed: false }, 'kiss', part, copy);
  }

  ring(ring: Ring, part: CutLine['part'], copy: number): void {
    this.follow({ points: ring, closed: true }, 'kiss', part, copy);
  }

  /** A part's lines of some kinds, one kind after the other. */
  lines({ part, copy, matrix }: Placement, kinds: readonly LineKind[]): void {
    const followed = followedOn(part, this.cutter.device.tools ?? 1);
    for (const kind of kinds) {
      for (const whose of ['waste', 'art'] as const) {
        const own = followed
          .filter((line) => line.kind === kind && line.part === whose)
          .map(({ points, closed }) => ({ points: mapped(points, matrix), closed }));
        for (const line of orderLines(own, this.at)) this.line(line, kind, whose, copy);
      }
    }
  }

  /** All that goes through: what opens nothing first, then the outlines of copy after copy from the innermost out. */
  through(placements: readonly Placement[]): void {
    const own = placements.map(({ part, copy, matrix }) => ({
      copy,
      lines: followedOn(part, this.cutter.device.tools ?? 1)
        .filter(({ kind }) => kind === 'through')
        .map(({ points, closed }): Polyline => ({ points: mapped(points, matrix), closed })),
    }));
    for (const { lines, copy } of own) {
      const open = lines.filter(({ closed }) => !closed);
      for (const line of orderLines(open, this.at)) this.line(line, 'through', 'art', copy);
    }
    for (const { lines, copy } of own) {
      const rings = lines.filter(({ closed }) => closed).map(({ points }) => points);
      for (const points of orderRings(rings, this.at))
        this.line({ points: Float64Array.from(points), closed: true }, 'through', 'art', copy);
    }
  }

  private line(line: Polyline, kind: LineKind, whose: 'art' | 'waste', copy: number): void {
    const { dashes, cornerAngle } = this.recipes[kind];
    const parts = dashes === undefined ? [line] : perforated(line, dashes, cornerAngle);
    for (const part of parts) this.follow(part, kind, whose, copy);
  }

  /** Goes over a line as often as its recipe says: a closed one round and round, an open one from its start each time. */
  private follow(line: Polyline, kind: LineKind, part: CutLine['part'], copy: number): void {
    const times = line.closed ? 1 : (this.recipes[kind].passes ?? 1);
    for (let k = 0; k < times; k++) this.add(this.led(line, kind), part, copy, kind);
  }

  /** The holder's way along a line, with no moves that are too short for a head. */
  private led(line: Polyline, kind: LineKind): HolderPath {
    const { bladeOffset, overcut, passes, cornerAngle: corner } = this.recipes[kind];
    const { points, closed } = thinned(line, LEAST_MOVE * this.cutter.device.step);
    return closed
      ? compensateRing(points, bladeOffset, overcut, this.heading, { passes, corner })
      : compensate(points, bladeOffset, this.heading, { corner });
  }

  private add(path: HolderPath, part: CutLine['part'], copy: number, kind: LineKind): void {
    const { points, kept } = this.inSteps(path, this.recipes[kind].bladeOffset);
    // what is shorter than a step, such as the rest of a dash, is no line
    if (points.length < 4) return;
    const travel = Math.hypot(points[0] - this.at[0], points[1] - this.at[1]);
    const speeds = this.slowed({ points, kept }, path, kind);
    const speed = speeds ?? this.recipes[kind].speed ?? this.cutter.ownSpeed;
    this.seconds += cutSeconds(points, travel, speed, this.cutter.motion);
    this.travelLength += travel;
    this.cutLength += lineLength({ points, closed: false });
    this.at = [points[points.length - 2], points[points.length - 1]];
    this.done.push({ points, part, copy, kind, ...(speeds && { speeds }) });
    this.doneAt.push(this.seconds);
  }

  /** What trails is left as it lies when it is lifted; what does not, such as a pen, leaves the knife as it lay. */
  private inSteps(path: HolderPath, bladeOffset: number): GridWay {
    const steps = stepsOf(this.cutter.device);
    if (bladeOffset <= 0) return ontoGrid(path.points, steps);
    const trailed = trailedOntoGrid(path, bladeOffset, this.heading, steps);
    this.heading = trailed.heading;
    return trailed;
  }

  /** Slower where it curves tightly: only where a speed is told that can be told another. */
  private slowed({ points, kept }: GridWay, path: HolderPath, kind: LineKind): Float64Array | undefined {
    const { speed, slowRadius: radius = 0 } = this.recipes[kind];
    const { slowest } = this.cutter;
    if (radius <= 0 || speed === null || slowest === null) return undefined;
    const radii = Float64Array.from(kept, (point) => path.radii[point]);
    return speedsAlong(points, radii, { speed, least: slowest, radius });
  }

  finish(length: number): CutProgram {
    const { from, done, recipes, cutLength, travelLength, seconds } = this;
    return {
      from,
      lines: done,
      recipes,
      cutLength,
      travelLength,
      seconds,
      doneAt: Float64Array.from(this.doneAt),
      length,
    };
  }
}
