/** Feeds a program, and writes down and tells on the way how far it is. */
import type { SQL } from 'drizzle-orm';
import { and, eq, lt, sql } from 'drizzle-orm';
import type { LineKind } from '../../core/artwork/choices';
import { toStrip } from '../../core/devicelang/axes';
import { opened } from '../../core/devicelang/lineText';
import { nudger } from '../../core/devicelang/nudged';
import { inverse, mapped } from '../../core/geometry/matrix';
import type { Cutter } from '../../core/layout/cutter';
import { untilBack } from '../db/away';
import { perDatabase } from '../db/perDatabase';
import { cuts } from '../db/schema';
import type { StoredProgram } from '../work/makeCuts';
import type { FeedCallbacks, Head } from './feed';
import type { Lease } from './lease';
import type { CutRow, Services } from './settle';
import { isHolder } from './settle';
import type { Place } from './whereabouts';

/** How far it is, is written with the lines that are sent; on long lines this often. */
const SAVE_EVERY_MS = 2000;

const given = (name: string): SQL => sql`${sql.placeholder(name)}`;
const far = { linesDone: given('linesDone'), secondsDone: given('secondsDone') };
const isIt = eq(cuts.id, sql.placeholder('id'));
/** Only who has the cutter sends lines, and hears by the row that comes back that it still does. */
const saveSent = perDatabase((db) =>
  db
    .update(cuts)
    .set({ linesSent: given('linesSent'), ...far })
    .where(and(isIt, isHolder(db, { holder: sql.placeholder('holder') })))
    .returning({ id: cuts.id })
    .prepare('lines-sent'),
);
/** Never backwards: an older write may arrive late. */
const saveDone = perDatabase((db) =>
  db
    .update(cuts)
    .set(far)
    .where(and(isIt, lt(cuts.linesDone, sql.placeholder('linesDone'))))
    .prepare('lines-done'),
);

const kindOf = ({ kinds }: StoredProgram, line: number | undefined): LineKind =>
  (line === undefined ? undefined : kinds?.[line]) ?? 'kiss';

export async function feedWithProgress(
  services: Services,
  cut: CutRow,
  { device }: Pick<Cutter, 'device'>,
  program: StoredProgram,
  from: Place,
  lease: Lease,
  asked: () => boolean,
  fed: (callbacks: FeedCallbacks) => Promise<number>,
): Promise<number> {
  const { db, hub } = services;
  let saved = 0;
  let done = from.line;
  let stopped = false;
  let { nudges } = cut;
  let held = nudges;
  const nudged = nudger(cut.writtenWith);
  const onStrip = toStrip(device, cut.cuttable);
  /** Wherever the film lies by now. */
  const back = cut.slip && inverse(cut.slip);
  const secondsOf = (lines: number): number => (lines > 0 ? program.doneAt[lines - 1] : 0);
  const onFilm = ({ x, y, down }: Head): Head => {
    const [fx, fy] = back ? mapped([x, y], back) : [x, y];
    return { x: fx, y: fy, down };
  };
  /** Where a line ends: nearest to where the head of a cutter is that does not say. */
  const endOf = (lines: number): Head => {
    const end = lines > 0 ? opened(program.lines[lines - 1]).points.at(-1) : undefined;
    const [x, y] = end ? onStrip(end.x, end.y) : [0, 0];
    return onFilm({ x, y, down: false });
  };
  const save = (linesDone: number): Promise<unknown> =>
    saveDone(db).execute({ id: cut.id, linesDone, secondsDone: secondsOf(linesDone) });
  const unfollow = services.watch.follow(cut.id, (wanted) => {
    stopped ||= wanted.state === 'stopping';
    ({ nudges } = wanted);
  });
  const isToStop = (): boolean => stopped || asked() || !lease.held();
  try {
    return await fed({
      shouldStop: isToStop,
      say: (text, line, beginsIt) => {
        // a line is cut in one way from its start to its end
        if (beginsIt) held = nudges;
        return nudged(text, kindOf(program, line), held);
      },
      announce: async (linesSent) => {
        const { holder } = lease;
        // how far it is, is written with it
        const now = { id: cut.id, holder, linesSent, linesDone: done, secondsDone: secondsOf(done) };
        const note = () => saveSent(db).execute(now);
        saved = Date.now();
        // taken over: whatever is sent now would be cut twice
        if ((await untilBack(note, isToStop)).length === 0) stopped = true;
      },
      progress: (head, linesDone) => {
        done = linesDone;
        const now = Date.now();
        const at = head ? onFilm(head) : endOf(linesDone);
        hub.tellHead({ cutId: cut.id, ...at, linesDone, secondsDone: secondsOf(linesDone) });
        if (now - saved >= SAVE_EVERY_MS) {
          saved = now;
          void save(linesDone).catch(() => {});
        }
      },
    });
  } catch (error) {
    await untilBack(() => save(done), services.isClosing);
    throw error;
  } finally {
    unfollow();
  }
}
