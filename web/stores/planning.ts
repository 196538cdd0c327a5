/** The plan of the open order, made in a worker: the newest choices count, what was overtaken is dropped. */
import { proxy, wrap } from 'comlink';
import type { Remote } from 'comlink';
import { markRaw, ref, shallowRef } from 'vue';
import type { Picked, Snapped } from '../../core/artwork/pick';
import type { Source } from '../../core/artwork/choices';
import type { Finding } from '../../core/findings/finding';
import type { Region } from '../../core/geometry/region';
import type { SeamOffers } from '../../core/panels/panelling';
import type { Lying } from '../../core/packing/lying';
import type { Held, HeldPiece } from '../../core/layout/dragging';
import type { PackStep } from '../../core/layout/packCloser';
import type { LayoutChoices } from '../../core/layout/strip';
import type { Choices } from '../../core/plan/choices';
import type { Guest } from '../../core/plan/sharing';
import type { JoinOffer, PackAsked, PackOffer, StockOffer } from '../../core/plan/offers';
import type { Shop } from '../../core/plan/shop';
import type { PlanView } from '../workers/packed';
import type { PlayView } from '../workers/packedPlay';
import type { PlanWork } from '../workers/plan.worker';
import PlanWorker from '../workers/plan.worker?worker';
import type { Waiting } from './untilStopped';
import { createWaiting } from './untilStopped';

/** What is planned now; a look is a change that is only tried. */
export interface ToPlan {
  readonly choices: Choices;
  readonly shop: Shop;
  /** The order's number. */
  readonly order: number;
  readonly look: Partial<Choices> | undefined;
}

/** All artwork that a plan needs: an order's own, and that of others on its films. */
const sourcesOf = (own: Choices, guests: readonly Guest[] = []): Source[] =>
  [own, ...guests.map(({ choices }) => choices)].flatMap(({ artwork }) =>
    artwork.pieces.map(({ source }) => source),
  );

/** A planner at work beside the page. */
interface PlanThread {
  readonly plan: Remote<PlanWork>;
  readonly stop: () => void;
  /** Waits for an answer; undefined once it is stopped: a call to one that is gone never returns. */
  readonly until: Waiting['until'];
}

function openThread(): PlanThread {
  const thread = new PlanWorker();
  const waiting = createWaiting();
  const stop = (): void => {
    thread.terminate();
    waiting.stop();
  };
  return { plan: wrap<PlanWork>(thread), stop, until: waiting.until };
}

