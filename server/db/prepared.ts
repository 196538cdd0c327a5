import type { Db } from './connect';

/**
 * A query that is built once for each database: to build one of many columns takes a millisecond, longer than to ask it. What
 * changes from one call to the next are placeholders in it.
 */
export function prepared<Query extends object>(build: (db: Db) => Query): (db: Db) => Query {
  const built = new WeakMap<Db, Query>();
  return (db) => {
    const query = built.get(db) ?? build(db);
    built.set(db, query);
    return query;
  };
}
