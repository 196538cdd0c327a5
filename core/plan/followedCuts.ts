/** What following the blade over every cut finds before it is cut: where it would lie off the drawing, and what it would cut twice. */
import type { CheckSteps } from '../checks/checkOver';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { boundsTouch, emptyBounds, growBounds, outset } from '../geometry/bounds';
import { append } from '../geometry/lists';
import { inverse, mapped } from '../geometry/matrix';
import { lineLength } from '../geometry/path';
import type { Spot } from '../geometry/spot';
import type { Proof } from '../toolpath/play';
import { cutTwice, playOf, proofOf } from '../toolpath/play';
import type { CutProgram } from '../toolpath/program';
import type { WeededStrip } from '../weeding/weeding';
import type { Cutter } from '../layout/cutter';
import type { Placement } from '../layout/strip';
import type { MakeStage } from '../stages/remember';
import { formatBoth } from '../units/length';
import { KEPT_MANY } from './filmsToCut';
import type { PlannedCut } from './planned';

/** Places of one cut that are told one by one. */
const MOST = 12;
/** mm around a place that are shown as it */
const AROUND = 1;

/** mm cut twice in all before it is told: lines that cross or touch are no trouble. */
const LEAST_TWICE = 3;

/** What came of following the blade over a cut. */
export interface FollowedCut {
  readonly proof: Proof;
  /** Stretches that are cut twice, mm on the strip. */
  readonly twice: readonly Float64Array[];
}

const follow = (
  program: CutProgram,
  strip: Pick<WeededStrip, 'placements' | 'weeding'>,
  machine: Pick<Cutter, 'motion' | 'ownSpeed' | 'device'>,
): FollowedCut => ({
  proof: proofOf(playOf(program, machine), program, strip, machine.device),
  twice: cutTwice(strip, machine.device),
});

/** Follows the blade over a cut, once for each program: how near it keeps to the drawing, and what it goes over twice. */
export function followingBy(stage: MakeStage): (cut: PlannedCut) => FollowedCut {
  const followed = stage('followed', follow, KEPT_MANY);
  return ({ program, strip: { placements, weeding }, cutter: { motion, ownSpeed, device } }) =>
    followed(program, { placements, weeding }, { motion, ownSpeed, device });
}

/**
 * What is found over cut after cut; yields its share done, 0 … 1, after each.
 * @param followed as {@link followingBy} makes it
 * @param told where lines that are drawn twice were told already, mm on the sign
 */
export function* followCuts(
  cuts: readonly PlannedCut[],
  followed: (cut: PlannedCut) => FollowedCut,
  told: readonly Bounds[],
): CheckSteps {
  const found: Finding[] = [];
  for (const [k, cut] of cuts.entries()) {
    const { proof, twice } = followed(cut);
    append(found, findingsOff(cut, proof));
    append(found, findingTwice(cut, twice, told));
    yield (k + 1) / cuts.length;
  }
  return found;
}

function findingTwice(cut: PlannedCut, twice: readonly Float64Array[], told: readonly Bounds[]): Finding[] {
  const places = twice
    .map((points) => ({ mm: lineLength({ points, closed: false }), where: boundsOnSign(cut, points) }))
    .filter(({ where }) => !told.some((box) => isWithin(where, outset(box, AROUND))));
  const sum = places.reduce((all, { mm }) => all + mm, 0);
  if (sum < LEAST_TWICE) return [];
  const [longest] = places.sort((a, b) => b.mm - a.mm);
  const { film } = cut.strip;
  return [
    {
      code: 'cut-twice',
      severity: 'check',
      film: film.name,
      message: `${formatBoth(sum)} would be cut twice: two lines lie on one another. The film tears or lifts there.`,
      waysOut: [
        'Look at it under Play it',
        'Have only one of the lines cut: see Line kinds, or take one out of the drawing',
      ],
      where: longest.where,
      measured: sum,
      limit: LEAST_TWICE,
      key: `twice ${film.id}`,
    },
  ];
}

function boundsOnSign(cut: PlannedCut, points: Float64Array): Bounds {
  const { matrix } = placementAt(cut, [points[0], points[1]]);
  return growBounds(emptyBounds(), mapped(points, inverse(matrix)));
}

const isWithin = (a: Bounds, b: Bounds): boolean =>
  a.minX >= b.minX && a.minY >= b.minY && a.maxX <= b.maxX && a.maxY <= b.maxY;

function findingsOff(cut: PlannedCut, { off, limit }: Proof): Finding[] {
  const { strip, cutter, recipe } = cut;
  const worst = [...off].sort((a, b) => b.largest - a.largest);
  const more = worst.length - MOST;
  return worst.slice(0, MOST).map(({ largest: aside, at }, i): Finding => {
    const [x, y] = onSign(cut, at);
    const others = i === 0 && more > 0 ? ` ${more} more places of it are not told one by one.` : '';
    return {
      code: 'off-drawing',
      severity: 'check',
      film: strip.film.name,
      message: `The blade of ${cutter.name} would lie ${aside.toFixed(2)} mm off the drawing here: this is finer than steps of ${cutter.device.step} mm and a blade that trails by ${recipe.bladeOffset} mm can follow.${others}`,
      waysOut: [
        'Cut it on a cutter with finer steps, or with a blade that trails less',
        'Draw it larger or simpler',
        'Look at it under Play it',
      ],
      where: outset(growBounds(emptyBounds(), [x, y]), AROUND),
      measured: aside,
      limit,
      key: `off ${strip.film.id} ${Math.round(x)},${Math.round(y)}`,
    };
  });
}

/** A place of the strip on the finished sign. */
function onSign(cut: PlannedCut, at: Spot): Spot {
  const [x, y] = mapped(at, inverse(placementAt(cut, at).matrix));
  return [x, y];
}

/** What lies at a place of the strip. */
function placementAt({ strip: { placements } }: PlannedCut, at: Spot): Placement {
  const here = outset(growBounds(emptyBounds(), at), AROUND);
  return placements.find(({ box }) => boundsTouch(box, here)) ?? placements[0];
}
