import { describe, expect, test } from '@jest/globals';
import { gaussian } from '../random';
import { fromRow, offsetFromGaps, rowValues } from './blade';
import { agree, changeOf, combined, triedBefore } from './estimate';
import { lengthFrom } from './length';
import { oddOnes } from './odd';

describe('length', () => {
  test('one line tells the scale, several a constant too when there is one', () => {
    expect(lengthFrom([{ told: 1000, measured: 1000.8 }])!.scale.value).toBeCloseTo(1.0008, 12);
    const lines = [300, 600, 1000].map((told) => ({ told, measured: told * 1.0008 }));
    expect(lengthFrom(lines)).toMatchObject({ constant: null });
    // scattered by hundredths, longer by 0.4 mm each
    const noise = gaussian(3, 0.01);
    const longer = [...lines, ...lines].map(({ told, measured }) => ({
      told,
      measured: measured + 0.4 + noise(),
    }));
    const found = lengthFrom(longer)!;
    expect(found.constant!.value).toBeCloseTo(0.4, 1.5);
    expect(found.scale.value).toBeCloseTo(1.0008, 4);
    expect(lengthFrom([])).toBeUndefined();
  });

  test('three ticks read to a tenth: within 0.02 % of the truth, and the interval says how well', () => {
    const noise = gaussian(9, 0.1);
    let [held, near] = [0, 0];
    for (let k = 0; k < 300; k++) {
      const runs = [1, 2].map(() =>
        lengthFrom([300, 600, 1000].map((told) => ({ told, measured: told * 1.0021 + noise() })))!,
      );
      if (Math.abs(runs[0].scale.value - 1.0021) <= runs[0].scale.sure) held++;
      const both = combined(runs.map(({ scale }) => scale))!;
      if (Math.abs(both.value - 1.0021) <= 0.0002) near++;
    }
    expect(held / 300).toBeGreaterThan(0.92);
    expect(near / 300).toBeGreaterThan(0.95);
  });
});

describe('blade offset', () => {
  test('half of the gap, the surer the more were measured', () => {
    expect(offsetFromGaps([0.5, 0.52, 0.5, 0.48])!.value).toBeCloseTo(0.25, 12);
    const alike = offsetFromGaps([0.5, 0.5, 0.5, 0.5])!;
    // never surer than a loupe is read
    expect(alike.sure).toBeCloseTo(0.05 / Math.sqrt(4) / 4, 9);
    expect(offsetFromGaps([])).toBeUndefined();
  });

  test('a row narrows to what was found, until nobody could tell them apart', () => {
    const first = rowValues(undefined, [0.1, 0.6]);
    expect([first[0], first[1], first.at(-1), first.length]).toEqual([0.1, 0.15, 0.6, 11]);
    const second = rowValues(fromRow(0.25, 0.05), [0.1, 0.6]);
    expect([second[0], second.at(-1)]).toEqual([0.2, 0.3]);
    expect(rowValues(fromRow(0.25, 0.01), [0.1, 0.6])[1]).toBeCloseTo(
      rowValues(fromRow(0.25, 0.01), [0.1, 0.6])[0] + 0.01,
      9,
    );
  });
});

describe('measurements that do not fit', () => {
  test('ten times the others, inches for millimetres, the wrong sign: each is asked about by what may have slipped', () => {
    const others = [0.3, 0.25, 0.35, 0.3];
    expect(oddOnes([...others, 3], 0.05)).toEqual([{ at: 4, by: expect.closeTo(2.7, 1), slip: 'ten' }]);
    expect(oddOnes([7.62, ...others], 0.05)).toMatchObject([{ at: 0, slip: 'inch' }]);
    expect(oddOnes([0.3, -0.3, 0.25, 0.35], 0.05)).toMatchObject([{ at: 1, slip: 'sign' }]);
    expect(oddOnes([0.3, 0.9, 0.25, 0.35], 0.05)).toEqual([
      { at: 1, by: expect.closeTo(0.6, 1), slip: undefined },
    ]);
  });

  test('what scatters as people read is never asked about, and two values cannot tell which of them is odd', () => {
    const noise = gaussian(17, 0.05);
    for (let k = 0; k < 200; k++)
      expect(
        oddOnes(
          Array.from({ length: 5 }, () => 0.3 + noise()),
          0.05,
        ),
      ).toEqual([]);
    expect(oddOnes([0.3, 30], 0.05)).toEqual([]);
  });
});

describe('what is proposed', () => {
  test('nothing below a step or inside the noise', () => {
    expect(changeOf(10, { value: 10.02, sure: 0.01 }, 0.025).left).toBe('below-step');
    expect(changeOf(10, { value: 10.06, sure: 0.08 }, 0.025).left).toBe('inside-noise');
    expect(changeOf(10, { value: 10.3, sure: 0.05 }, 0.025)).toEqual({ before: 10, value: 10.3, sure: 0.05 });
  });

  test('two runs that agree are surer than either; values tried before are found again', () => {
    const [a, b] = [
      { value: 10.1, sure: 0.05 },
      { value: 10.14, sure: 0.05 },
    ];
    expect(agree(a, b)).toBe(true);
    expect(agree(a, { value: 10.3, sure: 0.05 })).toBe(false);
    expect(combined([a, b])).toEqual({
      value: expect.closeTo(10.12, 9),
      sure: expect.closeTo(0.05 / Math.SQRT2, 9),
    });
    expect(combined([])).toBeUndefined();
    const tried = [
      { values: [10, 0.8], id: 1 },
      { values: [10.2, 0.8], id: 2 },
    ];
    expect(triedBefore(tried, [10.19, 0.81], 0.025)?.id).toBe(2);
    expect(triedBefore(tried, [10.1, 0.8], 0.025)).toBeUndefined();
  });
});
