/** All cutters with what they cut now and next, and what may be done about it. */
import { useNow } from '@vueuse/core';
import { computed, onMounted, ref, shallowRef } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import type { FewestSwaps, FloorNow, Join, LoadedNow } from '../../../contracts/floor';
import { isInLane, isJoinable, isWaiting, joinableOf, laneCutOf, wantedOf } from '../../../contracts/floor';
import type { CutterState } from '../../../contracts/shop';
import { groupsToJoin } from '../../../core/floor/joining';
import type { Block } from '../../../core/floor/lane';
import { timeline } from '../../../core/floor/lane';
import { laneRefusal } from '../../../core/floor/refusal';
import type { Cutter } from '../../../core/layout/cutter';
import { ApiProblem, call } from '../../stores/api';
import { useCutters } from '../../stores/cutters';
import { useListening } from '../../stores/events';
import { oneAtATime } from '../../stores/oneAtATime';
import { useOutdated } from '../../stores/outdated';

/** A cut with its place on the time axis. */
export interface CutBlock extends Omit<Block, 'cut'> {
  readonly cut: Cut;
}
export interface Lane {
  readonly cutter: Cutter;
  readonly state: CutterState | undefined;
  readonly loaded: LoadedNow | undefined;
  readonly blocks: readonly CutBlock[];
}

const TICK_MS = 1000;

