/** Who gets in, who may do what, and who did what. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { request as httpRequest } from 'node:http';
import { asc, eq } from 'drizzle-orm';
import { pino } from 'pino';
import request from 'supertest';
import type { Order, Stepped } from '../contracts/api';
import type { Calibration } from '../contracts/calibrations';
import type { CutActed, Cut } from '../contracts/cuts';
import { editsBetween } from '../contracts/edits';
import { ENDPOINTS } from '../contracts/endpoints';
import type { Route } from '../contracts/endpoints';
import type { People, Role, SessionNow } from '../contracts/people';
import type { RecipeHistory } from '../contracts/shop';
import { seedDemo, seedShop } from '../demo/seed';
import { cutByAnother } from './cutters/anothers.testing';
import { freshDatabase } from './db/freshDatabase.testing';
import { attempts, cuts, people, revisions, sessions } from './db/schema';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { logInAt, PASSWORD, signIn, stranger } from './people/signIn.testing';

let server: RunningServer;
/** Another server process's worth on the same database. */
let other: RunningServer;
const by = {} as Record<Role, SignedIn>;

beforeAll(async () => {
  const databaseUrl = await freshDatabase('jampan_people');
  const options = { databaseUrl, filesPerMinute: 1000, hosts: ['signs.lan'], log: pino({ level: 'silent' }) };
  [server, other] = await Promise.all([openServer(options), openServer(options)]);
  await seedShop(server.services, { curlew: { host: '127.0.0.1', port: 9 } });
  by.prep = await signIn(server, 'prep', 'Marram');
  by.operator = await signIn(server, 'operator', 'Samphire');
  by.lead = await signIn(server, 'lead', 'Thrift');
}, 60_000);
afterAll(() => Promise.all([server.close(), other.close()]), 30_000);
beforeEach(() => server.services.db.delete(attempts));

const SQUARE = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30"><path fill="#2e6f7e" d="M0 0H40V30H0Z"/></svg>'); // prettier-ignore
const sessionOf = async ({ agent }: Pick<SignedIn, 'agent'>): Promise<SessionNow> =>
  (await agent.get('/api/session').expect(200)).body as SessionNow;
const idOf = async (name: string): Promise<number> =>
  (await server.services.db.select().from(people).where(eq(people.name, name)))[0].id;
const newOrder = async ({ agent }: SignedIn): Promise<Order> =>
  (await agent.post('/api/orders').attach('file', SQUARE, 'square.svg').expect(200)).body as Order;

