/** The server against a real PostgreSQL, a real queue and a simulated cutter on real sockets. */
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { request as httpRequest } from 'node:http';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq, sql } from 'drizzle-orm';
import jsQR from 'jsqr';
import sharp from 'sharp';
import type { Changed, Order, OrderList } from '../contracts/api';
import type { Cut, Drawing } from '../contracts/cuts';
import type { ApplyPage } from '../contracts/bench';
import { STEPS_TYPE } from '../contracts/api';
import { applyPageSchema, mapPageSchema } from '../contracts/bench';
import { CURLEW_SPEC } from '../cutter-sim/machines';
import type { RunningSim } from '../cutter-sim/serve';
import { serveSim } from '../cutter-sim/serve';
import type { Artwork } from '../core/readers/artwork';
import { editsBetween } from '../contracts/edits';
import { sourceKey } from '../core/artwork/choices';
import { hpglBytes, writeHpgl } from '../core/devicelang/writeHpgl';
import { createPlanner } from '../core/plan/plan';
import { seedShop } from '../demo/seed';
import { liesOn, componentsOf } from '../core/geometry/nesting';
import { regionArea } from '../core/geometry/region';
import { pathBounds } from '../core/geometry/path';
import { DEMO_SHOP } from '../demo/shop';
import { takeLease } from './cutters/lease';
import type { PlanTask } from './work/planningTasks';
import type { TcpLink } from './db/link';
import { cuts, cutters, files, films, leases, recipes, revisions } from './db/schema';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { Response } from 'supertest';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set: run npm test');
const WREN = readFileSync('demo/art/marsh-wren.svg');
const ROLL = { name: 'roll', width: 610, length: 22_000, toughness: 60 };

/** The lead, logged in at each server. */
let leads: Readonly<Record<string, SignedIn>>;
const at = (url: string) => leads[url].agent;
let server: RunningServer;
let other: RunningServer;
let sim: RunningSim;

beforeAll(async () => {
  // two server processes' worth on one database
  server = await openServer({ databaseUrl: url, filesPerMinute: 1000 });
  other = await openServer({ databaseUrl: url, filesPerMinute: 1000 });
  sim = await serveSim({ spec: CURLEW_SPEC, timeFactor: 60, film: ROLL });
  await seedShop(server.services, {
    curlew: { host: '127.0.0.1', port: sim.port, panel: sim.panel },
  });
  leads = { [server.url]: await signIn(server), [other.url]: await signIn(other) };
}, 60_000);

afterAll(async () => {
  await Promise.all([server.close(), other.close()]);
  await sim.close();
}, 30_000);

const api = () => at(server.url);
const upload = (content: Buffer | string, name = 'art.svg') =>
  api().post('/api/orders').attach('file', Buffer.from(content), name);
const newOrder = async (): Promise<Order> => (await upload(WREN, 'marsh-wren.svg').expect(200)).body as Order;
const layoutOf = (order: Order, copies: number) => ({ layout: { ...order.choices.layout, copies } });
const change = (order: Order, body: object, url = server.url) =>
  at(url)
    .patch(`/api/orders/${order.id}/choices`)
    .send({ base: order.revision, edits: editsBetween(order.choices, { ...order.choices, ...body }) });
const getCut = async (id: number): Promise<Cut> =>
  (await api().get(`/api/cuts/${id}`).expect(200)).body as Cut;

async function until<T>(look: () => Promise<T>, good: (value: T) => boolean, seconds = 30): Promise<T> {
  const end = Date.now() + seconds * 1000;
  for (;;) {
    const value = await look();
    if (good(value)) return value;
    if (Date.now() > end) throw new Error(`still ${JSON.stringify(value).slice(-700)}`);
    await new Promise((done) => setTimeout(done, 60));
  }
}
const inState = (id: number, ...states: string[]) =>
  until(
    () => getCut(id),
    (cut) => states.includes(cut.state),
  );
const panel = (path: string, body?: object) =>
  fetch(`${sim.panel}${path}`, { method: 'POST', body: body && JSON.stringify(body) });

/** What an order's first piece reads as. */
async function readingOf(order: Order): Promise<Artwork> {
  const source = JSON.stringify(order.choices.artwork.pieces[0].source);
  return (await api().get('/api/readings').query({ source }).expect(200)).body as Artwork;
}

/** Queues an order with one film and takes whatever else waits out of the way. */
/** Takes back whatever waits, so that the next cut that is queued has its cutter. */
async function clearQueue(): Promise<void> {
  for (const open of (await api().get('/api/cuts')).body as Cut[])
    await api().post(`/api/cuts/${open.id}/cancel`);
}

async function queueOne(copies = 1): Promise<Cut> {
  await clearQueue();
  const order = await newOrder();
  const off = ['#2e6f7e', '#e2a21b'];
  const { body } = await change(order, {
    films: { ...order.choices.films, off },
    ...layoutOf(order, copies),
  }).expect(200);
  const queued = await api()
    .post(`/api/orders/${order.id}/queue`)
    .send({ revision: body.revision })
    .expect(200);
  return queued.body[0] as Cut;
}

