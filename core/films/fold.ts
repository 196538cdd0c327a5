/** Near-equal colours as one: files often paint one colour in several ways. */
import { deltaE, labOf } from '../colour/colour';

/** A colour and how much of it there is, mm². */
interface Painted {
  readonly colour: string;
  readonly area: number;
}

/** Colours that are painted as another, by `#rrggbb`. */
export type Folds = Readonly<Record<string, string>>;

/** A colour and those near enough to be painted as it. */
export interface FoldGroup {
  readonly into: string;
  readonly from: readonly string[];
}

/**
 * Groups of colours within a limit of one another: the largest colour first, each smaller one to the nearest larger
 * one within reach.
 * @param limit ΔE00
 */
export function nearEqual(colours: readonly Painted[], limit: number): FoldGroup[] {
  const heads: { into: string; from: string[] }[] = [];
  for (const { colour } of [...colours].sort((a, b) => b.area - a.area)) {
    const lab = labOf(colour);
    const near = heads
      .map((head) => ({ head, away: deltaE(lab, labOf(head.into)) }))
      .filter(({ away }) => away <= limit)
      .sort((a, b) => a.away - b.away)[0];
    if (near) near.head.from.push(colour);
    else heads.push({ into: colour, from: [] });
  }
  return heads.filter(({ from }) => from.length > 0);
}

/** The colour something is painted in once folds are carried out; folds may lead on to others, never in a circle. */
export function folded(colour: string, folds: Folds): string {
  let now = colour;
  for (let step = 0; step < 20 && folds[now] !== undefined; step++) now = folds[now];
  return now;
}