export function useFloor() {
  const store = useCutters();
  store.follow();
  const cutters = shallowRef<readonly Cutter[]>([]);
  const floor = ref<FloorNow>({ paused: false, loaded: [] });
  const problem = ref<ApiProblem>();
  const now = useNow({ interval: TICK_MS });

  const { ask: lookAtFloor } = oneAtATime(async () => {
    floor.value = await call('GET /api/floor').catch(() => floor.value);
  });
  const { ask: lookAtShop } = oneAtATime(async () => {
    const shop = await call('GET /api/shop').catch(() => undefined);
    if (shop) cutters.value = [...shop.cutters].sort((a, b) => b.widest - a.widest);
  });
  const lookAtAll = (): void => {
    void lookAtFloor();
    void lookAtShop();
  };
  onMounted(lookAtAll);

  /** s done of cuts under way, as their machines tell. */
  const done = ref<Readonly<Record<number, number>>>({});
  useListening((event) => {
    if (event.kind === 'heads') {
      const now = event.heads.map(({ cutId, secondsDone }) => [cutId, secondsDone]);
      done.value = { ...done.value, ...(Object.fromEntries(now) as Record<number, number>) };
    } else if (event.kind === 'floor' || event.kind === 'cut') void lookAtFloor();
    else if (event.kind === 'shop') void lookAtShop();
  }, lookAtAll);
  const cuts = computed(() =>
    store.cuts.map((cut) => ({ ...cut, secondsDone: Math.max(cut.secondsDone, done.value[cut.id] ?? 0) })),
  );

  const lanes = computed<Lane[]>(() =>
    cutters.value.map((cutter) => {
      const own = cuts.value.filter((cut) => cut.cutterId === cutter.id && isInLane(cut));
      const loaded = floor.value.loaded.find((one) => one.cutter === cutter.id);
      const blocks = timeline(
        own.map((cut) => laneCutOf(cut, now.value)),
        loaded,
      );
      return {
        cutter,
        loaded,
        state: store.states.find(({ id }) => id === cutter.id),
        blocks: blocks.map((block, i) => ({ ...block, cut: own[i] })),
      };
    }),
  );
  const shelf = computed(() => cuts.value.filter(({ state }) => state === 'held'));

  const outdated = useOutdated(() => store.cuts);

  async function ask(work: () => Promise<unknown>): Promise<boolean> {
    problem.value = undefined;
    try {
      await work();
      return true;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error;
      return false;
    } finally {
      await store.fetchCuts();
    }
  }

  /** Why a cutter does not take a cut; undefined: it does, or it is there already. */
  const refusal = (cut: Cut, cutter: Cutter): string | undefined =>
    cut.cutterId === cutter.id ? undefined : laneRefusal(wantedOf(cut), cutter);
  const move = (cut: Cut, cutter: string, before: number | null): Promise<boolean> =>
    ask(() => call('POST /api/cuts/{id}/move', { params: { id: cut.id }, body: { cutter, before } }));
  /** One place earlier or later among those that wait. */
  function shift(cut: Cut, by: -1 | 1): Promise<boolean> {
    const lane = cuts.value.filter((one) => one.cutterId === cut.cutterId && isWaiting(one));
    const at = lane.findIndex(({ id }) => id === cut.id);
    const before = by < 0 ? lane[at - 1] : lane[at + 2];
    if (at < 0 || (by < 0 && at === 0) || (by > 0 && at === lane.length - 1)) return Promise.resolve(false);
    return move(cut, cut.cutterId, before?.id ?? null);
  }

  const proposals = ref<FewestSwaps>();
  const lookForFewer = (): Promise<boolean> =>
    ask(async () => (proposals.value = await call('GET /api/floor/fewest-swaps')));
  async function accept({ cutter, ids }: FewestSwaps[number]): Promise<void> {
    await ask(() => call('POST /api/cutters/{cutter}/lane', { params: { cutter }, body: { ids: [...ids] } }));
    proposals.value = proposals.value?.filter((one) => one.cutter !== cutter);
  }

  const joins = ref<readonly Join[]>();
  /** A cut with all that it may be joined with; nothing: there is no other. */
  const groupOf = ({ id }: Cut): readonly Cut[] => {
    const groups = groupsToJoin(cuts.value.filter(isJoinable).map(joinableOf));
    return groups.find((group) => group.some((one) => one.id === id))?.map(({ cut }) => cut) ?? [];
  };
  const lookForJoins = (): Promise<boolean> =>
    ask(async () => (joins.value = await call('GET /api/floor/joins')));
  const tryJoin = (group: readonly Cut[]): Promise<boolean> =>
    ask(async () => {
      const body = { cuts: group.map(({ id }) => id) };
      joins.value = [await call('POST /api/floor/joins/try', { body })];
    });
  /** @returns the cut on which several orders are then; undefined: they were not joined */
  async function join({ cuts: ids }: Join): Promise<Cut | undefined> {
    let made: readonly Cut[] = [];
    if (!(await ask(async () => (made = await call('POST /api/floor/joins', { body: { cuts: [...ids] } }))))) return undefined; // prettier-ignore
    joins.value = joins.value?.filter((one) => one.cuts !== ids);
    if (joins.value?.length === 0) joins.value = undefined;
    return made.find(({ shares }) => shares.length > 1);
  }

  return {
    ready: computed(() => store.ready),
    lanes,
    shelf,
    floor,
    now,
    problem,
    outdated,
    proposals,
    refusal,
    move,
    shift,
    lookForFewer,
    joins,
    groupOf,
    lookForJoins,
    tryJoin,
    join,
    accept,
    part: ({ id }: Cut) => ask(() => call('POST /api/cuts/{id}/part', { params: { id } })),
    hold: ({ id }: Cut) => ask(() => call('POST /api/cuts/{id}/hold', { params: { id } })),
    release: ({ id }: Cut) => ask(() => call('POST /api/cuts/{id}/release', { params: { id } })),
    takeBack: ({ id }: Cut) => ask(() => call('POST /api/cuts/{id}/cancel', { params: { id } })),
    loaded: ({ id }: Cut) => ask(() => call('POST /api/cuts/{id}/loaded', { params: { id } })),
    pause: () => ask(async () => (floor.value = await call('POST /api/floor/pause'))),
    goOn: () => ask(async () => (floor.value = await call('POST /api/floor/go-on'))),
  };
}