describe('bringing a file in', () => {
  test('an order starts, the file is kept as it came, the artwork comes back', async () => {
    const order = await newOrder();
    expect(order).toMatchObject({
      name: 'marsh wren',
      fileName: 'marsh-wren.svg',
      revision: 0,
      canUndo: false,
    });
    const original = await api()
      .get(`/api/orders/${order.id}/pieces/p1/original`)
      .buffer()
      .parse(binary)
      .expect(200);
    expect(WREN.equals(original.body as Buffer)).toBe(true);
    expect(original.headers['content-disposition']).toContain('attachment');
    expect((await readingOf(order)).shapes.length).toBeGreaterThan(20);
    // the order is there as soon as its file is read; its row's picture follows by itself
    const row = await until(
      async () => ((await api().get('/api/orders').expect(200)).body as OrderList).rows[0],
      ({ summary }) => summary !== null,
    );
    const png = await api().get(`/api/orders/${order.id}/thumbnail.png`).buffer().parse(binary).expect(200);
    expect((png.body as Buffer).subarray(1, 4).toString()).toBe('PNG');
    expect(row.summary!.films.map((f: { name: string }) => f.name)).toEqual([
      'Damson',
      'Tide blue',
      'Quince',
    ]);
  });

  const svg = (body: string, root = 'width="100" height="100"'): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" ${root}>${body}</svg>`;
  const bomb = `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;">]>${svg('<text>&b;</text>')}`;
  const outside =
    '<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]><svg xmlns="http://www.w3.org/2000/svg"><text>&x;</text></svg>';
  const doubling = svg(
    `<defs><g id="g0"><rect width="1" height="1"/></g>${Array.from({ length: 40 }, (_, i) => `<g id="g${i + 1}"><use href="#g${i}"/><use href="#g${i}"/></g>`).join('')}</defs><use href="#g40"/>`,
  );
  test.each([
    ['no drawing', 'hello there', 'unknown-kind', 'no drawing that can be read'],
    ['another kind of XML', '<html><body>svg</body></html>', 'not-svg', 'not an SVG drawing'],
    ['empty', '', 'empty', 'is empty'],
    ['cut-off', String(WREN).slice(0, 900), 'broken-xml', 'stops in the middle'],
    ['an entity bomb', bomb, 'entities', 'harmful'],
    ['an outside entity', outside, 'entities', 'harmful'],
    ['a bomb made of use', doubling, 'too-many-shapes', 'thousand million'],
    ['nested too deep', svg('<g>'.repeat(5000) + '</g>'.repeat(5000)), 'too-deep', 'deep'],
    [
      'nothing cuttable',
      svg('<image href="https://example.invalid/a.png" width="9" height="9"/>'),
      'nothing-to-cut',
      'a knife can cut',
    ],
    ['no size', svg('<rect width="9" height="9"/>', 'width="0" height="0"'), 'no-size', 'nought'],
    [
      '100 000 shapes',
      svg('<rect width="9" height="9"/>'.repeat(100_000)),
      'too-many-shapes',
      '100,000 shapes',
    ],
  ])(
    '%s is told in a sentence, and nothing is left behind',
    async (_, content, code, says) => {
      const before = (await api().get('/api/orders')).body.counts.all;
      const { status, body } = await upload(content);
      expect([400, 422]).toContain(status);
      expect(body).toMatchObject({ code });
      expect(body.message).toContain(says);
      expect((await api().get('/api/orders')).body.counts.all).toBe(before);
    },
    30_000,
  );

  test('a sender who takes steps hears how far the reading is, then the order or what is wrong', async () => {
    const size = { width: 900, height: 700 };
    const ground = sharp({ create: { ...size, channels: 3, background: '#fff' } });
    const mark = {
      input: Buffer.from('<svg width="300" height="300"><circle cx="150" cy="150" r="140"/></svg>'),
    };
    const steps = async (content: Buffer): Promise<Record<string, unknown>[]> => {
      const { text } = await upload(content, 'disc.png')
        .set('Accept', STEPS_TYPE)
        .buffer()
        .parse((response, done) => {
          let text = '';
          response.on('data', (chunk: Buffer) => (text += chunk.toString()));
          response.on('end', () => done(null, text));
        })
        .expect(200)
        .then(({ body }) => ({ text: body as string }));
      return text
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line) as Record<string, unknown>);
    };
    const good = await steps(await ground.composite([mark]).png().toBuffer());
    const shares = good.slice(0, -1).map(({ share }) => share as number);
    expect(shares.length).toBeGreaterThan(3);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBeLessThanOrEqual(1);
    expect(good.at(-1)).toMatchObject({ value: { fileName: 'disc.png', revision: 0 } });
    const cutOff = Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90"><image width="9" height="9" href="data:image/png;base64,iVBORw0KGgo="/></svg>`,
    );
    const bad = await steps(cutOff);
    expect(bad.at(-1)).toMatchObject({ status: 422, problem: { code: 'nothing-to-cut' } });
  });

  test('41 MB is too big', async () => {
    const { status, body } = await upload(Buffer.alloc(41 * 1024 * 1024, 32));
    expect([status, body.code]).toEqual([413, 'too-big']);
    expect(body.message).toContain('40 MB');
  }, 30_000);

  test('a script and an outside picture are told of and never reach the artwork', async () => {
    const { body } = await upload(
      svg(
        '<script>alert(1)</script><rect onclick="alert(1)" width="9" height="9"/><image href="http://example.invalid/x.png" width="5" height="5"/>',
      ),
    ).expect(200);
    const artwork = await readingOf(body);
    expect(artwork.findings.map((f: { code: string }) => f.code)).toEqual(
      expect.arrayContaining(['script', 'outside']),
    );
    expect(JSON.stringify(artwork)).not.toMatch(/alert|example\.invalid/);
  });

  test('absurd sizes come in and say what to type', async () => {
    const { body } = await upload(
      svg('<rect width="900" height="900"/>', 'width="9000000mm" height="9000000mm" viewBox="0 0 1000 1000"'),
    ).expect(200);
    const queued = await api().post(`/api/orders/${body.id}/queue`).send({ revision: 0 });
    expect(queued.status).toBe(422);
    expect(queued.body.waysOut[0]).toContain('Type the finished width');
  });

  test('no file, two files, a file under another name', async () => {
    expect((await api().post('/api/orders').field('a', '1')).body.code).toBe('no-file');
    const two = await api().post('/api/orders').attach('file', WREN, 'a.svg').attach('file', WREN, 'b.svg');
    expect(two.body.code).toBe('bad-upload');
  });
});

function binary(answer: Response, done: (error: Error | null, body: Buffer) => void): void {
  const response = answer as unknown as NodeJS.ReadableStream;
  const chunks: Buffer[] = [];
  response.on('data', (chunk: Buffer) => chunks.push(chunk));
  response.on('end', () => done(null, Buffer.concat(chunks)));
}

async function migrateBy(file: string): Promise<void> {
  const migration = readFileSync(`server/db/migrations/${file}`, 'utf8');
  for (const statement of migration.split('--> statement-breakpoint'))
    await server.services.db.execute(sql.raw(statement));
}

test('cuts from when a film was one strip are known by that strip', async () => {
  const { db } = server.services;
  const cut = await queueOne();
  await api().post(`/api/cuts/${cut.id}/cancel`).expect(200);
  await db.execute(sql`alter table cuts drop column strip`);
  await migrateBy('0006_strips.sql');
  expect((await getCut(cut.id)).strip).toBe(cut.film.id);
  expect((await queueOne()).strip).toBe(cut.film.id);
  await clearQueue();
});

test('cutters, cuts and recipes from when the shop had one cutter with two edges alike', async () => {
  const { db } = server.services;
  const cut = await queueOne();
  await api().post(`/api/cuts/${cut.id}/cancel`).expect(200);
  const [{ data }] = await db.select().from(cutters).where(eq(cutters.id, 'curlew'));
  const { widest, narrowest, margins, force: _force, speed: _speed, ownSpeed: _own, device, ...same } = data;
  const { pointsInDown: _points, ...rest } = device;
  const older = {
    ...same,
    widestRoll: widest,
    narrowestRoll: narrowest,
    rollerMargin: margins.far,
    leadMargin: margins.lead,
    device: rest,
  };
  await db.execute(sql`update cutters set data = ${JSON.stringify(older)}::jsonb where id = 'curlew'`);
  await db.execute(sql`alter table cuts drop column edges, add column roller_margin double precision`);
  await db.execute(sql`update cuts set roller_margin = 12.7`);
  await db.execute(sql`alter table recipes drop constraint recipes_cutter_id_film_id_kind_pk`);
  await db.execute(
    sql`alter table recipes drop column kind, add constraint recipes_cutter_id_film_id_pk primary key (cutter_id, film_id)`,
  );
  await migrateBy('0007_four_cutters.sql');
  expect((await getCut(cut.id)).edges).toEqual({ far: 12.7, near: 12.7 });
  const [{ data: now }] = await db.select().from(cutters).where(eq(cutters.id, 'curlew'));
  expect(now).toMatchObject({ widest: 1370, narrowest: 300, margins, ownSpeed: 30, device });
  expect(Object.keys(now).sort()).toEqual(Object.keys(data).sort());
  expect((await queueOne()).edges).toEqual({ far: 12.7, near: 12.7 });
  await clearQueue();
  await db.update(cutters).set({ data }).where(eq(cutters.id, 'curlew'));
});

test('films stored as one roll each are read as films with that roll', async () => {
  const { db } = server.services;
  const [{ data }] = await db.select().from(films).where(eq(films.id, 'bark'));
  const { rolls, ...rest } = data;
  const old = { ...rest, rollWidth: 610, lengthLeft: 1400 };
  await db.execute(sql`update films set data = ${JSON.stringify(old)}::jsonb where id = 'bark'`);
  await migrateBy('0003_rolls.sql');
  const [{ data: now }] = await db.select().from(films).where(eq(films.id, 'bark'));
  expect(now).toEqual({ ...rest, rolls });
});

