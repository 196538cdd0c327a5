import { describe, expect, test } from '@jest/globals';
import { backOff, isDatabaseAway, isUnkeepable, untilBack } from './away';

const coded = (code: string, cause?: unknown): Error => Object.assign(new Error('no'), { code, cause });

describe('what an error says of the database', () => {
  test.each(['08006', '08001', '57P01', '57P03', 'ECONNREFUSED', 'ECONNRESET', 'ETIMEDOUT'])(
    '%s: it is away',
    (code) => expect(isDatabaseAway(coded(code))).toBe(true),
  );
  test.each(['23505', '22003', '42P01', '57014', 'EACCES', ''])('%s: it is there', (code) =>
    expect(isDatabaseAway(coded(code))).toBe(false),
  );
  test('the driver’s own words, and a cause beneath, count', () => {
    expect(isDatabaseAway(new Error('Connection terminated unexpectedly'))).toBe(true);
    expect(isDatabaseAway(coded('XX000', coded('57P01')))).toBe(true);
    expect(isDatabaseAway('gone')).toBe(false);
  });
  test('values that cannot be kept', () => {
    expect(isUnkeepable(coded('22003'))).toBe(true);
    expect(isUnkeepable(coded('XX000', coded('22021')))).toBe(true);
    expect(isUnkeepable(coded('23505'))).toBe(false);
    expect(isUnkeepable(undefined)).toBe(false);
  });
});

describe('work that must not be lost', () => {
  test('is tried again while the database is away, and done once', async () => {
    let tries = 0;
    const value = await untilBack(
      async () => {
        if (++tries < 3) throw coded('ECONNREFUSED');
        return 'done';
      },
      () => false,
    );
    expect([value, tries]).toEqual(['done', 3]);
  });

  test('is given up when somebody says so, with what went wrong', async () => {
    let tries = 0;
    const work = untilBack(
      async () => {
        tries++;
        throw coded('57P01');
      },
      () => tries >= 2,
    );
    await expect(work).rejects.toMatchObject({ code: '57P01' });
    expect(tries).toBe(2);
  });

  test('is not tried again when the database refused it', async () => {
    let tries = 0;
    const work = untilBack(
      async () => {
        tries++;
        throw coded('23505');
      },
      () => false,
    );
    await expect(work).rejects.toMatchObject({ code: '23505' });
    expect(tries).toBe(1);
  });

  test('waits twice as long each time, up to a limit', async () => {
    const wait = backOff(4, 16);
    const times: number[] = [];
    for (let k = 0; k < 5; k++) {
      const from = performance.now();
      await wait();
      times.push(performance.now() - from);
    }
    // timers are never early; how late they are is the machine's affair
    [4, 8, 16, 16, 16].forEach((ms, i) => expect(times[i]).toBeGreaterThan(ms - 1.5));
  });
});
