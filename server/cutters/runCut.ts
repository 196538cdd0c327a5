/** One cut on its way through one cutter, from the lease to what became of it. */
import { randomUUID } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import type { Standing } from '../../core/devicelang/answers';
import { untilBack } from '../db/away';
import { cuts, cutters } from '../db/schema';
import { promoteNext } from '../services/cuts';
import { noteLoaded } from '../services/stock';
import { isSpeedNudged } from '../services/nudges';
import { pack } from '../services/pack';
import { isSilent } from '../db/link';
import type { FeedCallbacks } from './feed';
import { checkFilm, feed, standingOf } from './feed';
import { feedFolder, feedSilently } from './feedSilently';
import { feedWithProgress } from './feedWithProgress';
import type { Lease } from './lease';
import { LEASE_PATIENCE_MS, takeLease } from './lease';
import type { Cutter } from '../../core/layout/cutter';
import type { CutterLink } from './links/link';
import { LinkLost } from './links/link';
import { openLink } from './links/open';
import type { SentProgram } from '../work/makeCuts';
import { programAt } from './programAt';
import { readSheet } from './readSheet';
import { forgetWanted, recordOf } from './recordOf';
import type { CutRow, Services } from './settle';
import { finish, isHolder, rowOf, settle } from './settle';
import type { Found, Place } from './whereabouts';
import { kept, lineUpTo, whereItStands } from './whereabouts';

type CutterOf = typeof cutters.$inferSelect;

export async function runCut(
  services: Services,
  holder: string,
  cutId: number,
  asked: () => boolean,
): Promise<void> {
  const { db, log } = services;
  const { id, orderId, cutterId, state, linesSent } = cuts;
  const [cut] = await db.select({ id, orderId, cutterId, state, linesSent }).from(cuts).where(eq(id, cutId));
  if (cut?.state === 'stopping' && cut.linesSent === 0)
    return settle(services, cut, STOPPED_BEFORE, and(eq(cuts.state, 'stopping'), eq(cuts.linesSent, 0))!);
  if (!cut || cut.state !== 'checking') return; // taken back meanwhile, or already under way elsewhere
  const lease = await takeLease(db, cut.cutterId, `${holder} ${randomUUID()}`, LEASE_PATIENCE_MS);
  if (!lease) {
    const problem =
      'Something else is done at this cutter just now, such as a calibration. Press again when that is over.';
    await settle(services, cut, { state: 'wants-film', problem }, eq(cuts.state, 'checking'));
    return;
  }
  try {
    // while it was waited for, the run before may have come to its end after all
    const now = await rowOf(db, cutId);
    if (now?.state === 'checking' || now?.state === 'stopping')
      await cutUnderLease(services, now, lease, asked);
  } catch (error) {
    if (!(error instanceof LinkLost)) log.error({ error: String(error), cutId }, 'cut failed');
    await afterFailure(services, cut.id, lease, error);
  } finally {
    await lease.release().catch(() => {}); // runs out by itself
  }
  await promoteNext(services, cut.cutterId);
}

async function cutUnderLease(
  services: Services,
  cut: CutRow,
  lease: Lease,
  asked: () => boolean,
): Promise<void> {
  const { db } = services;
  const [cutter] = await db.select().from(cutters).where(eq(cutters.id, cut.cutterId));
  const tell = (to: Partial<CutRow>): Promise<void> => settle(services, cut, to, isHolder(db, lease));
  const link = await openLink(cutter.link);
  try {
    const isFresh = cut.linesDone === 0 && cut.linesSent === 0;
    const isReckoned = isSilent(cutter.link);
    const wrong = isFresh || isOnNewFilm(cut) ? await wrongFilm(link, cut, cutter) : undefined;
    if (wrong) return await tell({ state: isFresh ? 'wants-film' : 'stopped', problem: wrong });
    const placed =
      cut.sheet && isFresh ? await placedBySensor(services, cut, cutter.data, link, tell, asked) : cut;
    if (!placed) return;
    const program = programAt(placed, cutter.data);
    const standing = isReckoned ? undefined : await standingOf(link);
    const found = whereToGoOn(cut, program, standing);
    const { place: from } = found;
    if (!from) return await tell(lostPlace(cut, cutter.data.name, found, standing));
    await noteLoaded(db, cut);
    await forgetWanted(db, cut.cutterId);
    await tell({
      state: 'cutting',
      problem: null,
      linesDone: from.line,
      headFrom: standing ? { x: standing.x, y: standing.y, ...from } : null,
      isReckoned,
    });
    const begun = Date.now();
    const linesDone = await feedWithProgress(services, cut, cutter.data, program, from, lease, asked, (how) =>
      fedBy(link, cut, cutter, program, from, how),
    );
    const secondsDone = linesDone > 0 ? program.doneAt[linesDone - 1] : 0;
    if (linesDone < program.lines.length) {
      const why = lease.held() ? '' : ` ${LET_GO}`;
      const problem = `Stopped after line ${linesDone} of ${program.lines.length}.${why}`;
      return await tell({
        state: 'stopped',
        linesDone,
        linesSent: linesDone,
        secondsDone,
        problem,
      });
    }
    const ended = Date.now();
    const record = await recordOf(services, placed, cutter, program).catch((error: unknown) => {
      services.log.warn({ error: String(error), cutId: cut.id }, 'no record of the cut yet');
      return { recordWanted: true };
    });
    const to = {
      linesDone,
      secondsDone,
      problem: null,
      endedAt: new Date(ended),
      // what was cut faster or slower than it was reckoned says nothing of how well that was
      ...(isFresh && !isReckoned && !(await isSpeedNudged(db, cut.id)) && { took: (ended - begun) / 1000 }),
      ...record,
    };
    await finish(services, cut, to, isHolder(db, lease));
  } finally {
    link.close();
  }
}

