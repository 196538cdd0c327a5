/**
 * Stages that remember what they made. The key of a stage is everything that goes into it, so it holds exactly what the
 * stage can read: what a stage made, and what was named, counts by identity, all else by what it says.
 */

/** Makes a stage out of a function without side effects; functions among its arguments only tell, and do not count. */
export type MakeStage = <In extends readonly unknown[], Out extends object>(
  name: string,
  compute: (...input: In) => Out,
  most?: number,
) => (...input: In) => Out;

/** Stages that remember nothing. */
export const forgetful: MakeStage = (_name, compute) => compute;

export interface Memory {
  readonly stage: MakeStage;
  /** A stage that is made in steps and may be given up: only what was made to its end is remembered. */
  readonly inSteps: <In extends readonly unknown[], Step, Out extends object>(
    name: string,
    compute: (...input: In) => Generator<Step, Out, void>,
    most?: number,
  ) => (...input: In) => Generator<Step, Out, void>;
  /** Has a thing count by a name: the same name must mean the same thing for ever. */
  readonly name: <T extends object>(thing: T, name: string) => T;
  /** How often each stage has really run: what memoisation is tested by. */
  readonly runs: Readonly<Record<string, number>>;
}

const KEPT = 4;
/** No word that comes from outside begins so. */
const MARK = '\u0000';

export function createMemory(): Memory {
  const names = new WeakMap<object, string>();
  const runs: Record<string, number> = {};
  let next = 0;
  const name = <T extends object>(thing: T, called: string): T => {
    if (!names.has(thing)) names.set(thing, MARK + called);
    return thing;
  };
  const number = (thing: object): object => name(thing, `${next++}`);
  // an empty list says all there is to it, and may be a constant that went into something before
  const numberLists = (thing: object): void => {
    for (const held of Object.values(thing)) if (Array.isArray(held) && held.length > 0) number(held);
  };
  /** What a stage made, its lists, and the lists of what it lists: what other stages are given. Small things go by what they say. */
  const numberAll = (made: object): void => {
    number(made);
    if (Array.isArray(made)) {
      for (const one of made as unknown[]) {
        if (typeof one !== 'object' || one === null || ArrayBuffer.isView(one)) continue;
        number(one);
        numberLists(one);
      }
    } else numberLists(made);
  };
  const keyOf = (input: readonly unknown[]): string =>
    JSON.stringify(input, (_, value: unknown) => {
      if (typeof value !== 'object' || value === null) return value;
      return names.get(value) ?? (value instanceof Map ? [...value] : value);
    });
  /** The last so many things that were made, by key; the last to be used is the last to go. */
  const shelf = <Out extends object>(called: string, most: number) => {
    const kept = new Map<string, Out>();
    runs[called] = 0;
    const put = (key: string, made: Out): Out => {
      kept.delete(key);
      kept.set(key, made);
      if (kept.size > most) kept.delete(kept.keys().next().value as string);
      return made;
    };
    const recall = (key: string): Out | undefined => {
      const known = kept.get(key);
      return known && put(key, known);
    };
    const keep = (key: string, made: Out): Out => {
      numberAll(made);
      return put(key, made);
    };
    return { recall, keep };
  };
  const stage = <In extends readonly unknown[], Out extends object>(
    called: string,
    compute: (...input: In) => Out,
    most = KEPT,
  ) => {
    const { recall, keep } = shelf<Out>(called, most);
    return (...input: In): Out => {
      const key = keyOf(input);
      const known = recall(key);
      if (known) return known;
      runs[called]++;
      return keep(key, compute(...input));
    };
  };
  const inSteps = <In extends readonly unknown[], Step, Out extends object>(
    called: string,
    compute: (...input: In) => Generator<Step, Out, void>,
    most = KEPT,
  ) => {
    const { recall, keep } = shelf<Out>(called, most);
    return function* remembered(...input: In): Generator<Step, Out, void> {
      const key = keyOf(input);
      const known = recall(key);
      if (known) return known;
      runs[called]++;
      return keep(key, yield* compute(...input));
    };
  };
  return { stage, inSteps, name, runs };
}
