/** Moves a cutter's head by hand over a sheet that waits to be cut. Under a lease like a cut's. */
import { eq } from 'drizzle-orm';
import { toStrip, toUnits } from '../../core/devicelang/axes';
import type { Db } from '../db/connect';
import { cuts, cutters } from '../db/schema';
import { notFound, Trouble } from '../problem';
import { borrowed } from './borrowed';
import { standingOf } from './feed';
import { LinkLost } from './link';

/** A press wants an answer soon, ms. */
const PATIENCE_MS = 3000;

/** @returns where the head stands then, mm on the strip: at the most as far as it reaches */
export async function jog(
  db: Db,
  cutId: number,
  { dx, dy }: { readonly dx: number; readonly dy: number },
): Promise<{ x: number; y: number }> {
  const [cut] = await db.select().from(cuts).where(eq(cuts.id, cutId));
  if (!cut) throw notFound('cut');
  if (!cut.sheet || cut.state !== 'wants-film')
    throw new Trouble(
      409,
      'not-now',
      'The head is moved by hand only while a printed sheet waits to be cut.',
    );
  const [row] = await db.select().from(cutters).where(eq(cutters.id, cut.cutterId));
  const { name, device } = row.data;
  const moved = await borrowed(db, row, 'jog', PATIENCE_MS, async (link) => {
    const onStrip = toStrip(device, cut.cuttable);
    const head = await standingOf(link);
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
