/** Film that is used, spoilt and counted: each is booked once, and adds up with the shelf; what it was used for adds up with that. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { and, eq, isNull, sql } from 'drizzle-orm';
import Papa from 'papaparse';
import type { Order } from '../contracts/api';
import type { Calibration } from '../contracts/calibrations';
import type { Cut } from '../contracts/cuts';
import type { ShopNow } from '../contracts/shop';
import type { FloorNow } from '../contracts/floor';
import type { FilmWanted, Usage } from '../contracts/usage';
import type { Film } from '../core/films/film';
import { areaOf } from '../core/films/film';
import { smallest } from '../core/geometry/lists';
import type { AtCurlew } from './atCurlew.testing';
import { atCurlew } from './atCurlew.testing';
import { cuts, cutterTimes, filmBookings, leases } from './db/schema';
import { LONGEST_WAIT_S } from './services/usage';

let shop: AtCurlew;
let begun: ReadonlyMap<string, Film>;
beforeAll(async () => {
  shop = await atCurlew('jampan_stock');
  begun = await filmsNow();
}, 60_000);
afterAll(() => shop.close(), 30_000);

const db = () => shop.server.services.db;
const filmsNow = async () =>
  new Map((await shop.get<ShopNow>('/api/shop')).films.map((film) => [film.id, film]));
const wantedNow = () => shop.get<FilmWanted[]>('/api/films/wanted');
const dayOf = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const asked = `from=${dayOf(-1)}&to=${dayOf(1)}&zone=UTC`;
const usage = () => shop.get<Usage>(`/api/usage?${asked}`);
const bookings = () => db().select().from(filmBookings).orderBy(filmBookings.id);
const damsonRoll = async (): Promise<number> => (await filmsNow()).get('damson')!.rolls[0].lengthLeft;

describe('what is booked', () => {
  test('a cut: what left the roll, what came back, how much of it is on signs, and whose it was', async () => {
    const order = await shop.order(3);
    const [{ id }] = await shop.queue(order);
    await shop.inState(id, 'wants-film');
    expect((await wantedNow()).find(({ film }) => film === 'damson')!.queued).toBeGreaterThan(0);
    await shop.say(id, 'loaded').expect(200);
    const cut = await shop.inState(id, 'done');
    const [booked, ...more] = await bookings();
    expect(more).toEqual([]);
    const [{ art }] = await db().select({ art: cuts.art }).from(cuts).where(eq(cuts.id, id));
    expect(booked).toMatchObject({
      kind: 'cut',
      filmId: 'damson',
      cutterId: 'curlew',
      cutId: id,
      width: 610,
      off: cut.length,
      bookedFor: [{ order: order.number, name: order.name, share: 1 }],
    });
    expect(booked.kept * 610).toBeCloseTo(art, 6);
    expect(art).toBeGreaterThan(0);
    expect(await damsonRoll()).toBe(begun.get('damson')!.rolls[0].lengthLeft - cut.length);
    // what lies in the machine since
    expect((await shop.get<FloorNow>('/api/floor')).loaded).toEqual([
      { cutter: 'curlew', film: 'damson', name: 'Damson', colour: '#4a1d44', width: 610, blade: '45°' },
    ]);
  });

  test('one that is begun anew, and one that is left: film as far as it was cut is spoilt, once', async () => {
    const { id } = await shop.begin(6);
    await shop.stopAfter(id, 4);
    const before = await damsonRoll();
    await shop.say(id, 'resume', { from: 'start' }).expect(200);
    await shop.until(id, ({ state, linesDone }) => state === 'cutting' && linesDone >= 2);
    await shop.say(id, 'stop').expect(200);
    await shop.inState(id, 'stopped');
    const both = await Promise.all([shop.say(id, 'cancel'), shop.say(id, 'cancel')]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    const own = (await bookings()).filter(({ cutId }) => cutId === id);
    expect(own.map(({ kind }) => kind)).toEqual(['spoilt', 'spoilt']);
    const { length } = await shop.getCut(id);
    for (const { off, kept } of own) {
      expect(off).toBeGreaterThan(0);
      expect(off).toBeLessThanOrEqual(length);
      expect(kept).toBe(0);
    }
    expect(await damsonRoll()).toBeCloseTo(before - own[0].off - own[1].off, 9);
  });

  test('film that ended: each film’s part is booked by itself; what is left is cut from the start of the new one', async () => {
    const onNewFilm = async (id: number, line: number): Promise<void> => {
      const { linesDone, lines } = await shop.stopAfter(id, line);
      await shop.say(id, 'new-film', { line: lines + 1 }).expect(422);
      // too narrow: it is not begun
      await load(500);
      await shop.say(id, 'new-film', { line: linesDone + 1 }).expect(200);
      expect((await shop.inState(id, 'stopped')).problem).toMatch(/is 500\.0 mm wide, Damson is 610/);
      await load(610);
      await shop.say(id, 'resume', { from: 'next-line' }).expect(200);
    };
    const load = (width: number) =>
      fetch(`${shop.sim.panel}/load`, { method: 'POST', body: JSON.stringify({ name: 'roll', width, length: 22_000, toughness: 60 }) }); // prettier-ignore
    const own = async (id: number) => (await bookings()).filter(({ cutId }) => cutId === id);
    const before = await damsonRoll();
    const { id } = await shop.begin(8);
    await onNewFilm(id, 20);
    const done = await shop.inState(id, 'done');
    const [old, fresh, ...more] = await own(id);
    expect([old.kind, fresh.kind, more]).toEqual(['cut', 'cut', []]);
    expect(old.off).toBeGreaterThan(300);
    expect(old.off).toBeLessThan(done.length);
    expect(fresh.off).toBeGreaterThan(300);
    // nothing between the two is cut off but what lines that are not in order reach past one another
    expect(old.off + fresh.off).toBeGreaterThan(done.length - 60);
    const [{ art, along }] = await db().select({ art: cuts.art, along: sql<number>`(on_new_film->>'along')::float` }).from(cuts).where(eq(cuts.id, id)); // prettier-ignore
    expect(fresh.off).toBeCloseTo(done.length - along, 6);
    expect((old.kept + fresh.kept) * 610).toBeCloseTo(art, 6);
    expect(await damsonRoll()).toBeCloseTo(before - old.off - fresh.off, 6);
    // on the new film it begins where the cut began on the old one
    const { lines } = (await (await fetch(`${shop.sim.panel}/record`)).json()) as { lines: { film: number; points: number[] }[] }; // prettier-ignore
    const newest = Math.max(...lines.map(({ film }) => film));
    const begins = smallest(
      lines.flatMap(({ film, points }) => (film === newest ? points.filter((_, i) => i % 2 === 0) : [])),
    );
    expect(begins).toBeLessThan(60);
    // put together as it was laid out it is the design
    expect(done.asCut).toMatchObject({ twice: [], missing: [] });
    expect(done.deviation).toBeLessThan(0.05);

    // one that is left after all: both its films are spoilt, nothing is on signs
    const { id: left } = await shop.begin(8);
    await onNewFilm(left, 12);
    await shop.until(left, ({ state, linesDone }) => state === 'cutting' && linesDone >= 16);
    await shop.say(left, 'stop').expect(200);
    await shop.inState(left, 'stopped');
    await shop.say(left, 'cancel').expect(200);
    const all = await own(left);
    const sum = (kinds: string[], key: 'used' | 'kept'): number =>
      all.filter(({ kind }) => kinds.includes(kind)).reduce((total, row) => total + row[key], 0);
    expect(sum(['cut'], 'used')).toBeCloseTo(0, 9);
    expect(sum(['cut', 'spoilt'], 'kept')).toBeCloseTo(0, 9);
    expect(sum(['spoilt'], 'used')).toBeGreaterThan(100);
  }, 60_000);

  test('a roll that ended is off the shelf to its end: what was counted of it and was not there is booked by who said so', async () => {
    const { id } = await shop.begin(8);
    const { linesDone } = await shop.stopAfter(id, 20);
    const [left, since] = [await damsonRoll(), (await bookings()).length];
    expect(left).toBeGreaterThan(5000);
    await shop.say(id, 'new-film', { line: linesDone + 1, isAtEnd: true }).expect(200);
    expect(await damsonRoll()).toBe(0);
    await shop.inState(id, 'done');
    const [old, ended, fresh, found, ...more] = (await bookings()).slice(since);
    expect([old, ended, fresh, found].map(({ kind }) => kind)).toEqual(['cut', 'counted', 'cut', 'counted']);
    expect(more).toEqual([]);
    expect(ended.off).toBeCloseTo(left - old.off, 6);
    expect([ended.filmId, ended.cutId]).toEqual(['damson', null]);
    expect(ended.who).not.toBeNull();
    // the new roll was on no list
    expect([found.off, found.who]).toEqual([-fresh.off, null]);
    expect(await damsonRoll()).toBe(0);
    const acts = await shop.get<{ what: string | null }[]>(`/api/cuts/${id}/acts`);
    expect(acts.map(({ what }) => what)).toContain(
      `on new film, from line ${linesDone + 1}, the roll at its end`,
    );
    const [roll, ...rest] = (await filmsNow()).get('damson')!.rolls;
    await shop.api().patch('/api/films/damson').send({ rolls: [{ ...roll, lengthLeft: left }, ...rest] }).expect(200); // prettier-ignore
  }, 60_000);

  test('one that was never begun spoils nothing', async () => {
    const count = (await bookings()).length;
    const [{ id }] = await shop.queue(await shop.order(1));
    await shop.say(id, 'cancel').expect(200);
    expect(await bookings()).toHaveLength(count);
  });

  test('what is cut again counts as spoilt, and not on signs twice', async () => {
    const { id } = await shop.begin(1);
    await shop.inState(id, 'done');
    const [again] = (await shop.say(id, 'again').expect(200)).body as Cut[];
    await shop.inState(again.id, 'wants-film');
    await shop.say(again.id, 'loaded').expect(200);
    await shop.inState(again.id, 'done');
    expect((await bookings()).at(-1)).toMatchObject({ kind: 'again', cutId: again.id, kept: 0 });
  });

  test('a grid is cut in its own film, a row of blades in what lies in the machine', async () => {
    const setUp = async (setup: object): Promise<void> => {
      const made = (await shop.api().post('/api/cutters/curlew/calibrations').send(setup).expect(200)).body as Calibration; // prettier-ignore
      await shop.api().post(`/api/calibrations/${made.id}/cut`).expect(200);
      for (let i = 0; i < 600; i++) {
        const all = await shop.get<Calibration[]>('/api/cutters/curlew/calibrations');
        if (all.find(({ id }) => id === made.id)!.state === 'measuring') return;
        await new Promise((done) => setTimeout(done, 25));
      }
      throw new Error('it was not cut');
    };
    const cells = [60, 70, 80, 90].map((force) => ({ force, speed: 30 }));
    await setUp({ kind: 'force', film: 'quince', line: 'kiss', columns: 2, cells });
    await setUp({ kind: 'blade-row', blade: '45°', values: [0.2, 0.25, 0.3] });
    const [grid, row] = (await bookings()).slice(-2);
    expect(grid).toMatchObject({ kind: 'calibration', filmId: 'quince', cutterId: 'curlew', kept: 0 });
    expect(row).toMatchObject({ kind: 'calibration', filmId: 'damson' });
    const quince = (await filmsNow()).get('quince')!.rolls[0].lengthLeft;
    expect(quince).toBe(begun.get('quince')!.rolls[0].lengthLeft - grid.off);
  });

  test('what somebody counts is theirs; a table that is brought too, and what is ordered stays', async () => {
    const change = (film: string, what: object) =>
      shop.api().patch(`/api/films/${film}`).send(what).expect(200);
    const pack = { width: 610, lengthLeft: 30_000 };
    await change('heather', { rolls: [{ width: 610, lengthLeft: 21_000 }], pack, coming: 2, low: 4000 });
    expect((await bookings()).at(-1)).toMatchObject({
      kind: 'counted',
      filmId: 'heather',
      off: 1000,
      used: 1000,
    });
    expect((await bookings()).at(-1)!.who).not.toBeNull();
    const csv = (await shop.api().get('/api/films.csv').expect(200)).text.replace('610,21000', '610,26000');
    await shop.api().post('/api/films').send({ csv }).expect(200);
    expect((await bookings()).at(-1)).toMatchObject({ kind: 'counted', filmId: 'heather', off: -5000 });
    expect((await filmsNow()).get('heather')).toMatchObject({ pack, coming: 2, low: 4000 });
  });
});

test('what orders want that are not in the queue is known, what is due first before all', async () => {
  const damson = async () => (await wantedNow()).find(({ film }) => film === 'damson');
  // one whose cut was taken back is there already
  const before = (await damson())?.count ?? 0;
  const dues = ['2027-03-04', null, '2027-01-02', '2027-02-03'];
  const made: Order[] = [];
  for (const due of dues) {
    const order = await shop.order(1);
    await shop.api().patch(`/api/orders/${order.id}`).send({ due }).expect(200);
    made.push(order);
  }
  const count = before + made.length;
  for (let k = 0; k < 200 && (await damson())?.count !== count; k++)
    await new Promise((done) => setTimeout(done, 100));
  const wanted = (await damson())!;
  expect(wanted.count).toBe(count);
  expect(wanted.orders.map(({ number }) => number)).toEqual([2, 3, 0].map((k) => made[k].number));
  // queued, it is wanted by the queue instead
  const [cut] = await shop.queue(made[0]);
  const after = (await damson())!;
  expect(after.count).toBe(count - 1);
  expect(wanted.planned - after.planned).toBeCloseTo(cut.length, 6);
  expect(after.queued - wanted.queued).toBeCloseTo(cut.length, 6);
  await shop.say(cut.id, 'cancel').expect(200);
});

test('use adds up: with the shelf film by film, and the same in all by week, film, order and cutter', async () => {
  const { all, byWeek, byFilm, byOrder, byCutter, orders } = await usage();
  const now = await filmsNow();
  for (const { film, before, came, gone, after } of byFilm) {
    expect(before).toBeCloseTo(areaOf(begun.get(film!)!.rolls), 3);
    expect(after).toBeCloseTo(areaOf(now.get(film!)!.rolls), 3);
    expect(before + came - gone).toBeCloseTo(after, 3);
  }
  expect(byFilm.map(({ film }) => film).sort()).toEqual(['damson', 'heather', 'quince']);
  expect(orders).toEqual({ cut: 4, late: 0 });
  const keys = ['used', 'kept', 'spoilt', 'tested', 'cost'] as const;
  for (const key of keys) {
    const sumOf = (rows: readonly Pick<Usage['all'], typeof key>[]) =>
      rows.reduce((sum, row) => sum + row[key], 0);
    for (const rows of [byWeek, byFilm, byCutter]) expect(sumOf(rows)).toBeCloseTo(all[key], 6);
  }
  // tests are nobody's
  const ofOrders = byOrder.reduce((sum, { used }) => sum + used, 0);
  expect(ofOrders).toBeCloseTo(all.used - all.tested, 6);
  expect(all.kept + all.spoilt + all.tested).toBeLessThan(all.used);
  // the table says the same
  const csv = (await shop.api().get(`/api/usage.csv?${asked}`).expect(200)).text;
  const rows = Papa.parse<Record<string, string>>(csv, { header: true, skipEmptyLines: true }).data;
  const column = (name: string): number => rows.filter(({ what }) => what !== 'counted').reduce((sum, row) => sum + Number(row[name]), 0); // prettier-ignore
  expect(column('used mm')).toBeCloseTo(all.used, 6);
  expect(column('on signs mm') + column('wasted mm') + column('spoilt mm') + column('tests mm')).toBeCloseTo(all.used, 6); // prettier-ignore
});

test('a machine’s hours are those of its cuts and tests; a night is no hour of waiting', async () => {
  const { times } = (await usage()).byCutter.find(({ cutter }) => cutter === 'curlew')!;
  expect(times.cutting).toBeGreaterThan(0.2);
  expect(times.waiting).toBeGreaterThan(0);
  expect(times.stopped).toBeGreaterThan(0);
  expect(times.calibrating).toBeGreaterThan(0.1);
  const rows = await db().select().from(cutterTimes).orderBy(cutterTimes.began);
  // one thing at a time
  for (const [i, { began }] of rows.entries())
    if (i > 0) expect(rows[i - 1].ended!.getTime()).toBeLessThanOrEqual(began.getTime());
  await db()
    .insert(cutterTimes)
    .values({ cutterId: 'curlew', doing: 'waiting', cutId: 1, began: new Date(Date.now() - 15 * 3.6e6), ended: sql`now()` as never }); // prettier-ignore
  const after = (await usage()).byCutter.find(({ cutter }) => cutter === 'curlew')!.times;
  expect(after.waiting - times.waiting).toBeCloseTo(LONGEST_WAIT_S, 0);
});

test('a server that went away has fed its cutter until its lease ran out, whenever that is noticed', async () => {
  const [{ id }] = await shop.queue(await shop.order(1));
  await shop.inState(id, 'wants-film');
  const HOUR = 3_600_000;
  const begun = new Date(Date.now() - 5 * HOUR);
  const left = Date.now() - 4 * HOUR;
  await db().transaction(async (tx) => {
    await tx
      .insert(leases)
      .values({ cutterId: 'curlew', holder: 'gone', expiresAt: left })
      .onConflictDoUpdate({ target: leases.cutterId, set: { holder: 'gone', expiresAt: left } });
    await tx.update(cuts).set({ state: 'cutting', linesSent: 3, linesDone: 2 }).where(eq(cuts.id, id));
    await tx
      .update(cutterTimes)
      .set({ began: begun })
      .where(and(eq(cutterTimes.cutId, id), isNull(cutterTimes.ended)));
  });
  expect((await shop.inState(id, 'stopped')).problem).toMatch(/went away after line 2/);
  const own = await db().select().from(cutterTimes).where(eq(cutterTimes.cutId, id)).orderBy(cutterTimes.id);
  const [cutting, stopped] = own.slice(-2);
  expect([cutting.doing, stopped.doing]).toEqual(['cutting', 'stopped']);
  expect([cutting.began.getTime(), cutting.ended!.getTime()]).toEqual([begun.getTime(), left]);
  expect(stopped.began.getTime()).toBe(left);
  await shop.say(id, 'cancel').expect(200);
});

test('days are those of a place’s clocks; what is no place is refused', async () => {
  await db().execute(sql`update film_bookings set at = '2026-03-01T23:30:00Z' where id = (select min(id) from film_bookings)`); // prettier-ignore
  const on = (day: string, zone: string) => shop.get<Usage>(`/api/usage?from=${day}&to=${day}&zone=${zone}`);
  expect((await on('2026-03-01', 'UTC')).all.used).toBeGreaterThan(0);
  expect((await on('2026-03-02', 'UTC')).all.used).toBe(0);
  // the second is a Monday
  expect((await on('2026-03-02', 'Europe/Vienna')).byWeek.map(({ monday }) => monday)).toEqual([
    '2026-03-02',
  ]);
  await shop.api().get('/api/usage?from=2026-03-01&to=2026-03-02&zone=Nowhere/Atall').expect(400);
});
