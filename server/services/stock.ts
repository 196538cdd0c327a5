/** Film on the shelf as cuts use it up. */
import { eq, sql } from 'drizzle-orm';
import type { Roll } from '../../core/films/film';
import { stockAfter } from '../../core/films/leftover';
import type { Tx } from '../db/connect';
import type { cuts } from '../db/schema';
import { films } from '../db/schema';
import { settingsOf } from './settings';

/** Takes what a cut used off the shelf. @returns the offcuts that it left, which lie there now */
export async function takeFromShelf(
  tx: Tx,
  { film, roll, length, beside }: Pick<typeof cuts.$inferSelect, 'film' | 'roll' | 'length' | 'beside'>,
): Promise<readonly Roll[]> {
  if (!roll) return [];
  const [row] = await tx.select().from(films).where(eq(films.id, film.id)).for('update');
  if (!row) return [];
  const { leastOffcut: least } = await settingsOf(tx);
  const used = { roll, length, beside };
  const count = stockAfter(row.data.rolls, used, least, () => '').offcuts.length;
  const numbers: string[] = [];
  for (let k = 0; k < count; k++) {
    const { rows } = await tx.execute<{ next: string }>(sql`select nextval('offcut_numbers') as next`);
    numbers.push(rows[0].next);
  }
  const letter = row.data.name.slice(0, 1).toUpperCase();
  const { rolls, offcuts } = stockAfter(row.data.rolls, used, least, () => `${letter}-${numbers.shift()}`);
  await tx
    .update(films)
    .set({ data: sql`${films.data} || ${JSON.stringify({ rolls })}::jsonb` })
    .where(eq(films.id, film.id));
  return offcuts;
}