describe('text', () => {
  const text = {
    kind: 'text',
    text: 'HELLO\nQuay',
    font: 'archivo',
    weight: 700,
    capHeight: 100,
    tracking: 0,
    lineSpacing: 1.2,
    align: 'left',
    arcRadius: 0,
    colour: '#4b1f4a',
  };
  const begin = (more: object = {}) =>
    api()
      .post('/api/orders/text')
      .send({ source: { ...text, ...more } });
  const boxesOf = ({ shapes }: Artwork) => shapes.map(({ path, matrix }) => pathBounds(path, matrix));

  test('an order starts with typed text; capitals are as high as asked, in every typeface', async () => {
    const { body } = await begin().expect(200);
    expect(body.name).toBe('HELLO');
    // a dot is no ending of a file's name
    expect((await begin({ text: '1.5 TON SWL' }).expect(200)).body.name).toBe('1.5 TON SWL');
    await until(
      async () => (await api().get(`/api/orders/${body.id}/thumbnail.png`)).status,
      (status) => status === 200,
    );
    const fonts = (await api().get('/api/fonts')).body as { id: string }[];
    expect(fonts.length).toBeGreaterThanOrEqual(10);
    for (const { id } of fonts) {
      const order = (await begin({ text: 'H', font: id }).expect(200)).body as Order;
      const [box] = boxesOf(await readingOf(order));
      // from the line up: scripts swing their capitals a little below it
      expect(Math.abs(-box.minY - 100)).toBeLessThan(0.2);
    }
  }, 60_000);

  test('kerning, weight and tracking', async () => {
    const width = async (more: object): Promise<number> => {
      const boxes = boxesOf(await readingOf((await begin(more).expect(200)).body as Order));
      return Math.max(...boxes.map((b) => b.maxX)) - Math.min(...boxes.map((b) => b.minX));
    };
    const [pair, a, v] = [
      await width({ text: 'AV' }),
      await width({ text: 'A' }),
      await width({ text: 'V' }),
    ];
    expect(pair).toBeLessThan(a + v);
    expect(await width({ text: 'II', weight: 900 })).toBeGreaterThan(
      await width({ text: 'II', weight: 100 }),
    );
    // capitals of 100 mm: the em is 100 mm over the share of it that a capital takes, about 0.7
    const em = (await width({ text: 'HH', tracking: 1000 })) - (await width({ text: 'HH' }));
    expect(em).toBeGreaterThan(130);
    expect(em).toBeLessThan(160);
  }, 60_000);

  test('along an arc, every letter stands on one circle of the radius asked for', async () => {
    const bent = boxesOf(await readingOf((await begin({ text: 'OOOOOO', arcRadius: 400 })).body as Order));
    const middles = bent.map((b) => [(b.minX + b.maxX) / 2, (b.minY + b.maxY) / 2]);
    const centreX = (middles[0][0] + middles[5][0]) / 2;
    const radii = (y: number): number[] => middles.map(([mx, my]) => Math.hypot(mx - centreX, my - y));
    const spread = (y: number): number => Math.max(...radii(y)) - Math.min(...radii(y));
    let best = 100;
    for (let y = 100; y < 900; y++) if (spread(y) < spread(best)) best = y;
    expect(spread(best)).toBeLessThan(1.5);
    // an O's middle lies half a capital over the line
    expect(Math.abs(radii(best)[0] - 450)).toBeLessThan(6);
  }, 60_000);

  test('a letter that no typeface has is told; an unknown typeface keeps the order back', async () => {
    const odd = (await begin({ text: 'A漢' }).expect(200)).body as Order;
    expect((await readingOf(odd)).findings.map(({ code }) => code)).toEqual(['letters-missing']);
    const none = (await begin({ font: 'nowhere' }).expect(200)).body as Order;
    const answer = await api().post(`/api/orders/${none.id}/queue`).send({ revision: 0 });
    expect([answer.status, answer.body.message]).toEqual([422, expect.stringContaining('typeface')]);
  });

  test.each(['woff2', 'woff'])('the shop brings a typeface as %s and sets text in it', async (ending) => {
    const file = `node_modules/@fontsource/bebas-neue/files/bebas-neue-latin-400-normal.${ending}`;
    const { body } = await api()
      .post('/api/fonts')
      .attach('file', readFileSync(file), `mine.${ending}`)
      .expect(200);
    const own = (body as { id: string; name: string; own: boolean }[]).filter((font) => font.own).at(-1)!;
    expect(own.name).toContain('Bebas');
    const theirs = await readingOf((await begin({ font: own.id })).body as Order);
    const shipped = await readingOf((await begin({ font: 'bebas-neue' })).body as Order);
    expect(theirs.shapes.map(({ path }) => path)).toEqual(shipped.shapes.map(({ path }) => path));
  });

  test('a typeface is put away, brought back, and cleared once no text is set in it', async () => {
    const fontOf = (list: { id: string; name: string; own: boolean; putAway: boolean }[], id: string) =>
      list.find((font) => font.id === id);
    const bytes = readFileSync('node_modules/@fontsource/anton/files/anton-latin-400-normal.woff');
    const bring = async () =>
      (await api().post('/api/fonts').attach('file', bytes, 'a.woff').expect(200)).body;
    const { id } = (await bring()).find(
      ({ own, name }: { own: boolean; name: string }) => own && /Anton/.test(name),
    );
    const say = (word: string) => api().post(`/api/fonts/${id}/${word}`);

    expect((await say('clear').expect(409)).body.code).toBe('not-put-away');
    expect(fontOf((await say('put-away').expect(200)).body, id)?.putAway).toBe(true);
    expect(fontOf((await say('bring-back').expect(200)).body, id)?.putAway).toBe(false);

    // text that is set in it keeps it, though it is out of sight, for as long as undo leads back to it
    const order = (await begin({ font: id })).body as Order;
    await say('put-away').expect(200);
    expect((await readingOf(order)).shapes.length).toBeGreaterThan(0);
    expect((await say('clear').expect(409)).body.code).toBe('in-use');
    await api().post(`/api/orders/${order.id}/put-away`).expect(200);
    await api().post(`/api/orders/${order.id}/clear`).expect(200);
    expect(fontOf((await say('clear').expect(200)).body, id)).toBeUndefined();
    await say('put-away').expect(404);

    // one that is brought again is there again
    expect(fontOf(await bring(), id)?.putAway).toBe(false);
    await api().post('/api/fonts/bebas-neue/put-away').expect(404);
  });

  test('what is no typeface is refused in a sentence', async () => {
    const no = await api().post('/api/fonts').attach('file', Buffer.from('not a font'), 'a.ttf');
    expect([no.status, no.body.code]).toEqual([422, 'no-font']);
    const whole = readFileSync('node_modules/@fontsource/anton/files/anton-latin-400-normal.woff2');
    const half = await api().post('/api/fonts').attach('file', whole.subarray(0, 900), 'a.woff2');
    expect(half.body.code).toBe('font-damaged');
  });
});