describe('rights', () => {
  /** What asks for more than to be logged in, written down once more: a new route has to be thought of here too. */
  const LEAD = [
    'POST /api/cuts/{id}/nudges-kept',
    'POST /api/calibrations/{id}/keep',
    'POST /api/calibrations/{id}/raise',
    'PATCH /api/cutters/{cutter}/recipes/{film}/{kind}',
    'POST /api/cutters/{cutter}/recipes/{film}/{kind}/clear',
    'POST /api/recipe-changes/{id}/back',
    'POST /api/cutters',
    'PATCH /api/cutters/{cutter}',
    'POST /api/cutters/{cutter}/retire',
    'POST /api/cutters/{cutter}/bring-back',
    'PATCH /api/cutters/{cutter}/link',
    'PATCH /api/shop',
    'POST /api/films',
    'PATCH /api/films/{film}',
    'GET /api/people',
    'POST /api/people',
    'PATCH /api/people/{id}',
    'POST /api/people/{id}/reset',
    'POST /api/people/{id}/remove',
    'POST /api/people/{id}/bring-back',
  ];
  const OPERATOR = [
    'POST /api/session/tablet',
    'POST /api/cuts/by-code',
    'POST /api/cuts/{id}/loaded',
    'POST /api/cuts/{id}/jog',
    'POST /api/cuts/{id}/taken',
    'POST /api/cuts/{id}/resume',
    'POST /api/cuts/{id}/how',
    'POST /api/cuts/{id}/nudge',
    'POST /api/cuts/{id}/again',
    'POST /api/cuts/{id}/new-film',
    'POST /api/cuts/{id}/slipped',
    'POST /api/cutters/{cutter}/lane',
    'POST /api/cuts/{id}/move',
    'POST /api/floor/joins',
    'POST /api/floor/joins/try',
    'POST /api/cuts/{id}/part',
    'POST /api/floor/pause',
    'POST /api/floor/go-on',
    'POST /api/cutters/{cutter}/test',
    'POST /api/cutters/{cutter}/calibrations',
    'PATCH /api/calibrations/{id}',
    'POST /api/calibrations/{id}/cut',
    'POST /api/calibrations/{id}/drop',
    'POST /api/calibrations/{id}/print',
    'POST /api/cutters/{cutter}/knife',
    'POST /api/knives/{id}/throw',
  ];
  const ANYONE = ['GET /api/health', 'GET /api/session', 'POST /api/session', 'POST /api/session/end'];
  const TABLET = ['POST /api/session/here', 'POST /api/session/away', 'POST /api/cuts/{id}/stop', 'POST /api/calibrations/{id}/stop']; // prettier-ignore
  const ROUTES = Object.keys(ENDPOINTS) as Route[];

  /** Nothing is there by such a name, so that whoever may gets 404 or 400, and nothing is done. */
  const ask = (agent: SignedIn['agent'], route: Route) => {
    const [method, path] = route.split(' ');
    const address = path
      .replace('{id}', '1999999999')
      .replace('{hash}', '0'.repeat(64))
      .replace('{kind}', 'kiss')
      .replace(/\{\w+\}/g, 'nowhere');
    const asked = agent[method.toLowerCase() as 'get' | 'post' | 'patch'](address);
    return method === 'GET' ? asked : asked.send({ none: 'of this' });
  };
  const isRefused = (status: number): boolean => status === 401 || status === 403;
  /** Those that would end or change the log-in that asks. */
  const OWN = ['POST /api/session/end', 'POST /api/session/away'];

  test.each(ROUTES.filter((route) => route !== 'GET /api/events'))('%s', async (route) => {
    if (OWN.includes(route)) return;
    const may = async (agent: SignedIn['agent']) => !isRefused((await ask(agent, route)).status);
    const open = ANYONE.includes(route);
    expect(await may(stranger(server.url))).toBe(open);
    expect(await may(by.prep.agent)).toBe(![...LEAD, ...OPERATOR].includes(route));
    expect(await may(by.operator.agent)).toBe(!LEAD.includes(route));
    expect(await may(by.lead.agent)).toBe(true);
  });

  test('a machine’s tablet with nobody at it looks and stops, no more', async () => {
    const tablet = await signIn(server, 'operator', 'Samphire');
    await tablet.agent.post('/api/session/tablet').send({ cutter: 'curlew' }).expect(200);
    await tablet.agent.post('/api/session/away').expect(200);
    const looks = ROUTES.filter((route) => route.startsWith('GET ') && !LEAD.includes(route));
    for (const route of ROUTES.filter((one) => ![...OWN, 'GET /api/events'].includes(one))) {
      const { status, body } = await ask(tablet.agent, route);
      expect([route, isRefused(status)]).toEqual([route, ![...looks, ...ANYONE, ...TABLET].includes(route)]);
      if (isRefused(status)) expect(body).toMatchObject({ code: 'pin-wanted' });
    }
  }, 30_000);

  test('a stranger gets nothing of the shop: no events, no description, no word on what is there', async () => {
    const nobody = stranger(server.url);
    for (const path of ['/api/events', '/api/openapi.json', '/api/nothing', '/api/orders/1/thumbnail.png'])
      expect((await nobody.get(path).expect(401)).body).toEqual({ code: 'log-in', message: 'Log in first.' });
    expect((await nobody.get('/api/health').expect(200)).body).toEqual({});
    expect(await sessionOf({ agent: nobody })).toEqual({ me: null, tablet: null, hands: [], demo: [] });
    // not even a cookie
    expect((await nobody.get('/api/session')).headers['set-cookie']).toBeUndefined();
  });
});

