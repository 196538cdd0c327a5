/** Revisions as undo walks them: everybody undoes what they did themselves, however much others did since. */
import { asc, eq, sql } from 'drizzle-orm';
import type { Db } from '../db/connect';
import { revisions } from '../db/schema';

/** One revision, without what it changed. */
export interface TrailMark {
  readonly n: number;
  readonly parent: number | null;
  readonly madeBy: number | null;
  /** The revision that it takes back; null: it is a change of its own. */
  readonly undoes: number | null;
  /** It says what it changed: those of earlier versions say all of it instead, and cannot be taken back from under others. */
  readonly saysEdits: boolean;
}

/** Where a step leads: to a revision that is there, or to a new one that takes one back. */
export type Move = { readonly to: number } | { readonly against: number };

export interface Moves {
  readonly undo?: Move;
  readonly redo?: Move;
}

/** @param now the present revision @param who whose steps: what nobody gave a name for is everybody's */
export function movesFor(trail: readonly TrailMark[], now: number, who: number | null): Moves {
  const byNumber = new Map(trail.map((mark) => [mark.n, mark]));
  const isMine = ({ madeBy }: TrailMark): boolean => madeBy === null || madeBy === who;
  const path = pathTo(byNumber, now);
  const counts = countingIn(path);
  const own = path.filter((mark) => isMine(mark) && mark.parent !== null && counts.has(mark.n));
  const change = own.find(({ undoes }) => undoes === null);
  const taken = own.find(({ undoes }) => undoes !== null && byNumber.get(undoes)?.undoes === null);
  const child = trail.findLast((mark) => mark.parent === now && isMine(mark) && mark.undoes === null);
  // a change of one's own after it ends what can be done again
  const again = taken && !(change && change.n > taken.n) ? taken : undefined;
  return {
    ...moveOf('undo', change && back(change, now)),
    ...moveOf('redo', child ? { to: child.n } : again && back(again, now)),
  };
}

const moveOf = (word: 'undo' | 'redo', move: Move | undefined): Moves => (move ? { [word]: move } : {});

/** What was done last is stepped back from; what others have changed things on top of is taken back from under them. */
function back({ n, parent, saysEdits }: TrailMark, now: number): Move | undefined {
  if (n === now) return { to: parent! };
  return saysEdits ? { against: n } : undefined;
}

/** From the present revision to the first. */
function pathTo(byNumber: ReadonlyMap<number, TrailMark>, now: number): TrailMark[] {
  const path: TrailMark[] = [];
  for (
    let mark = byNumber.get(now);
    mark;
    mark = mark.parent === null ? undefined : byNumber.get(mark.parent)
  )
    path.push(mark);
  return path;
}

/** Those that were not taken back, by a later one that was not taken back itself. */
function countingIn(path: readonly TrailMark[]): ReadonlySet<number> {
  const off = new Set<number>();
  const counting = new Set<number>();
  for (const { n, undoes } of path) {
    if (off.has(n)) continue;
    counting.add(n);
    if (undoes !== null) off.add(undoes);
  }
  return counting;
}

export const trailOf = (db: Pick<Db, 'select'>, orderId: number): Promise<TrailMark[]> =>
  db
    .select({
      n: revisions.n,
      parent: revisions.parent,
      madeBy: revisions.madeBy,
      undoes: revisions.undoes,
      saysEdits: sql<boolean>`${revisions.edits} is not null`,
    })
    .from(revisions)
    .where(eq(revisions.orderId, orderId))
    .orderBy(asc(revisions.n));