describe('the list of orders', () => {
  const list = async (query: object): Promise<OrderList> =>
    (await api().get('/api/orders').query(query).expect(200)).body as OrderList;
  const named = async (name: string, due: string | null): Promise<Order> => {
    const order = await newOrder();
    await api().patch(`/api/orders/${order.id}`).send({ name, due }).expect(200);
    return order;
  };

  test('late ones first; searched by every word; counted by what is shown of them', async () => {
    const late = await named('Kittiwake 50%_off mast', '2020-01-31');
    const later = await named('Kittiwake transom', '2099-01-31');
    const both = await list({ search: 'kittiwake' });
    expect(both.rows.map(({ id, late }) => [id, late])).toEqual([
      [late.id, true],
      [later.id, false],
    ]);
    expect(both.counts).toEqual({ all: 2, late: 1, open: 2, queued: 0, cutting: 0, cut: 0, 'put-away': 0 });
    expect((await list({ search: `kittiwake #${later.number}` })).rows.map(({ id }) => id)).toEqual([
      later.id,
    ]);
    // what is a wildcard to the database is a letter here
    expect((await list({ search: '50%_off' })).counts.all).toBe(1);
    expect((await list({ search: '0%_o_f' })).counts.all).toBe(0);
    expect((await list({ search: 'kittiwake', show: 'late' })).rows).toHaveLength(1);
    expect((await list({ search: 'kittiwake', limit: 1 })).rows).toHaveLength(1);
    await api().get('/api/orders').query({ show: 'odd' }).expect(400);
  });

  test('put away, brought back, and cleared for good; what was cut or is queued stays', async () => {
    const order = await named('Kittiwake lost at sea', null);
    const say = (id: number, word: string) => api().post(`/api/orders/${id}/${word}`);
    const seen = async () => (await list({ search: 'lost at sea' })).counts;
    // not before it was put away
    expect((await say(order.id, 'clear')).body.code).toBe('not-put-away');
    await say(order.id, 'put-away').expect(200);
    expect(await seen()).toMatchObject({ all: 0, open: 0, 'put-away': 1 });
    expect((await list({ search: 'lost at sea', show: 'put-away' })).rows).toHaveLength(1);
    await say(order.id, 'bring-back').expect(200);
    expect(await seen()).toMatchObject({ all: 1, 'put-away': 0 });
    await say(order.id, 'put-away').expect(200);
    await say(order.id, 'clear').expect(200);
    expect(await seen()).toMatchObject({ all: 0, 'put-away': 0 });
    await api().get(`/api/orders/${order.id}`).expect(404);
    // its file has other orders still
    const again = await newOrder();
    await api().get(`/api/orders/${again.id}/pieces/p1/original`).expect(200);

    const cut = await queueOne();
    expect((await say(cut.orderId, 'put-away')).body.code).toBe('in-queue');
    await clearQueue();
    await server.services.db.update(cuts).set({ state: 'done' }).where(eq(cuts.id, cut.id));
    await say(cut.orderId, 'put-away').expect(200);
    expect((await say(cut.orderId, 'clear')).body.code).toBe('was-cut');
  });

  test('an order’s own file goes with it', async () => {
    const lonely =
      '<svg xmlns="http://www.w3.org/2000/svg" width="31mm" height="17mm"><rect width="31" height="17"/></svg>';
    const { body: order } = await upload(lonely, 'lonely.svg').expect(200);
    const [{ source }] = (order as Order).choices.artwork.pieces;
    const hash = source.kind === 'file' ? source.hash : '';
    const kept = () =>
      server.services.db.select({ hash: files.hash }).from(files).where(eq(files.hash, hash));
    expect(await kept()).toHaveLength(1);
    await api().post(`/api/orders/${order.id}/put-away`).expect(200);
    await api().post(`/api/orders/${order.id}/clear`).expect(200);
    expect(await kept()).toHaveLength(0);
  });

  test('pictures of rows take one thread; one whose order was changed while it waited is not made', async () => {
    const { pool } = server.services;
    const { run } = pool;
    let goOn = (): void => {};
    const gate = new Promise<void>((open) => (goOn = open));
    const begun: { readonly number: number; readonly copies: number }[] = [];
    const whose = jest.spyOn(pool, 'onBehalfOf').mockReturnValue(pool);
    const spy = jest.spyOn(pool, 'run').mockImplementation(async (name, task, watch) => {
      if (name === 'summarise') {
        const { orderNumber, choices } = task as PlanTask;
        begun.push({ number: orderNumber!, copies: choices.layout.copies });
        await gate;
      }
      return run(name, task, watch);
    });
    const first = await newOrder();
    const second = await newOrder();
    await until(
      async () => begun.length,
      (many) => many > 0,
    );
    for (const copies of [2, 3]) {
      const now = (await api().get(`/api/orders/${second.id}`).expect(200)).body as Order;
      await change(now, layoutOf(now, copies)).expect(200);
      // longer than changes are waited for
      await new Promise((done) => setTimeout(done, 600));
    }
    expect(begun).toHaveLength(1);
    goOn();
    const rows = async () => (await list({ limit: 500 })).rows;
    const done = (all: OrderList['rows']): boolean =>
      [first, second].every(({ id }) => all.find((row) => row.id === id)?.summary);
    await until(rows, done);
    for (const one of [spy, whose]) one.mockRestore();
    expect(begun.filter(({ number }) => number >= first.number)).toEqual([
      { number: first.number, copies: 1 },
      { number: second.number, copies: 3 },
    ]);
  });

  test('at which cutter an order is', async () => {
    await clearQueue();
    const cut = await queueOne();
    const row = async () => (await list({ limit: 500 })).rows.find(({ id }) => id === cut.orderId)!;
    expect(await row()).toMatchObject({ state: 'cutting', cutters: ['Curlew'] });
    await api().post(`/api/cuts/${cut.id}/cancel`).expect(200);
    expect(await row()).toMatchObject({ state: 'open', cutters: [] });
  });
});