describe('logging in', () => {
  test('takes name and password, in any case and with blanks around the name; says no more than that they do not go together', async () => {
    const { headers, body } = await stranger(server.url)
      .post('/api/session')
      .send({ name: ' marram ', password: PASSWORD })
      .expect(200);
    expect((body as SessionNow).me).toMatchObject({ name: 'Marram', role: 'prep' });
    expect(String(headers['set-cookie'])).toMatch(/^jam-pan=.*HttpOnly; SameSite=Strict$/);
    const wrong = async (name: string, password: string) =>
      (await stranger(server.url).post('/api/session').send({ name, password }).expect(422)).body as object;
    expect(await wrong('Marram', 'terns nest there')).toEqual(await wrong('Nobody', PASSWORD));
  });

  test('a log-in gets a number of its own: one that was known before is worth nothing', async () => {
    const agent = stranger(server.url);
    const first = await agent.post('/api/session').send({ name: 'Marram', password: PASSWORD });
    const again = await agent.post('/api/session').send({ name: 'Samphire', password: PASSWORD });
    const cookie = (answer: typeof first) => String(answer.headers['set-cookie']).split(';')[0];
    expect(cookie(again)).not.toBe(cookie(first));
    await stranger(server.url).set('Cookie', cookie(first)).get('/api/orders').expect(401);
  });

  test('whoever guesses has to wait, at whichever server; others get in, and a right one is forgiven', async () => {
    const guess = (url: string, name = 'Marram') =>
      stranger(url).post('/api/session').send({ name, password: 'terns nest there' });
    for (let i = 0; i < 8; i++) await guess(i % 2 ? server.url : other.url).expect(422);
    const { body } = await guess(other.url).expect(429);
    expect(body).toMatchObject({ code: 'too-many-tries', message: expect.stringMatching(/Wait 15 minutes/) });
    // not even with the right one, or guessing would go on
    await stranger(server.url).post('/api/session').send({ name: 'MARRAM', password: PASSWORD }).expect(429);
    await logInAt(server.url, 'Thrift');
    await server.services.db.delete(attempts);
    for (let i = 0; i < 20; i++) await logInAt(server.url, 'Marram');
  }, 30_000);

  test('the row of a log-in that is made up, cut short or signed by somebody else counts for nothing', async () => {
    const { cookie } = await logInAt(server.url, 'Marram');
    const tried = [
      cookie.slice(0, -3),
      `${cookie}a`,
      cookie.replace(/\..*/, ''),
      'jam-pan=',
      'jam-pan=s%3A1.1',
    ];
    for (const one of tried) await stranger(server.url).set('Cookie', one).get('/api/orders').expect(401);
    await stranger(server.url).set('Cookie', cookie).get('/api/orders').expect(200);
  });

  test('logging out ends it on every server', async () => {
    const { agent, cookie } = await logInAt(server.url, 'Marram');
    await agent.post('/api/session/end').expect(200);
    await stranger(other.url).set('Cookie', cookie).get('/api/orders').expect(401);
  });

  test('a log-in that is used is kept: once a day it is written anew', async () => {
    const { db } = server.services;
    const { agent, cookie } = await logInAt(server.url, 'Marram');
    const sid = decodeURIComponent(cookie).slice('jam-pan=s:'.length).split('.')[0];
    const row = async () => (await db.select().from(sessions).where(eq(sessions.sid, sid)))[0];
    expect((await agent.get('/api/orders')).headers['set-cookie']).toBeUndefined();
    const { sess } = await row();
    await db
      .update(sessions)
      .set({ sess: { ...sess, jamPan: { ...sess.jamPan, seen: Date.now() - 2 * 86_400_000 } } })
      .where(eq(sessions.sid, sid));
    expect(String((await agent.get('/api/orders')).headers['set-cookie'])).toContain('jam-pan=');
    expect((await row()).sess.jamPan!.seen).toBeGreaterThan(Date.now() - 60_000);
  });
});

