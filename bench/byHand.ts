/** A piece put somewhere else by hand, and weed lines, as an order is planned again. */
import { readFileSync } from 'node:fs';
import type { PackedStrip } from '../core/layout/strip';
import { oneFile } from '../core/plan/oneFile';
import type { Plan } from '../core/plan/planned';
import { createPlanner } from '../core/plan/plan';
import { DEMO_SHOP } from '../demo/shop';
import { readSvg } from '../server/files/readSvg';

const kept = (plan: Plan, film: string): PackedStrip[] =>
  plan.cuts
    .filter(({ strip }) => strip.film.id === film)
    .map(({ strip }) => ({
      roll: strip.roll.width,
      pieces: strip.placements.flatMap((placement) => placement.kept ?? []),
    }));

/**
 * The demo's dinghy, two copies, by piece.
 * @returns ms of planning: with a piece put where there is room, one put onto others, weed lines laid for the first time
 */
export async function byHand(time: (work: () => unknown) => number) {
  const { artworks, choices } = oneFile(await readSvg(readFileSync('demo/art/marsh-wren.svg')));
  const planner = createPlanner();
  const layout = { ...choices.layout, pack: 'piece', copies: 2 } as const;
  const artwork = { ...choices.artwork, width: 1240 };
  const plan = (more: Partial<typeof layout> | object) =>
    planner.plan(artworks, { ...choices, artwork, layout: { ...layout, ...more } }, DEMO_SHOP);
  const strips = kept(plan({}), 'damson');
  const put = (x: number, y: number) => ({
    packed: {
      damson: strips.map(({ roll, pieces }) => ({
        roll,
        pieces: pieces.map((piece, i) => (i === 3 ? { ...piece, pinned: true, x, y } : piece)),
      })),
    },
  });
  let x = 0;
  const free = time(() => plan(put(900 + x++, 200)));
  const onto = time(() => plan(put(250 + x++, 300)));
  const weeded = time(() =>
    plan({ pack: 'one', weedLines: { ...choices.layout.weedLines, way: 'lift', step: 120 + x++ } }),
  );
  return { free, onto, weeded };
}
