/** A cut as it will run, for the page to play. */
import type { FollowedCut } from '../../core/plan/followedCuts';
import type { PlannedCut } from '../../core/plan/planned';
import type { Play } from '../../core/toolpath/play';
import { playOf } from '../../core/toolpath/play';

export interface PlayView extends FollowedCut {
  readonly play: Play;
  /** mm: what the strip takes, and how wide the knife reaches */
  readonly length: number;
  readonly cuttable: number;
  readonly edges: PlannedCut['strip']['edges'];
  readonly colour: string;
}

export const playView = ({ strip, cutter, program }: PlannedCut, followed: FollowedCut): PlayView => ({
  ...followed,
  play: playOf(program, cutter),
  length: strip.length,
  cuttable: strip.cuttable,
  edges: strip.edges,
  colour: strip.film.colour,
});

/** What of it can be handed over instead of copied. */
export const playBuffers = ({ play }: PlayView): ArrayBuffer[] =>
  [play.holder, play.tip, play.moments, play.starts, play.kinds].map(({ buffer }) => buffer as ArrayBuffer);
