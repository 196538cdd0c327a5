/** Shapes that seams spare. */
import type { PanelChoices } from './choices';
import type { Group } from './gather';
import { holds, lettersIn, lettersOf } from './gather';

/** Letters, unless a person wants none spared, and what was picked with all that lies on it. */
export function keptWhole(
  groups: readonly Group[],
  { keepLetters, whole }: Pick<PanelChoices, 'keepLetters' | 'whole'>,
): Group[] {
  const letters = keepLetters ? lettersIn(groups) : [];
  const picked =
    whole.length === 0 ? [] : lettersOf(groups).filter((group) => whole.some((place) => holds(group, place)));
  return [...new Set([...letters, ...picked])];
}
