import { and, asc, eq, lte } from 'drizzle-orm';
import type { Edit } from '../../contracts/edits';
import { applyEdits } from '../../contracts/edits';
import type { Choices } from '../../core/plan/choices';
import type { Db } from '../db/connect';
import { revisions } from '../db/schema';

/** The choices that an order had at a revision. @returns undefined: there is no such revision */
export async function choicesAt(db: Db, orderId: number, n: number): Promise<Choices | undefined> {
  const rows = await db
    .select({
      n: revisions.n,
      parent: revisions.parent,
      edits: revisions.edits,
      choices: revisions.choices,
    })
    .from(revisions)
    .where(and(eq(revisions.orderId, orderId), lte(revisions.n, n)))
    .orderBy(asc(revisions.n));
  const byNumber = new Map(rows.map((row) => [row.n, row]));
  let since: readonly Edit[] = [];
  let row = byNumber.get(n);
  while (row && !row.choices) {
    since = [...(row.edits ?? []), ...since];
    row = row.parent === null ? undefined : byNumber.get(row.parent);
  }
  return row?.choices ? applyEdits(row.choices, since).value : undefined;
}
