import { proxy, wrap } from 'comlink';
import type { Remote } from 'comlink';
import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef } from 'vue';
import type { Cut, Order } from '../../contracts/api';
import type { Picked, Snapped } from '../../core/artwork/pick';
import type { Again } from '../../core/films/again';
import type { Finding } from '../../core/findings/finding';
import type { Region } from '../../core/geometry/region';
import type { Choices, Shop } from '../../core/plan/plan';
import type { PlanView } from '../workers/packed';
import type { PlanWork } from '../workers/plan.worker';
import PlanWorker from '../workers/plan.worker?worker';
import { ApiProblem, call } from './api';
import { useEvents } from './events';

/** What of an order is to be cut: nothing said, all of it. */
export interface CutPart {
  readonly films?: readonly string[];
  readonly again?: Again;
}

const RETRY_MS = 2000;
const pendingKey = (id: number): string => `jam-pan-pending-${id}`;

let shopOnce: Promise<Shop> | undefined;
const loadShop = (): Promise<Shop> =>
  (shopOnce ??= call<Shop>('GET', '/api/shop').catch((error: unknown) => {
    shopOnce = undefined;
    throw error;
  }));

/** After a film was changed: the next order that is opened is planned with it. */
export const forgetShop = (): void => void (shopOnce = undefined);

/**
 * One open order. A change shows at once, is planned in the worker, and is saved behind the scenes; what is not
 * saved yet also lies in the browser's own store, so that neither a reload nor a lost server loses it.
 */
