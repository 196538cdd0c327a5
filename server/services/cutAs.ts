import type { ShopNow } from '../../contracts/shop';
import type { CutAs } from '../../core/plan/differs';
import type { cuts } from '../db/schema';
import type { StoredProgram } from '../work/makeCuts';

type Made = Pick<
  typeof cuts.$inferSelect,
  'strip' | 'film' | 'recipe' | 'rollWidth' | 'cuttable' | 'length' | 'mirrored'
>;

/** A cut as it is compared with what it would be at another time. @param program undefined: it is not kept any more */
export const cutAs = (
  { strip, film, recipe, rollWidth, cuttable, length, mirrored }: Made,
  program: StoredProgram | undefined,
  cutter: string,
): CutAs => ({
  strip,
  film: film.name,
  cutter,
  recipe,
  rollWidth,
  cuttable,
  length,
  mirrored,
  bytes: program && program.head + program.lines.join('') + program.tail,
});

/** Names of cutters by their ids, of those that were taken out of service too. */
export function cutterNames({ cutters, retired }: Pick<ShopNow, 'cutters' | 'retired'>) {
  const names = new Map([...cutters, ...retired].map(({ id, name }) => [id, name]));
  return (id: string): string => names.get(id) ?? id;
}
