import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef } from 'vue';
import type { Cut } from '../../contracts/cuts';
import type { CutterChange, ShopChange, ShopNow } from '../../contracts/shop';
import type { Order } from '../../contracts/api';
import type { Again } from '../../core/films/again';
import type { Choices } from '../../core/plan/choices';
import { ApiProblem, call } from './api';
import { useEvents } from './events';
import { keptIn } from './kept';
import { createPlanning } from './planning';
import { createSharing } from './sharing';
import type { MetClash, Saving, Session } from './session';
import { createSession } from './session';

/** What of an order is to be cut: nothing said, all of it. */
export interface CutPart {
  /** Goes onto the shelf, to be sent later. */
  readonly hold?: boolean;
  readonly films?: readonly string[];
  readonly again?: Again;
  readonly panels?: readonly number[];
  readonly sheets?: readonly number[];
  /** Only the order's own art, and also what is cut with another order. */
  readonly own?: boolean;
}

const stores = { shared: localStorage, tab: sessionStorage, now: Date.now };
const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** One open order: what is chosen in it, its plan, its cuts. */
export const useOrder = defineStore('order', () => {
  const order = ref<Order>();
  const choices = shallowRef<Choices>();
  const shop = shallowRef<ShopNow>();
  const cuts = ref<Cut[]>([]);
  /** A change that is only looked at: planned and shown, never saved. */
  const looked = shallowRef<Partial<Choices>>();
  const saving = ref<Saving>('saved');
  const problem = ref<ApiProblem>();
  /** Fields that somebody else has changed otherwise. */
  const clashes = ref<readonly MetClash[]>([]);
  let session: Session | undefined;
  const shared = createSharing(
    () => order.value?.id,
    () => void replan(),
  );

  const {
    start: startPlanning,
    close: closePlanning,
    replan,
    ...planner
  } = createPlanning(
    () =>
      choices.value &&
      shop.value &&
      order.value && {
        choices: choices.value,
        shop: { ...shop.value, sharing: shared.sharing.value },
        order: order.value.number,
        look: looked.value,
      },
    (error) =>
      (problem.value = new ApiProblem(0, 'plan', `This order could not be planned: ${String(error)}`)),
  );

  const events = useEvents();
  events.on(
    (event) => {
      if (event.kind === 'shop') return void loadShop();
      if ((event.kind !== 'order' && event.kind !== 'cut') || !order.value) return;
      const isOwn = event.orderId === order.value.id;
      if (event.kind === 'cut') {
        if (isOwn || cuts.value.some(({ id }) => id === event.cutId)) void loadCuts();
      } else if (isOwn || shared.isWith(event.orderId)) {
        if (isOwn) void session?.reload();
        void shared.reload();
        // guests are queued with their host
        if (Object.keys(shared.away.value).length > 0) void loadCuts();
      }
    },
    () => {
      if (!order.value) return;
      void session?.reload();
      void shared.reload();
      void loadCuts();
      void loadShop();
    },
  );

  async function open(id: number): Promise<void> {
    close();
    try {
      const [loaded, theShop, itShares] = await Promise.all([
        call('GET /api/orders/{id}', { params: { id } }),
        call('GET /api/shop'),
        shared.fetchFor(id),
      ]);
      shop.value = markRaw(theShop);
      shared.set(itShares);
      session = begin(loaded);
      startPlanning();
      show(session);
      void loadCuts();
    } catch (error) {
      fail(error);
    }
  }

  /** A session that is left goes on saving, but shows nothing any more. */
  function begin(loaded: Order): Session {
    // it may have something to send, and so to tell, before it is there
    let own: Session | undefined = undefined;
    const isShown = (): boolean => own !== undefined && session === own;
    own = createSession(loaded, {
      call,
      wait,
      kept: keptIn(loaded.id, stores),
      tell: () => isShown() && show(session!),
      clashed: (more, met) =>
        isShown() && (clashes.value = [...clashes.value, ...more.map((clash) => ({ ...clash, met }))]),
      failed: (why) => isShown() && (problem.value = why),
    });
    return own;
  }

  function show(from: Session): void {
    order.value = from.order();
    saving.value = from.saving();
    const now = from.choices();
    if (choices.value === now) return;
    choices.value = markRaw(now);
    void replan();
  }

  function close(): void {
    session = undefined;
    closePlanning();
    order.value = undefined;
    choices.value = undefined;
    looked.value = undefined;
    problem.value = undefined;
    clashes.value = [];
    cuts.value = [];
    shared.set(undefined);
    saving.value = 'saved';
  }

  function fail(error: unknown): void {
    if (!(error instanceof ApiProblem)) throw error;
    problem.value = error;
  }

  async function loadCuts(): Promise<void> {
    if (!order.value) return;
    cuts.value = await call('GET /api/cuts', { query: { order: order.value.id } }).catch(() => cuts.value);
  }

  /** The shop's films, recipes and cutters as they are now. */
  async function loadShop(): Promise<void> {
    const now = await call('GET /api/shop').catch(() => undefined);
    if (!now || !shop.value || now.version === shop.value.version) return;
    shop.value = markRaw(now);
    await replan();
  }

  /** Changes whole sections of the choices. */
  function change(change: Partial<Choices>): void {
    looked.value = undefined;
    session?.change(change);
  }

  /** Every colour that is seen goes to print. */
  function printAll(): void {
    if (!choices.value || !planner.plan.value) return;
    const print = planner.plan.value.colours.map(({ colour }) => colour);
    change({ films: { ...choices.value.films, off: [], print } });
  }

  /** Shows what a change would do; nothing ends it. */
  function look(change: Partial<Choices> | undefined): void {
    if (looked.value === change) return;
    looked.value = change && markRaw(change);
    void replan();
  }

  /** One's own value after all, or the other one's. */
  function settleClash(clash: MetClash, keep: 'mine' | 'theirs'): void {
    clashes.value = clashes.value.filter((one) => one !== clash);
    const { path, theirs, mine } = clash;
    if (keep === 'mine')
      session?.edit([
        {
          path,
          ...(theirs === undefined ? {} : { was: theirs }),
          ...(mine === undefined ? {} : { is: mine }),
        },
      ]);
  }

  /** Changes what the shop sets of a cutter, for all orders. */
  async function changeCutter(cutter: string, change: CutterChange): Promise<boolean> {
    try {
      shop.value = markRaw(await call('PATCH /api/cutters/{cutter}', { params: { cutter }, body: change }));
      await replan();
      return true;
    } catch (error) {
      fail(error);
      return false;
    }
  }

  /** Changes what the shop sets of itself. */
  async function changeShop(change: ShopChange): Promise<void> {
    try {
      shop.value = markRaw(await call('PATCH /api/shop', { body: change }));
      await replan();
    } catch (error) {
      fail(error);
    }
  }

  /** @returns the cuts, or undefined when the order could not be queued (then `problem` says why) */
  async function queue(part: CutPart = {}): Promise<Cut[] | undefined> {
    if (!order.value) return undefined;
    problem.value = undefined;
    try {
      cuts.value = await call('POST /api/orders/{id}/queue', {
        params: { id: order.value.id },
        body: {
          revision: order.value.revision,
          shop: shop.value?.version,
          sharing: shared.sharing.value?.version,
          ...part,
        },
      });
      return openCuts.value;
    } catch (error) {
      fail(error);
      void shared.reload();
      return undefined;
    }
  }

  /** Other orders on a film: taken along, or let go. */
  function takeAlong(film: string, guests: readonly number[]): void {
    const { layout } = choices.value!;
    const { [film]: _before, ...rest } = layout.guests;
    change({ layout: { ...layout, guests: guests.length === 0 ? rest : { ...rest, [film]: guests } } });
  }

  /** Has a film cut by itself that another order takes along. */
  const cutByItself = (film: string): Promise<void> => shared.cutByItself(film).catch(fail);

  /** The order that all of this one is cut with; undefined: something of it is cut by itself. */
  const cutWith = computed(() =>
    planner.plan.value?.strips.length === 0 ? Object.values(shared.away.value).at(0) : undefined,
  );
  /** What was changed last is on the server, and planned. */
  const isUpToDate = computed(() => saving.value === 'saved' && !planner.planning.value);
  /** Whether something that was cut can be cut once more as it now stands. */
  const canRecut = computed(
    () => cuts.value.length > 0 && openCuts.value.length === 0 && isUpToDate.value && !planner.halted.value,
  );
  const openCuts = computed(() =>
    cuts.value.filter((cut) => cut.state !== 'done' && cut.state !== 'cancelled'),
  );
  return {
    order,
    choices,
    shop,
    cuts,
    sharing: shared.sharing,
    away: shared.away,
    cutWith,
    takeAlong,
    cutByItself,
    openCuts,
    canRecut,
    isUpToDate,
    saving,
    problem,
    clashes,
    settleClash,
    open,
    close,
    change,
    printAll,
    look,
    changeCutter,
    changeShop,
    looked,
    ...planner,
    planNow: replan,
    undo: async () => session?.step('undo'),
    redo: async () => session?.step('redo'),
    rename: async (name: string) => session?.describe({ name }),
    /** @param due `yyyy-mm-dd`, or null */
    setDue: async (due: string | null) => session?.describe({ due }),
    queue,
  };
});