export const useOrder = defineStore('order', () => {
  const order = ref<Order>();
  const choices = shallowRef<Choices>();
  const shop = shallowRef<Shop>();
  const plan = shallowRef<PlanView>();
  /** The plan of what was really chosen: what is found stays listed while a fix is only looked at. */
  const chosenPlan = shallowRef<PlanView>();
  const cuts = ref<Cut[]>([]);
  /** A change that is only looked at: planned and shown, never saved. */
  const looked = shallowRef<Partial<Choices>>();
  const planning = ref(false);
  /** How far a plan that takes a while is, 0 … 1. */
  const planned = ref<number>();
  /** A person stopped the plan; the next change, or {@link planNow}, plans again. */
  const halted = ref(false);
  /** How far the check-over is, 0 … 1, while it runs. */
  const checking = ref<number>();
  const saving = ref<'saved' | 'saving' | 'waiting'>('saved');
  const problem = ref<ApiProblem>();
  let worker: { readonly plan: Remote<PlanWork>; readonly stop: () => void } | undefined;
  let pending: Partial<Choices>[] = [];
  let wanted = 0;
  let sending = false;
  /** Changes that the server has taken from here. */
  let saves = 0;
  let found: readonly Finding[] = [];

  const events = useEvents();
  events.on(
    (event) => {
      if (event.kind === 'head' || event.kind === 'stop' || event.orderId !== order.value?.id) return;
      if (event.kind === 'cut') void loadCuts();
      else if (pending.length === 0 && !sending) void reload();
    },
    () => void reload(),
  );

  function startWorker(): NonNullable<typeof worker> {
    const thread = new PlanWorker();
    return { plan: wrap<PlanWork>(thread), stop: () => thread.terminate() };
  }

  async function open(id: number): Promise<void> {
    close();
    try {
      const [loaded, theShop] = await Promise.all([call<Order>('GET', `/api/orders/${id}`), loadShop()]);
      shop.value = markRaw(theShop);
      accept(loaded);
      restorePending(id);
      worker = startWorker();
      void loadCuts();
      await replan();
    } catch (error) {
      fail(error);
    }
  }

  function close(): void {
    worker?.stop();
    worker = undefined;
    planning.value = false;
    planned.value = undefined;
    checking.value = undefined;
    halted.value = false;
    order.value = undefined;
    choices.value = undefined;
    plan.value = undefined;
    chosenPlan.value = undefined;
    found = [];
    looked.value = undefined;
    problem.value = undefined;
    cuts.value = [];
    pending = [];
  }

  function fail(error: unknown): void {
    if (!(error instanceof ApiProblem)) throw error;
    problem.value = error;
  }

  function accept(loaded: Order): void {
    order.value = loaded;
    choices.value = markRaw(
      pending.reduce<Choices>((all, change) => ({ ...all, ...change }), loaded.choices),
    );
  }

  function restorePending(id: number): void {
    pending = JSON.parse(localStorage.getItem(pendingKey(id)) ?? '[]') as Partial<Choices>[];
    if (pending.length === 0 || !order.value) return;
    accept(order.value);
    void send();
  }

  async function reload(): Promise<void> {
    if (!order.value) return;
    const { id } = order.value;
    const savesBefore = saves;
    try {
      const loaded = await call<Order>('GET', `/api/orders/${id}`);
      if (order.value?.id !== id) return;
      // something was saved while this was on its way: it may be older than what is shown
      if (saves !== savesBefore) return await reload();
      const before = JSON.stringify(choices.value);
      if (pending.length > 0 || sending) return;
      accept(loaded);
      if (JSON.stringify(choices.value) !== before) await replan();
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
    }
  }

  async function loadCuts(): Promise<void> {
    if (!order.value) return;
    cuts.value = await call<Cut[]>('GET', `/api/cuts?order=${order.value.id}`).catch(() => cuts.value);
  }

  /** Plans the newest choices; results that were overtaken are dropped. */
  async function replan(): Promise<void> {
    const mine = ++wanted;
    if (!worker || !order.value || !choices.value || !shop.value) return;
    planning.value = true;
    planned.value = undefined;
    halted.value = false;
    try {
      const now = { ...choices.value, ...looked.value };
      await worker.plan.open(now.artwork.pieces.map(({ source }) => source));
      if (mine !== wanted) return;
      const hear = proxy((share: number) => {
        if (mine === wanted && planning.value) planned.value = share;
      });
      const view = await worker.plan.plan(now, shop.value, hear);
      if (mine !== wanted) return;
      // what was found before stays listed until it is looked for again
      show(view, found);
      planning.value = false;
      checking.value = 0;
      const tell = proxy((share: number) => {
        // comes over a channel of its own, so perhaps only after the result
        if (mine === wanted && checking.value !== undefined) checking.value = share;
      });
      const checks = await worker.plan.check(now, shop.value, tell);
      if (mine !== wanted || !checks) return;
      found = checks;
      show(view, found);
    } catch (error) {
      if (mine === wanted)
        problem.value = new ApiProblem(0, 'plan', `This order could not be planned: ${String(error)}`);
    } finally {
      if (mine === wanted) {
        planning.value = false;
        checking.value = undefined;
      }
    }
  }

  /** Gives a plan up that takes too long: what was shown stays, and nothing is cut from it. */
  function halt(): void {
    if (!planning.value) return;
    wanted++;
    worker?.stop();
    worker = startWorker();
    planning.value = false;
    planned.value = undefined;
    checking.value = undefined;
    halted.value = true;
  }

  function show(view: PlanView, checks: readonly Finding[]): void {
    plan.value = markRaw({ ...view, findings: [...view.findings, ...checks] });
    if (looked.value === undefined) chosenPlan.value = plan.value;
  }

  /** Changes whole sections of the choices. */
  function change(change: Partial<Choices>): void {
    if (!order.value || !choices.value) return;
    looked.value = undefined;
    choices.value = markRaw({ ...choices.value, ...change });
    pending.push(change);
    keepPending();
    void replan();
    void send();
  }

  /** Shows what a change would do; nothing ends it. */
  function look(change: Partial<Choices> | undefined): void {
    if (looked.value === change) return;
    looked.value = change && markRaw(change);
    void replan();
  }

  const pick = async (x: number, y: number, reach: number): Promise<Picked | undefined> =>
    worker?.plan.pick([x, y], reach);
  const pile = async (x: number, y: number): Promise<readonly string[]> =>
    (await worker?.plan.pile([x, y])) ?? [];
  const pieceAt = async (film: string, x: number, y: number): Promise<Region | undefined> =>
    worker?.plan.piece(film, [x, y]);
  const snap = async (x: number, y: number, reach: number): Promise<Snapped | undefined> =>
    worker?.plan.snap([x, y], reach);

  function keepPending(): void {
    if (!order.value) return;
    const key = pendingKey(order.value.id);
    if (pending.length === 0) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(pending));
  }

  async function send(): Promise<void> {
    if (sending || !order.value) return;
    sending = true;
    const { id } = order.value;
    while (pending.length > 0 && order.value?.id === id) {
      saving.value = saving.value === 'waiting' ? 'waiting' : 'saving';
      try {
        const saved = await call<Order>('PATCH', `/api/orders/${id}/choices`, {
          base: order.value.revision,
          change: pending[0],
        });
        pending.shift();
        keepPending();
        saves++;
        saving.value = 'saved';
        if (order.value?.id === id) accept(saved);
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error;
        if (error.code === 'away') {
          saving.value = 'waiting';
          await new Promise((done) => setTimeout(done, RETRY_MS));
        } else {
          // the server will never take this one: go back to what it has and say so
          pending = [];
          keepPending();
          problem.value = error;
          saving.value = 'saved';
          sending = false;
          await reload();
          return;
        }
      }
    }
    sending = false;
  }

  let steps: Promise<void> = Promise.resolve();
  /** One step after the other, each once all before it is saved: however fast a hand is, none is lost. */
  function step(word: 'undo' | 'redo'): Promise<void> {
    steps = steps.then(() => stepNow(word));
    return steps;
  }

  async function stepNow(word: 'undo' | 'redo'): Promise<void> {
    while (sending && saving.value !== 'waiting') await new Promise((done) => setTimeout(done, 20));
    if (!order.value || pending.length > 0 || sending) return;
    sending = true;
    try {
      const stepped = await call<Order>('POST', `/api/orders/${order.value.id}/${word}`);
      saves++;
      accept(stepped);
      await replan();
    } catch (error) {
      fail(error);
    } finally {
      sending = false;
    }
  }

  async function rename(name: string): Promise<void> {
    if (!order.value || name.trim() === '' || name === order.value.name) return;
    try {
      const { id } = order.value;
      const renamed = await call<Order>('PATCH', `/api/orders/${id}`, { name: name.trim().slice(0, 120) });
      // its choices may be older than what is shown by now
      if (order.value?.id === id) order.value = { ...order.value, name: renamed.name };
    } catch (error) {
      fail(error);
    }
  }

  /** @returns the cuts, or undefined when the order could not be queued (then `problem` says why) */
  async function queue(part: CutPart = {}): Promise<Cut[] | undefined> {
    if (!order.value) return undefined;
    problem.value = undefined;
    try {
      cuts.value = await call<Cut[]>('POST', `/api/orders/${order.value.id}/queue`, {
        revision: order.value.revision,
        ...part,
      });
      return openCuts.value;
    } catch (error) {
      fail(error);
      return undefined;
    }
  }

  /** Whether something that was cut can be cut once more as it now stands. */
  const canRecut = computed(
    () =>
      cuts.value.length > 0 &&
      openCuts.value.length === 0 &&
      saving.value === 'saved' &&
      !planning.value &&
      !halted.value,
  );
  const openCuts = computed(() =>
    cuts.value.filter((cut) => cut.state !== 'done' && cut.state !== 'cancelled'),
  );
  return {
    order,
    choices,
    shop,
    plan,
    chosenPlan,
    cuts,
    openCuts,
    canRecut,
    planning,
    planned,
    halted,
    halt,
    planNow: replan,
    checking,
    saving,
    problem,
    open,
    close,
    change,
    look,
    looked,
    pick,
    snap,
    pile,
    pieceAt,
    undo: () => step('undo'),
    redo: () => step('redo'),
    rename,
    queue,
  };
});
