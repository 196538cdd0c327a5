/** Calibrations: set up, cut, measured, kept, gone back to. All of them stay. */
import { and, desc, eq, inArray, lt, sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { Calibration, measuringSchema, setupSchema } from '../../contracts/calibrations';
import { isPrinted, judgeRun, sameQuantity } from '../../core/calibration/run';
import type { Measured, RunFound, RunSays, Setup } from '../../core/calibration/run';
import { crossSheet } from '../../core/calibration/sheet';
import { offOnAxes, offOnStrip } from '../../core/devicelang/axes';
import type { Cutter } from '../../core/layout/cutter';
import { rounded } from '../../core/units/rounded';
import { bothSaid } from '../../core/calibration/bothSaid';
import { BY_SENSOR, quantityOf } from '../../core/calibration/stale';
import { USUAL_CONTRAST } from '../../core/registration/readMarks';
import { needsPatch } from '../../core/print/marks';
import { AT_WORK } from '../cutters/look';
import { isTaken } from '../db/away';
import type { Db, Tx } from '../db/connect';
import { calibrations, cuts, cutters, films } from '../db/schema';
import { namesOf } from '../people/people';
import { notFound, Trouble } from '../problem';
import { shopRecipe } from './calibrationRecipe';
import type { CutServices } from './cuts';
import { changeHeld } from './machines';
import { changeBlade, heldRecipe, setRecipe } from './recipes';
import { linkedPrinter, sendToPrinter } from './printing';

type Row = typeof calibrations.$inferSelect;

/** Shown of one cutter at the most. */
const MOST_SHOWN = 300;

async function shownAll(db: Db, rows: readonly Row[]): Promise<Calibration[]> {
  const names = await namesOf(
    db,
    rows.flatMap(({ setUpBy, keptBy }) => [setUpBy, keptBy]),
  );
  const nameOf = (id: number | null): string | null => (id === null ? null : (names.get(id) ?? null));
  return rows.map(({ cutterId, movedAt: _moved, startedAt, keptAt, setUpBy, keptBy, ...row }) => ({
    ...row,
    state: row.state as Calibration['state'],
    cutter: cutterId,
    startedAt: startedAt.toISOString(),
    keptAt: keptAt?.toISOString() ?? null,
    setUpBy: nameOf(setUpBy),
    keptBy: nameOf(keptBy),
  }));
}

const shown = async (db: Db, row: Row): Promise<Calibration> => (await shownAll(db, [row]))[0];

export async function listCalibrations(db: Db, cutterId: string): Promise<Calibration[]> {
  await cutterOf(db, cutterId);
  const rows = await db
    .select()
    .from(calibrations)
    .where(eq(calibrations.cutterId, cutterId))
    .orderBy(desc(calibrations.id))
    .limit(MOST_SHOWN);
  return shownAll(db, rows);
}

async function cutterOf(db: Pick<Db, 'select'>, id: string): Promise<Cutter> {
  const [row] = await db.select().from(cutters).where(eq(cutters.id, id));
  if (!row) throw notFound('cutter');
  return row.data;
}

async function rowOf(db: Pick<Db, 'select'>, id: number): Promise<Row> {
  const [row] = await db.select().from(calibrations).where(eq(calibrations.id, id));
  if (!row) throw notFound('calibration');
  return row;
}

/** The same, held until the transaction ends. */
async function heldRow(tx: Tx, id: number): Promise<Row> {
  const [row] = await tx.select().from(calibrations).where(eq(calibrations.id, id)).for('update');
  if (!row) throw notFound('calibration');
  return row;
}

const tell = ({ hub }: Pick<CutServices, 'hub'>, { id, cutterId }: Row): Promise<void> =>
  hub.tell({ kind: 'calibration', calibrationId: id, cutterId });

/** Sets a run up; one of the same quantity that was not decided on is dropped for it. */
export async function setUpCalibration(
  services: CutServices,
  cutterId: string,
  setup: z.infer<typeof setupSchema>,
): Promise<Calibration> {
  const { db, who } = services;
  const cutter = await cutterOf(db, cutterId);
  if (BY_SENSOR.includes(quantityOf(setup.kind)) && !cutter.sensor)
    throw new Trouble(422, 'no-sensor', `${cutter.name} has no sensor, by its record.`);
  if (isPrinted(setup) && !crossSheet(setup.width, setup.height, cutter.sensor!.kinds[0]))
    throw new Trouble(422, 'small-sheet', 'Crosses and marks do not fit on this sheet. Take a larger one.');
  if ('film' in setup) {
    const [film] = await db.select().from(films).where(eq(films.id, setup.film));
    if (!film) throw notFound('film');
  }
  const before = await valuesNow(db, cutter, setup);
  const row = await db.transaction(async (tx) => {
    const open = await tx
      .select()
      .from(calibrations)
      .where(and(eq(calibrations.cutterId, cutterId), inArray(calibrations.state, [...UNDECIDED])));
    const replaced = open.filter((one) => sameQuantity(one.setup, setup)).map(({ id }) => id);
    if (replaced.length > 0)
      await tx.update(calibrations).set({ state: 'dropped' }).where(inArray(calibrations.id, replaced));
    const [made] = await tx
      .insert(calibrations)
      .values({ cutterId, setup, state: 'ready', before, setUpBy: who })
      .returning();
    return made;
  });
  await tell(services, row);
  return shown(db, row);
}
/** States in which nothing is decided and nothing is under way. */
const UNDECIDED = ['ready', 'measuring', 'broken'] as const;

/** What a run is about, as it is set now. */
async function valuesNow(db: Db, cutter: Cutter, setup: Setup): Promise<number[]> {
  switch (setup.kind) {
    case 'sensor-pen':
    case 'sensor-print':
      return [...offOnStrip(cutter.device, cutter.sensor!.offset)];
    case 'contrast': {
      const { threshold, least } = cutter.sensor!.stocks?.[setup.film] ?? USUAL_CONTRAST;
      return [threshold, least];
    }
    case 'length':
      return [cutter.device.lengths?.[setup.axis === 'along' ? 0 : 1] ?? 1];
    case 'blade-gap':
    case 'blade-row':
      return [(await shopRecipe(db, cutter.id, setup)).bladeOffset];
    case 'overcut-row':
      return [(await shopRecipe(db, cutter.id, setup)).overcut];
    case 'force':
      return [(await shopRecipe(db, cutter.id, setup)).force ?? 0];
  }
}

/** Has the cutter do what a run needs, when nothing else has it. */
export async function cutCalibration(services: CutServices, id: number): Promise<Calibration> {
  const { db } = services;
  const row = await db
    .transaction(async (tx) => {
      const { cutterId, state } = await rowOf(tx, id);
      const [busy] = await tx
        .select({ state: cuts.state })
        .from(cuts)
        .where(and(eq(cuts.cutterId, cutterId), inArray(cuts.state, AT_CUTTER)))
        .limit(1);
      const { name } = await cutterOf(tx, cutterId);
      if (busy)
        throw new Trouble(
          409,
          'at-work',
          `${name} has a cut ${busy.state === 'stopped' ? 'that was stopped and can go on' : 'under way'}.`,
          ['Finish it, or take it back', 'Press again after that'],
        );
      const [moved] = await tx
        .update(calibrations)
        .set({
          state: 'working',
          // what was broken off begins again on fresh film
          part: sql`case when ${calibrations.state} = 'broken' then 0 else ${calibrations.part} end`,
          problem: null,
          linesDone: 0,
          lines: 0,
          seen: null,
          says: null,
          measured: {},
          movedAt: sql`now()`,
        })
        .where(and(eq(calibrations.id, id), inArray(calibrations.state, ['ready', 'broken'])))
        .returning();
      if (!moved) throw notNow(state);
      return moved;
    })
    .catch((error: unknown) => {
      // the index lets one run a cutter at a time
      if (isTaken(error))
        throw new Trouble(409, 'at-work', 'Another calibration is under way at this cutter.');
      throw error;
    });
  await services.dispatch({ calibrationId: id });
  await tell(services, row);
  return shown(db, row);
}
/** States in which a cut would be spoilt by anything else that the head does. */
const AT_CUTTER = [...AT_WORK, 'stopped'];

const notNow = (state: string): Trouble =>
  new Trouble(409, 'not-now', `This calibration is ${PLAIN[state] ?? state} now, so that cannot be done.`);
const PLAIN: Readonly<Record<string, string>> = {
  ready: 'waiting to be cut',
  working: 'being cut',
  stopping: 'stopping',
  measuring: 'cut',
  kept: 'kept',
  dropped: 'dropped',
  broken: 'broken off',
};

/** Moves a run on only from where that makes sense, so that of two presses one counts. */
async function move(
  services: CutServices,
  id: number,
  from: readonly string[],
  to: Partial<Row>,
): Promise<Calibration> {
  const [moved] = await services.db
    .update(calibrations)
    .set({ ...to, movedAt: sql`now()` })
    .where(and(eq(calibrations.id, id), inArray(calibrations.state, [...from])))
    .returning();
  if (!moved) throw notNow((await rowOf(services.db, id)).state);
  await tell(services, moved);
  return shown(services.db, moved);
}

export async function stopCalibration(services: CutServices, id: number): Promise<Calibration> {
  const stopped = await move(services, id, ['working'], { state: 'stopping' });
  await services.hub.tell({ kind: 'stop-calibration', calibrationId: id });
  return stopped;
}

export const dropCalibration = (services: CutServices, id: number): Promise<Calibration> =>
  move(services, id, UNDECIDED, { state: 'dropped' });

/** Runs before this one that may say something about the same, the newest first. */
async function earlierThan(db: Pick<Db, 'select'>, { id, cutterId, setup }: Row): Promise<Row[]> {
  const rows = await db
    .select()
    .from(calibrations)
    .where(
      and(
        eq(calibrations.cutterId, cutterId),
        eq(calibrations.state, 'kept'),
        lt(calibrations.id, id),
        sql`${calibrations.startedAt} > now() - make_interval(days => ${STILL_TRUE_DAYS})`,
      ),
    )
    .orderBy(desc(calibrations.id));
  return rows.filter((one) => sameQuantity(one.setup, setup));
}
/** Days for which an earlier run still says something (our own). */
const STILL_TRUE_DAYS = 60;

/** What was measured of a run, and what that says. */
export async function judged(
  db: Pick<Db, 'select'>,
  row: Row,
  measured: Measured,
): Promise<{ readonly measured: Measured; readonly says: RunSays }> {
  const { device, force } = await cutterOf(db, row.cutterId);
  const earlier = (await earlierThan(db, row)).flatMap((one) => {
    const found = foundIn(one);
    return found ? [found.own] : [];
  });
  const ground = { before: row.before, step: device.step, force, earlier };
  return { measured, says: judgeRun(row.setup, row.seen, measured, ground) };
}

/** What others said of it meanwhile stays. */
export async function measureCalibration(
  services: CutServices,
  id: number,
  { was, now }: z.infer<typeof measuringSchema>,
): Promise<Calibration> {
  const { db } = services;
  const measured = await db.transaction(async (tx) => {
    const row = await heldRow(tx, id);
    if (row.state !== 'measuring') throw notNow(row.state);
    const said = await judged(tx, row, bothSaid(row.measured, was, now));
    const [moved] = await tx
      .update(calibrations)
      .set({ ...said, movedAt: sql`now()` })
      .where(eq(calibrations.id, id))
      .returning();
    return moved;
  });
  await tell(services, measured);
  return shown(db, measured);
}

/**
 * Sets the machine to what a run found; one that was kept before is gone back to.
 * @throws Trouble when nothing was found, or cuts that wait rely on what would change
 */
export async function keepCalibration(services: CutServices, id: number): Promise<Calibration> {
  const { db, hub, who } = services;
  const kept = await db.transaction(async (tx) => {
    const row = await heldRow(tx, id);
    if (!['measuring', 'kept', 'dropped'].includes(row.state)) throw notNow(row.state);
    const after =
      row.after ?? foundIn(row)?.changes.map((one) => (one.left ? one.before : rounded(one.value, DECIMALS)));
    if (!after)
      throw new Trouble(
        409,
        'nothing-found',
        'Say what you measured first: nothing was found yet that could be kept.',
      );
    await setMachine(tx, row, after, who);
    const [moved] = await tx
      .update(calibrations)
      .set({ state: 'kept', after, keptAt: sql`now()`, keptBy: who, movedAt: sql`now()` })
      .where(eq(calibrations.id, id))
      .returning();
    return moved;
  });
  await hub.tell({ kind: 'shop' });
  await tell(services, kept);
  return shown(db, kept);
}

/** Of a value that is kept: a length's share of a length needs as many. */
const DECIMALS = 6;

const foundIn = ({ says }: Pick<Row, 'says'>): RunFound | undefined =>
  says?.says === 'found' ? says.found : undefined;

async function setMachine(
  tx: Tx,
  { id, cutterId, setup, says }: Row,
  after: readonly number[],
  who: number | null,
): Promise<void> {
  const note = { why: setup.kind === 'force' ? `trial grid ${id}` : `calibration ${id}`, who };
  switch (setup.kind) {
    case 'sensor-pen':
    case 'sensor-print':
      return changeHeld(tx, cutterId, ({ sensor, device }) =>
        sensor ? { sensor: { ...sensor, offset: offOnAxes(device, [after[0], after[1]]) } } : {},
      );
    case 'contrast':
      return changeHeld(tx, cutterId, ({ sensor }) => {
        const [threshold, least] = after;
        return sensor
          ? { sensor: { ...sensor, stocks: { ...sensor.stocks, [setup.film]: { threshold, least } } } }
          : {};
      });
    case 'length':
      return changeHeld(tx, cutterId, ({ device }) => {
        const [along, across] = device.lengths ?? [1, 1];
        return {
          device: { ...device, lengths: setup.axis === 'along' ? [after[0], across] : [along, after[0]] },
        };
      });
    case 'blade-gap':
    case 'blade-row':
      return changeBlade(tx, cutterId, setup.blade, (one) => ({ ...one, bladeOffset: after[0] }), note);
    case 'overcut-row':
      return changeBlade(tx, cutterId, setup.blade, (one) => ({ ...one, overcut: after[0] }), note);
    case 'force': {
      const key = { cutterId, filmId: setup.film, kind: setup.line };
      const { recipe } = await heldRecipe(tx, key);
      const { speed = recipe.speed, dashes = recipe.dashes } = foundIn({ says })?.force ?? {};
      return setRecipe(tx, key, { ...recipe, force: after[0], speed, dashes }, note);
    }
  }
}

/** The sheet of crosses that a run is cut on. */
export async function calibrationSheet(db: Db, id: number): Promise<{ name: string; bytes: Buffer }> {
  const { setup, cutterId } = await rowOf(db, id);
  if (!isPrinted(setup)) throw new Trouble(404, 'no-sheet', 'Nothing is printed for this calibration.');
  const cutter = await cutterOf(db, cutterId);
  const crosses = cutter.sensor && crossSheet(setup.width, setup.height, cutter.sensor.kinds[0]);
  if (!crosses) throw new Trouble(422, 'small-sheet', 'Crosses and marks do not fit on this sheet.');
  const [film] = await db.select().from(films).where(eq(films.id, setup.film));
  const text = `${cutter.name} · calibration ${id} · this side up`;
  // seldom asked for, and long to load
  const { printPdf } = await import('../files/printPdf');
  const bytes = await printPdf(
    crosses.unit,
    crosses.sheet,
    { code: `JP calibration ${id}`, text },
    {
      marks: crosses.marks,
      withLines: false,
      patch: needsPatch(film.data, 'when-needed'),
    },
  );
  return { name: `${cutter.name} calibration ${id}`, bytes };
}

export async function printCalibration({ db }: CutServices, id: number): Promise<{ name: string }> {
  const printer = await linkedPrinter(db);
  const { name, bytes } = await calibrationSheet(db, id);
  return sendToPrinter(printer, name, bytes);
}
