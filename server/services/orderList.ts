/** The list of orders, a page at a time: what is late, what is at which cutter. */
import { desc, eq, ne, sql } from 'drizzle-orm';
import type { OrderFilter, OrderList, OrderQuery, OrderRow } from '../../contracts/api';
import { ORDER_FILTERS } from '../../contracts/api';
import type { Db } from '../db/connect';
import { perDatabase } from '../db/perDatabase';
import { cuts, cutShares, cutters, orders } from '../db/schema';
import { findCuts } from './findCuts';

export async function listOrders(db: Db, { search, show, limit }: OrderQuery): Promise<OrderList> {
  const words = wordsOf(search);
  const [rows, counted, found] = await Promise.all([
    shownRows(db).execute({ words, show, limit }),
    countedRows(db).execute({ words }),
    findCuts(db, search),
  ]);
  const counts = ORDER_FILTERS.map((filter) => {
    const own = counted.filter((of) => isIn(filter, of));
    return [filter, own.reduce((sum, { count }) => sum + count, 0)];
  });
  return {
    rows: rows.map(({ putAway: _shown, ...row }) => ({ ...row, changedAt: row.changedAt.toISOString() })),
    counts: Object.fromEntries(counts) as OrderList['counts'],
    cuts: found,
  };
}

const shownRows = perDatabase((db) => {
  const known = orderStates(db);
  const show = sql`${sql.placeholder('show')}::text`;
  const isShown = sql`case ${show} when 'put-away' then ${known.putAway} when 'late' then ${known.late} and not ${known.putAway}
    else not ${known.putAway} and ${show} in ('all', ${known.state}) end`;
  return db
    .with(known)
    .select()
    .from(known)
    .where(isShown)
    .orderBy(desc(known.late), desc(known.changedAt), desc(known.id))
    .limit(sql.placeholder('limit'))
    .prepare('orders-shown');
});

const countedRows = perDatabase((db) => {
  const known = orderStates(db);
  const { state, late, putAway } = known;
  return db
    .with(known)
    .select({ state, late, putAway, count: sql<number>`count(*)::int` })
    .from(known)
    .groupBy(state, late, putAway)
    .prepare('orders-counted');
});

function isIn(filter: OrderFilter, of: Pick<OrderRow, 'state' | 'late'> & { putAway: boolean }): boolean {
  if (of.putAway || filter === 'put-away') return of.putAway && filter === 'put-away';
  return filter === 'all' || (filter === 'late' ? of.late : of.state === filter);
}

/** Orders with what their cuts say of them. */
function orderStates(db: Db) {
  const live = db
    .select({
      orderId: cutShares.orderId,
      isDone: sql<boolean>`bool_and(${cuts.state} = 'done')`.as('is_done'),
      isBegun: sql<boolean>`bool_or(${cuts.state} not in ('held', 'queued', 'done'))`.as('is_begun'),
      films: sql<number>`count(distinct ${cuts.film}->>'id')`.as('films'),
      at: sql<
        string[]
      >`coalesce(array_agg(distinct ${cutters.data}->>'name') filter (where ${cuts.state} <> 'done'), '{}')`.as(
        'at',
      ),
    })
    .from(cuts)
    .innerJoin(cutShares, eq(cutShares.cutId, cuts.id))
    .innerJoin(cutters, eq(cutters.id, cuts.cutterId))
    .where(ne(cuts.state, 'cancelled'))
    .groupBy(cutShares.orderId)
    .as('live');
  // what was cut with another order may be all that is cut of it yet
  const isAll = sql`(${live.isDone} and ${live.films} >= coalesce(jsonb_array_length(${orders.summary}->'films'), 0))`;
  const state = sql<OrderRow['state']>`case when ${isAll} then 'cut' when ${live.isBegun} then 'cutting'
    when coalesce(${live.isDone}, true) then 'open' else 'queued' end`;
  return db.$with('known').as(
    db
      .select({
        id: orders.id,
        number: orders.number,
        name: orders.name,
        due: orders.due,
        fileName: orders.fileName,
        summary: orders.summary,
        changedAt: orders.changedAt,
        state: state.as('state'),
        late: sql<boolean>`coalesce(${orders.due} < current_date and ${isAll} is not true, false)`.as('late'),
        cutters: sql<string[]>`coalesce(${live.at}, '{}')`.as('cutters'),
        putAway: sql<boolean>`${orders.putAwayAt} is not null`.as('put_away'),
      })
      .from(orders)
      .leftJoin(live, eq(live.orderId, orders.id))
      .where(isFound),
  );
}

/** What is looked for, word by word, as patterns. */
const wordsOf = (search: string): string[] =>
  search
    .trim()
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`);

/** Every word has to be somewhere in what the row shows. */
const isFound = sql`not exists (select 1 from unnest(${sql.placeholder('words')}::text[]) word
  where (${orders.name} ilike word or ${orders.fileName} ilike word or '#' || ${orders.number} ilike word
    or ${orders.summary}->>'films' ilike word) is not true)`;
