/** A pattern as a cutter cuts it: every line with a recipe of its own. */
import type { HpglChunks } from '../devicelang/writeHpgl';
import { hpglBytes, writeHpgl } from '../devicelang/writeHpgl';
import type { Cutter, Recipe } from '../layout/cutter';
import { stepsOf } from '../layout/cutter';
import { compensate, compensateRing, turningStroke } from '../toolpath/compensate';
import type { Heading } from '../toolpath/dragged';
import { kindRecipes } from '../toolpath/kinds';
import { ontoGrid, trailedOntoGrid } from '../toolpath/machineSteps';
import { cutSeconds } from '../toolpath/time';
import type { Pattern, PatternRoom, TestLine } from './patterns';

export interface TestProgram {
  readonly chunks: HpglChunks;
  /** Seconds from the start until each line is done. */
  readonly doneAt: readonly number[];
  /** The holder's ways, mm on the strip. */
  readonly ways: readonly Float64Array[];
}

/**
 * The bytes for a pattern, cut up where the knife is up.
 * @param room what it was laid on
 */
export function testProgram(
  { lines, length }: Pattern,
  cutter: Pick<Cutter, 'device' | 'motion' | 'ownSpeed' | 'force'>,
  { lead, cuttable }: PatternRoom,
): TestProgram {
  const steps = stepsOf(cutter.device);
  let heading: Heading = [1, 0];
  const way = ({ points, closed, recipe: { bladeOffset, overcut }, isPlain }: TestLine): Float64Array => {
    if (isPlain || bladeOffset <= 0) return ontoGrid(points, steps).points;
    const led = closed
      ? compensateRing(points, bladeOffset, overcut, heading)
      : compensate(points, bladeOffset, heading);
    const trailed = trailedOntoGrid(led, bladeOffset, heading, steps);
    heading = trailed.heading;
    return trailed.points;
  };
  const all = [...turning(lines, lead, cuttable), ...lines];
  const ways = all.map(way);
  const written = all.map(({ recipe }, i) =>
    writeHpgl(programOf(ways[i], recipe, cutter, length), cutter.device, cuttable),
  );
  let seconds = 0;
  let [x, y] = [0, 0];
  return {
    chunks: {
      head: written[0].head,
      // each begins with what it is cut with
      lines: written.map(({ head, lines: [bytes] }) =>
        hpglBytes({ head: head.subarray(START.length), lines: [bytes], tail: NOTHING }),
      ),
      tail: written[0].tail,
    },
    doneAt: ways.map((points, i) => {
      const speed = all[i].recipe.speed ?? cutter.ownSpeed;
      seconds += cutSeconds(points, Math.hypot(points[0] - x, points[1] - y), speed, cutter.motion);
      [x, y] = [points[points.length - 2], points[points.length - 1]];
      return seconds;
    }),
    ways,
  };
}

const NOTHING = new Uint8Array();
/** What a program of HP-GL starts with, before what it is cut with. */
const START = 'IN;PA;';

/** A stroke in the waste that turns the blade into its way, where a blade is used. */
function turning(lines: readonly TestLine[], lead: number, cuttable: number): TestLine[] {
  const first = lines.find(({ recipe, isPlain }) => !isPlain && recipe.bladeOffset > 0);
  if (!first) return [];
  const stroke = turningStroke([0.5, Math.min(1, cuttable / 2)], first.recipe.bladeOffset, lead);
  return [{ points: Float64Array.from(stroke), closed: false, recipe: first.recipe }];
}

const programOf = (
  points: Float64Array,
  recipe: Recipe,
  { force }: Pick<Cutter, 'force'>,
  length: number,
) => ({
  lines: [{ points, part: 'art' as const, copy: 0, kind: 'kiss' as const }],
  recipes: kindRecipes(recipe, {}, force.most),
  length,
});
