/** What an order that is cut once more would be cut with otherwise than it was. */
import type { Recipe } from '../layout/cutter';
import { formatLength, formatRun } from '../units/length';

/** One strip as it was cut, or as it would be now. */
export interface CutAs {
  readonly strip: string;
  readonly film: string;
  readonly cutter: string;
  readonly recipe: Recipe;
  readonly rollWidth: number;
  readonly cuttable: number;
  readonly length: number;
  readonly mirrored: boolean;
  /** All that is sent to the cutter; undefined: that is not known any more. */
  readonly bytes: string | undefined;
}

/**
 * Sentences for a person, strip by strip; none: the same bytes go to the same cutters.
 * @param was as it was cut
 * @param now as it would be cut
 */
export function differences(was: readonly CutAs[], now: readonly CutAs[]): readonly string[] {
  const after = new Map(now.map((cut) => [cut.strip, cut]));
  const before = new Set(was.map(({ strip }) => strip));
  return [
    ...was.flatMap((cut) => {
      const other = after.get(cut.strip);
      return other ? stripDiffers(cut, other) : [`${cut.film} is not cut any more.`];
    }),
    ...now.filter(({ strip }) => !before.has(strip)).map(({ film }) => `${film} was not cut then.`),
  ];
}

/** The same of one strip. */
export function stripDiffers(was: CutAs, now: CutAs): readonly string[] {
  const long = (mm: number): string => formatLength(mm, 'mm');
  const said = [
    ...(was.cutter === now.cutter ? [] : [`goes to ${now.cutter} instead of ${was.cutter}`]),
    ...(was.rollWidth === now.rollWidth
      ? []
      : [`is cut from film ${long(now.rollWidth)} wide instead of ${long(was.rollWidth)}`]),
    ...(was.cuttable === now.cuttable || was.rollWidth !== now.rollWidth
      ? []
      : [`is reached ${long(now.cuttable)} wide instead of ${long(was.cuttable)}`]),
    ...(was.mirrored === now.mirrored ? [] : [now.mirrored ? 'is mirrored now' : 'is not mirrored any more']),
    ...recipeDiffers(was.recipe, now.recipe),
    ...(Math.abs(was.length - now.length) < SAME_MM
      ? []
      : [`takes ${formatRun(now.length, 'mm')} instead of ${formatRun(was.length, 'mm')}`]),
  ];
  if (said.length > 0) return [`${now.film} ${said.join(', ')}.`];
  if (was.bytes === undefined)
    return [`${now.film}: what was sent then is not kept any more; its settings are the same.`];
  return was.bytes === now.bytes ? [] : [`${now.film} is cut in another way: look at it in Play it.`];
}
const SAME_MM = 0.05;

const SETTINGS = [
  ['force', 'g'],
  ['speed', 'cm/s'],
  ['bladeOffset', 'mm of blade offset'],
  ['overcut', 'mm of overcut'],
] as const;

function recipeDiffers(was: Recipe, now: Recipe): string[] {
  const set = (value: number | null, unit: string): string =>
    value === null ? 'what the machine is set to' : `${value} ${unit}`;
  return [
    ...SETTINGS.filter(([key]) => was[key] !== now[key]).map(
      ([key, unit]) => `is cut with ${set(now[key], unit)} instead of ${set(was[key], unit)}`,
    ),
    ...(was.blade === now.blade ? [] : [`is cut by a blade of ${now.blade} instead of ${was.blade}`]),
    ...((was.passes ?? 1) === (now.passes ?? 1)
      ? []
      : [`is gone over ${now.passes ?? 1} times instead of ${was.passes ?? 1}`]),
  ];
}
