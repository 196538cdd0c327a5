/** Feeding a simulated machine on a clock of the test's own, with the feeder killed at any step of it. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CURLEW_SPEC } from '../../cutter-sim/machines';
import { createMachine } from '../../cutter-sim/machine';
import { restOf } from '../../core/devicelang/lineText';
import { CURLEW } from '../../demo/shop';
import type { StoredProgram } from '../work/makeCuts';
import { lengthOf } from '../timesCut.testing';
import { feed, standingOf } from './feed';
import type { CutterLink } from './links/link';
import type { Place, Start } from './whereabouts';
import { kept, whereItStands } from './whereabouts';

/** Outlines that close with an overcut over their own first points, as real ones do; some long, some short. */
function programOf(outlines: number, seed: number): StoredProgram {
  const lines = Array.from({ length: outlines }, (_, k) => {
    const corners = 4 + ((k * 7 + seed) % 60);
    const r = 40 + ((k * 37 + seed) % 200);
    const points = Array.from({ length: corners }, (_, i) => {
      const t = (2 * Math.PI * i) / corners;
      return `${400 + k * 500 + Math.round(r * Math.cos(t))},${1000 + Math.round(r * Math.sin(t))}`;
    });
    const way = [...points.slice(1), points[0], points[1]];
    // in several instructions, as long lines are written: the sender can die between two of them
    const parts = Array.from({ length: Math.ceil(way.length / 9) }, (_, i) => way.slice(9 * i, 9 * i + 9));
    return `PU${points[0]};${parts.map((part) => `PD${part.join(',')};`).join('')}PU;`;
  });
  return { head: 'IN;PA;SP1;VS30;FS80;', lines, tail: 'PU9000,0;SP0;', doneAt: lines.map((_, i) => i) };
}

/** The dead do nothing: their promises never settle. */
const never = <T>(): Promise<T> => new Promise(() => {});

/** A machine and whoever is connected to it. */
function bench() {
  const inbox: string[] = [];
  const machine = createMachine(CURLEW_SPEC, (text) => inbox.push(text.replace('\r', '')));
  machine.load({ name: 'film', width: 610, length: 22_000, toughness: 60 });
  const connect = (mayGoOn: () => boolean): CutterLink => {
    inbox.length = 0; // what was answered while nobody listened is lost; what comes later is not
    return {
      send: async (text) => {
        if (!mayGoOn()) return never();
        machine.receive(text);
      },
      answer: async () => {
        if (!mayGoOn()) return never();
        for (let i = 0; inbox.length === 0 && i < 1e6; i++) machine.advance(0.02);
        return inbox.shift()!;
      },
      close: () => {},
    };
  };
  return { machine, connect };
}

interface Row {
  linesDone: number;
  linesSent: number;
  headFrom: Start | null;
}

/** One server's run, as the dispatcher does it; killed after so many steps. @returns whether it came to its end */
async function run(
  program: StoredProgram,
  row: Row,
  connect: ReturnType<typeof bench>['connect'],
  lifetime: number,
  saveEvery: number,
): Promise<'done' | 'killed' | 'no place'> {
  let steps = 0;
  let dead = (): void => {};
  const killed = new Promise<'killed'>((done) => (dead = () => done('killed')));
  const mayGoOn = (): boolean => {
    if (++steps > lifetime) dead();
    return steps <= lifetime;
  };
  const work = async (): Promise<'done' | 'no place'> => {
    const link = connect(mayGoOn);
    const head = await standingOf(link);
    const place: Place | undefined =
      row.linesSent > row.linesDone
        ? whereItStands(program, row.linesDone, row.linesSent, head, row.headFrom).place
        : { line: row.linesDone, point: 0 };
    if (!place) return 'no place';
    Object.assign(row, { linesDone: place.line, headFrom: { x: head.x, y: head.y, ...place } });
    let done = place.line;
    await feed(link, program, CURLEW, 584.6, place, {
      shouldStop: () => false,
      progress: (_, linesDone) => {
        done = linesDone;
        if (steps % saveEvery === 0) row.linesDone = linesDone;
      },
      announce: async (linesSent) => {
        if (!mayGoOn()) return never();
        Object.assign(row, { linesSent, linesDone: done });
      },
    });
    return 'done';
  };
  return Promise.race([work(), killed]);
}

/** Every stretch that the knife went along, in the machine's units, either way round. */
function stretchesOf(points: readonly string[]): string[] {
  return points.slice(1).map((to, i) => [points[i], to].sort().join(' '));
}

