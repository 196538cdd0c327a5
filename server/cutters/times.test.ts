/** How long a cut is said to take beside how long a machine takes that knows nothing of how that was reckoned. */
import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { hpglBytes, writeHpgl } from '../../core/devicelang/writeHpgl';
import { oneFile } from '../../core/plan/oneFile';
import { createPlanner } from '../../core/plan/plan';
import { allCuts } from '../../core/plan/planned';
import type { PlannedCut } from '../../core/plan/planned';
import { createMachine } from '../../cutter-sim/machine';
import { DEMO_MACHINES } from '../../cutter-sim/machines';
import { FIRST_ORDERS } from '../../demo/seed';
import { DEMO_SHOP } from '../../demo/shop';
import { readSvg } from '../files/readSvg';

/** Seconds of its own time that a machine takes, to a tenth; looked at only where it should be done. */
function taken({ program, cutter, strip }: PlannedCut): number {
  let isDone = false;
  const { spec } = DEMO_MACHINES[cutter.id];
  const machine = createMachine({ ...spec, bufferBytes: 100_000_000 }, () => (isDone = true));
  machine.load({ name: 'film', width: strip.roll.width, length: 20_000, toughness: 60 });
  const bytes = hpglBytes({ ...writeHpgl(program, cutter.device, strip.cuttable), tail: new Uint8Array() });
  machine.receive(`${Buffer.from(bytes).toString('latin1')}OA;`);
  let seconds = program.seconds * 0.9;
  machine.advance(seconds);
  for (; !isDone; seconds += 0.1) machine.advance(0.1);
  return seconds;
}

test.each(FIRST_ORDERS.filter(({ file }) => file.endsWith('.svg')))(
  '$name: said within 5 % of what each machine takes',
  async ({ file, choices }) => {
    const art = await readSvg(readFileSync(`demo/art/${file}`));
    const { artworks, choices: all } = oneFile(art, choices);
    const cuts = allCuts(createPlanner().plan(artworks, all, DEMO_SHOP));
    expect(cuts.length).toBeGreaterThan(0);
    for (const cut of cuts) {
      const ratio = taken(cut) / cut.program.seconds;
      expect([file, cut.strip.id, Math.abs(ratio - 1) <= 0.05 || ratio]).toEqual([file, cut.strip.id, true]);
    }
  },
);
