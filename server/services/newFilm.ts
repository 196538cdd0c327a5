/** Film that ended in the middle of a cut: what is left lies at the start of new film. */
import { eq } from 'drizzle-orm';
import type { Cut, Drawing, NewFilmSaid } from '../../contracts/cuts';
import type { OnNewFilm } from '../../core/films/booking';
import type { NewFilm } from '../../core/swivel/asCut';
import { emptyBounds, growBounds } from '../../core/geometry/bounds';
import { cuts } from '../db/schema';
import { notFound, Trouble } from '../problem';
import type { StoredProgram } from '../work/makeCuts';
import type { CutServices } from './cuts';
import { fromLine, move, refusePaused } from './cuts';
import { unpack } from './pack';
import { bookFilmEnded } from './stock';

/**
 * Goes on at a line that a person found, as near to the start of the film as the first line of the cut was laid out.
 * @param line from 1
 * @param isAtEnd nothing is left of the roll that it was cut from, whatever the shelf counts
 */
export async function goOnNewFilm(
  services: CutServices,
  id: number,
  { line, isAtEnd }: NewFilmSaid,
): Promise<Cut> {
  const { db, hub } = services;
  await refusePaused(db);
  const [row] = await db.select().from(cuts).where(eq(cuts.id, id));
  if (!row) throw notFound('cut');
  if (row.sheet)
    throw new Trouble(422, 'printed-sheet', 'What is printed is on the sheet that it was printed on.', [
      'Print the sheet once more, and start this film again',
    ]);
  const from = fromLine(unpack<StoredProgram>(row.program), line);
  const onNewFilm: OnNewFilm = {
    line,
    along: alongOf(unpack<Drawing>(row.drawing).lines, line - 1),
    earlier: filmsOf(row),
  };
  const cut = await move(services, id, ['stopped'], 'checking', 'resumed', {
    what: `on new film, from line ${line}${isAtEnd ? ', the roll at its end' : ''}`,
    also: {
      paused: false,
      onNewFilm,
      slip: [1, 0, 0, 1, -onNewFilm.along, 0],
      ...from,
    },
    before: (tx) => bookFilmEnded(tx, id, onNewFilm, { isAtEnd, who: services.who }),
  });
  await hub.tell({ kind: 'shop' });
  await services.dispatch({ cutId: id });
  return cut;
}

/** All film that was put in for what was left of a cut. */
export function filmsOf({ onNewFilm }: Pick<typeof cuts.$inferSelect, 'onNewFilm'>): NewFilm[] {
  if (!onNewFilm) return [];
  const { earlier = [], ...last } = onNewFilm;
  return [...earlier, last];
}

/** mm that lines from one on can be moved towards the start: no nearer to it than the cut was. */
function alongOf(lines: Drawing['lines'], from: number): number {
  const startOf = (some: Drawing['lines']): number => some.reduce(growBounds, emptyBounds()).minX;
  return Math.max(0, startOf(lines.slice(from)) - startOf(lines));
}
