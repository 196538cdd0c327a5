/** What of an order goes to the bench and the wall, on a page and on paper. */
import type { Order } from '../../contracts/api';
import type { ApplyPage, MapPage } from '../../contracts/bench';
import type { Datum } from '../../core/panels/fittingMap';
import type { PaperKind } from '../files/papers';
import type { Db } from '../db/connect';
import type { PaperOrder } from '../files/sheet';
import { Trouble } from '../problem';
import type { PlanTask } from '../work/planningTasks';
import type { OrderServices } from './orders';
import { decidedAt, getOrder, planTask } from './orders';

/** An order as it is planned, with the orders that its films are cut with. */
async function taskWithHosts(services: OrderServices, order: Order): Promise<PlanTask> {
  const task = await planTask(services, order);
  const away = Object.entries(task.shop.sharing?.away ?? {});
  const hosts = await Promise.all(
    away.map(async ([film, { id }]) => ({
      film,
      task: await planTask(services, await getOrder(services.db, id)),
    })),
  );
  return { ...task, hosts };
}

/** @param address where the order opens in a browser */
export async function paperOf(
  services: OrderServices,
  id: number,
  kind: PaperKind,
  address: string,
): Promise<Uint8Array> {
  const order = await getOrder(services.db, id);
  const task = await taskWithHosts(services, order);
  return services.pool.run('print', { ...task, kind, order: await onPaper(services.db, order, address) });
}

const onPaper = async (db: Db, order: Order, address: string): Promise<PaperOrder> => {
  const { number, name, due } = order;
  return { number, name, due, address, made: await decidedAt(db, order) };
};

/** What the bench needs to weed and apply an order. */
export async function applyingOf(services: OrderServices, id: number): Promise<ApplyPage> {
  return services.pool.run('apply', await taskWithHosts(services, await getOrder(services.db, id)));
}

const noPanels = (): Trouble =>
  new Trouble(404, 'no-panels', 'Nothing in this order is in panels: it goes on in one. Look under Panels.');

/** Where the panels of an order go. @throws Trouble when it has none */
export async function mapOf(services: OrderServices, id: number, datum: Datum): Promise<MapPage> {
  const task = await planTask(services, await getOrder(services.db, id));
  const map = await services.pool.run('fit', { ...task, datum });
  if (!map) throw noPanels();
  return map;
}

/** The same on paper. @param address where the map opens in a browser */
export async function mapPaperOf(
  services: OrderServices,
  id: number,
  datum: Datum,
  address: string,
): Promise<Uint8Array> {
  const order = await getOrder(services.db, id);
  const task = {
    ...(await planTask(services, order)),
    datum,
    order: await onPaper(services.db, order, address),
  };
  const bytes = await services.pool.run('printMap', task);
  if (!bytes) throw noPanels();
  return bytes;
}
