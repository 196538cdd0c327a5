import { defineStore } from 'pinia';
import { useDebounceFn } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import type { Order, OrderFilter, OrderList, OrderRow } from '../../contracts/api';
import type { TextSource } from '../../core/artwork/choices';
import { ApiProblem, call, upload } from './api';
import type { Upload, UploadProgress } from './api';
import { useEvents } from './events';

export interface Arrival {
  readonly fileName: string;
  readonly progress: UploadProgress;
  readonly cancel: () => void;
}

/** Orders fetched at once. */
const PAGE = 60;
const LARGEST = 40 * 1024 * 1024;

/** The list of orders, and files on their way in. */
export const useOrders = defineStore('orders', () => {
  const rows = ref<OrderRow[]>([]);
  const state = ref<'loading' | 'ready' | 'failed'>('loading');
  const problem = ref<ApiProblem>();
  const arrival = ref<Arrival>();

  const counts = ref<OrderList['counts']>();
  /** Found by their number or code. */
  const cuts = ref<OrderList['cuts']>([]);
  const search = ref('');
  const show = ref<OrderFilter>('all');
  const limit = ref(PAGE);
  let asked = 0;

  async function refresh(): Promise<void> {
    const mine = ++asked;
    try {
      const query = { search: search.value, show: show.value, limit: limit.value };
      const list = await call('GET /api/orders', { query });
      if (mine !== asked) return;
      rows.value = list.rows;
      counts.value = list.counts;
      cuts.value = list.cuts;
      state.value = 'ready';
    } catch (error) {
      if (state.value === 'loading') state.value = 'failed';
      if (!(error instanceof ApiProblem)) throw error;
    }
  }
  /** Whether the list goes on behind what is shown. */
  const hasMore = computed(() => (counts.value?.[show.value] ?? 0) > rows.value.length);
  function more(): void {
    if (!hasMore.value || limit.value > rows.value.length) return;
    limit.value += PAGE;
    void refresh();
  }

  const soon = useDebounceFn(() => void refresh(), 150);
  watch([search, show], () => {
    limit.value = PAGE;
    void soon();
  });
  const events = useEvents();
  events.on(
    (event) => void ((event.kind === 'order' || event.kind === 'cut') && soon()),
    () => void refresh(),
  );

  /** Starts an order from a file. @returns it, or undefined when it could not be taken (then `problem` says why) */
  async function bringIn(file: File): Promise<Order | undefined> {
    problem.value = undefined;
    try {
      if (file.size > LARGEST) throw tooLarge(file);
      const sending: Upload<Order> = upload('POST /api/orders', file, (progress) => {
        if (arrival.value) arrival.value = { ...arrival.value, progress };
      });
      arrival.value = {
        fileName: file.name,
        progress: { phase: 'sending', share: 0 },
        cancel: sending.cancel,
      };
      return await sending.done;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      if (error.code !== 'cancelled')
        problem.value = new ApiProblem(error.status, error.code, `${file.name}: ${error.message}`);
      return undefined;
    } finally {
      arrival.value = undefined;
    }
  }

  /** Starts an order from typed text. */
  async function fromText(source: TextSource): Promise<Order | undefined> {
    problem.value = undefined;
    try {
      return await call('POST /api/orders/text', { body: { source } });
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error;
      return undefined;
    }
  }

  /** The order that was put away last, for as long as that can be taken back at once. */
  const putAwayLast = ref<OrderRow>();
  async function say(id: number, word: 'put-away' | 'bring-back' | 'clear'): Promise<boolean> {
    problem.value = undefined;
    try {
      await call(`POST /api/orders/{id}/${word}`, { params: { id } });
      await refresh();
      return true;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error;
      return false;
    }
  }
  async function putAway(row: OrderRow): Promise<void> {
    if (await say(row.id, 'put-away')) putAwayLast.value = row;
  }
  async function bringBack(row: OrderRow): Promise<void> {
    if (putAwayLast.value?.id === row.id) putAwayLast.value = undefined;
    await say(row.id, 'bring-back');
  }
  async function repeat({ id }: OrderRow): Promise<Order | undefined> {
    problem.value = undefined;
    try {
      return await call('POST /api/orders/{id}/repeat', { params: { id } });
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error;
      return undefined;
    }
  }
  const clear = (row: OrderRow): Promise<boolean> => say(row.id, 'clear');

  return {
    cuts,
    putAwayLast,
    putAway,
    bringBack,
    clear,
    repeat,
    rows,
    counts,
    search,
    show,
    hasMore,
    more,
    state,
    problem,
    arrival,
    refresh,
    bringIn,
    fromText,
  };
});

const tooLarge = (file: File): ApiProblem =>
  new ApiProblem(
    413,
    'too-big',
    `The file is ${Math.round(file.size / 1024 / 1024)} MB; 40 MB is the most. Take placed pictures out of the drawing or split it, and bring it in again.`,
  );
