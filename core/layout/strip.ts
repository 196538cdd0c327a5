/** How parts lie on film. */
import type { Film, Roll } from '../films/film';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import type { Matrix } from '../geometry/matrix';
import type { Polyline } from '../geometry/path';
import type { Part } from '../panels/part';
import type { Margins } from './cutter';

export interface LayoutChoices {
  readonly copies: number;
  /** mm between copies, weed borders included */
  readonly spacing: number;
  readonly turn: 'as-drawn' | 'turned' | 'shorter';
  readonly mirror: 'by-film' | 'mirrored' | 'not-mirrored';
  readonly border: boolean;
  /** mm from the art to its weed border */
  readonly borderDistance: number;
  readonly place: 'edge' | 'middle';
  /** Width of the roll a film is cut from, by film id; missing: whichever takes the least film. */
  readonly rolls: Readonly<Record<string, number>>;
}

/** One copy of a part on the film: maps face view to the strip. */
export interface Placement {
  readonly part: Part;
  readonly copy: number;
  readonly matrix: Matrix;
  /** What it takes up on the strip, weed border included. */
  readonly box: Bounds;
}

/**
 * What lies in the cutter at once. Strip coordinates in mm: x runs along the roll from the leading edge,
 * y across it from the far edge of the cuttable width.
 */
export interface Strip {
  /** The film's, with a number behind it from a film's second strip on. */
  readonly id: string;
  readonly film: Film;
  readonly roll: Roll;
  readonly cuttable: number;
  /** Film under the rollers at the far and the near edge, mm. */
  readonly edges: Pick<Margins, 'far' | 'near'>;
  readonly mirrored: boolean;
  readonly turned: boolean;
  readonly placements: readonly Placement[];
  /** Weed border per placement, broken beside layer marks; empty when switched off. */
  readonly borders: readonly (readonly Polyline[])[];
  /** mm of film used along the roll */
  readonly length: number;
  /** mm² of film used, the whole width */
  readonly area: number;
  /** Share of the used film that stays on the sign, 0 … 1. */
  readonly used: number;
}

export interface Layout {
  readonly strips: readonly Strip[];
  readonly findings: readonly Finding[];
}

/** How often the same part lies on a strip: panels of one film are not copies of each other. */
export const copiesOn = ({ placements }: Pick<Strip, 'placements'>): number =>
  new Set(placements.map(({ copy }) => copy)).size;
