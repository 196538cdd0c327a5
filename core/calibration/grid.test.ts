import { describe, expect, test } from '@jest/globals';
import { random } from '../random';
import type { Cell } from './grid';
import {
  bestCell,
  bestDashes,
  CELL_LOOKS,
  forcesByHand,
  gridCells,
  judgeGrid,
  perforatedCells,
} from './grid';

const ASKED = { force: [40, 110], speed: [10, 50], columns: 8, rows: 5 } as const;

/** A film that cuts cleanly from a force on, three thousandths more for each cm/s beyond 20; some taps are wrong. */
function judged(clean: number, ratio: number, wrong: number, seed: number): Cell[] {
  const next = random(seed);
  return gridCells(ASKED).map((cell) => {
    const needs = clean * (1 + 0.003 * (cell.speed - 20));
    const true_ = cell.force < needs ? 0 : cell.force < needs * ratio ? 1 : 2;
    const other = (true_ + 1 + Math.floor(2 * next())) % 3;
    return { ...cell, looks: CELL_LOOKS[next() < wrong ? other : true_] };
  });
}
const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

describe('a trial grid', () => {
  test('cells are evenly spread in whole g and cm/s', () => {
    const cells = gridCells(ASKED);
    expect(cells).toHaveLength(40);
    expect(cells[0]).toEqual({ force: 40, speed: 10 });
    expect(cells.at(-1)).toEqual({ force: 110, speed: 50 });
    expect(cells.slice(0, 8).map(({ force }) => force)).toEqual([40, 50, 60, 70, 80, 90, 100, 110]);
  });

  const runs = Array.from({ length: 60 }, (_, k) => {
    const next = random(1000 + 7 * k);
    const clean = 48 + 40 * next();
    const found = judgeGrid(judged(clean, 1.5 + next(), 0.1, 31 + k), { speed: 20 })!;
    return { clean, found };
  });

  test('with one tap of ten wrong, the least force is found within 5 % in the median, and held by its interval', () => {
    const off = runs.map(({ clean, found }) => Math.abs(found.clean.value / clean - 1));
    expect(middle(off)).toBeLessThan(0.05);
    const held = runs.filter(({ clean, found }) => found.clean.from <= clean && clean <= found.clean.to);
    expect(held.length / runs.length).toBeGreaterThan(0.9);
  });

  test('what is proposed cuts, and leaves the backing whole', () => {
    const good = runs.filter(({ clean, found }) => found.proposed >= clean && found.proposed < 1.5 * clean);
    expect(good.length / runs.length).toBeGreaterThan(0.9);
  });

  test('one cell that looks otherwise than all the others is odd, and moves nothing', () => {
    const cells = judged(62, 2, 0, 1);
    const right = judgeGrid(cells, { speed: 20 })!;
    expect(right.odd).toEqual([]);
    const at = cells.findIndex(({ force, speed }) => force === 90 && speed === 30);
    const wrong = judgeGrid(
      cells.map((cell, i): Cell => (i === at ? { ...cell, looks: 'not-through' } : cell)),
      { speed: 20 },
    )!;
    expect(wrong.odd).toEqual([at]);
    expect(wrong.clean.value / right.clean.value).toBeCloseTo(1, 1.5);
  });

  test('less than four cells, or all alike, say nothing; the best one alone says itself and half a step', () => {
    const cells = gridCells(ASKED);
    expect(judgeGrid(cells, { speed: 20 })).toBeUndefined();
    expect(
      judgeGrid(
        cells.map((cell): Cell => ({ ...cell, looks: 'clean' })),
        { speed: 20 },
      ),
    ).toBeUndefined();
    expect(bestCell(cells[3], cells)).toEqual({ value: 70, from: 65, to: 75 });
  });
});

describe('a grid of perforated lines', () => {
  const DASHED = {
    force: [80, 220],
    columns: 8,
    on: [2, 4],
    off: [0.2, 0.5],
    each: [3, 2],
    speed: 20,
  } as const;
  const left = ([on, off]: readonly [number, number]): number => off / (on + off);

  test('a row for each dash with each gap, in sizes that a rule shows', () => {
    const cells = perforatedCells(DASHED);
    expect(cells).toHaveLength(48);
    expect(cells[0]).toEqual({ force: 80, speed: 20, dashes: [2, 0.2] });
    expect(cells.at(-1)).toEqual({ force: 220, speed: 20, dashes: [4, 0.5] });
    expect([...new Set(cells.map(({ dashes }) => String(dashes)))]).toEqual([
      ...['2,0.2', '2,0.5', '3,0.2', '3,0.5', '4,0.2', '4,0.5'],
    ]);
    expect(perforatedCells({ ...DASHED, each: [1, 1] })[0].dashes).toEqual([3, 0.35]);
    expect(forcesByHand(cells)).toEqual([80, 100, 120, 140, 160, 180, 200, 220]);
  });

  /** What is left between dashes asks for force: two percent more for each percent of the line. */
  const torn = (clean: number, ratio: number, wrong: number, seed: number): Cell[] => {
    const next = random(seed);
    return perforatedCells(DASHED).map((cell) => {
      const needs = clean * Math.exp(2 * (left(cell.dashes!) - left([3, 0.2])));
      const true_ = cell.force < needs ? 0 : cell.force < needs * ratio ? 1 : 2;
      return { ...cell, looks: CELL_LOOKS[next() < wrong ? (true_ + 1) % 3 : true_] };
    });
  };

  test('the force for any dashes comes from all rows: within 5 % in the median with one tap of ten wrong', () => {
    const off = Array.from({ length: 40 }, (_, k) => {
      const clean = 100 + 60 * random(50 + 3 * k)();
      const found = judgeGrid(torn(clean, 1.6, 0.1, 70 + k), { speed: 20, dashes: [3, 0.2] })!;
      return Math.abs(found.clean.value / clean - 1);
    });
    expect(middle(off)).toBeLessThan(0.05);
  });

  test('dashes that bear most forces are taken; of equals, those that hold best', () => {
    const cells = perforatedCells(DASHED);
    const clean = (isSo: (cell: Cell) => boolean): Cell[] =>
      cells.map((cell) => ({ ...cell, looks: isSo(cell) ? 'clean' : 'not-through' }));
    expect(
      bestDashes(clean(({ dashes, force }) => dashes![0] === 3 && dashes![1] === 0.2 && force > 120)),
    ).toEqual([3, 0.2]);
    expect(bestDashes(clean(({ force }) => force > 120))).toEqual([2, 0.5]);
    expect(bestDashes(cells)).toBeUndefined();
  });
});
