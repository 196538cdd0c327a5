import { expose, transfer } from 'comlink';
import { addressOf } from '../../contracts/address';
import type { Artwork } from '../../core/readers/artwork';
import type { SeamOffers } from '../../core/panels/panelling';
import type { Choices } from '../../core/plan/choices';
import type { Shop } from '../../core/plan/shop';
import type { Picked, Snapped } from '../../core/artwork/pick';
import { pickAt, snapAt } from '../../core/artwork/pick';
import type { PreparedArtwork } from '../../core/artwork/prepare';
import { shapeAt } from '../../core/films/again';
import { pileAt } from '../../core/films/overlap';
import type { FilmLayer } from '../../core/films/separate';
import type { Finding } from '../../core/findings/finding';
import type { Region } from '../../core/geometry/region';
import type { Spot } from '../../core/geometry/spot';
import { sourceKey } from '../../core/artwork/choices';
import type { Source } from '../../core/artwork/choices';
import type { Lying } from '../../core/packing/lying';
import type { Held, HeldPiece } from '../../core/layout/dragging';
import type { PackStep } from '../../core/layout/packCloser';
import type { LayoutChoices, PackedStrip } from '../../core/layout/strip';
import type { Guest } from '../../core/plan/sharing';
import type { JoinOffer, PackAsked, PackOffer, StockOffer } from '../../core/plan/offers';
import { createPlanner } from '../../core/plan/plan';
import type { PlannedCut } from '../../core/plan/planned';
import { allCuts } from '../../core/plan/planned';
import type { PlanView } from './packed';
import { buffersOf, packPlan } from './packed';
import type { PlayView } from './packedPlay';
import { playBuffers, playView } from './packedPlay';

const planner = createPlanner();
const artworks = new Map<string, Artwork>();
/** Counts what was asked for: whatever is not the newest any more is given up. */
let newest = 0;
/** Counts searches for less film in the same way. */
let packing = 0;
/** How long a check-over goes on before it looks up. */
const BREATH_MS = 40;
/** A plan that is still running tells its share this often. */
const TELL_MS = 150;
/** The piece that is held over its film. */
let holding: ((lying: Lying) => Held) | undefined;
let shown: PreparedArtwork | undefined;
let layers: readonly FilmLayer[] = [];
let cuts: readonly PlannedCut[] = [];

/** Artworks kept beside those that the order shows: undo and the last traces come back at once. */
const KEPT = 12;

async function fetchArtwork(source: Source): Promise<Artwork> {
  const response = await fetch(addressOf('GET /api/readings', { query: { source: JSON.stringify(source) } }));
  if (!response.ok) throw new Error('The artwork could not be fetched.');
  return (await response.json()) as Artwork;
}

