/** One cutter's cuts on the floor's time axis: what has to be changed before each, and when it is done. */

/** What a person changes before a cut. */
export type Swap = 'film' | 'sheet' | 'knife';

/** s that a change takes a person who is there: our own estimates, no source. */
export const SWAP_SECONDS: Readonly<Record<Swap, number>> = { film: 120, sheet: 40, knife: 180 };

/** What is in a machine. */
export interface Loaded {
  /** Id of the film. */
  readonly film: string;
  /** mm */
  readonly width: number;
  readonly blade: string;
}

/** What of a cut matters on the floor. */
export interface LaneCut extends Loaded {
  readonly id: number;
  /** A sheet is put in for this cut alone. */
  readonly isSheet: boolean;
  /** s that it still takes */
  readonly seconds: number;
  /** s from now until it has to be done; missing: whenever. */
  readonly due?: number;
  /** The machine has it, or had some of it: nothing goes before it. */
  readonly isBegun?: boolean;
}

/** A cut with its place on the time axis, s from now. */
export interface Block {
  readonly cut: LaneCut;
  readonly swaps: readonly Swap[];
  /** When its changes begin, when the knife does, and when it is done. */
  readonly from: number;
  readonly start: number;
  readonly end: number;
  readonly isLate: boolean;
}

/**
 * What is changed between what is in a machine and a cut.
 * @param before undefined: nobody knows what is in it, so that film is changed and the knife taken to be the right one
 */
export function swapsBefore(before: Loaded | undefined, cut: LaneCut): readonly Swap[] {
  if (cut.isBegun) return [];
  const isOther = !before || before.film !== cut.film || before.width !== cut.width;
  return [
    ...(cut.isSheet ? (['sheet'] as const) : isOther ? (['film'] as const) : []),
    ...(before && before.blade !== cut.blade ? (['knife'] as const) : []),
  ];
}

/** s that changes take. */
export const swapSeconds = (swaps: readonly Swap[]): number =>
  swaps.reduce((sum, swap) => sum + SWAP_SECONDS[swap], 0);

/** Cuts one after the other, each as soon as its changes are made. @param loaded what is in the machine now */
export function timeline(cuts: readonly LaneCut[], loaded?: Loaded): readonly Block[] {
  let [now, before] = [0, loaded];
  return cuts.map((cut) => {
    const swaps = swapsBefore(before, cut);
    const start = now + swapSeconds(swaps);
    const end = start + cut.seconds;
    const block = { cut, swaps, from: now, start, end, isLate: cut.due !== undefined && end > cut.due };
    [now, before] = [end, cut];
    return block;
  });
}

/** What an order of a lane's cuts asks of people: changes, the s that they take, and how many cuts are late. */
export function laneWorth(
  cuts: readonly LaneCut[],
  loaded?: Loaded,
): { readonly changes: number; readonly seconds: number; readonly late: number } {
  const blocks = timeline(cuts, loaded);
  const swaps = blocks.flatMap((block) => block.swaps);
  return {
    changes: swaps.length,
    seconds: swapSeconds(swaps),
    late: blocks.filter(({ isLate }) => isLate).length,
  };
}
