/** What is sent of a cut: for where its film lies by now, and with its blade turned first where it is begun anew. */
import type { Drawing } from '../../contracts/cuts';
import { toUnits } from '../../core/devicelang/axes';
import { written } from '../../core/devicelang/lineText';
import { mapped } from '../../core/geometry/matrix';
import type { Spot } from '../../core/geometry/spot';
import type { Cutter, Device } from '../../core/layout/cutter';
import { turnedAgain } from '../../core/toolpath/turnedAgain';
import { unpack } from '../services/pack';
import { isInReach, slippedProgram } from '../services/slipped';
import type { SentProgram, StoredProgram } from '../work/makeCuts';
import type { CutRow } from './settle';

export function programAt(cut: CutRow, { device }: Pick<Cutter, 'device'>): SentProgram {
  const stored = unpack<StoredProgram>(cut.program);
  const text = cut.turnBefore === null ? undefined : turnText(cut, stored, device);
  return {
    ...slippedProgram(stored, cut.slip, device, cut.cuttable),
    ...(text && { turn: { before: cut.turnBefore!, text } }),
  };
}

/** Its blade is turned in the waste, which new film has at its start; undefined: it has none, or that is out of reach by now. */
function turnText(cut: CutRow, { kinds }: StoredProgram, device: Device): string | undefined {
  const { lines, parts } = unpack<Drawing>(cut.drawing);
  const { recipe, cuttable, slip, onNewFilm, turnBefore } = cut;
  if (parts[0] !== 'align' || recipe.bladeOffset <= 0 || !turnBefore) return undefined;
  const way = turnedAgain({ lines, kinds, bladeOffset: recipe.bladeOffset, before: turnBefore });
  const inUnits = toUnits(device, cuttable);
  const points = Array.from({ length: way.length / 2 }, (_, i) => {
    const at: Spot = [way[2 * i] + (onNewFilm?.along ?? 0), way[2 * i + 1]];
    const [u, v] = slip ? mapped(at, slip) : at;
    const [x, y] = inUnits(u, v);
    return { x, y };
  });
  const text = written({ settings: [], points });
  return isInReach(text, device, cuttable) ? text : undefined;
}
