/** Whether a cutter takes what was made for another one, and if not, why. */
import type { Film } from '../films/film';
import { thicknessFindings } from '../layout/layoutFindings';
import type { Cutter } from '../layout/cutter';
import type { MarkKind } from '../registration/readMarks';
import { formatBoth } from '../units/length';

/** What of a cut decides where it can go. */
export interface Wanted {
  readonly film: Film;
  /** mm across the machine, and mm that it takes along it */
  readonly rollWidth: number;
  readonly length: number;
  /** Of a printed sheet: the marks that have to be read. */
  readonly marks?: readonly MarkKind[];
  /** It has lines for a pen or a creasing wheel. */
  readonly needsSecondTool: boolean;
}

/** A sentence that says why a cutter does not take a cut; undefined: it does. */
export function laneRefusal(
  { film, rollWidth, length, marks, needsSecondTool }: Wanted,
  { name, widest, narrowest, thickest, kind, trackLength, device, sensor, isRetired }: Cutter,
): string | undefined {
  if (isRetired) return `${name} is out of use.`;
  if (rollWidth > widest)
    return `${film.name} is ${formatBoth(rollWidth)} wide here; ${name} takes ${formatBoth(widest)} at the most.`;
  if (rollWidth < narrowest)
    return `${film.name} is ${formatBoth(rollWidth)} wide here; ${name} holds none narrower than ${formatBoth(narrowest)}.`;
  const [thick] = thicknessFindings(film, { name, thickest });
  if (thick) return thick.message;
  if (kind === 'flatbed' && length > trackLength)
    return `It takes ${formatBoth(length)}; the bed of ${name} is ${formatBoth(trackLength)} long.`;
  if (needsSecondTool && (device.tools ?? 1) < 2)
    return `It is creased or drawn on with a second tool; ${name} holds only a knife.`;
  if (!marks) return undefined;
  if (!sensor)
    return `${name} has no sensor for the marks of a printed sheet. In its order it can be sent there, with marks taken by hand.`;
  const unread = marks.find((mark) => !sensor.kinds.includes(mark));
  return unread === undefined ? undefined : `The sensor of ${name} does not read this sheet's kind of mark.`;
}
