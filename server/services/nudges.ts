/** Force and speed that an operator changes while a cut runs, and what becomes of that in its recipes. */
import { eq } from 'drizzle-orm';
import type { Cut, CutState, NudgeAsked } from '../../contracts/cuts';
import type { LineKind } from '../../core/artwork/choices';
import type { Nudge, Nudges, WrittenWith } from '../../core/devicelang/nudged';
import type { Cutter } from '../../core/layout/cutter';
import type { Db } from '../db/connect';
import { cutActs, cutters, cuts } from '../db/schema';
import { notFound, Trouble } from '../problem';
import type { CutServices } from './cuts';
import { getCut } from './cuts';
import { heldRecipe, outOfRange, setRecipe } from './recipes';

/** It is at its machine, and has lines left. */
const NUDGED_IN: readonly CutState[] = ['wants-film', 'checking', 'cutting', 'stopping', 'stopped'];

/** Holds from the next line that is sent. @throws Trouble when the machine does not do that */
export async function nudgeCut(services: CutServices, id: number, asked: NudgeAsked): Promise<Cut> {
  const { db, hub, who } = services;
  const { orderId, cutterId } = await getCut(db, id);
  await db.transaction(async (tx) => {
    const [cut] = await tx.select().from(cuts).where(eq(cuts.id, id)).for('update');
    if (!NUDGED_IN.includes(cut.state as CutState))
      throw new Trouble(409, 'not-now', 'Force and speed are changed while a cut is at its machine.');
    const [{ data: cutter }] = await tx.select().from(cutters).where(eq(cutters.id, cutterId));
    const written = cut.writtenWith[asked.kind];
    if (!written) throw new Trouble(422, 'no-such-lines', 'This cut has no lines of that kind.');
    const was = cut.nudges[asked.kind] ?? {};
    const to = nudgedTo(was, asked, written);
    refuseNudge(to, written, cutter);
    const nudges = { ...cut.nudges, [asked.kind]: to };
    await tx.update(cuts).set({ nudges, nudgesKept: null }).where(eq(cuts.id, id));
    const what = `${changeText({ ...written, ...was }, { ...written, ...to })}, from line ${cut.linesDone + 1}`;
    await tx.insert(cutActs).values({ cutId: id, act: 'nudged', what, who });
  });
  await hub.tell({ kind: 'cut', cutId: id, orderId, cutterId });
  return getCut(db, id);
}

/** What is as it was written is no nudge. */
function nudgedTo(was: Nudge, { force, speed }: NudgeAsked, written: WrittenWith): Nudge {
  const one = (asked: number | null | undefined, now: number | undefined, own: number | null) =>
    asked === undefined ? now : asked === null || asked === own ? undefined : asked;
  const to = {
    force: one(force, was.force, written.force),
    speed: one(speed, was.speed, written.speed),
  };
  return {
    ...(to.force !== undefined && { force: to.force }),
    ...(to.speed !== undefined && { speed: to.speed }),
  };
}

function refuseNudge({ force, speed }: Nudge, written: WrittenWith, cutter: Cutter): void {
  const { name, device } = cutter;
  const atPanel = (what: string): Trouble =>
    new Trouble(422, 'set-at-machine', `The ${what} is set at ${name} itself: change it on its panel.`);
  if (force !== undefined && (!device.sendsForce || written.force === null)) throw atPanel('force');
  if (speed !== undefined && (!device.sendsSpeed || written.speed === null)) throw atPanel('speed');
  const trouble = outOfRange({ force: force ?? null, speed: speed ?? null }, cutter);
  if (trouble) throw new Trouble(422, 'out-of-range', trouble);
}

function changeText(from: WrittenWith, to: WrittenWith): string {
  const parts = [
    ...(from.force !== to.force ? [`force ${from.force} to ${to.force} g`] : []),
    ...(from.speed !== to.speed ? [`speed ${from.speed} to ${to.speed} cm/s`] : []),
  ];
  return parts.length > 0 ? parts.join(', ') : 'as before';
}

/** Takes what was nudged in a cut that is done into the recipes that it was cut with, or leaves them as they are. */
export async function keepNudges(services: CutServices, id: number, keep: boolean): Promise<Cut> {
  const { db, hub, who } = services;
  const { orderId, cutterId, film, state, nudges, orderNumber } = await getCut(db, id);
  if (state !== 'done') throw new Trouble(409, 'not-now', 'What was nudged is kept when the cut is done.');
  await db.transaction(async (tx) => {
    const [cut] = await tx.select({ kept: cuts.nudgesKept }).from(cuts).where(eq(cuts.id, id)).for('update');
    if (cut.kept !== null) return;
    await tx.update(cuts).set({ nudgesKept: keep }).where(eq(cuts.id, id));
    await tx.insert(cutActs).values({ cutId: id, act: keep ? 'nudges-kept' : 'nudges-left', who });
    if (!keep) return;
    for (const [kind, nudge] of Object.entries(nudges) as [LineKind, Nudge][]) {
      const key = { cutterId, filmId: film.id, kind };
      const { recipe, cutter } = await heldRecipe(tx, key);
      const data = { ...recipe, ...nudge };
      // the machine may have become another one since
      const trouble = outOfRange(data, cutter);
      if (trouble) throw new Trouble(422, 'out-of-range', trouble);
      await setRecipe(tx, key, data, { why: `nudged while #${orderNumber} was cut`, who });
    }
  });
  await hub.tell({ kind: 'shop' });
  await hub.tell({ kind: 'cut', cutId: id, orderId, cutterId });
  return getCut(db, id);
}

export async function isSpeedNudged(db: Db, id: number): Promise<boolean> {
  const [row] = await db.select({ nudges: cuts.nudges }).from(cuts).where(eq(cuts.id, id));
  if (!row) throw notFound('cut');
  return Object.values(row.nudges satisfies Nudges).some(({ speed }) => speed !== undefined);
}
