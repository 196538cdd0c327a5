import { describe, expect, test } from '@jest/globals';
import { takeTurns } from './turns';

const [ANN, BEN, CAT] = [1, 2, 3];

/** Work on a clock that the test turns: the names of what begins, in order, and the end of each. */
function desk(atOnce: number) {
  let time = 0;
  const turns = takeTurns(atOnce, () => time);
  const begun: string[] = [];
  const over = new Map<string, () => void>();
  return {
    turns,
    begun,
    want: (name: string, who: number | null, seconds: number, signal?: AbortSignal): Promise<void> =>
      turns.take({ who, seconds: () => seconds }, signal).then((end) => {
        begun.push(name);
        over.set(name, end);
      }),
    /** It is over so many seconds later. */
    end: async (name: string, later = 1): Promise<void> => {
      time += later;
      over.get(name)!();
      await new Promise((done) => setImmediate(done));
    },
  };
}
const tick = () => new Promise((done) => setImmediate(done));

describe('whose turn it is', () => {
  test('all begin where there is room', async () => {
    const { want, begun } = desk(2);
    void want('a', ANN, 9);
    void want('b', ANN, 9);
    await tick();
    expect(begun).toEqual(['a', 'b']);
  });

  test('another person comes before a second long work of one; both of hers go on when nobody else waits', async () => {
    const { want, begun, end } = desk(2);
    for (const name of ['a1', 'a2', 'a3', 'a4']) void want(name, ANN, 3);
    void want('b', BEN, 3);
    await tick();
    expect(begun).toEqual(['a1', 'a2']);
    await end('a1', 3);
    expect(begun.at(-1)).toBe('b');
    await end('a2', 1);
    await end('a3', 3);
    await end('b', 1);
    expect(begun).toEqual(['a1', 'a2', 'b', 'a3', 'a4']);
  });

  test('what is short comes before what is long, of the same person too', async () => {
    const { want, begun, end } = desk(1);
    void want('long', ANN, 5);
    void want('next', ANN, 5);
    void want('other', BEN, 4);
    void want('short', ANN, 0.1);
    await tick();
    await end('long', 1);
    expect(begun).toEqual(['long', 'short']);
  });

  test('what is long waits no longer than it takes, however much that is short comes', async () => {
    const { want, begun, end } = desk(1);
    void want('first', ANN, 1);
    void want('long', BEN, 5);
    await tick();
    let last = 'first';
    for (let k = 0; k < 20; k++) {
      void want(`s${k}`, CAT, 0.5);
      await end(last, 0.5);
      last = begun.at(-1)!;
      if (last === 'long') break;
    }
    // half a second each: the tenth at the latest
    expect(begun.indexOf('long')).toBeGreaterThan(5);
    expect(begun.indexOf('long')).toBeLessThanOrEqual(11);
  });

  test('on one thread too, whoever comes late in the first of four is next', async () => {
    const { want, begun, end } = desk(1);
    for (const name of ['a1', 'a2', 'a3', 'a4']) void want(name, ANN, 9);
    await tick();
    void want('b', BEN, 8);
    await end('a1', 9);
    expect(begun).toEqual(['a1', 'b']);
    void want('c', CAT, 8);
    await end('b', 8);
    await end(begun.at(-1)!, 8);
    expect(new Set(begun.slice(2))).toEqual(new Set(['a2', 'c']));
  });

  test('what is learnt of work meanwhile counts for what waits of it', async () => {
    const turns = takeTurns(1, () => 0);
    let seconds = 0.1;
    const begun: string[] = [];
    const want = (name: string, who: number, takes: () => number) =>
      turns.take({ who, seconds: takes }).then((end) => {
        begun.push(name);
        return end;
      });
    const first = want('a1', ANN, () => seconds);
    void want('a2', ANN, () => seconds);
    void want('b', BEN, () => 0.5);
    seconds = 9;
    (await first)();
    await tick();
    expect(begun).toEqual(['a1', 'b']);
  });

  test('what is given up leaves its place, and what is given up before it came takes none', async () => {
    const { want, begun, end, turns } = desk(1);
    const stop = new AbortController();
    void want('a', ANN, 1);
    const given = expect(want('b', BEN, 1, stop.signal)).rejects.toThrow('enough');
    void want('c', CAT, 2);
    stop.abort(new Error('enough'));
    await given;
    await expect(want('d', CAT, 1, stop.signal)).rejects.toThrow('enough');
    expect(turns.waiting()).toBe(1);
    await end('a');
    expect(begun).toEqual(['a', 'c']);
    // given up once it has begun, it is up to whoever does it
    expect(turns.waiting()).toBe(0);
  });
});
