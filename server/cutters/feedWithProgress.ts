/** Feeds a program, and writes down and tells on the way how far it is. */
import { and, eq, lt } from 'drizzle-orm';
import type { LineKind } from '../../core/artwork/choices';
import { nudger } from '../../core/devicelang/nudged';
import { untilBack } from '../db/away';
import { cuts } from '../db/schema';
import { writtenWithOf } from '../services/nudges';
import type { StoredProgram } from '../work/makeCuts';
import { feed } from './feed';
import type { Lease } from './lease';
import type { CutterLink } from './link';
import type { CutRow, Services } from './settle';
import { isHolder } from './settle';
import type { Place } from './whereabouts';

const SAVE_EVERY_MS = 700;
const TELL_EVERY_MS = 120;
/** Stop is a state of the cut, and so is what was nudged: a feeder looks for it this often, whether or not it hears of it. */
const LOOK_FOR_STOP_MS = 400;

const kindOf = ({ kinds }: StoredProgram, line: number | undefined): LineKind =>
  (line === undefined ? undefined : kinds?.[line]) ?? 'kiss';

export async function feedWithProgress(
  services: Services,
  cut: CutRow,
  cutter: Parameters<typeof feed>[2],
  link: CutterLink,
  program: StoredProgram,
  from: Place,
  lease: Lease,
  asked: () => boolean,
): Promise<number> {
  const { db, hub } = services;
  let told = 0;
  let saved = 0;
  let done = from.line;
  let stopped = false;
  let { nudges } = cut;
  let held = nudges;
  const nudged = nudger(writtenWithOf(cut));
  const secondsOf = (lines: number): number => (lines > 0 ? program.doneAt[lines - 1] : 0);
  // never backwards: an older write may arrive late
  const save = (linesDone: number): Promise<unknown> =>
    db
      .update(cuts)
      .set({ linesDone, secondsDone: secondsOf(linesDone) })
      .where(and(eq(cuts.id, cut.id), lt(cuts.linesDone, linesDone)));
  const lookout = setInterval(() => {
    db.select({ state: cuts.state, nudges: cuts.nudges })
      .from(cuts)
      .where(eq(cuts.id, cut.id))
      .then(([row]) => {
        stopped ||= row?.state === 'stopping';
        nudges = row?.nudges ?? nudges;
      })
      .catch(() => {}); // away: the lease runs out if it stays so
  }, LOOK_FOR_STOP_MS);
  const isToStop = (): boolean => stopped || asked() || !lease.held();
  try {
    return await feed(link, program, cutter, cut.cuttable, from, {
      shouldStop: isToStop,
      say: (text, line, beginsIt) => {
        // a line is cut in one way from its start to its end
        if (beginsIt) held = nudges;
        return nudged(text, kindOf(program, line), held);
      },
      announce: async (linesSent) => {
        const mine = and(eq(cuts.id, cut.id), isHolder(db, lease));
        const note = () =>
          db.update(cuts).set({ linesSent, linesDone: done }).where(mine).returning({ id: cuts.id });
        // taken over: whatever is sent now would be cut twice
        if ((await untilBack(note, isToStop)).length === 0) stopped = true;
      },
      progress: (head, linesDone) => {
        done = linesDone;
        const now = Date.now();
        if (now - told >= TELL_EVERY_MS) {
          told = now;
          const event = {
            kind: 'head' as const,
            cutId: cut.id,
            ...head,
            linesDone,
            secondsDone: secondsOf(linesDone),
          };
          void hub.tell(event).catch(() => {});
        }
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
    clearInterval(lookout);
  }
}
