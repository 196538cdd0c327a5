/** How long work is likely to take: as long as the like of it took last. */
import { LRUCache } from 'lru-cache';

/** Kinds of work that are remembered. */
const MOST = 2000;
/** s, of what was never done. */
const UNKNOWN = 0.3;

export interface Guesses {
  /** @param name kind of work @param about what it is about; missing: nothing tells one from another */
  readonly guess: (name: string, about?: string | number) => number;
  readonly learn: (name: string, about: string | number | undefined, seconds: number) => void;
}

export function rememberSeconds(): Guesses {
  const took = new LRUCache<string, number>({ max: MOST });
  const of = (name: string, about?: string | number): string => `${name} ${about ?? ''}`;
  return {
    guess: (name, about) => took.get(of(name, about)) ?? took.get(of(name)) ?? UNKNOWN,
    learn: (name, about, seconds) => {
      took.set(of(name, about), seconds);
      const usual = took.get(of(name));
      took.set(of(name), usual === undefined ? seconds : (usual + seconds) / 2);
    },
  };
}
