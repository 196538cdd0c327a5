import { expose, transfer } from 'comlink';
import type { Artwork } from '../../core/artwork/artwork';
import type { Choices, Shop } from '../../core/plan/plan';
import { sourceKey } from '../../core/artwork/choices';
import type { Source } from '../../core/artwork/choices';
import { createPlanner } from '../../core/plan/plan';
import type { PlanView } from './packed';
import { buffersOf, packPlan } from './packed';

const planner = createPlanner();
const artworks = new Map<string, Artwork>();

/** Artworks kept beside those that the order shows: undo and the last traces come back at once. */
const KEPT = 12;

async function fetchArtwork(source: Source): Promise<Artwork> {
  const response = await fetch(`/api/readings?source=${encodeURIComponent(JSON.stringify(source))}`);
  if (!response.ok) throw new Error('The artwork could not be fetched.');
  return (await response.json()) as Artwork;
}

const work = {
  /** Fetches artwork here, so that even a large one never passes through the page. */
  async open(sources: readonly Source[]): Promise<void> {
    const wanted = new Map(sources.map((source) => [sourceKey(source), source]));
    const missing = [...wanted].filter(([key]) => !artworks.has(key));
    await Promise.all(missing.map(async ([key, source]) => artworks.set(key, await fetchArtwork(source))));
    for (const key of artworks.keys()) {
      if (artworks.size > KEPT && !wanted.has(key)) artworks.delete(key);
    }
  },

  plan(choices: Choices, shop: Shop): PlanView {
    const started = performance.now();
    const plan = planner.plan(artworks, choices, shop);
    const view = packPlan(plan, performance.now() - started);
    return transfer(view, buffersOf(view));
  },
};

export type PlanWork = typeof work;

expose(work);