describe('changes from elsewhere', () => {
  const rename = (headers: Record<string, string>) =>
    request.agent(server.url).set('Cookie', by.lead.cookie).set(headers).patch('/api/shop').send({});

  test('are not made with somebody’s cookie: a browser says where a change comes from', async () => {
    const { host, origin } = new URL(server.url);
    for (const headers of [
      {},
      { Origin: 'null' },
      { Origin: 'https://elsewhere.invalid' },
      { Origin: `http://${host}0` },
      { Origin: origin, 'Sec-Fetch-Site': 'cross-site' },
      { Origin: origin, 'Sec-Fetch-Site': 'same-site' },
      { 'Sec-Fetch-Site': 'none' },
    ] as Record<string, string>[])
      expect([headers, (await rename(headers)).body.code]).toEqual([headers, 'other-site']);
    await rename({ Origin: origin }).expect(200);
    await rename({ 'Sec-Fetch-Site': 'same-origin' }).expect(200);
  });

  test('a name that the shop does not go by gets nothing, not even the page', async () => {
    const by = (host: string, path: string) =>
      new Promise<number>((done) =>
        httpRequest(`${server.url}${path}`, { headers: { host } }, (response) => {
          response.resume();
          done(response.statusCode!);
        }).end(),
      );
    for (const path of ['/', '/orders', '/api/session', '/api/health', '/api/events']) {
      expect(await by('rebound.invalid:4270', path)).toBe(421);
      expect(await by('127.0.0.1.rebound.invalid', path)).toBe(421);
      expect(await by('rebound.invalid@127.0.0.1', path)).toBe(421);
    }
    for (const known of ['signs.lan', 'SIGNS.lan:8080', 'localhost:1', '127.0.0.1', '[::1]:4270'])
      expect(await by(known, '/api/health')).toBe(200);
  });
});