test('killed at any step, however often: every line is on the film once', async () => {
  let kills = 0;
  await fc.assert(
    fc.asyncProperty(
      fc.integer({ min: 0, max: 1000 }),
      // a short life: killed again before it sent anything
      fc.array(fc.oneof(fc.integer({ min: 3, max: 60 }), fc.integer({ min: 4, max: 7 })), {
        minLength: 1,
        maxLength: 8,
      }),
      fc.integer({ min: 1, max: 9 }),
      async (seed, lifetimes, saveEvery) => {
        const program = programOf(14, seed);
        const { machine, connect } = bench();
        const sent: string[] = [];
        const watched: typeof connect = (mayGoOn) => {
          const link = connect(mayGoOn);
          return {
            ...link,
            send: async (text) => {
              await link.send(text);
              sent.push(text);
            },
          };
        };
        const row: Row = { linesDone: 0, linesSent: 0, headFrom: null };
        let end = 'killed';
        for (const lifetime of [...lifetimes, Infinity]) {
          if (end === 'killed') end = await run(program, row, watched, lifetime, saveEvery);
          if (end === 'killed') kills++;
        }
        expect(end).toBe('done');
        machine.advance(1e5);
        const cut = sent
          .join('')
          .split('PU')
          .flatMap((line) => stretchesOf(line.replace(/;(OA|OH);/g, ';').match(/-?\d+,-?\d+/g) ?? []));
        const wanted = program.lines.flatMap((line) => stretchesOf(line.match(/-?\d+,-?\d+/g)!));
        expect(cut.sort()).toEqual(wanted.sort());
        // and the machine went along all of it: the trailing tip's way is as long as the head's, but for its swing
        const onFilm = machine.strokes().reduce((sum, { points }) => sum + lengthOf(points), 0);
        const drawn = program.lines.reduce(
          (sum, line) => sum + lengthOf(line.match(/-?\d+/g)!.map((v) => Number(v) * 0.025)),
          0,
        );
        expect(Math.abs(onFilm / drawn - 1)).toBeLessThan(0.1);
      },
    ),
    { numRuns: 200, seed: 20261125 },
  );
  expect(kills).toBeGreaterThanOrEqual(50);
}, 120_000);

describe('the place from where the head stands', () => {
  const lines = ['PU0,0;PD10,0,10,10,0,0;PU;', 'PU20,0;PD30,0,30,10,20,0;PU;', 'PU40,0;PD50,0;PU;'];
  const tail = 'PU90,0;SP0;';
  const begun = { x: 7, y: 7, line: 0, point: 0 };
  const at = (x: number, y: number, down = false) =>
    whereItStands({ lines, tail }, 0, 3, { x, y, down }, begun);

  test.each([
    ['where it stood before', at(7, 7), { place: { line: 0, point: 0 } }],
    ['at the end of a line that closes', at(20, 0), { place: { line: 2, point: 0 } }],
    ['at the end of the last', at(50, 0), { place: { line: 3, point: 0 } }],
    ['where the tail takes it', at(90, 0), { place: { line: 3, point: 0 } }],
    ['in the middle, knife down', at(30, 10, true), { place: { line: 1, point: 2 } }],
    ['in the middle, lifted', at(10, 10), { place: { line: 0, point: 2 } }],
    ['where no line goes', at(3, 3), {}],
    ['at a start that is an end too, knife down', at(20, 0, true), { upTo: { line: 2, point: 0 } }],
  ])('%s', (_, found, expected) => expect(found).toEqual(expected));

  test.each([true, false])(
    'where a ring that overlaps its start begins: cut up to there or begun, knife down %s',
    (down) => {
      const ring = 'PU60,0;PD70,0,70,10,60,0,65,0;PU;';
      const found = whereItStands({ lines: [...lines, ring], tail }, 3, 4, { x: 60, y: 0, down }, null);
      expect(found).toEqual({ upTo: { line: 3, point: 3 } });
      // kept, and asked: what the head did since says nothing of it
      expect(kept(found, { x: 60, y: 0 }, 4)).toEqual({
        linesDone: 3,
        linesSent: 4,
        headFrom: { x: 60, y: 0, line: 3, point: 3, isKnown: true, isAsked: true },
      });
    },
  );

  test.each([true, false])(
    'killed again before anything was sent, knife down %s: from the same point',
    (down) => {
      const before = { x: 30, y: 10, line: 1, point: 2 };
      expect(whereItStands({ lines, tail }, 1, 3, { x: 30, y: 10, down }, before)).toEqual({
        place: { line: 1, point: 2 },
      });
    },
  );

  test('of two passes that end at one place one is cut, the other is asked for; of three nobody can tell', () => {
    const passes = (times: number) =>
      whereItStands(
        { lines: Array<string>(times).fill(lines[0]), tail },
        0,
        times,
        { x: 0, y: 0, down: false },
        begun,
      );
    expect(passes(2)).toEqual({ upTo: { line: 2, point: 0 } });
    expect(passes(3)).toEqual({});
  });

  test('switched off, its knife is up before a ring as behind it: then the ring is asked for', () => {
    const lifted = { ...begun, mayBeLifted: true };
    const off = (x: number, y: number) => whereItStands({ lines, tail }, 0, 3, { x, y, down: false }, lifted);
    expect(off(20, 0)).toEqual({ upTo: { line: 2, point: 0 } });
    expect(off(30, 10)).toEqual({ place: { line: 1, point: 2 } });
    expect(off(50, 0)).toEqual({ place: { line: 3, point: 0 } });
  });

  test('what was cut before the last run began is no place to go on from', () => {
    const ring = ['PU60,0;PD70,0,70,10,60,0,65,0;PU;'];
    const off = { x: 60, y: 0, down: false };
    const begunAt = (point: number, x: number) =>
      whereItStands({ lines: ring, tail }, 0, 1, off, { x, y: 0, line: 0, point, mayBeLifted: true });
    expect(begunAt(1, 70)).toEqual({ place: { line: 0, point: 3 } });
    // it began there: it has cut nothing since, or all but the rest
    expect(begunAt(0, 60)).toEqual({ upTo: { line: 0, point: 3 } });
    expect(begunAt(3, 60)).toEqual({ place: { line: 0, point: 3 } });
  });

  test('the rest of a line goes down where it was left, with its own settings', () => {
    expect(restOf('SP2;FS200;PU0,0;PD10,0,10,10;PU;', 1)).toBe('SP2;FS200;PU10,0;PD10,10;PU;');
    expect(restOf(lines[0], 0)).toBe(lines[0]);
  });
});