/** Nothing is cut yet of what is cut on the film that was put in last. */
const isOnNewFilm = ({ onNewFilm, linesDone, linesSent }: CutRow): boolean =>
  onNewFilm !== null && linesDone === onNewFilm.line - 1 && linesSent === linesDone;

/** What lies in the cutter and is not what it should be, in a sentence; one that answers nothing is not asked. */
async function wrongFilm(
  link: CutterLink,
  { film, rollWidth, length, onNewFilm, sheet, taken }: CutRow,
  { data, link: line }: CutterOf,
): Promise<string | undefined> {
  if (!isSilent(line)) return checkFilm(link, film, rollWidth, data, length - (onNewFilm?.along ?? 0));
  return sheet && !taken
    ? `${data.name} answers nothing, so it cannot be asked for the sheet's marks. Cut it on a machine that answers.`
    : undefined;
}

/** Feeds it in the way that its line has. */
function fedBy(
  link: CutterLink,
  { id, strip, cuttable }: CutRow,
  { data, link: line }: CutterOf,
  program: SentProgram,
  from: Place,
  how: FeedCallbacks,
): Promise<number> {
  if (line.by === 'folder') return feedFolder(line, `${id}-${fileNameOf(strip)}.plt`, program, from, how);
  return isSilent(line)
    ? feedSilently(link, program, from, how)
    : feed(link, program, data, cuttable, from, how);
}

const fileNameOf = (strip: string): string => strip.replace(/[^\w.-]+/g, '-');

/** Nobody stopped it. */
const LET_GO =
  'The server had so much to do that it could not say in time that it still feeds this cutter: rather than cut twice, it stopped. Go on.';

/** A person stopped it before anything began. */
const STOPPED_BEFORE: Partial<CutRow> = {
  state: 'wants-film',
  problem: 'Stopped before anything was read or cut. Press again to begin.',
};

/** The cut moved to where its sheet lies; undefined: the sheet is not cut as it lies, and that is told. */
async function placedBySensor(
  services: Services,
  cut: CutRow,
  cutter: Cutter,
  link: CutterLink,
  tell: (to: Partial<CutRow>) => Promise<void>,
  asked: () => boolean,
): Promise<CutRow | undefined> {
  const { reading, problem, moved } = await readSheet(services, cut, cutter, link, asked);
  if (!moved) {
    await tell({ state: 'wants-film', problem: problem ?? null, reading });
    return undefined;
  }
  const placed = { reading, program: pack(moved.program), drawing: pack(moved.drawing) };
  await tell(placed);
  return { ...cut, ...placed };
}

/** The next line; where lines were sent and nobody heard of them again, the place at which the head stands. */
function whereToGoOn(
  { linesDone, linesSent, headFrom }: CutRow,
  program: SentProgram,
  head: Standing | undefined,
): Found {
  if (linesSent <= linesDone) return { place: { line: linesDone, point: 0 } };
  if (!head) return {};
  if (!headFrom?.isKnown) return whereItStands(program, linesDone, linesSent, head, headFrom);
  const { line, point, isAsked } = headFrom;
  return isAsked ? { upTo: { line, point } } : { place: { line, point } };
}

/** A person is told to look. */
function lostPlace(
  { linesDone, linesSent, headFrom }: CutRow,
  name: string,
  found: Found,
  head: Standing | undefined,
): Partial<CutRow> {
  const left = kept(found, headFrom?.isAsked ? headFrom : head, linesSent);
  if (found.upTo)
    return {
      state: 'stopped',
      ...left,
      problem: `The head of ${name} came to a stand at a place that line ${lineUpTo(found.upTo) + 1} passes more than once, mostly where it begins and closes, so nobody can tell whether that line is cut up to there. Look at the film, and say whether it is.`,
    };
  const which = linesSent - linesDone === 1 ? `line ${linesSent}` : `lines ${linesDone + 1} to ${linesSent}`;
  return {
    state: 'stopped',
    ...left,
    problem: `${name} does not say how far it came, or its head is not where the cut left it, so nobody can tell whether ${which} ${linesSent - linesDone === 1 ? 'is' : 'are'} cut. Look at the film: go on behind them, or at the first line that is not cut, or start again on fresh film.`,
  };
}

/** Before the first line nothing is spoilt: the film is asked for again. Later, a person decides how to go on. */
async function afterFailure(services: Services, cutId: number, lease: Lease, error: unknown): Promise<void> {
  const { db, isClosing } = services;
  const cut = (await untilBack(() => rowOf(db, cutId), isClosing))!;
  const [cutter] = await db.select().from(cutters).where(eq(cutters.id, cut.cutterId));
  const why = error instanceof LinkLost ? error.message : 'something went wrong inside Jam Pan';
  const { name } = cutter.data;
  if (cut.state !== 'cutting' && cut.linesSent === 0) {
    const problem = `${name} cannot be reached: ${why}. Look whether it is switched on and its cable is in, then press again.`;
    return settle(services, cut, { state: 'wants-film', problem }, isHolder(db, lease));
  }
  const problem = `Stopped after line ${cut.linesDone} of ${cut.lines}: ${why}. Look at ${name} and its film, then go on or start again.`;
  const { headFrom: began } = cut;
  const headFrom = began && { ...began, mayBeLifted: began.mayBeLifted || error instanceof LinkLost };
  return settle(services, cut, { state: 'stopped', problem, headFrom }, isHolder(db, lease));
}
