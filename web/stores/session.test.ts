/** Changes on their way: a server that goes away and comes back, others at work, orders left in mid-save. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Order } from '../../contracts/api';
import type { Clash, Edit } from '../../contracts/edits';
import { applyEdits, editsBetween } from '../../contracts/edits';
import type { Choices } from '../../core/plan/choices';
import { DEFAULT_CHOICES } from '../../core/plan/choices';
import { addressOf } from '../../contracts/address';
import type { Ask, Route } from '../../contracts/endpoints';
import { ApiProblem } from './api';
import { FORSAKEN_MS, keptIn } from './kept';
import type { Host, Session } from './session';
import { createSession } from './session';

/** PostgreSQL keeps the fields of a value in an order of its own. */
const inAnotherOrder = (_: string, value: unknown): unknown =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).reverse())
    : value;

/** A server as the sessions know it: the newest choices, and how it takes edits. It can be away, and be slow. */
function fakeServer() {
  let choices: Choices = DEFAULT_CHOICES;
  let revision = 0;
  let name = 'Order';
  const history: Choices[] = [choices];
  const state = { isAway: false, losesAnswers: false, status: 0, code: 'away' };
  const waiting: (() => void)[] = [];
  let isHeld = false;
  const order = (): Order =>
    ({ id: 1, name, choices, revision, canUndo: revision > 0, canRedo: false }) as unknown as Order;
  const answer = (method: string, path: string, body: unknown): unknown => {
    if (state.isAway) throw new ApiProblem(state.status, state.code, 'away');
    if (method === 'GET') return JSON.parse(JSON.stringify(order(), inAnotherOrder));
    if (path.endsWith('/undo')) {
      if (revision > 0) [choices, revision] = [history[--revision], revision];
      return { ...order(), clashes: [] };
    }
    if (!path.endsWith('/choices')) {
      name = (body as { name: string }).name;
      return order();
    }
    const { base, edits } = JSON.parse(JSON.stringify(body)) as { base: number; edits: Edit[] };
    const { value, clashes } = applyEdits(choices, edits);
    if ((value.layout.copies as number) < 1) throw new ApiProblem(400, 'bad-input', 'copies');
    const before = revision;
    if (JSON.stringify(value) !== JSON.stringify(choices)) {
      choices = value;
      history[++revision] = value;
    }
    if (state.losesAnswers) throw new ApiProblem(0, 'away', 'away');
    const isKnown = before === base && clashes.length === 0;
    const { choices: _all, ...rest } = order();
    return { ...rest, clashes, ...(isKnown ? {} : { choices }) };
  };
  return {
    state,
    choices: () => choices,
    order,
    hold: () => (isHeld = true),
    release: () => {
      isHeld = false;
      for (const go of waiting.splice(0)) go();
    },
    call: (async (route: Route, ask: Ask<Route>) => {
      await null;
      // what is asked is answered at once; the answer may be long on its way
      const given = answer(
        route.split(' ')[0],
        addressOf(route, ask as object),
        (ask as { body?: unknown }).body,
      );
      if (isHeld) await new Promise<void>((done) => waiting.push(done));
      return given;
    }) as Host['call'],
  };
}

function fakeStorage(): Storage {
  const values = new Map<string, string>();
  return {
    get length() {
      return values.size;
    },
    key: (i) => [...values.keys()][i] ?? null,
    getItem: (key) => values.get(key) ?? null,
    setItem: (key, value) => void values.set(key, value),
    removeItem: (key) => void values.delete(key),
    clear: () => values.clear(),
  };
}

function opened(
  server: ReturnType<typeof fakeServer>,
  stores = { shared: fakeStorage(), tab: fakeStorage(), now: () => 0 },
  wait: Host['wait'] = () => new Promise((done) => setImmediate(done)),
) {
  const clashes: Clash[] = [];
  const problems: ApiProblem[] = [];
  const session = createSession(server.order(), {
    call: server.call,
    kept: keptIn(1, stores),
    wait,
    tell: () => {},
    clashed: (more) => clashes.push(...more),
    failed: (problem) => problems.push(problem),
  });
  return { session, clashes, problems, stores };
}

/** A tab that is closed while it waits. */
const dies = (): Promise<void> => new Promise(() => {});

const settled = async (session: Session): Promise<void> => {
  for (let i = 0; i < 200; i++) await new Promise((done) => setImmediate(done));
  expect(session.saving()).toBe('saved');
};
const { layout, artwork } = DEFAULT_CHOICES;
const copies = (n: number): Partial<Choices> => ({ layout: { ...layout, copies: n } });

