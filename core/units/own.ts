/**
 * What a plain object holds under a name that came from outside. A name may be called as something that every object
 * has by birth, `constructor` or `__proto__`: that is nothing of its own.
 */
export const own = <T>(record: Readonly<Record<string, T>>, name: string): T | undefined =>
  Object.hasOwn(record, name) ? record[name] : undefined;
