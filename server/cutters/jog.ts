/** Moves a cutter's head by hand over a sheet that waits to be cut, or over what a stopped cut has cut. Under a lease like a cut's. */
import { and, eq } from 'drizzle-orm';
import type { Standing } from '../../core/devicelang/answers';
import { toStrip, toUnits } from '../../core/devicelang/axes';
import type { Cutter } from '../../core/layout/cutter';
import type { Db } from '../db/connect';
import { cuts, cutters } from '../db/schema';
import { notFound, Trouble } from '../problem';
import { borrowed } from './borrowed';
import { standingOf } from './feed';
import { LinkLost } from './links/link';
import { programAt } from './programAt';
import type { CutRow } from './settle';
import { rowOf } from './settle';
import { kept, whereItStands } from './whereabouts';

/** A press wants an answer soon, ms. */
const PATIENCE_MS = 3000;

/** @returns where the head stands then, mm on the strip: at the most as far as it reaches */
export async function jog(
  db: Db,
  cutId: number,
  { dx, dy }: { readonly dx: number; readonly dy: number },
): Promise<{ x: number; y: number }> {
  const cut = await rowOf(db, cutId);
  if (!cut) throw notFound('cut');
  const isStopped = cut.state === 'stopped';
  if (!isStopped && !(cut.sheet && cut.state === 'wants-film'))
    throw new Trouble(
      409,
      'not-now',
      'The head is moved by hand only while a printed sheet waits to be cut, or a cut is stopped.',
    );
  const [row] = await db.select().from(cutters).where(eq(cutters.id, cut.cutterId));
  const { name, device } = row.data;
  const moved = await borrowed(db, row, 'jog', PATIENCE_MS, async (link) => {
    const onStrip = toStrip(device, cut.cuttable);
    const head = await standingOf(link);
    if (isStopped) await rememberPlace(db, cut, row.data, head);
    const [x, y] = onStrip(head.x, head.y);
    const [ux, uy] = toUnits(device, cut.cuttable)(x + dx, y + dy);
    await link.send(`PU;PA;PU${ux},${uy};`);
    const now = await standingOf(link);
    return onStrip(now.x, now.y);
  }).catch((error: unknown) => {
    if (!(error instanceof LinkLost)) throw error;
    throw new Trouble(
      503,
      'cutter-away',
      `${name} cannot be reached: ${error.message}. Look whether it is switched on and its cable is in.`,
    );
  });
  if (!moved) throw new Trouble(409, 'at-work', `${name} is busy. Press again in a moment.`);
  return { x: moved[0], y: moved[1] };
}

/** A cut of which some was sent and nobody heard goes on from where its head stands: that is kept before the head is moved. */
async function rememberPlace(db: Db, cut: CutRow, cutter: Cutter, head: Standing): Promise<void> {
  const { id, linesDone, linesSent, headFrom } = cut;
  if (linesSent <= linesDone || headFrom?.isKnown) return;
  const found = whereItStands(programAt(cut, cutter), linesDone, linesSent, head, headFrom);
  await db
    .update(cuts)
    .set(kept(found, head, linesSent))
    .where(and(eq(cuts.id, id), eq(cuts.state, 'stopped')));
}