describe('one person', () => {
  test('a change shows at once and is saved behind it, only what differs', async () => {
    const server = fakeServer();
    const { session } = opened(server);
    session.change(copies(4));
    expect([session.choices().layout.copies, session.saving()]).toEqual([4, 'saving']);
    await settled(session);
    expect(server.choices().layout.copies).toBe(4);
    expect(session.order().revision).toBe(1);
    // what is the same stays the same object: nothing is planned anew for it
    const before = session.choices();
    session.change({});
    session.change(copies(4));
    await session.reload();
    await settled(session);
    expect(session.choices()).toBe(before);
    expect(session.order().revision).toBe(1);
  });

  test.each([0, 401, 429, 503])(
    'while the server is away (%i) all is kept, and saved in order when it is back',
    async (status) => {
      const server = fakeServer();
      server.state.status = status;
      server.state.isAway = true;
      const { session } = opened(server);
      for (const n of [2, 3, 5]) session.change(copies(n));
      for (let i = 0; i < 50; i++) await new Promise((done) => setImmediate(done));
      expect([session.saving(), session.choices().layout.copies]).toEqual(['waiting', 5]);
      server.state.isAway = false;
      await settled(session);
      expect([server.choices().layout.copies, session.order().revision]).toEqual([5, 3]);
    },
  );

  test('a password that is to be changed first takes nothing away', async () => {
    const server = fakeServer();
    Object.assign(server.state, { isAway: true, status: 403, code: 'must-change' });
    const { session, problems } = opened(server);
    session.change(copies(4));
    for (let i = 0; i < 20; i++) await new Promise((done) => setImmediate(done));
    expect([session.saving(), problems]).toEqual(['waiting', []]);
    server.state.isAway = false;
    await settled(session);
    expect(server.choices().layout.copies).toBe(4);
  });

  test('an answer that is lost on its way: the change counts once', async () => {
    const server = fakeServer();
    server.state.losesAnswers = true;
    const { session, clashes } = opened(server);
    session.change({ films: { ...DEFAULT_CHOICES.films, off: ['#1d3f86'] } });
    for (let i = 0; i < 30; i++) await new Promise((done) => setImmediate(done));
    server.state.losesAnswers = false;
    await settled(session);
    expect(server.choices().films.off).toEqual(['#1d3f86']);
    expect([session.order().revision, clashes]).toEqual([1, []]);
  });

  test('undo waits for what is being saved; many at once are as many steps', async () => {
    const server = fakeServer();
    const { session } = opened(server);
    for (const n of [2, 3, 4]) session.change(copies(n));
    await Promise.all([session.step('undo'), session.step('undo')]);
    expect(session.choices().layout.copies).toBe(2);
  });

  test('what the server refuses is taken back and said', async () => {
    const server = fakeServer();
    const { session, problems } = opened(server);
    session.change(copies(0));
    await settled(session);
    expect(problems.map(({ code }) => code)).toEqual(['bad-input']);
    expect(session.choices()).toEqual(DEFAULT_CHOICES);
  });

  test('only what is refused is taken back: what was changed before and after it is kept', async () => {
    const server = fakeServer();
    const { session, problems } = opened(server);
    server.state.isAway = true;
    session.change({ artwork: { ...DEFAULT_CHOICES.artwork, width: 700 } });
    session.change(copies(0));
    session.change({ films: { ...DEFAULT_CHOICES.films, off: ['#1d3f86'] } });
    server.state.isAway = false;
    await settled(session);
    expect(problems.map(({ code }) => code)).toEqual(['bad-input']);
    for (const choices of [server.choices(), session.choices()])
      expect([choices.artwork.width, choices.layout.copies, choices.films.off]).toEqual([700, DEFAULT_CHOICES.layout.copies, ['#1d3f86']]); // prettier-ignore
  });

  test('a look that was on its way for long does not take a change back', async () => {
    const server = fakeServer();
    const { session } = opened(server);
    server.hold();
    const look = session.reload();
    await new Promise((done) => setImmediate(done));
    session.change(copies(7));
    server.release();
    await look;
    await settled(session);
    expect(session.choices().layout.copies).toBe(7);
  });
});