describe('people', () => {
  const list = async (): Promise<People> =>
    (await by.lead.agent.get('/api/people').expect(200)).body as People;
  const add = async (name: string, role: Role = 'prep'): Promise<People> =>
    (await by.lead.agent.post('/api/people').send({ name, role }).expect(200)).body as People;

  test('the lead adds somebody, who gets in with a password that was made up and chooses another', async () => {
    const { made } = await add('Campion');
    expect(made).toEqual({
      name: 'Campion',
      password: expect.stringMatching(/^[a-z2-9]{4}(-[a-z2-9]{4}){2}$/),
    });
    const { agent } = await logInAt(server.url, 'Campion', made!.password);
    expect((await sessionOf({ agent })).me).toMatchObject({ role: 'prep', mustChange: true });
    const elsewhere = await logInAt(other.url, 'Campion', made!.password);
    // until then they look, and change nothing; a cut is stopped by anybody
    await agent.get('/api/orders').expect(200);
    expect((await agent.post('/api/orders/text').send({ text: 'KNOT' }).expect(403)).body.code).toBe('must-change'); // prettier-ignore
    await agent.post('/api/cuts/2147483647/stop').expect(404);
    const own = { password: made!.password, newPassword: 'sea campion flowers' };
    await agent
      .patch('/api/me')
      .send({ ...own, password: 'wrong' })
      .expect(422);
    expect((await agent.patch('/api/me').send(own).expect(200)).body.me).toMatchObject({ mustChange: false });
    // where it was changed it goes on; elsewhere somebody else may have known the old one
    await agent.get('/api/orders').expect(200);
    await elsewhere.agent.get('/api/orders').expect(401);
    expect((await list()).made).toBeNull();
  });

  test('whoever guesses at the password of somebody who is logged in has to wait', async () => {
    const { agent } = await signIn(server, 'prep', 'Whimbrel');
    const guess = (password: string) =>
      agent.patch('/api/me').send({ password, newPassword: 'whimbrel calls' });
    const answers: number[] = [];
    for (let k = 0; k < 9; k++) answers.push((await guess(`guess ${k}`)).status);
    expect(answers).toEqual([...Array<number>(8).fill(422), 429]);
    expect((await guess(PASSWORD)).status).toBe(429);
  });

  test('a short password is refused, and so are two of one name', async () => {
    await by.prep.agent.patch('/api/me').send({ password: PASSWORD, newPassword: 'short' }).expect(400);
    expect((await by.lead.agent.post('/api/people').send({ name: 'MARRAM', role: 'lead' }).expect(409)).body.code).toBe('same-name'); // prettier-ignore
  });

  test('a role counts from the next press on', async () => {
    await add('Dunlin');
    const { agent } = await signIn(server, 'prep', 'Turnstone');
    const id = await idOf('Turnstone');
    await agent.patch('/api/shop').send({}).expect(403);
    await by.lead.agent.patch(`/api/people/${id}`).send({ role: 'lead' }).expect(200);
    await agent.patch('/api/shop').send({}).expect(200);
    await by.lead.agent.patch(`/api/people/${id}`).send({ role: 'prep' }).expect(200);
    await agent.patch('/api/shop').send({}).expect(403);
  });

  test('who is removed, or given another password, is out everywhere at once; what they did stays theirs', async () => {
    const { agent } = await signIn(server, 'prep', 'Sanderling');
    const order = await newOrder({ agent, cookie: '' });
    const id = await idOf('Sanderling');
    const { body } = await by.lead.agent.post(`/api/people/${id}/reset`).expect(200);
    await agent.get('/api/orders').expect(401);
    const back = await logInAt(other.url, 'Sanderling', (body as People).made!.password);
    await by.lead.agent.post(`/api/people/${id}/remove`).expect(200);
    await back.agent.get('/api/orders').expect(401);
    await stranger(server.url)
      .post('/api/session')
      .send({ name: 'Sanderling', password: (body as People).made!.password })
      .expect(422);
    expect((await by.prep.agent.get(`/api/orders/${order.id}`)).body.savedBy).toBe('Sanderling');
    // the name is free again; then the old one cannot come back under it
    await add('Sanderling');
    await by.lead.agent.post(`/api/people/${id}/bring-back`).expect(409);
  });

  test('the last lead stays, also when two leads remove each other at once', async () => {
    const second = await signIn(server, 'lead', 'Sorrel');
    const [first, latter] = [await idOf('Thrift'), await idOf('Sorrel')];
    const both = await Promise.all([
      by.lead.agent.post(`/api/people/${latter}/remove`),
      second.agent.post(`/api/people/${first}/remove`),
    ]);
    const done = both.filter(({ status }) => status === 200);
    expect(done).toHaveLength(1);
    const isFirst = both[0].status === 200;
    const [stays, gone] = isFirst ? [by.lead, latter] : [second, first];
    await stays.agent
      .patch(`/api/people/${isFirst ? first : latter}`)
      .send({ role: 'prep' })
      .expect(409);
    const { body } = await stays.agent.post(`/api/people/${gone}/bring-back`).expect(200);
    // whoever knows the password from before need not be them
    const { name, password } = (body as People).made!;
    await stranger(server.url).post('/api/session').send({ name, password: PASSWORD }).expect(422);
    const back = await logInAt(server.url, name, password);
    await back.agent.patch('/api/me').send({ password, newPassword: PASSWORD }).expect(200);
    expect((await stays.agent.post(`/api/people/${gone}/bring-back`).expect(200)).body.made).toBeNull();
    by.lead = await logInAt(server.url, 'Thrift');
  });

  test('a page of somebody who is removed hears of it, and then of nothing more', async () => {
    const { cookie } = await signIn(other, 'prep', 'Knot');
    let heard = '';
    const ended = new Promise<void>((done) => {
      httpRequest(`${other.url}/api/events`, { headers: { Cookie: cookie } }, (response) => {
        response.on('data', (chunk: Buffer) => (heard += chunk.toString()));
        response.on('end', done);
      }).end();
    });
    await new Promise((done) => setTimeout(done, 300));
    await by.lead.agent.post(`/api/people/${await idOf('Knot')}/remove`).expect(200);
    await ended;
    expect(heard).toContain('"kind":"people"');
  });

  test('the demo’s people are shown before the log-in as long as they are in and as they came', async () => {
    const databaseUrl = await freshDatabase('jampan_demo_people');
    const shop = await openServer({ databaseUrl, log: pino({ level: 'silent' }) });
    try {
      await Promise.all([seedDemo(shop.services), seedDemo(shop.services)]);
      const shown = async () => (await sessionOf({ agent: stranger(shop.url) })).demo;
      const [marram, , thrift] = await shown();
      expect((await shown()).map(({ role }) => role)).toEqual(['prep', 'operator', 'lead']);
      const lead = await logInAt(shop.url, thrift.name, thrift.password);
      expect((await sessionOf(lead)).demo).toEqual([]);
      await lead.agent.patch('/api/me').send({ password: thrift.password, newPassword: 'a till of our own' }).expect(200); // prettier-ignore
      expect((await shown()).map(({ name }) => name)).toEqual(['Marram', 'Samphire']);
      const { people: all } = (await lead.agent.get('/api/people')).body as People;
      const { id } = all.find(({ name }) => name === marram.name)!;
      await lead.agent.post(`/api/people/${id}/remove`).expect(200);
      expect((await shown()).map(({ name }) => name)).toEqual(['Samphire']);
      await seedDemo(shop.services);
      expect(await shown()).toHaveLength(1);
    } finally {
      await shop.close();
    }
  }, 60_000);
});

