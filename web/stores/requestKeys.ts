/** By what name a request is sent, so that the server knows it when it is sent again. */

/** ms for which a request that was not answered may be sent again; after that it is meant anew. */
const SAME_FOR = 10 * 60_000;

/** @param signature all that makes one request the same as another */
export function requestKeys(now: () => number = Date.now) {
  const unanswered = new Map<string, { readonly key: string; readonly since: number }>();
  return {
    keyFor(signature: string): string {
      const known = unanswered.get(signature);
      if (known && now() - known.since < SAME_FOR) return known.key;
      const key = madeUp();
      unanswered.set(signature, { key, since: now() });
      return key;
    },
    /** Whatever the answer was, the same request is another one from now on. */
    answered: (signature: string): void => void unanswered.delete(signature),
  };
}

/** Not `randomUUID`, which a page has only over TLS or on the server's own machine. */
const madeUp = (): string =>
  [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, '0')).join('');