/** Tells one thing after the other; given up as soon as anything newer is planned. @returns whether all were told */
async function toldAll<T>(things: Iterable<T>, tell: (thing: T) => void): Promise<boolean> {
  const mine = newest;
  for (const thing of things) {
    tell(thing);
    await new Promise((go) => setTimeout(go));
    if (mine !== newest) return false;
  }
  return true;
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

  /**
   * @param order its number, as it is written on panels
   * @param tell hears how far it is, 0 … 1
   */
  plan(choices: Choices, shop: Shop, order: number, tell: (share: number) => void): PlanView {
    newest++;
    const started = performance.now();
    let told = started;
    const hear = (share: number): void => {
      if (performance.now() - told < TELL_MS) return;
      told = performance.now();
      tell(share);
    };
    const plan = planner.plan(artworks, choices, shop, { order, tell: hear });
    shown = plan.prepared;
    layers = plan.separation.films;
    cuts = allCuts(plan);
    const view = packPlan(plan, performance.now() - started, choices, artworks, order);
    return transfer(view, buffersOf(view));
  },

  /**
   * What would spoil film: asked for after the plan, so that the sign never waits for it. Given up as soon as anything
   * newer is planned.
   * @param tell hears how far it is, 0 … 1
   */
  async check(choices: Choices, shop: Shop, tell: (share: number) => void): Promise<Finding[] | undefined> {
    const mine = ++newest;
    const steps = planner.check(artworks, choices, shop);
    let told = performance.now();
    for (;;) {
      const { done, value } = steps.next();
      if (done) return value;
      if (performance.now() - told < BREATH_MS) continue;
      tell(value);
      await new Promise((go) => setTimeout(go));
      if (mine !== newest) return undefined;
      told = performance.now();
    }
  },

  /** What each way to place seams comes to, told one by one. */
  seams: (choices: Choices, shop: Shop, tell: (offers: SeamOffers) => void): Promise<boolean> =>
    toldAll(planner.seams(artworks, choices, shop), tell),

  /** What each way to take art apart would come to, told one by one. */
  packs: (choices: Choices, shop: Shop, tell: (offer: PackOffer) => void): Promise<boolean> =>
    toldAll(planner.packs(artworks, choices, shop), (offer) => offer && tell(offer)),

  /** As many copies as there is room for, told as they become more. @returns how many at last; 0: not even one, or given up */
  async most(choices: Choices, shop: Shop, tell: (copies: number) => void): Promise<number> {
    let most = 0;
    const isAll = await toldAll(planner.most(artworks, choices, shop), (copies) => tell((most = copies)));
    return isAll ? most : 0;
  },

  /** What a film comes to with one more order on it, told order by order. */
  joins: (
    choices: Choices,
    shop: Shop,
    film: string,
    guests: readonly Guest[],
    tell: (offer: JoinOffer) => void,
  ): Promise<boolean> =>
    toldAll(planner.joins(artworks, choices, shop, film, guests), (offer) => offer && tell(offer)),

  /** What a film comes to on each roll, pile and offcut, told one by one. */
  stocks: (choices: Choices, shop: Shop, film: string, tell: (offer: StockOffer) => void): Promise<boolean> =>
    toldAll(planner.stocks(artworks, choices, shop, film), tell),

  /**
   * Packs films closer, until all rounds are over or {@link stopPacking} is called; plans that are asked for meanwhile are
   * made between rounds.
   * @returns where pieces lie then, by film
   */
  async pack(
    choices: Choices,
    shop: Shop,
    how: PackAsked,
    tell: (step: PackStep) => void,
  ): Promise<LayoutChoices['packed']> {
    const mine = ++packing;
    let told = performance.now();
    let looked = told;
    const found: Record<string, readonly PackedStrip[]> = {};
    for (const step of planner.pack(artworks, choices, shop, how)) {
      found[step.film] = step.packed;
      if (performance.now() - told > TELL_MS) {
        told = performance.now();
        tell(step);
      }
      if (performance.now() - looked < BREATH_MS) continue;
      await new Promise((go) => setTimeout(go));
      looked = performance.now();
      if (mine !== packing) break;
    }
    return found;
  },

  /** Takes a piece up; {@link held} says how it would lie. @returns whether it is there */
  hold(choices: Choices, shop: Shop, piece: HeldPiece & { readonly film: string }): boolean {
    holding = planner.hold(artworks, choices, shop, piece);
    return holding !== undefined;
  },

  held: (lying: Lying): Held | undefined => holding?.(lying),

  stopPacking(): void {
    packing++;
  },

  /** The frontmost shape at a place of the sign as last planned. */
  pick: (at: Spot, reach: number): Picked | undefined => (shown ? pickAt(shown, at, reach) : undefined),

  /** Films that lie on one another at a place of the sign, base first. */
  pile: (at: Spot): string[] => pileAt(layers, at).map(({ film }) => film.name),

  /** The outlines of a film's piece at a place of the sign. */
  piece: (film: string, at: Spot): Region | undefined => {
    const layer = layers.find((one) => one.film.id === film);
    return layer && shapeAt(layer.region, at);
  },

  /** A strip's or a sheet's cut as last planned, moment by moment; undefined: there is none of that name any more. */
  play(id: string): PlayView | undefined {
    const cut = cuts.find(({ strip }) => strip.id === id);
    if (!cut) return undefined;
    const view = playView(cut, planner.followed(cut));
    return transfer(view, playBuffers(view));
  },

  snap: (at: Spot, reach: number): Snapped | undefined => (shown ? snapAt(shown, at, reach) : undefined),
};

export type PlanWork = typeof work;

expose(work);
