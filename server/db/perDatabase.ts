import type { Db } from './connect';

/**
 * What is made once for each database and kept. Above all queries that are asked all day: to build one of many columns takes
 * a millisecond, longer than to ask it. What changes from one call to the next are placeholders in it.
 */
export function perDatabase<T extends object>(make: (db: Db) => T): (db: Db) => T {
  const made = new WeakMap<Db, T>();
  return (db) => {
    const one = made.get(db) ?? make(db);
    made.set(db, one);
    return one;
  };
}
