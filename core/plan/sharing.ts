/** Several orders on one film: whose art of a film is cut with whose. */
import { own } from '../units/own';
import type { Choices } from './choices';

export interface OrderName {
  readonly id: number;
  /** As people say it. */
  readonly number: number;
  readonly name: string;
}

/** An order whose art of some films is cut with another's. */
export interface Guest extends OrderName {
  readonly choices: Choices;
  /** Films that are cut with the other's, by id. */
  readonly films: readonly string[];
  /** Films of it that have been cut already, by id. */
  readonly cut: readonly string[];
}

/** What an order shares with others. */
export interface Sharing {
  readonly guests: readonly Guest[];
  /** Its own films that are cut with another order's, by id. */
  readonly away: Readonly<Record<string, OrderName>>;
  /** Orders that it wants along on a film and that cannot be: cut with another, or put away. */
  readonly refused: readonly { readonly film: string; readonly order: OrderName }[];
}

export const NO_SHARING: Sharing = { guests: [], away: {}, refused: [] };

/** What an order takes along on its films: other orders' ids, by film id. */
export interface TakesAlong {
  readonly id: number;
  readonly guests: Readonly<Record<string, readonly number[]>>;
}

/** Film id → guest → host. */
export type Hosts = ReadonlyMap<string, ReadonlyMap<number, number>>;

/**
 * Who is cut with whom. Of each film an order is cut by itself, takes others along, or goes along with one; where wishes are
 * at odds, those of the order with the lowest id count. So nobody is cut twice, and nobody waits for one who waits.
 * @param orders all that may be cut: what another one wishes does not count
 */
export function hostsOf(orders: readonly TakesAlong[]): Hosts {
  const inOrder = [...orders].sort((a, b) => a.id - b.id);
  const known = new Set(orders.map(({ id }) => id));
  const films = new Set(orders.flatMap(({ guests }) => Object.keys(guests)));
  return new Map([...films].map((film) => [film, hostsOn(film, inOrder, known)]));
}

function hostsOn(
  film: string,
  orders: readonly TakesAlong[],
  known: ReadonlySet<number>,
): ReadonlyMap<number, number> {
  const hostOf = new Map<number, number>();
  const hosts = new Set<number>();
  for (const { id, guests } of orders) {
    if (hostOf.has(id)) continue;
    for (const guest of own(guests, film) ?? []) {
      if (guest === id || hosts.has(guest) || hostOf.has(guest) || !known.has(guest)) continue;
      hostOf.set(guest, id);
      hosts.add(id);
    }
  }
  return hostOf;
}

/** Orders that are cut with one on a film. */
export const guestsOn = (hosts: Hosts, film: string, host: number): readonly number[] =>
  [...(hosts.get(film) ?? [])].flatMap(([guest, its]) => (its === host ? [guest] : []));
