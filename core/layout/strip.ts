/** How parts lie on film. */
import { own } from '../units/own';
import type { Film, Roll } from '../films/film';
import { hasGrain } from '../films/film';
import type { FilmSize } from '../films/leftover';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import type { Matrix } from '../geometry/matrix';
import type { Lying } from '../packing/lying';
import type { Part } from '../panels/part';
import type { Margins } from './cutter';
import type { BorderKind, WeedLineChoices } from './weedChoices';

/** How parts lie on their film. */
export interface LyingChoices {
  readonly copies: number;
  /** mm between copies, weed borders included */
  readonly spacing: number;
  readonly turn: 'as-drawn' | 'turned' | 'shorter';
  readonly mirror: 'by-film' | 'mirrored' | 'not-mirrored';
  readonly border: BorderKind;
  /** mm from the art to its weed border */
  readonly borderDistance: number;
  readonly place: 'edge' | 'middle' | 'at';
  /** Where all of it begins, from the far edge of the knife's reach and behind the leading edge, when it is placed so; mm. */
  readonly placeAt: { readonly x: number; readonly y: number };
  /** Copies side by side across the film at the most; null: as many as fit. */
  readonly abreast: number | null;
  /** How far a film's art may be taken apart to take less film. */
  readonly pack: Pack;
  /** Films that differ, by id. */
  readonly packFilm: Readonly<Record<string, Pack>>;
  /** How pieces may be turned to lie closer; a film with a grain by 180° at most. */
  readonly turns: 'none' | 'quarter' | 'free';
  /** mm between pieces */
  readonly between: number;
  /** Where pieces lie that were packed closer, by film id, strip by strip; for other pieces than there are now it does not count. */
  readonly packed: Readonly<Record<string, readonly PackedStrip[]>>;
  /** What a film is cut from, by film id; missing: whichever roll or sheet takes the least film. */
  readonly rolls: Readonly<Record<string, RollPick>>;
}

export interface LayoutChoices extends LyingChoices {
  /** Other orders whose art is cut with this one's, by film id: their ids. */
  readonly guests: Readonly<Record<string, readonly number[]>>;
  readonly weedLines: WeedLineChoices;
}

/** A width of roll or sheet, what is written on an offcut, or the size of the film that lies in a cutter. */
export type RollPick = number | string | FilmSize;

export const PACKS = ['one', 'word', 'piece'] as const;
export type Pack = (typeof PACKS)[number];

/** How far a film is taken apart. */
export const packOf = ({ pack, packFilm }: Pick<LyingChoices, 'pack' | 'packFilm'>, film: Film): Pack =>
  own(packFilm, film.id) ?? pack;

/** Degrees that pieces may be turned by, of what is asked for what their film allows; none: any. */
export function turnsOf({ turns }: Pick<LyingChoices, 'turns'>, film: Film): readonly number[] {
  if (turns === 'none') return [0];
  if (hasGrain(film)) return [0, 180];
  return turns === 'free' ? [] : [0, 90, 180, 270];
}

/** Pieces on a strip of a roll of that width. */
export interface PackedStrip {
  readonly roll: number;
  /** Where every order has a stretch of its own: whose it is, by its number; 0: of the planned order. */
  readonly order?: number;
  readonly pieces: readonly PackedPiece[];
}

export interface PackedPiece extends Lying {
  readonly part: string;
  readonly copy: number;
  /** It stays where a person put it. */
  readonly pinned: boolean;
}

/** What a piece is known by: which part it is, and which copy. */
export const pieceName = (part: string, copy: number): string => `${part} ${copy}`;

/** One copy of a part on the film: maps face view to the strip. */
export interface Placement {
  readonly part: Part;
  readonly copy: number;
  readonly matrix: Matrix;
  /** What it takes up on the strip, a weed border of its own included. */
  readonly box: Bounds;
  /** Of a film that is packed: where it lies, as it is kept. */
  readonly kept?: PackedPiece;
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

/** mm of film that strips take together. */
export const lengthOfStrips = (strips: readonly Pick<Strip, 'length'>[]): number =>
  strips.reduce((sum, { length }) => sum + length, 0);

/** How often the planned order's parts lie on a strip: panels of one film are not copies of each other. */
export const copiesOn = ({ placements }: Pick<Strip, 'placements'>): number =>
  new Set(placements.filter(({ part }) => part.order === undefined).map(({ copy }) => copy)).size;