describe('a machine’s tablet', () => {
  test('stays that machine’s; by PIN somebody is at it, and what they do is theirs', async () => {
    await by.operator.agent.patch('/api/me').send({ password: PASSWORD, pin: '3052' }).expect(200);
    const tablet = await logInAt(server.url, 'Thrift');
    const made = (await tablet.agent.post('/api/session/tablet').send({ cutter: 'curlew' }).expect(200)).body;
    expect(made).toMatchObject({ tablet: { id: 'curlew', name: 'Curlew' }, me: { name: 'Thrift' } });
    expect((await tablet.agent.post('/api/session/away').expect(200)).body).toMatchObject({ tablet: { id: 'curlew' }, me: null }); // prettier-ignore
    const { hands } = await sessionOf(tablet);
    expect(hands.map(({ name }) => name)).toEqual(['Samphire']);
    const here = (pin: string) => tablet.agent.post('/api/session/here').send({ person: hands[0].id, pin });
    await here('1111').expect(422);
    expect((await here('3052').expect(200)).body.me).toMatchObject({ name: 'Samphire', role: 'operator' });
    await tablet.agent.patch('/api/shop').send({}).expect(403);
    await tablet.agent.post('/api/session/away').expect(200);
    for (let i = 0; i < 6; i++) await here(`111${i}`).expect(422);
    await here('3052').expect(429);
  }, 30_000);

  test('whoever does nothing there for ten minutes is not there any more; a person without a tablet has no PIN to give', async () => {
    const { db } = server.services;
    const tablet = await logInAt(server.url, 'Thrift');
    await tablet.agent.post('/api/session/tablet').send({ cutter: 'curlew' }).expect(200);
    const rows = await db.select().from(sessions);
    const { sid, sess } = rows.find((row) => row.sess.jamPan?.here)!;
    const here = sess.jamPan!.here!;
    expect(here.until - Date.now()).toBeLessThanOrEqual(600_000);
    const over = { ...sess, jamPan: { ...sess.jamPan, here: { ...here, until: Date.now() - 1 } } };
    await db.update(sessions).set({ sess: over }).where(eq(sessions.sid, sid));
    expect(await sessionOf(tablet)).toMatchObject({ me: null, tablet: { id: 'curlew' } });
    const id = await idOf('Samphire');
    await by.prep.agent.post('/api/session/here').send({ person: id, pin: '3052' }).expect(409);
  });
});

