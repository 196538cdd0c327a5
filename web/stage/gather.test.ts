import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gather, gatherScale } from './gather';

const spot = fc.record({
  x: fc.double({ min: 0, max: 2000, noNaN: true }),
  y: fc.double({ min: 0, max: 900, noNaN: true }),
});

test('no two stand nearer than a target is wide, and no pin is lost', () => {
  fc.assert(
    fc.property(
      fc.array(spot, { maxLength: 300 }),
      fc.double({ min: 0.05, max: 40, noNaN: true }),
      (pins, scale) => {
        const at = gatherScale(scale);
        expect(at).toBeLessThanOrEqual(scale * (1 + 1e-12));
        expect(at).toBeGreaterThan(scale / 1.5);
        const gathered = gather(pins, at);
        expect(gathered.flatMap((one) => one.pins)).toHaveLength(pins.length);
        for (const [i, a] of gathered.entries())
          for (const b of gathered.slice(i + 1))
            expect(Math.hypot(a.x - b.x, a.y - b.y) * scale).toBeGreaterThanOrEqual(30 - 1e-9);
      },
    ),
  );
});

test('closer in, a gathering opens', () => {
  const pins = Array.from({ length: 100 }, (_, i) => ({ x: (i % 10) * 5, y: Math.floor(i / 10) * 5 }));
  expect(gather(pins, 0.4)).toHaveLength(1);
  expect(gather(pins, 8)).toHaveLength(100);
});
