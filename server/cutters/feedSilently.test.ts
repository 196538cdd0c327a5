/** Feeding a machine that answers nothing, on a clock of the test's own. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { StoredProgram } from '../work/makeCuts';
import { feedSilently } from './feedSilently';

/** @param took s of each line */
function programOf(took: readonly number[]): StoredProgram {
  let at = 0;
  return {
    head: 'IN;',
    lines: took.map((_, i) => `PU${i},0;PD${i},9;PU;`),
    tail: 'PU0,0;SP0;',
    doneAt: took.map((seconds) => (at += seconds)),
  };
}

/** A machine that takes a line when there is room, and a clock that only its waits turn. */
function bench(program: StoredProgram, { room, slower }: { room: number; slower: number }) {
  let ms = 0;
  const taken: string[] = [];
  const cut: { line: string; at: number }[] = [];
  const whenDone = (i: number): number => 1000 * slower * program.doneAt[i];
  const turn = (to: number): void => {
    ms = Math.max(ms, to);
    while (cut.length < taken.length && whenDone(cut.length) <= ms)
      cut.push({ line: taken[cut.length], at: ms });
  };
  return {
    clock: { now: () => ms, sleep: async (by: number) => turn(ms + by) },
    taken,
    cut,
    link: {
      send: async (text: string) => {
        if (!text.startsWith('PU') || text === program.tail) return;
        if (taken.length - cut.length >= room) turn(whenDone(taken.length - room));
        taken.push(text);
      },
    },
  };
}
const times = fc.array(fc.double({ min: 0.05, max: 6, noNaN: true }), { minLength: 1, maxLength: 60 });
const NOTHING = { announce: async () => {}, shouldStop: () => false };

describe('a machine that answers nothing', () => {
  test('is given every line once, in order, and reckoned no further than it was given', async () => {
    await fc.assert(
      fc.asyncProperty(times, fc.nat(), fc.constantFrom(0.5, 1, 3), async (took, start, slower) => {
        const program = programOf(took);
        const from = start % took.length;
        const { clock, link, taken } = bench(program, { room: 1000, slower });
        const told: number[] = [];
        const given = await feedSilently(link, program, { line: from, point: 0 }, {
          ...NOTHING,
          progress: (_, lines) => {
            expect(lines).toBeLessThanOrEqual(from + taken.length);
            told.push(lines);
          },
        }, clock); // prettier-ignore
        expect(given).toBe(took.length);
        expect(taken).toEqual(program.lines.slice(from));
        expect(told).toEqual([...told].sort((a, b) => a - b));
        expect(told.at(-1)).toBe(took.length);
      }),
    );
  });

  test('one that takes no more makes the sender wait, and what is reckoned waits with it', async () => {
    await fc.assert(
      fc.asyncProperty(times, fc.integer({ min: 1, max: 4 }), async (took, room) => {
        const program = programOf(took);
        // three times as slow as it is reckoned
        const { clock, link, cut } = bench(program, { room, slower: 3 });
        await feedSilently(link, program, { line: 0, point: 0 }, {
          ...NOTHING,
          progress: (_, lines) => expect(lines).toBeLessThanOrEqual(cut.length + room),
        }, clock); // prettier-ignore
      }),
    );
  });

  test('stopped, it is given no more than a few seconds of what it is reckoned to cut', async () => {
    const program = programOf(Array.from({ length: 200 }, () => 1));
    const { clock, link, taken } = bench(program, { room: 1000, slower: 1 });
    let done = 0;
    const given = await feedSilently(link, program, { line: 0, point: 0 }, {
      ...NOTHING,
      shouldStop: () => clock.now() > 50_000,
      progress: (_, lines) => (done = lines),
    }, clock); // prettier-ignore
    expect(given).toBe(taken.length);
    expect(given).toBeGreaterThanOrEqual(50);
    expect(given).toBeLessThanOrEqual(60);
    // what it was given it cuts: that is waited for
    expect(done).toBe(given);
  });
});
