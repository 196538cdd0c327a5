/** Cuts found by what is written down of them: their number, or the code on their printed sheet. */
import type { SQL } from 'drizzle-orm';
import { and, desc, eq, sql } from 'drizzle-orm';
import type { FoundCut } from '../../contracts/api';
import { readSheetCode } from '../../core/print/sheets';
import type { Db } from '../db/connect';
import { cuts, cutters, orders } from '../db/schema';

/** A sheet that was cut again and again. */
const MOST = 6;
const LARGEST_ID = 2_147_483_647;

/** @param text as it is typed, such as `cut 128` or `#2047 1`; anything else finds none */
export async function findCuts(db: Db, text: string): Promise<FoundCut[]> {
  const isIt = askedFor(text);
  if (!isIt) return [];
  const rows = await db
    .select({
      id: cuts.id,
      orderId: cuts.orderId,
      orderNumber: orders.number,
      orderName: orders.name,
      cutterId: cuts.cutterId,
      cutter: sql<string>`${cutters.data}->>'name'`,
      film: sql<string>`${cuts.film}->>'name'`,
      colour: sql<string>`${cuts.film}->>'colour'`,
      sheet: sql<number | null>`(${cuts.sheet}->>'number')::int`,
      state: cuts.state,
      endedAt: cuts.endedAt,
    })
    .from(cuts)
    .innerJoin(orders, eq(orders.id, cuts.orderId))
    .innerJoin(cutters, eq(cutters.id, cuts.cutterId))
    .where(isIt)
    .orderBy(desc(cuts.id))
    .limit(MOST);
  return rows.map(({ state, endedAt, ...row }) => ({
    ...row,
    state: state as FoundCut['state'],
    endedAt: endedAt?.toISOString() ?? null,
  }));
}

function askedFor(text: string): SQL | undefined {
  const [, number] = /^(?:cut\s*#?\s*)?(\d{1,10})$/i.exec(text.trim()) ?? [];
  if (number !== undefined) return Number(number) <= LARGEST_ID ? eq(cuts.id, Number(number)) : undefined;
  const code = readSheetCode(text);
  return code && and(eq(orders.number, code.order), sql`(${cuts.sheet}->>'number')::int = ${code.sheet}`);
}
