/** Work that is never done twice at the same time. */
export interface OneAtATime {
  /** Does it; when it is being done already, it is done once more after that, however often it was asked for. */
  readonly ask: () => Promise<void>;
  readonly isBusy: () => boolean;
}

/** @param work when it fails, whoever asked hears of it, and it can be asked for again */
export function oneAtATime(work: () => Promise<void>): OneAtATime {
  let running: Promise<void> | undefined;
  let isWanted = false;
  const run = async (): Promise<void> => {
    try {
      do {
        isWanted = false;
        await work();
      } while (isWanted);
    } finally {
      running = undefined;
    }
  };
  return {
    ask: () => {
      isWanted = true;
      return (running ??= run());
    },
    isBusy: () => running !== undefined,
  };
}
