import { createHash } from 'node:crypto';
import type { PlanTask } from '../work/planningTasks';

/**
 * Whether a film could be cut otherwise by now, at a glance: the hash of all that its plan hangs on. What is left of other
 * films is no part of it: that changes with every cut that ends.
 * @returns the hash by the film's id
 */
export function madeFrom({
  choices,
  shop,
  orderNumber,
}: Omit<PlanTask, 'artworks'>): (film: string) => string {
  const { films, cutters, recipes, printer, sharing } = shop;
  const all = films.map(({ rolls: _rolls, ...film }) => film);
  const base = createHash('sha256').update(
    JSON.stringify([choices, all, cutters, recipes, printer, sharing, orderNumber]),
  );
  return (id) => {
    const rolls = films.find((film) => film.id === id)?.rolls;
    return base
      .copy()
      .update(JSON.stringify(rolls ?? null))
      .digest('base64url');
  };
}
