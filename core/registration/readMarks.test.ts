/** Marks read on a sheet that is drawn by a formula: what is looked at, how often, and what is said when something is missing. */
import { describe, expect, test } from '@jest/globals';
import type { Spot } from '../geometry/spot';
import { gaussian } from '../random';
import type { DesignedMark, Look, SheetReading } from './readMarks';
import { readMarks } from './readMarks';

const SEES = { minX: 0, minY: 0, maxX: 500, maxY: 400 };
const corner = (x: number, y: number, ax: number, ay: number): DesignedMark => ({ kind: 'in', at: [x, y], arms: [ax, ay] }); // prettier-ignore
const MARKS = [corner(50, 40, 20, 20), corner(400, 40, -20, 20), corner(400, 300, -20, -20), corner(50, 300, 20, -20), corner(190, 40, 20, 10)]; // prettier-ignore
const DOTS = MARKS.map(({ at }): DesignedMark => ({ kind: 'dots', at, arms: [2, 2] }));

/** What a sheet shows, moved aside; marks that are left out are covered. */
function sheet(marks: readonly DesignedMark[], { dx = 0, dy = 0, without = -1, noise = 0.02 } = {}) {
  const blur = gaussian(5, noise);
  let looks = 0;
  const inkAt = (x: number, y: number): boolean =>
    marks.some(({ kind, at: [mx, my], arms: [ax, ay] }, i) => {
      if (i === without) return false;
      const [u, v] = [x - mx - dx, y - my - dy];
      if (kind === 'dots') return Math.hypot(u, v) < ax;
      const on = (along: number, aside: number, arm: number): boolean =>
        Math.abs(aside) <= 0.5 && along * Math.sign(arm) >= -0.5 && along * Math.sign(arm) <= Math.abs(arm);
      return on(u, v, ax) || on(v, u, ay);
    });
  const look: Look = (from, to, values) => {
    looks++;
    return Promise.resolve(
      Array.from({ length: values }, (_, i) => {
        const t = i / (values - 1);
        const at = (k: 0 | 1): number => from[k] + (to[k] - from[k]) * t;
        return (inkAt(at(0), at(1)) ? 0.1 : 0.9) + blur();
      }),
    );
  };
  return { look, looks: () => looks, reach: 8, line: 1, sees: SEES };
}
const START: Spot = [50, 40];
const placesOf = (reading: SheetReading): readonly Spot[] =>
  reading.isRead ? reading.marks.map(({ at }) => at) : [];

describe('a sheet that is all there', () => {
  test.each([
    ['corners', MARKS],
    ['dots', DOTS],
  ])(
    '%s are found where they are, whatever aside, and each is looked at from a few sides only',
    async (_, marks) => {
      const own = sheet(marks, { dx: 5.3, dy: -4.1 });
      const places = placesOf(await readMarks(marks, START, own));
      expect(places).toHaveLength(5);
      places.forEach(([x, y], i) => {
        expect(Math.abs(x - marks[i].at[0] - 5.3)).toBeLessThan(0.05);
        expect(Math.abs(y - marks[i].at[1] + 4.1)).toBeLessThan(0.05);
      });
      expect(own.looks()).toBeLessThan(5 * 24);
    },
  );

  test('what was seen of every mark is kept, with its contrast', async () => {
    const reading = await readMarks(MARKS, START, sheet(MARKS));
    if (!reading.isRead) throw new Error('not read');
    for (const { scans, contrast } of reading.marks) {
      expect(scans).toHaveLength(8);
      expect(Math.abs(contrast - 0.8)).toBeLessThan(0.06);
      for (const { found } of scans)
        expect(found).toMatchObject({ edges: [expect.any(Number), expect.any(Number)] });
    }
  });

  test('nothing is looked at beyond what the sensor sees', async () => {
    const near = MARKS.map((mark): DesignedMark => ({ ...mark, at: [mark.at[0] - 47, mark.at[1] - 37] }));
    const own = sheet(near);
    const asked: Spot[] = [];
    const look: Look = (from, to, values) => (asked.push(from, to), own.look(from, to, values));
    expect((await readMarks(near, [3, 3], { ...own, look })).isRead).toBe(true);
    for (const [x, y] of asked)
      expect([x >= 0, y >= 0, x <= 500, y <= 400]).toEqual([true, true, true, true]);
  });
});

describe('a sheet that is not', () => {
  test.each([0, 1, 2, 3, 4])('mark %d covered: it is named', async (without) => {
    const reading = await readMarks(MARKS, START, sheet(MARKS, { without }));
    expect(reading).toMatchObject({ isRead: false, mark: without, why: 'no-line' });
  });

  test('further aside than the sensor reaches: the first mark is missed', async () => {
    const reading = await readMarks(MARKS, START, sheet(MARKS, { dx: 30, dy: 14 }));
    expect(reading).toMatchObject({ isRead: false, mark: 0 });
  });

  test('of blank film nothing is read', async () => {
    expect(await readMarks(MARKS, START, sheet([]))).toMatchObject({ isRead: false, why: 'no-line' });
  });
});