describe('the browser’s own store', () => {
  test('loaded anew in mid-save: the change is still there and is saved', async () => {
    const server = fakeServer();
    server.state.isAway = true;
    const first = opened(server, undefined, dies);
    first.session.change(copies(6));
    for (let i = 0; i < 10; i++) await new Promise((done) => setImmediate(done));
    server.state.isAway = false;
    const again = opened(server, first.stores);
    expect(again.session.choices().layout.copies).toBe(6);
    await settled(again.session);
    expect(server.choices().layout.copies).toBe(6);
  });

  test('a change that somebody overtook is not replayed over theirs: it is told', async () => {
    const server = fakeServer();
    server.state.isAway = true;
    const first = opened(server, undefined, dies);
    first.session.change(copies(6));
    // the tab dies; somebody else changes the same, then it is opened again
    const { stores } = first;
    for (let i = 0; i < 10; i++) await new Promise((done) => setImmediate(done));
    server.state.isAway = false;
    const other = opened(server);
    other.session.change(copies(2));
    await settled(other.session);
    const again = opened(server, stores);
    await settled(again.session);
    expect(server.choices().layout.copies).toBe(2);
    expect(again.clashes).toEqual([{ path: ['layout', 'copies'], theirs: 2, mine: 6 }]);
  });

  test('two tabs keep theirs apart; those of a tab that is gone are taken on', async () => {
    const shared = fakeStorage();
    let time = 0;
    const tab = () => ({ shared, tab: fakeStorage(), now: () => time });
    const [one, two] = [keptIn(1, tab()), keptIn(1, tab())];
    const edits = editsBetween(DEFAULT_CHOICES, { ...DEFAULT_CHOICES, ...copies(3) });
    one.write([edits]);
    expect(two.read()).toEqual([]);
    expect(keptIn(2, tab()).read()).toEqual([]);
    time = FORSAKEN_MS;
    expect(two.read()).toEqual([edits]);
    // taken on once
    expect(one.read()).toEqual([]);
    expect(two.read()).toEqual([edits]);
  });

  test('nonsense in it is nothing', () => {
    const stores = { shared: fakeStorage(), tab: fakeStorage(), now: () => 0 };
    stores.tab.setItem('jam-pan-tab', 'me');
    for (const text of ['', '{', '{"at":1,"pending":[[{"path":[]}]]}', 'null']) {
      stores.shared.setItem('jam-pan-edits-1-me', text);
      expect(keptIn(1, stores).read()).toEqual([]);
    }
  });
});

test('several people at one order, away and back at random: nothing that clashed with nobody is lost', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(
        fc.record({
          who: fc.nat({ max: 2 }),
          what: fc.constantFrom('change', 'away', 'back', 'reload'),
          n: fc.integer({ min: 2, max: 9 }),
        }),
        { maxLength: 25 },
      ),
      async (acts) => {
        const server = fakeServer();
        const people = [0, 1, 2].map(() => opened(server));
        // each has a field of its own
        const own = [
          (n: number) => copies(n),
          (n: number) => ({ artwork: { ...artwork, width: n } }),
          (n: number) => ({ cutter: { order: `c${n}`, film: {} } }),
        ];
        const last: (number | undefined)[] = [];
        for (const { who, what, n } of acts) {
          if (what === 'change') {
            const { session } = people[who];
            const [change] = [own[who](n)];
            // from what is shown, as a page does
            const shown = session.choices();
            const [[section, value]] = Object.entries(change);
            session.change({ [section]: { ...shown[section as keyof Choices], ...onlyOwn(who, value) } });
            last[who] = n;
          } else if (what === 'reload') void people[who].session.reload();
          else server.state.isAway = what === 'away';
          await new Promise((done) => setImmediate(done));
        }
        server.state.isAway = false;
        for (const { session } of people) await settled(session);
        const now = server.choices();
        expect(people.flatMap(({ clashes }) => clashes)).toEqual([]);
        if (last[0]) expect(now.layout.copies).toBe(last[0]);
        if (last[1]) expect(now.artwork.width).toBe(last[1]);
        if (last[2]) expect(now.cutter.order).toBe(`c${last[2]}`);
        for (const { session } of people) {
          await session.reload();
          expect(session.choices()).toEqual(now);
        }
      },
    ),
    { numRuns: 40 },
  );
}, 60_000);

const FIELDS = ['copies', 'width', 'order'];
const onlyOwn = (who: number, section: object): object => ({
  [FIELDS[who]]: (section as Record<string, unknown>)[FIELDS[who]],
});
