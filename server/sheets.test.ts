/** Printed sheets from the printer to the cut: printed, loaded, read by the sensor, and cut where the print is, or refused. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Order } from '../contracts/api';
import type { Cut, CutState, Outdated } from '../contracts/cuts';
import { editsBetween } from '../contracts/edits';
import { nearestOn } from '../core/geometry/nearestOnLine.testing';
import { PLOVER_SPEC } from '../cutter-sim/machines';
import type { RunningPrinter } from '../cutter-sim/prints';
import { servePrinter } from '../cutter-sim/prints';
import type { RunningSim } from '../cutter-sim/serve';
import { serveSim } from '../cutter-sim/serve';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

let lead: SignedIn;
let server: RunningServer;
let printer: RunningPrinter;
let sim: RunningSim;

beforeAll(async () => {
  const databaseUrl = await freshDatabase('jampan_sheets');
  printer = await servePrinter();
  [server, sim] = await Promise.all([
    openServer({ databaseUrl, filesPerMinute: 1000 }),
    serveSim({ spec: PLOVER_SPEC, timeFactor: 120, tray: printer.tray }),
  ]);
  const link = ({ port, panel }: RunningSim | RunningPrinter) => ({ host: '127.0.0.1', port, panel });
  await seedShop(server.services, { plover: link(sim), printer: link(printer) });
  lead = await signIn(server);
}, 60_000);
afterAll(async () => {
  await server.close();
  await Promise.all([sim.close(), printer.close()]);
}, 30_000);

const api = () => lead.agent;

/** What badges are cut with. */
const LINE = 'kiss';
/** A badge of a size, so many of them printed. */
async function badges(width: number, copies: number): Promise<Order> {
  const art = Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="30mm" viewBox="0 0 ${width} 30"><path fill="#2e6f7e" d="M0 0H${width}V30H0Z"/></svg>`); // prettier-ignore
  const { body } = await api().post('/api/orders').attach('file', art, 'badge.svg').expect(200);
  const { id, choices, revision } = body as Order;
  const { films, layout, print } = choices;
  const lines = [{ ...print.lines[0], offset: 1, smallestRadius: 0 }];
  const next = { ...choices, films: { ...films, print: ['#2e6f7e'] }, layout: { ...layout, copies }, print: { ...print, lines, bleed: 1 } }; // prettier-ignore
  await api().patch(`/api/orders/${id}/choices`).send({ base: revision, edits: editsBetween(choices, next) }).expect(200); // prettier-ignore
  return (await api().get(`/api/orders/${id}`).expect(200)).body as Order;
}
/** Sends a sheet to the printer. @returns its number in the tray */
async function print(order: Order, sheet = 'sheet-1'): Promise<number> {
  await api().post(`/api/orders/${order.id}/sheets/${sheet}/print`).expect(200);
  return [...printer.tray.keys()].at(-1)!;
}
const lay = (print: number, more: object = {}): Promise<Response> =>
  fetch(`${sim.panel}/load-print`, { method: 'POST', body: JSON.stringify({ print, ...more }) });
const queue = async ({ id, revision }: Order): Promise<Cut[]> =>
  (await api().post(`/api/orders/${id}/queue`).send({ revision }).expect(200)).body as Cut[];
const cutNow = async (id: number): Promise<Cut> =>
  (await api().get(`/api/cuts/${id}`).expect(200)).body as Cut;

/** Says that it is loaded, and waits until that has come to something. */
async function loaded(id: number): Promise<Cut> {
  await api().post(`/api/cuts/${id}/loaded`).expect(200);
  const busy: readonly CutState[] = ['checking', 'cutting', 'stopping'];
  for (;;) {
    const cut = await cutNow(id);
    if (!busy.includes(cut.state)) return cut;
    await new Promise((go) => setTimeout(go, 60));
  }
}
const outdated = async ({ id }: Order): Promise<Outdated[]> =>
  (await api().get(`/api/orders/${id}/outdated`).expect(200)).body as Outdated[];
const cancel = (id: number) => api().post(`/api/cuts/${id}/cancel`).expect(200);
/** Marks of a cut, mm on the sheet. */
const markOn = ({ sheet, edges }: Cut, i: number): readonly [number, number] => {
  const [x, y] = sheet!.marks[i].at;
  return [x, y + edges.far];
};

describe('a printed sheet', () => {
  test('that is changed after it was queued says whether its print may be another', async () => {
    const order = await badges(50, 4);
    const [cut] = await queue(order);
    expect(await outdated(order)).toEqual([]);
    const recipe = (force: number) =>
      api().patch(`/api/cutters/${cut.cutterId}/recipes/${cut.film.id}/${LINE}`).send({ force }).expect(200); // prettier-ignore
    const was = cut.writtenWith[LINE]!.force!;
    await recipe(was + 10);
    const [told] = await outdated(order);
    expect(told.cuts.flatMap(({ says }) => says).join()).not.toContain('printed');
    await recipe(was);
    expect(await outdated(order)).toEqual([]);

    const { layout } = order.choices;
    const edits = editsBetween(order.choices, { ...order.choices, layout: { ...layout, copies: 6 } });
    await api().patch(`/api/orders/${order.id}/choices`).send({ base: order.revision, edits }).expect(200);
    const [now] = await outdated(order);
    expect(now.cuts[0].says.join()).toMatch(/Sheet 1 may be printed otherwise too/);
    await api().post(`/api/orders/${order.id}/replace-queued`).send({ now: now.now }).expect(200);
    expect((await cutNow(cut.id)).copies).toBe(6);
    expect(await outdated(order)).toEqual([]);
    await cancel(cut.id);
  });

  test('is printed, read where it lies, and cut on its print; the next one follows by itself', async () => {
    const order = await badges(50, 40);
    const cuts = await queue(order);
    expect(cuts.map(({ sheet, state }) => [sheet?.number, sheet?.of, state])).toEqual([
      [1, 2, 'wants-film'],
      [2, 2, 'queued'],
    ]);
    const lie = { turn: 1.6, shift: [1, -2], stretch: [1.003, 0.998], bow: 0.5 };
    await lay(await print(order), { ...lie, head: markOn(cuts[0], 0) });
    const done = await loaded(cuts[0].id);
    expect(done).toMatchObject({ state: 'done', problem: null });
    const { fit, marks } = done.reading!;
    expect(fit).toMatchObject({ rotation: expect.closeTo(1.6, 1), isTurned: false });
    expect(Math.abs(fit!.worst)).toBeLessThan(0.1);
    expect(marks).toHaveLength(done.sheet!.marks.length);
    for (const { scan } of marks) expect(scan!.edges![1] - scan!.edges![0]).toBeCloseTo(1, 0);

    // where the tip went on the page, against a badge's line there: 52 × 32 mm
    const { lines } = (await (await fetch(`${sim.panel}/on-print`)).json()) as { lines: number[][] };
    const svg = (await api().get(`/api/orders/${order.id}/sheets/sheet-1?as=svg`).buffer(true).parse((response, give) => {
      let text = '';
      response.on('data', (part: Buffer) => (text += part.toString()));
      response.on('end', () => give(null, text));
    }).expect(200)).body as unknown as string; // prettier-ignore
    const outlines = [...svg.matchAll(/ d="M([^"Z]+)Z"/g)].map(([, d]) => d.split(/[L ]/).map(Number));
    const off = lines.slice(1).flatMap((line) => {
      const near = nearestOn(outlines);
      return Array.from({ length: Math.floor(line.length / 40) }, (_, i) =>
        near([line[40 * i], line[40 * i + 1]]),
      );
    });
    expect(off.length).toBeGreaterThan(200);
    expect(Math.max(...off)).toBeLessThan(0.1);

    expect((await cutNow(cuts[1].id)).state).toBe('wants-film');
    await cancel(cuts[1].id);
    // one sheet of the pile is gone
    const { body } = await api().get('/api/shop').expect(200);
    const { films } = body as { films: { id: string; rolls: { sheets?: number }[] }[] };
    expect(films.find(({ id }) => id === 'print-white')!.rolls[0].sheets).toBe(59);
  }, 90_000);

  test('the other way round it is turned; spoilt in any other way it is refused, and cut once it is right', async () => {
    const order = await badges(44, 8);
    const other = await badges(60, 6);
    const [cut] = await queue(order);
    const [mine, theirs] = [await print(order), await print(other)];
    const middle = markOn(cut, 2);
    const refused: readonly (readonly [object, number, RegExp])[] = [
      [{ mirrored: true, head: markOn(cut, 1) }, mine, /face down/],
      [
        { head: markOn(cut, 0) },
        theirs,
        /not found|not the marks of this sheet|no mark of this sheet|lies .* off/,
      ],
      [{ covers: [[...middle, 24]], head: markOn(cut, 0) }, mine, /Mark 3 was not found/],
      [{ ink: 0.14, head: markOn(cut, 0) }, mine, /too faint/],
      [{ stretch: [0.975, 0.975], head: markOn(cut, 0) }, mine, /% of its size|not found/],
      [{ turn: 20, head: markOn(cut, 0) }, mine, /not found|aslant/],
    ];
    for (const [how, sheet, says] of refused) {
      await lay(sheet, how);
      const back = await loaded(cut.id);
      expect([back.state, back.linesDone]).toEqual(['wants-film', 0]);
      expect(back.problem).toMatch(says);
    }
    await lay(mine, { turn: 180.8, head: markOn(cut, 2) });
    const done = await loaded(cut.id);
    expect(done).toMatchObject({ state: 'done', reading: { fit: { isTurned: true } } });
    expect(done.reading!.notes.join()).toContain('the other way round');
  }, 120_000);

  test('with perforated lines it is set against its design too', async () => {
    const { id, choices, revision } = await badges(40, 3);
    const { print: how } = choices;
    const next = { ...choices, print: { ...how, lines: [...how.lines, { ...how.lines[0], kind: 'perforated' as const, offset: 4 }] } }; // prettier-ignore
    await api().patch(`/api/orders/${id}/choices`).send({ base: revision, edits: editsBetween(choices, next) }).expect(200); // prettier-ignore
    const order = (await api().get(`/api/orders/${id}`).expect(200)).body as Order;
    const [cut] = await queue(order);
    await lay(await print(order), { turn: 0.7, head: markOn(cut, 0) });
    const done = await loaded(cut.id);
    expect(done.state).toBe('done');
    expect(done.deviation).toBeLessThan(0.15);
  }, 60_000);

  test('its code, read at the cutter, brings up its cut; what is at work stays, and what is done is told', async () => {
    const byCode = (code: string, cutter = 'plover') =>
      api().post('/api/cuts/by-code').send({ code, cutter });
    const order = await badges(48, 100);
    const code = (n: number): string => `JP #${order.number} ${n} A`;
    const told = async (n: number, status: number, ...asked: Parameters<typeof byCode>): Promise<void> => {
      const { body } = await byCode(...asked).expect(status);
      expect((body as { message: string }).message).toContain(n === 0 ? 'not the code' : `Sheet ${n}`);
    };
    await told(1, 404, code(1));
    const cuts = await queue(order);
    expect(cuts.length).toBeGreaterThan(2);
    // the second is laid in first
    expect((await byCode(code(2)).expect(200)).body).toMatchObject({ id: cuts[1].id, state: 'wants-film' });
    expect((await cutNow(cuts[0].id)).state).toBe('queued');
    await told(0, 422, '4012345678901');
    await told(2, 409, code(2), 'curlew');
    await lay(await print(order, 'sheet-2'), { turn: 0.4, head: markOn(cuts[1], 0) });
    expect((await loaded(cuts[1].id)).state).toBe('done');
    await told(2, 409, code(2));
    // the first of those that wait is next
    expect((await cutNow(cuts[0].id)).state).toBe('wants-film');
    for (const { id } of [cuts[0], ...cuts.slice(2)]) await cancel(id);

    // spoilt: that one sheet again
    const send = { revision: order.revision, sheets: [2] };
    const { body } = await api().post(`/api/orders/${order.id}/queue`).send(send).expect(200);
    const again = (body as Cut[]).filter(({ state }) => state !== 'done' && state !== 'cancelled');
    expect(again.map(({ sheet, state }) => [sheet?.number, state])).toEqual([[2, 'wants-film']]);
    await cancel(again[0].id);
  }, 90_000);

  test('a cutter bears what its lead says: the same sheet is cut at one limit and refused at another', async () => {
    const order = await badges(42, 6);
    const [cut] = await queue(order);
    const sheet = await print(order);
    const limits = (fitLimits: object) => api().patch('/api/cutters/plover').send({ fitLimits });
    await limits({ residual: 0.3, scale: 0.001, rotation: 5, skew: 0.5 }).expect(200);
    await lay(sheet, { stretch: [1.004, 1.004], head: markOn(cut, 0) });
    const back = await loaded(cut.id);
    expect([back.state, back.problem]).toEqual([
      'wants-film',
      expect.stringMatching(/100\.[2-4]\d %.*0\.10 % off/),
    ]);
    await limits({ residual: 0.3, scale: 0.5, rotation: 5, skew: 0.5 }).expect(400);
    await limits({ residual: 0.3, scale: 0.01, rotation: 5, skew: 0.5 }).expect(200);
    await lay(sheet, { stretch: [1.004, 1.004], head: markOn(cut, 0) });
    expect((await loaded(cut.id)).state).toBe('done');
  }, 90_000);

  test('reading is stopped by a person, and begun again', async () => {
    const order = await badges(46, 6);
    const [cut] = await queue(order);
    await lay(await print(order), { head: markOn(cut, 0) });
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    await api().post(`/api/cuts/${cut.id}/stop`).expect(200);
    let now = await cutNow(cut.id);
    for (; now.state === 'stopping' || now.state === 'checking'; now = await cutNow(cut.id))
      await new Promise((go) => setTimeout(go, 30));
    expect([now.state, now.linesDone, now.problem]).toEqual(['wants-film', 0, expect.stringMatching(/^Stopped (while its marks were|before anything was) read/)]); // prettier-ignore
    expect((await loaded(cut.id)).state).toBe('done');
  }, 60_000);

  test.each([false, true])(
    'a cutter that is switched off while it reads, a stop on its way to it or not, has cut nothing: its sheet is read anew (stop: %p)',
    async (isStopped) => {
      const order = await badges(isStopped ? 45 : 44, 6);
      const [cut] = await queue(order);
      const sheet = await print(order);
      await lay(sheet, { head: markOn(cut, 0) });
      await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
      while (!((await (await fetch(`${sim.panel}/status`)).json()) as { busy: boolean }).busy)
        await new Promise((go) => setTimeout(go, 5));
      if (isStopped) await api().post(`/api/cuts/${cut.id}/stop`).expect(200);
      await fetch(`${sim.panel}/switch-off`, { method: 'POST' });
      let now = await cutNow(cut.id);
      for (; now.state === 'stopping' || now.state === 'checking'; now = await cutNow(cut.id))
        await new Promise((go) => setTimeout(go, 30));
      expect([now.state, now.linesDone]).toEqual(['wants-film', 0]);
      if (!isStopped) expect(now.problem).toMatch(/^Plover cannot be reached: .* then press again\.$/);
      await lay(sheet, { head: markOn(cut, 0) });
      expect((await loaded(cut.id)).state).toBe('done');
    },
    60_000,
  );

  test('a sheet that something keeps from being printed is not sent to the printer', async () => {
    const { id, choices, revision } = await badges(40, 3);
    const next = { ...choices, print: { ...choices.print, marks: { ...choices.print.marks, kind: 'out' as const } } }; // prettier-ignore
    await api().patch(`/api/orders/${id}/choices`).send({ base: revision, edits: editsBetween(choices, next) }).expect(200); // prettier-ignore
    const { body } = await api().post(`/api/orders/${id}/sheets/sheet-1/print`).expect(409);
    expect((body as { message: string }).message).toContain('does not read corners that face out');
  });

  test('a blank sheet is not cut, nor one of another width', async () => {
    const order = await badges(40, 4);
    const [cut] = await queue(order);
    await fetch(`${sim.panel}/load`, { method: 'POST', body: JSON.stringify({ width: 297, length: 420 }) });
    expect((await loaded(cut.id)).problem).toContain('Mark 1 was not found');
    await fetch(`${sim.panel}/load`, { method: 'POST', body: JSON.stringify({ width: 210, length: 420 }) });
    expect((await loaded(cut.id)).problem).toContain('210.0 mm wide');
    await cancel(cut.id);
  }, 60_000);

  test('a printer that is away is told; what is no PDF is not printed', async () => {
    const answer = await fetch(`${printer.panel}/print`, { method: 'POST', body: 'no PDF' });
    expect(answer.status).toBe(422);
    const order = await badges(30, 2);
    await server.services.db.execute(`update settings set printer_link = 'http://127.0.0.1:1'`);
    const { body } = await api().post(`/api/orders/${order.id}/sheets/sheet-1/print`).expect(503);
    expect((body as { message: string }).message).toContain('Siskin does not answer');
    await server.services.db.execute('update settings set printer_link = null');
    await api().post(`/api/orders/${order.id}/sheets/sheet-1/print`).expect(409);
  }, 60_000);
});