describe('who did what', () => {
  test('is kept with each revision of an order', async () => {
    const order = await newOrder(by.prep);
    expect(order.savedBy).toBe('Marram');
    const { layout } = order.choices;
    const edits = editsBetween(order.choices, { ...order.choices, layout: { ...layout, copies: 3 } });
    await by.operator.agent.patch(`/api/orders/${order.id}/choices`).send({ base: 0, edits }).expect(200);
    const now = async () => (await by.lead.agent.get(`/api/orders/${order.id}`)).body as Order;
    expect(await now()).toMatchObject({ revision: 1, savedBy: 'Samphire' });
    await by.operator.agent.post(`/api/orders/${order.id}/undo`).expect(200);
    expect(await now()).toMatchObject({ revision: 0, savedBy: 'Marram' });
    const rows = await server.services.db.select().from(revisions).where(eq(revisions.orderId, order.id)).orderBy(asc(revisions.n)); // prettier-ignore
    expect(rows.map(({ madeBy }) => madeBy)).toEqual([await idOf('Marram'), await idOf('Samphire')]);
  });

  test('undo takes back what oneself did, and leaves what another one has set since', async () => {
    const order = await newOrder(by.prep);
    const path = `/api/orders/${order.id}`;
    const set = async (who: SignedIn, field: string, was: unknown, is: unknown): Promise<void> =>
      void (await who.agent
        .patch(`${path}/choices`)
        .send({ base: 0, edits: [{ path: ['layout', field], was, is }] })
        .expect(200));
    const step = async (who: SignedIn, word: 'undo' | 'redo') => {
      const { choices, clashes, canUndo, canRedo } = (await who.agent.post(`${path}/${word}`).expect(200))
        .body as Stepped;
      const { copies, spacing } = choices.layout;
      return { copies, spacing, clashes, canUndo, canRedo };
    };
    const { spacing } = order.choices.layout;
    await set(by.prep, 'copies', 1, 2);
    await set(by.prep, 'spacing', spacing, 5);
    await set(by.operator, 'copies', 2, 9);
    // the operator's copies stay, however often prep takes back
    expect(await step(by.prep, 'undo')).toMatchObject({ copies: 9, spacing, clashes: [], canUndo: true });
    expect(await step(by.prep, 'undo')).toMatchObject({
      copies: 9,
      clashes: [{ path: ['layout', 'copies'], theirs: 9, mine: 1 }],
      canUndo: false,
      canRedo: true,
    });
    expect(await step(by.prep, 'undo')).toMatchObject({ copies: 9, spacing, clashes: [] });
    expect(await step(by.prep, 'redo')).toMatchObject({ copies: 9, spacing, clashes: [] });
    expect(await step(by.prep, 'redo')).toMatchObject({ copies: 9, spacing: 5, canRedo: false });
    expect(await step(by.operator, 'undo')).toMatchObject({ copies: 2, spacing: 5, canRedo: true });
    // who has done nothing here has nothing to take back
    const seen = (await by.lead.agent.get(path).expect(200)).body as Order;
    expect([seen.canUndo, seen.canRedo]).toEqual([false, false]);
    expect(await step(by.lead, 'undo')).toMatchObject({ copies: 2, spacing: 5 });
    expect(await step(by.operator, 'redo')).toMatchObject({ copies: 9, spacing: 5 });
  });

  test('with each cut', async () => {
    const { id, revision } = await newOrder(by.prep);
    const [cut] = (await by.prep.agent.post(`/api/orders/${id}/queue`).send({ revision }).expect(200)).body as Cut[]; // prettier-ignore
    const giveBack = await cutByAnother(server.services.db, cut);
    await by.operator.agent.post(`/api/cuts/${cut.id}/stop`).expect(200);
    await server.services.db.update(cuts).set({ state: 'stopped' }).where(eq(cuts.id, cut.id));
    await giveBack();
    await by.lead.agent.post(`/api/cuts/${cut.id}/cancel`).expect(200);
    // what is refused leaves no trace
    await by.prep.agent.post(`/api/cuts/${cut.id}/cancel`).expect(409);
    const acts = (await by.lead.agent.get(`/api/cuts/${cut.id}/acts`).expect(200)).body as CutActed[];
    expect(acts.map(({ act, who }) => [act, who])).toEqual([
      ['queued', 'Marram'],
      ['stopped', 'Samphire'],
      ['cancelled', 'Thrift'],
    ]);
  });

  test('with each change of a recipe, and each calibration', async () => {
    const recipe = '/api/cutters/curlew/recipes/damson/kiss';
    await by.lead.agent.patch(recipe).send({ force: 91 }).expect(200);
    const history = (await by.prep.agent.get(`${recipe}/history`).expect(200)).body as RecipeHistory[];
    expect(history.map(({ who }) => who)).toEqual(['Thrift', null]);
    const setup = { kind: 'length', axis: 'along', whole: 400 };
    const run = (await by.operator.agent.post('/api/cutters/curlew/calibrations').send(setup)).body as Calibration; // prettier-ignore
    expect(run).toMatchObject({ setUpBy: 'Samphire', keptBy: null });
  });
});
