import { expose, transfer } from 'comlink';
import type { Artwork } from '../../core/artwork/artwork';
import type { Choices, Shop } from '../../core/plan/plan';
import { createPlanner } from '../../core/plan/plan';
import type { PlanView } from './packed';
import { buffersOf, packPlan } from './packed';

const planner = createPlanner();
let artwork: { readonly key: string; readonly value: Artwork } | undefined;

const work = {
  /** Fetches the artwork here, so that even a large one never passes through the page. */
  async open(orderId: number, key: string): Promise<void> {
    if (artwork?.key === key) return;
    const response = await fetch(`/api/orders/${orderId}/artwork`);
    if (!response.ok) throw new Error('The artwork could not be fetched.');
    artwork = { key, value: (await response.json()) as Artwork };
  },

  plan(choices: Choices, shop: Shop): PlanView {
    if (!artwork) throw new Error('no artwork is open');
    const started = performance.now();
    const plan = planner.plan(artwork.key, artwork.value, choices, shop);
    const view = packPlan(plan, performance.now() - started);
    return transfer(view, buffersOf(view));
  },
};

export type PlanWork = typeof work;

expose(work);