/** @param newest undefined while no order is open */
export function createPlanning(newest: () => ToPlan | undefined, failed: (error: unknown) => void) {
  const plan = shallowRef<PlanView>();
  /** The plan of what was really chosen: what is found stays listed while a fix is only looked at. */
  const chosenPlan = shallowRef<PlanView>();
  const planning = ref(false);
  /** How far a plan that takes a while is, 0 … 1. */
  const planned = ref<number>();
  /** A person stopped the plan; the next change, or {@link replan}, plans again. */
  const halted = ref(false);
  /** How far the check-over is, 0 … 1, while it runs. */
  const checking = ref<number>();
  let worker: PlanThread | undefined;
  let wanted = 0;
  let found: readonly Finding[] = [];

  function start(): void {
    worker = openThread();
  }

  /** Undefined when there is no worker, or it is stopped before it answers. */
  const asked = async <T>(ask: (plan: Remote<PlanWork>) => Promise<T>): Promise<T | undefined> =>
    worker?.until(ask(worker.plan));

  function rest(): void {
    planning.value = false;
    planned.value = undefined;
    checking.value = undefined;
  }

  function close(): void {
    wanted++;
    worker?.stop();
    worker = undefined;
    rest();
    halted.value = false;
    plan.value = chosenPlan.value = undefined;
    found = [];
  }

  function show(view: PlanView, checks: readonly Finding[], isLook: boolean): void {
    plan.value = markRaw({ ...view, findings: [...view.findings, ...checks] });
    if (!isLook) chosenPlan.value = plan.value;
  }

  async function replan(): Promise<void> {
    const mine = ++wanted;
    const now = newest();
    if (!worker || !now) return;
    planning.value = true;
    planned.value = undefined;
    halted.value = false;
    try {
      await run(now, worker.plan, () => mine === wanted);
    } catch (error) {
      if (mine === wanted) failed(error);
    } finally {
      if (mine === wanted) rest();
    }
  }

  async function run(
    { choices, shop, order, look }: ToPlan,
    work: Remote<PlanWork>,
    isNewest: () => boolean,
  ): Promise<void> {
    const all = { ...choices, ...look };
    await work.open(sourcesOf(all, shop.sharing?.guests));
    if (!isNewest()) return;
    const hear = proxy((share: number) => {
      if (isNewest() && planning.value) planned.value = share;
    });
    const view = await work.plan(all, shop, order, hear);
    if (!isNewest()) return;
    // what was found before stays listed until it is looked for again
    show(view, found, look !== undefined);
    planning.value = false;
    checking.value = 0;
    const tell = proxy((share: number) => {
      // comes over a channel of its own, so perhaps only after the result
      if (isNewest() && checking.value !== undefined) checking.value = share;
    });
    const checks = await work.check(all, shop, tell);
    if (!isNewest() || !checks) return;
    // what a look would find is not found: the list would jump when the look ends
    if (look === undefined) found = checks;
    show(view, checks, look !== undefined);
  }

  /** Gives a plan up that takes too long: what was shown stays, and nothing is cut from it. */
  function halt(): void {
    if (!planning.value) return;
    wanted++;
    worker?.stop();
    start();
    rest();
    halted.value = true;
  }

  const pick = (x: number, y: number, reach: number): Promise<Picked | undefined> =>
    asked((work) => work.pick([x, y], reach));
  const pile = async (x: number, y: number): Promise<readonly string[]> =>
    (await asked((work) => work.pile([x, y]))) ?? [];
  const shapeAt = (film: string, x: number, y: number): Promise<Region | undefined> =>
    asked((work) => work.piece(film, [x, y]));
  /** The same of the order as it stands. */
  const askedNow = async <T>(
    ask: (plan: Remote<PlanWork>, now: ToPlan) => Promise<T>,
  ): Promise<T | undefined> => {
    const now = newest();
    return now && asked((plan) => ask(plan, now));
  };
  /** Tells what each way to place seams comes to. */
  const seamOffers = (tell: (offers: SeamOffers) => void): Promise<unknown> =>
    askedNow((work, { choices, shop }) => work.seams(choices, shop, proxy(tell)));
  /** Tells what each way to take art apart would come to. */
  const packOffers = (tell: (offer: PackOffer) => void): Promise<unknown> =>
    askedNow((work, { choices, shop }) => work.packs(choices, shop, proxy(tell)));
  /** Tells what a film comes to on each roll, pile and offcut. */
  const stockOffers = (film: string, tell: (offer: StockOffer) => void): Promise<unknown> =>
    askedNow((work, { choices, shop }) => work.stocks(choices, shop, film, proxy(tell)));
  /** Tells what a film comes to with each of some orders on it. */
  const joinOffers = (
    film: string,
    guests: readonly Guest[],
    tell: (offer: JoinOffer) => void,
  ): Promise<unknown> =>
    askedNow(async (work, { choices, shop }) => {
      await work.open(sourcesOf(choices, [...(shop.sharing?.guests ?? []), ...guests]));
      return work.joins(choices, shop, film, guests, proxy(tell));
    });
  /** As many copies as there is room for in one strip of every film; 0: not even one, or something else was planned. */
  const mostCopies = async (tell: (copies: number) => void): Promise<number> =>
    (await askedNow((work, { choices, shop }) => work.most(choices, shop, proxy(tell)))) ?? 0;
  /**
   * Packs films closer; tells how far it is, and perhaps once more when it is over.
   * @returns where pieces lie at last, by film; undefined when it was given up with its plan
   */
  const pack = (
    how: PackAsked,
    tell: (step: PackStep) => void,
  ): Promise<LayoutChoices['packed'] | undefined> =>
    askedNow((work, { choices, shop }) => work.pack(choices, shop, how, proxy(tell)));
  /** Takes a piece of a packed film up: how it would lie is then asked of {@link held}. */
  const hold = (piece: HeldPiece & { readonly film: string }): Promise<unknown> =>
    askedNow((work, { choices, shop }) => work.hold(choices, shop, piece));
  const held = (lying: Lying): Promise<Held | undefined> => asked((work) => work.held(lying));
  const stopPacking = async (): Promise<void> => worker?.plan.stopPacking();
  const snap = (x: number, y: number, reach: number): Promise<Snapped | undefined> =>
    asked((work) => work.snap([x, y], reach));
  /** A strip's or a sheet's cut, moment by moment. */
  const play = (id: string): Promise<PlayView | undefined> => asked((work) => work.play(id));
  return {
    plan,
    chosenPlan,
    planning,
    planned,
    halted,
    checking,
    start,
    close,
    replan,
    halt,
    pick,
    pile,
    shapeAt,
    seamOffers,
    packOffers,
    stockOffers,
    joinOffers,
    mostCopies,
    pack,
    hold,
    held,
    stopPacking,
    snap,
    play,
  };
}