describe('choices', () => {
  test('every change is one step of undo, through a restart too', async () => {
    const order = await newOrder();
    await change(order, layoutOf(order, 2)).expect(200);
    const second = (await api().get(`/api/orders/${order.id}`)).body as Order;
    const third = (await change(second, layoutOf(second, 3)).expect(200)).body as Changed;
    expect([third.revision, third.clashes, third.canUndo, third.canRedo]).toEqual([2, [], true, false]);
    // whoever changed it last knows the rest already
    expect(third.choices).toBeUndefined();
    const back = (await api().post(`/api/orders/${order.id}/undo`).expect(200)).body as Order;
    expect([back.choices.layout.copies, back.canRedo]).toEqual([2, true]);
    const seenElsewhere = (await at(other.url).get(`/api/orders/${order.id}`)).body as Order;
    expect(seenElsewhere.choices).toEqual(back.choices);
    expect((await api().post(`/api/orders/${order.id}/redo`)).body.choices.layout.copies).toBe(3);
    expect((await api().post(`/api/orders/${order.id}/redo`)).body.revision).toBe(2);
  });

  test('two people on two servers: different fields of one section are both kept, and each undone alone', async () => {
    const order = await newOrder();
    const { layout } = order.choices;
    const [one, two] = await Promise.all([
      change(order, { layout: { ...layout, spacing: 4 } }).expect(200),
      change(order, layoutOf(order, 7), other.url).expect(200),
    ]);
    const later = (one.body.revision === 2 ? one.body : two.body) as Changed;
    // the later one hears what the other did meanwhile
    expect(later.choices!.layout).toEqual({ ...layout, spacing: 4, copies: 7 });
    const now = (await api().get(`/api/orders/${order.id}`)).body as Order;
    expect([now.choices.layout, now.revision]).toEqual([{ ...layout, spacing: 4, copies: 7 }, 2]);
    await api().post(`/api/orders/${order.id}/undo`).expect(200);
    const back = (await api().post(`/api/orders/${order.id}/undo`).expect(200)).body as Order;
    expect(back.choices).toEqual(order.choices);
  });

  test('the same field changed by two: the earlier stays, the later is told with both values', async () => {
    const order = await newOrder();
    await change(order, layoutOf(order, 3)).expect(200);
    const { body } = await change(order, layoutOf(order, 7), other.url).expect(200);
    expect(body.clashes).toEqual([{ path: ['layout', 'copies'], theirs: 3, mine: 7 }]);
    expect([body.choices.layout.copies, body.revision]).toEqual([3, 1]);
  });

  test('no revision is ever taken out or numbered anew: undone and changed otherwise, both are there', async () => {
    const order = await newOrder();
    await change(order, layoutOf(order, 2)).expect(200);
    await api().post(`/api/orders/${order.id}/undo`).expect(200);
    const { body } = await change(order, layoutOf(order, 5)).expect(200);
    expect([body.revision, body.canRedo]).toEqual([2, false]);
    const kept = await server.services.db.select().from(revisions).where(eq(revisions.orderId, order.id));
    expect(kept.map(({ n, parent }) => [n, parent]).sort()).toEqual([
      [0, null],
      [1, 0],
      [2, 0],
    ]);
    // each says only what it changed
    const first = kept.find(({ n }) => n === 1)!;
    expect(first.edits).toEqual([{ path: ['layout', 'copies'], was: 1, is: 2 }]);
    expect(first.choices).toBeNull();
    await api().post(`/api/orders/${order.id}/undo`).expect(200);
    // forward again goes to the newest
    expect((await api().post(`/api/orders/${order.id}/redo`)).body.choices.layout.copies).toBe(5);
  });

  test('orders from when undo walked a list of whole choices', async () => {
    const { db } = server.services;
    const order = await newOrder();
    await change(order, layoutOf(order, 2)).expect(200);
    const spelled = [layoutOf(order, 1), layoutOf(order, 2)];
    for (const [n, section] of spelled.entries()) {
      const whole = JSON.stringify({ ...order.choices, ...section });
      await db.execute(
        sql`update revisions set choices = ${whole}::jsonb where order_id = ${order.id} and n = ${n}`,
      );
    }
    await db.execute(
      sql`update revisions set choices = (select choices from orders o where o.id = order_id) where choices is null`,
    );
    await db.execute(sql`alter table orders drop column choices`);
    await db.execute(
      sql`alter table revisions drop column parent, drop column edits, alter column choices set not null`,
    );
    await migrateBy('0008_edits.sql');
    const copies = async (word: 'undo' | 'redo') =>
      (await api().post(`/api/orders/${order.id}/${word}`).expect(200)).body.choices.layout.copies;
    expect([await copies('undo'), await copies('undo'), await copies('redo')]).toEqual([1, 1, 2]);
    const now = (await api().get(`/api/orders/${order.id}`)).body as Order;
    const { body } = await change(now, layoutOf(now, 9)).expect(200);
    expect(body.revision).toBe(2);
    expect([await copies('undo'), await copies('redo')]).toEqual([2, 9]);
  });

  test.each([
    [{ base: 0, edits: [{ path: ['layout', 'copies'], was: 1, is: 0 }] }],
    [{ base: 0, edits: [{ path: ['cutter'], was: { order: null, film: {} }, is: 7 }] }],
    [{ base: 0, edits: [{ path: ['colour'], is: 'red' }] }],
    [{ base: 0, edits: [{ path: [], is: 'red' }] }],
    [{ base: 0, edits: [{ path: ['films', 'off'], at: -1, out: [], in: [] }] }],
    [{ edits: [] }],
    ['nonsense'],
  ])('%j is refused and changes nothing', async (body) => {
    const order = await newOrder();
    const answer = await api().patch(`/api/orders/${order.id}/choices`).send(body);
    expect(answer.status).toBe(400);
    expect(answer.body.message.length).toBeGreaterThan(5);
    expect((await api().get(`/api/orders/${order.id}`)).body.revision).toBe(0);
  });

  test('downloads are the same bytes as the plan without a server', async () => {
    const order = await newOrder();
    const [{ source }] = order.choices.artwork.pieces;
    const artworks = new Map([[sourceKey(source), await readingOf(order)]]);
    const plan = createPlanner().plan(artworks, order.choices, DEMO_SHOP);
    for (const { strip, program } of plan.cuts) {
      const here = hpglBytes(writeHpgl(program, plan.cutter!.device, strip.cuttable));
      const plt = await api()
        .get(`/api/orders/${order.id}/strips/${strip.id}.plt`)
        .buffer()
        .parse(binary)
        .expect(200);
      expect((plt.body as Buffer).equals(Buffer.from(here))).toBe(true);
    }
    const svg = await api()
      .get(`/api/orders/${order.id}/strips/damson.svg`)
      .buffer()
      .parse(binary)
      .expect(200);
    expect(String(svg.body)).toContain('id="kiss-cut"');
    expect(svg.headers['content-type']).toContain('octet-stream');
    expect((await api().get(`/api/orders/${order.id}/strips/tar.plt`)).body.code).toBe('no-such-strip');
    expect((await api().get(`/api/orders/${order.id}/strips/..%2f..%2fetc.plt`)).status).toBe(404);
  });

  test('what is asked for by many is planned once, and by another server on the same database not again', async () => {
    const order = await newOrder();
    const { pool } = server.services;
    const whose = jest.spyOn(pool, 'onBehalfOf').mockReturnValue(pool);
    const planned = jest.spyOn(pool, 'run');
    const asked = ['damson', 'quince', 'damson', 'tide-blue', 'damson'];
    const path = (strip: string): string => `/api/orders/${order.id}/strips/${strip}.plt`;
    const sent = await Promise.all(
      asked.map((strip) => api().get(path(strip)).buffer().parse(binary).expect(200)),
    );
    const bytes = sent.map(({ body }) => String(body));
    expect(new Set(bytes).size).toBe(3);
    const strips = () => planned.mock.calls.filter(([name]) => name === 'strips').length;
    expect(strips()).toBe(1);

    const othersToo = jest.spyOn(other.services.pool, 'onBehalfOf').mockReturnValue(other.services.pool);
    const theirs = jest.spyOn(other.services.pool, 'run');
    const again = await at(other.url).get(path('damson')).buffer().parse(binary).expect(200);
    expect(String(again.body)).toBe(bytes[0]);
    expect(theirs.mock.calls.filter(([name]) => name === 'strips')).toEqual([]);
    for (const one of [theirs, othersToo]) one.mockRestore();

    // whatever its plan hangs on makes it another
    await change(order, layoutOf(order, 2)).expect(200);
    const two = await api().get(path('damson')).buffer().parse(binary).expect(200);
    expect(String(two.body)).not.toBe(bytes[0]);
    expect(strips()).toBe(2);
    for (const one of [planned, whose]) one.mockRestore();
  });
});

describe('safe by default', () => {
  test('a change from another site is turned away', async () => {
    const order = await newOrder();
    for (const headers of [{ 'Sec-Fetch-Site': 'cross-site' }, { Origin: 'https://elsewhere.invalid' }]) {
      const answer = await api().post(`/api/orders/${order.id}/undo`).set(headers);
      expect([answer.status, answer.body.code]).toEqual([403, 'other-site']);
    }
  });

  test('headers, unknown addresses and broken JSON', async () => {
    const { headers } = await api().get('/api/shop').expect(200);
    expect(headers['content-security-policy']).toContain("script-src 'self'");
    expect(headers['x-powered-by']).toBeUndefined();
    expect((await api().get('/api/nowhere')).body.code).toBe('not-found');
    expect((await api().get('/api/orders/99999999')).status).toBe(404);
    expect((await api().get('/api/orders/1e9x')).status).toBe(404);
    const broken = await api()
      .patch('/api/orders/1/choices')
      .set('Content-Type', 'application/json')
      .send('{"a":');
    expect([broken.status, broken.body.message]).toEqual([400, 'The request cannot be read.']);
  });

  test('the API describes itself with every endpoint', async () => {
    const { body } = await api().get('/api/openapi.json').expect(200);
    expect(body.openapi).toBe('3.1.0');
    expect(Object.keys(body.paths)).toEqual(
      expect.arrayContaining(['/api/orders/{id}/choices', '/api/cuts/{id}/loaded']),
    );
    expect(
      body.paths['/api/orders/{id}/choices'].patch.requestBody.content['application/json'].schema.properties
        .edits,
    ).toBeDefined();
  });
});

