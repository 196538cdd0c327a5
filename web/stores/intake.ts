/** Files that come in, dropped or picked: they are added to the order that is open, make one new order, or one each. */
import { until } from '@vueuse/core';
import { defineStore } from 'pinia';
import { nextTick, shallowRef } from 'vue';
import { ApiProblem } from './api';
import { useArtwork } from './artwork';
import { useOrder } from './order';
import { useOrders } from './orders';

/** Shows an order, or the list of them. */
export type GoTo = (order?: number) => Promise<unknown>;

export const useIntake = defineStore('intake', () => {
  const orders = useOrders();
  const order = useOrder();
  const art = useArtwork();
  /** Files of which a person is asked whether they make one order or one each. */
  const asked = shallowRef<readonly File[]>([]);
  /** What could not be added to the open order. */
  const problem = shallowRef<ApiProblem>();

  /** One file makes an order at once; of several it is asked. */
  async function start(files: readonly File[], goTo: GoTo): Promise<void> {
    if (files.length > 1) asked.value = files;
    else await one(files, goTo);
  }

  async function one(files: readonly File[], goTo: GoTo): Promise<void> {
    asked.value = [];
    const [first, ...rest] = files;
    const made = first && (await orders.bringIn(first));
    if (!made) return void (orders.problem && (await goTo()));
    await goTo(made.id);
    if (rest.length === 0) return;
    await until(() => order.order?.id === made.id && order.plan !== undefined).toBe(true);
    await add(rest);
  }

  async function each(files: readonly File[], goTo: GoTo): Promise<void> {
    asked.value = [];
    const met: ApiProblem[] = [];
    for (const file of files) {
      await orders.bringIn(file);
      if (orders.problem) met.push(orders.problem);
    }
    await goTo();
    orders.problem = together(met);
  }

  /** Adds files to the open order, each below what is there. */
  async function add(files: readonly File[]): Promise<void> {
    const { id } = order.order!;
    const isHere = (): boolean => order.order?.id === id;
    const met: ApiProblem[] = [];
    for (const [i, file] of files.entries()) {
      const source = await art.send(file);
      if (art.problem) met.push(art.problem);
      // the next one lies below it: where it lies is known when it is planned
      await until(() => !order.planning || order.halted || !isHere()).toBeTruthy();
      if (!isHere()) {
        met.push(leftOut(files.slice(i)));
        break;
      }
      if (source) art.add(source, file.name.replace(/\.[^.]*$/, ''));
      await nextTick();
    }
    art.problem = undefined;
    problem.value = together(met);
  }

  return { asked, problem, start, one, each, add };
});

const leftOut = (files: readonly File[]): ApiProblem =>
  new ApiProblem(
    0,
    'left',
    `${files.map(({ name }) => name).join(', ')}: not added, as its order was left. Open it and add it there.`,
  );

/** All in one, each in its own sentence; undefined: there is none. */
const together = (met: readonly ApiProblem[]): ApiProblem | undefined =>
  met.length > 1
    ? new ApiProblem(
        met[0].status,
        met[0].code,
        met.map(({ message }) => message).join(' '),
        met.flatMap(({ waysOut = [] }) => waysOut),
      )
    : met[0];
