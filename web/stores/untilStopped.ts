/** What is waited for until somebody stops waiting. */
export interface Waiting {
  /** @returns undefined: it was stopped before the work was done */
  readonly until: <T>(work: Promise<T>) => Promise<T | undefined>;
  readonly stop: () => void;
}

/** Nothing of work that is done is kept: a race against one promise that lasts would keep every result as long as that. */
export function createWaiting(): Waiting {
  const giveUps = new Set<() => void>();
  let isOver = false;
  return {
    until: (work) =>
      new Promise((done, fail) => {
        const giveUp = (): void => done(undefined);
        if (isOver) return giveUp();
        giveUps.add(giveUp);
        void work.then(done, fail).finally(() => giveUps.delete(giveUp));
      }),
    stop: () => {
      isOver = true;
      for (const giveUp of giveUps) giveUp();
      giveUps.clear();
    },
  };
}