describe('cutting', () => {
  test('a queued film is cut to its end; the record lies within 0.03 mm of the design', async () => {
    const cut = await queueOne();
    expect(cut).toMatchObject({ state: 'wants-film', position: 1, of: 1 });
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    const done = await inState(cut.id, 'done');
    expect(done.linesDone).toBe(done.lines);
    expect(done.deviation).toBeGreaterThan(0.001);
    expect(done.deviation).toBeLessThanOrEqual(0.03);
    const record = (await api().get(`/api/cuts/${cut.id}/record`).expect(200)).body;
    expect(record.lines).toHaveLength(done.lines);
    expect(new Set(record.lines.map((l: { depth: string }) => l.depth))).toEqual(new Set(['clean']));
  }, 60_000);

  test('a wrong roll and none at all are refused, with both widths', async () => {
    const cut = await queueOne();
    await panel('/load', { ...ROLL, width: 1220 });
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    const wrong = await until(
      () => getCut(cut.id),
      (c) => c.problem !== null,
    );
    expect(wrong.state).toBe('wants-film');
    expect(wrong.problem).toContain('1220.0 mm wide');
    expect(wrong.problem).toContain('610.0 mm');
    await panel('/unload');
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    const none = await until(
      () => getCut(cut.id),
      (c) => c.problem?.includes('No film') ?? false,
    );
    expect(none.linesDone).toBe(0);
    await panel('/load', { ...ROLL, length: 300 });
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    expect(
      (
        await until(
          () => getCut(cut.id),
          (c) => c.state === 'wants-film' && c.problem !== null,
        )
      ).problem,
    ).toContain('this cut needs');
    await panel('/load', ROLL);
  }, 60_000);

  test('pressed twice, queued twice, from two servers: cut once', async () => {
    const cut = await queueOne();
    const again = await api().post(`/api/orders/${cut.orderId}/queue`).send({ revision: 1 });
    expect([again.status, again.body.code]).toEqual([409, 'already-queued']);
    const presses = await Promise.all(
      [server, other, server].map((s) => at(s.url).post(`/api/cuts/${cut.id}/loaded`)),
    );
    expect(presses.map((p) => p.status).sort()).toEqual([200, 409, 409]);
    const done = await inState(cut.id, 'done');
    const record = (await api().get(`/api/cuts/${cut.id}/record`)).body;
    expect(record.lines).toHaveLength(done.lines);
  }, 60_000);

  test('stop takes hold between lines, and going on cuts every line once', async () => {
    const cut = await queueOne(6);
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    await until(
      () => getCut(cut.id),
      (c) => c.linesDone > 3,
    );
    await api().post(`/api/cuts/${cut.id}/stop`).expect(200);
    const stopped = await inState(cut.id, 'stopped');
    expect(stopped.linesDone).toBeLessThan(stopped.lines);
    expect(stopped.problem).toContain(`Stopped after line ${stopped.linesDone} of ${stopped.lines}`);
    await api().post(`/api/cuts/${cut.id}/resume`).send({ from: 'next-line' }).expect(200);
    const done = await inState(cut.id, 'done');
    const record = (await api().get(`/api/cuts/${cut.id}/record`)).body;
    expect(record.lines).toHaveLength(done.lines);
    expect(done.deviation).toBeLessThanOrEqual(0.03);
  }, 90_000);

  test('a closed port says which cutter and what to look at; the cut waits', async () => {
    const cut = await queueOne();
    const [row] = await server.services.db.select().from(cutters).where(eq(cutters.id, 'curlew'));
    const nobody = await new Promise<number>((done) => {
      const probe = createServer().listen(0, '127.0.0.1', () => {
        const { port } = probe.address() as { port: number };
        probe.close(() => done(port));
      });
    });
    await server.services.db
      .update(cutters)
      .set({ link: { ...(row.link as TcpLink), port: nobody } })
      .where(eq(cutters.id, 'curlew'));
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    const waiting = await until(
      () => getCut(cut.id),
      (c) => c.problem !== null,
    );
    expect(waiting.state).toBe('wants-film');
    expect(waiting.problem).toMatch(/Curlew cannot be reached: the port is closed.*cable/);
    await server.services.db.update(cutters).set({ link: row.link }).where(eq(cutters.id, 'curlew'));
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    await inState(cut.id, 'done');
  }, 60_000);

  test('a cut whose server was killed is found and left to a person', async () => {
    const cut = await queueOne();
    await server.services.db
      .update(cuts)
      .set({ state: 'cutting', linesDone: 2, linesSent: 2 })
      .where(eq(cuts.id, cut.id));
    const stopped = await inState(cut.id, 'stopped');
    expect(stopped.problem).toContain('went away after line 2');
    await api().post(`/api/cuts/${cut.id}/cancel`).expect(200);
  }, 30_000);

  test('films of an order are asked for one after the other', async () => {
    await queueOne();
    const order = await newOrder();
    const queued = (await api().post(`/api/orders/${order.id}/queue`).send({ revision: 0 }).expect(200))
      .body as Cut[];
    expect(queued.map((c) => [c.film.name, c.position, c.of, c.state])).toEqual([
      ['Damson', 1, 3, 'queued'],
      ['Tide blue', 2, 3, 'queued'],
      ['Quince', 3, 3, 'queued'],
    ]);
    const first = ((await api().get('/api/cuts')).body as Cut[])[0];
    await api().post(`/api/cuts/${first.id}/cancel`).expect(200);
    expect((await getCut(queued[0].id)).state).toBe('wants-film');
    await api().post(`/api/cuts/${queued[0].id}/cancel`).expect(200);
    expect((await getCut(queued[1].id)).state).toBe('wants-film');
  }, 30_000);

  test('what is kept in hand of a cutter is changed, bounded, and told', async () => {
    const shop = (await api().get('/api/shop').expect(200)).body;
    const ofCurlew = (all: { cutters: { id: string; reserve: number }[] }): number =>
      all.cutters.find(({ id }) => id === 'curlew')!.reserve;
    expect(ofCurlew(shop)).toBe(12.7);
    const changed = (await api().patch('/api/cutters/curlew').send({ reserve: 20 }).expect(200)).body;
    expect(changed.version).not.toBe(shop.version);
    expect(ofCurlew(changed)).toBe(20);
    await api().patch('/api/cutters/curlew').send({ reserve: -1 }).expect(400);
    await api().patch('/api/cutters/curlew').send({ id: 'egret' }).expect(400);
    await api().patch('/api/cutters/nobody').send({ reserve: 1 }).expect(404);
    const back = (await api().patch('/api/cutters/curlew').send({ reserve: 12.7 }).expect(200)).body;
    expect(back.version).toBe(shop.version);
  });

  test('a picture of the wall is kept, measured as it is seen, and shown; what is none gets a sentence', async () => {
    const turned = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#abc' } })
      .jpeg()
      .withMetadata({ orientation: 6 })
      .toBuffer();
    const kept = (await api().post('/api/pictures').attach('file', turned, 'wall.jpg').expect(200)).body;
    expect(kept).toEqual({ file: expect.stringMatching(/^[0-9a-f]{64}$/), width: 40, height: 60 });
    const shown = await api()
      .get(`/api/files/${kept.file}/picture?width=100`)
      .buffer()
      .parse(binary)
      .expect(200);
    const { width, height } = await sharp(shown.body as Buffer).metadata();
    expect([width, height]).toEqual([40, 60]);
    const none = await api().post('/api/pictures').attach('file', Buffer.from(WREN), 'wall.png').expect(422);
    expect(none.body).toMatchObject({
      code: 'no-picture',
      message: expect.stringContaining('JPEG, PNG, WebP, GIF, TIFF or BMP'),
    });
    const broken = turned.subarray(0, turned.length - 200);
    const cut = await api().post('/api/pictures').attach('file', Buffer.from(broken), 'wall.jpg');
    expect(cut.status).toBe(422);
  });

  test('a film that runs true for less than it needs is cut strip by strip, each with its own record', async () => {
    await clearQueue();
    const order = await newOrder();
    const { db } = server.services;
    const [{ data }] = await db.select().from(cutters).where(eq(cutters.id, 'curlew'));
    const track = (trackLength: number) =>
      db
        .update(cutters)
        .set({ data: { ...data, trackLength } })
        .where(eq(cutters.id, 'curlew'));
    // two side by side, three rows of 0.7 m: two rows run true
    await track(2000);
    const layout = { ...order.choices.layout, copies: 6, spacing: 200 };
    await change(order, { layout }).expect(200);
    const queued = (
      await api()
        .post(`/api/orders/${order.id}/queue`)
        .send({ revision: 1, films: ['tide-blue'] })
        .expect(200)
    ).body as Cut[];
    expect(queued.map(({ strip, film, position, of }) => [strip, film.id, position, of])).toEqual([
      ['tide-blue', 'tide-blue', 1, 2],
      ['tide-blue.2', 'tide-blue', 2, 2],
    ]);
    expect(queued.map(({ copies }) => copies)).toEqual([4, 2]);
    for (const { id, length } of queued) {
      expect(length).toBeLessThanOrEqual(2000);
      await inState(id, 'wants-film');
      await api().post(`/api/cuts/${id}/loaded`).expect(200);
      const done = await inState(id, 'done');
      expect(done.deviation).toBeLessThan(0.1);
    }
    const second = await api().get(`/api/orders/${order.id}/strips/tide-blue.2.svg`).buffer().parse(binary);
    expect((second.body as Buffer).toString()).toContain('<title>Tide blue</title>');
    await track(data.trackLength);
  }, 120_000);

  test('each film goes to the cutter picked for it, and each cutter asks for its own', async () => {
    await clearQueue();
    const { db } = server.services;
    const [curlew] = await db.select().from(cutters).where(eq(cutters.id, 'curlew'));
    await db
      .insert(cutters)
      .values({ ...curlew, id: 'heron', data: { ...curlew.data, id: 'heron', name: 'Heron' } });
    const [recipe] = await db.select().from(recipes).where(eq(recipes.filmId, '*'));
    await db.insert(recipes).values({ ...recipe, cutterId: 'heron', data: { ...recipe.data, force: 95 } });
    const order = await newOrder();
    await change(order, {
      cutter: { order: null, film: { quince: 'heron' } },
      cut: { recipes: { curlew: { quince: { force: 300 } } } },
    }).expect(200);
    const queued = (await api().post(`/api/orders/${order.id}/queue`).send({ revision: 1 }).expect(200))
      .body as Cut[];
    expect(queued.map(({ film, cutterId }) => [film.id, cutterId])).toEqual([
      ['damson', 'curlew'],
      ['tide-blue', 'curlew'],
      ['quince', 'heron'],
    ]);
    // both machines want their film at once, and 300 g for one did not follow to the other
    expect((await inState(queued[0].id, 'wants-film')).cutterId).toBe('curlew');
    expect((await inState(queued[2].id, 'wants-film')).recipe.force).toBe(95);
    for (const { id } of queued) await api().post(`/api/cuts/${id}/cancel`).expect(200);
    await db.delete(cuts).where(eq(cuts.orderId, order.id));
    await db.delete(recipes).where(eq(recipes.cutterId, 'heron'));
    await db.delete(cutters).where(eq(cutters.id, 'heron'));
  }, 60_000);

  test('a spoilt shape is cut again without the rest; a place beside the film is refused', async () => {
    const cut = await queueOne(3);
    await api().post(`/api/cuts/${cut.id}/cancel`).expect(200);
    const { body: order } = await api().get(`/api/orders/${cut.orderId}`).expect(200);
    const drawing = (await api().get(`/api/cuts/${cut.id}/drawing`).expect(200)).body as Drawing;
    const queue = (at: { x: number; y: number }[]) =>
      api()
        .post(`/api/orders/${cut.orderId}/queue`)
        .send({ revision: order.revision, again: { film: cut.film.id, at } });
    const nowhere = await queue([{ x: -500, y: -500 }]).expect(422);
    expect(nowhere.body.code).toBe('nothing');
    const key = sourceKey((order as Order).choices.artwork.pieces[0].source);
    const plan = createPlanner().plan(
      new Map([[key, await readingOf(order as Order)]]),
      (order as Order).choices,
      DEMO_SHOP,
    );
    const { region, bounds } = plan.separation.films.find(({ film }) => film.id === cut.film.id)!;
    const smallest = componentsOf(region).reduce((a, b) => (regionArea(a) < regionArea(b) ? a : b));
    const spots = Array.from({ length: 400 * 400 }, (_, i) => ({
      x: bounds.minX + ((i % 400) * (bounds.maxX - bounds.minX)) / 400,
      y: bounds.minY + (Math.floor(i / 400) * (bounds.maxY - bounds.minY)) / 400,
    }));
    const spot = spots.find(({ x, y }) => liesOn(smallest, [x, y]))!;
    const { body } = await queue([spot]).expect(200);
    const again = (body as Cut[]).filter(({ state }) => state !== 'cancelled');
    expect(again).toHaveLength(1);
    expect(again[0]).toMatchObject({ film: { id: cut.film.id }, copies: 1, of: 1 });
    const small = (await api().get(`/api/cuts/${again[0].id}/drawing`).expect(200)).body as Drawing;
    expect(small.design).toHaveLength(smallest.length);
    expect(drawing.design.length).toBeGreaterThan(small.design.length);
    await api().post(`/api/cuts/${again[0].id}/cancel`).expect(200);
  });

  test('an order that was changed meanwhile, or cannot be cut, is not queued', async () => {
    const order = await newOrder();
    const { body } = await change(order, {
      artwork: { ...order.choices.artwork, width: 9000 },
      panels: { ...order.choices.panels, way: 'never' },
    });
    expect((await api().post(`/api/orders/${order.id}/queue`).send({ revision: 0 })).body.code).toBe(
      'changed',
    );
    const wide = await api().post(`/api/orders/${order.id}/queue`).send({ revision: body.revision });
    expect([wide.status, wide.body.code]).toEqual([422, 'too-wide']);
    expect(wide.body.message).toMatch(/needs [\d.]+ mm .* reaches 583.6 mm/);
    expect(wide.body.waysOut.length).toBeGreaterThan(0);
  });
});

test('a lease is one process’s until it runs out', async () => {
  const { db } = server.services;
  const mine = await takeLease(db, 'heron', 'a');
  expect(mine?.held()).toBe(true);
  expect(await takeLease(db, 'heron', 'b')).toBeUndefined();
  await db.update(leases).set({ expiresAt: 1 }).where(eq(leases.cutterId, 'heron'));
  const taken = await takeLease(db, 'heron', 'b');
  expect(taken?.held()).toBe(true);
  await taken?.release();
  await mine?.release();
});

test('what one server does, a page on the other hears of', async () => {
  let heard = '';
  const headers = { Cookie: leads[other.url].cookie };
  const asking = httpRequest(`${other.url}/api/events`, { headers }, (response) => {
    response.on('data', (chunk: Buffer) => (heard += chunk.toString()));
    response.on('error', () => {});
  });
  asking.on('error', () => {});
  asking.end();
  await new Promise((done) => setTimeout(done, 300));
  const order = await newOrder();
  // orders of the tests before may still be heard of
  await until(
    () => Promise.resolve(heard),
    (text) => text.includes(`"kind":"order","orderId":${order.id}}`),
  );
  asking.destroy();
});

describe('papers', () => {
  const textOf = (pdf: Buffer): string => {
    const { stdout } = spawnSync(
      'gs',
      ['-q', '-dBATCH', '-dNOPAUSE', '-sDEVICE=txtwrite', '-sOutputFile=-', '-'],
      { input: pdf },
    );
    return stdout.toString();
  };
  const paperOf = async (order: Order, kind: string): Promise<Buffer> =>
    (await api().get(`/api/orders/${order.id}/${kind}.pdf`).buffer().parse(binary).expect(200))
      .body as Buffer;

  test('the run card names films, lengths, recipes and steps; its code opens the order (read by an independent decoder)', async () => {
    const order = await newOrder();
    const pdf = await paperOf(order, 'run-card');
    const text = textOf(pdf);
    for (const words of ['Load Damson', 'Load Tide blue', 'Load Quince', '80 g', 'film swaps'])
      expect(text).toContain(words);
    const page = spawnSync(
      'gs',
      ['-q', '-dBATCH', '-dNOPAUSE', '-r200', '-sDEVICE=png16m', '-sOutputFile=-', '-'],
      { input: pdf, maxBuffer: 1e8 },
    );
    const { data, info } = await sharp(page.stdout).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    const code = jsQR(new Uint8ClampedArray(data), info.width, info.height);
    expect(code?.data).toMatch(new RegExp(`/orders/${order.id}$`));
  }, 60_000);

  test('the application sheet as a page says what the paper says', async () => {
    const order = await newOrder();
    const { body } = await api().get(`/api/orders/${order.id}/application`).expect(200);
    const page = applyPageSchema.parse(body);
    expect(page.steps.length).toBeGreaterThan(1);
    expect(page.steps.at(-1)!.hints).toContain('base: everything else lies on it');
    expect(page.steps[0].outline).toMatch(/^M[-\d]/);
    expect(page.marks).toBeNull();
    const films = { ...order.choices.films, marks: { shape: 'ring', count: 2, size: 8, at: null } };
    await change(order, { films }).expect(200);
    const marked = (await api().get(`/api/orders/${order.id}/application`).expect(200)).body as ApplyPage;
    expect(marked.marks).toMatch(/^The ring marks of all films meet at /);
    expect(marked.view.minX).toBeLessThan(0);
    await api().get('/api/orders/999999/application').expect(404);
  });

  test('the fitting map says on paper what it says on a page, to scale, from any datum (read by poppler)', async () => {
    const order = await newOrder();
    await api().get(`/api/orders/${order.id}/fitting-map`).expect(404);
    const bare = await api().get(`/api/orders/${order.id}/fitting-map.pdf`).expect(404);
    expect(bare.body.message).toContain('Look under Panels');
    const panels = { ...order.choices.panels, way: 'grid', columns: 3, rows: 2, overlap: 12 };
    await change(order, { panels }).expect(200);
    const read = (query: object) => api().get(`/api/orders/${order.id}/fitting-map`).query(query);
    const map = mapPageSchema.parse((await read({}).expect(200)).body);
    expect(map.tape.upright).toHaveLength(4);
    expect(map.tape.level).toHaveLength(3);
    for (const { at, from } of map.tape.upright) expect(from).toBe(at);
    const right = mapPageSchema.parse((await read({ across: 'right', down: 'lower' }).expect(200)).body);
    right.tape.upright.forEach(({ from }, i) => {
      expect(from).toBeCloseTo(map.width - map.tape.upright[i].at, 9);
    });
    await read({ across: 'sideways' }).expect(400);

    const pdf = (
      await api()
        .get(`/api/orders/${order.id}/fitting-map.pdf`)
        .query({ across: 'right', down: 'lower' })
        .buffer()
        .parse(binary)
        .expect(200)
    ).body as Buffer;
    const dir = mkdtempSync(join(tmpdir(), 'map-'));
    writeFileSync(join(dir, 'map.pdf'), pdf);
    const { stdout } = spawnSync('pdftotext', ['-bbox', join(dir, 'map.pdf'), '-'], { encoding: 'utf8' });
    const words = [
      ...stdout.matchAll(/<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)"[^>]*>([^<]+)</g),
    ].map(([, xMin, yMin, xMax, text]) => ({ x: (Number(xMin) + Number(xMax)) / 2, y: Number(yMin), text }));
    // the figures over the tape lines stand where the tape is: one scale, to a third of a millimetre on paper
    const said = Math.max(
      ...words.filter(({ text }) => text === 'figures' || text === 'next.').map(({ y }) => y),
    );
    const top = right.tape.upright.map(({ from, at }) => {
      // beneath the sentence, which names the sign's own size
      const found = words
        .filter(({ text, y }) => text === from.toFixed(1) && y > said + 12)
        .sort((a, b) => a.y - b.y)[0];
      expect(found).toBeDefined();
      return { at, x: found.x };
    });
    const scale = (top[3].x - top[0].x) / (top[3].at - top[0].at);
    for (const { at, x } of top) expect(Math.abs(x - top[0].x - scale * (at - top[0].at))).toBeLessThan(1);
    const text = words.map((word) => word.text).join(' ');
    expect(text).toContain('from the right edge and the lower edge');
    expect(text).toContain('12.0 mm (0.47 in) beneath the next');
    for (const { across, down, number } of right.panels)
      expect(text).toMatch(
        new RegExp(
          `\\b${number} [\\d.]+ × [\\d.]+ [\\d.]+ × [\\d.]+ ${across.toFixed(1)} ${down.toFixed(1)}`,
        ),
      );
  }, 60_000);

  test('a film in panels says on the application sheet in which order they go on', async () => {
    const order = await newOrder();
    const panels = { ...order.choices.panels, way: 'grid', columns: 2, overlap: 10, onTop: 'before' };
    await change(order, { panels }).expect(200);
    const { body } = await api().get(`/api/orders/${order.id}/application`).expect(200);
    const hints = applyPageSchema.parse(body).steps.flatMap((step) => step.hints);
    expect(hints).toContain('in 2 panels, applied 2, 1, each 10.0 mm (0.39 in) beneath the next');
  });

  test('a film that is cut piece by piece says on the application sheet where each piece sits', async () => {
    const order = await newOrder();
    const layout = { ...order.choices.layout, pack: 'piece', copies: 2 } as const;
    await change(order, { layout }).expect(200);
    const { body } = await api().get(`/api/orders/${order.id}/application`).expect(200);
    const base = applyPageSchema.parse(body).steps.at(-1)!;
    expect(base.hints).toContain(
      `${base.placing!.sign.length} pieces, each cut by itself: put each where its number stands on the sign`,
    );
    const [strip] = base.placing!.strips;
    expect(strip.pieces).toHaveLength(2 * base.placing!.sign.length);
    const text = textOf(await paperOf(order, 'application'));
    const numbers = text
      .split(/\s+/)
      .filter((word) => /^\d+$/.test(word))
      .map(Number);
    // on the sign once, on the film for each copy
    for (const { number } of base.placing!.sign)
      expect(numbers.filter((one) => one === number).length).toBeGreaterThanOrEqual(3);
    const packed = { [base.film.name.toLowerCase()]: [{ roll: 610, pieces: [] }] };
    await change(order, { layout: { ...layout, packed } }).expect(200);
    expect((await api().get(`/api/orders/${order.id}/application`)).body.steps.at(-1).placing).toEqual(
      base.placing,
    );
  }, 60_000);

  test('the application sheet goes from the top film to the base, with weed hints and where marks meet', async () => {
    const order = await newOrder();
    const marks = { shape: 'triangle', count: 3, size: 8, at: null } as const;
    await change(order, { films: { ...order.choices.films, marks } }).expect(200);
    const text = textOf(await paperOf(order, 'application'));
    expect(text.indexOf('Quince')).toBeLessThan(text.indexOf('Damson'));
    for (const words of [
      'counters to pick',
      'the smallest',
      'triangle marks of all films meet',
      'base: everything',
    ])
      expect(text).toContain(words);
    expect((await api().get(`/api/orders/${order.id}/else.pdf`)).status).toBe(404);
  }, 60_000);
});
