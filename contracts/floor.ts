/** All cutters with what they cut now and next, as it crosses the wire. */
import { z } from 'zod';
import type { Joinable } from '../core/floor/joining';
import type { LaneCut } from '../core/floor/lane';
import type { Wanted } from '../core/floor/refusal';
import type { Cut, CutState } from './cuts';
import { OPEN_STATES, UNBEGUN, WAITING } from './cuts';

/** What is known of a machine by the last cut that it began. */
const loadedSchema = z.object({
  cutter: z.string(),
  film: z.string(),
  name: z.string(),
  colour: z.string(),
  width: z.number(),
  blade: z.string(),
});
export type LoadedNow = z.infer<typeof loadedSchema>;

export const floorSchema = z.object({
  /** Nothing begins, at whatever cutter. */
  paused: z.boolean(),
  loaded: z.array(loadedSchema).readonly(),
});
export type FloorNow = z.infer<typeof floorSchema>;

const id = z.number().int().min(1).max(2_000_000_000);

/** Where a cut goes: to a cutter, before another cut there or behind all. */
export const moveSchema = z.strictObject({ cutter: z.string().max(60), before: id.nullable() });
export const laneOrderSchema = z.strictObject({ ids: z.array(id).min(1).max(500).readonly() });

const laneWorth = z.object({ changes: z.number(), seconds: z.number(), late: z.number() });
/** Another order of a cutter's cuts, and what it comes to beside the present one. */
export const fewestSchema = z.array(
  z.object({ cutter: z.string(), ids: z.array(z.number()).readonly(), now: laneWorth, then: laneWorth }),
);
export type FewestSwaps = z.infer<typeof fewestSchema>;

const worth = z.object({ strips: z.number(), length: z.number(), seconds: z.number() });
/** Cuts of one film that can lie on one strip: what they come to now, and then. */
export const joinSchema = z.object({
  cuts: z.array(z.number()).readonly(),
  cutter: z.string(),
  film: z.string(),
  colour: z.string(),
  /** Numbers of their orders; the others are laid on the first one's strip. */
  orders: z.array(z.number()).readonly(),
  now: worth,
  then: worth,
});
export type Join = z.infer<typeof joinSchema>;
export const joinsSchema = z.array(joinSchema);
export const toJoinSchema = z.strictObject({ cuts: z.array(id).min(2).max(100).readonly() });

type InState = Pick<Cut, 'state'>;
const isIn = (states: readonly CutState[], { state }: InState): boolean => states.includes(state);
/** It waits in its cutter's lane. */
export const isWaiting = (cut: InState): boolean => isIn(WAITING, cut);
/** It waits, or lies on the shelf: it can still be put elsewhere. */
export const isUnbegun = (cut: InState): boolean => isIn(UNBEGUN, cut);
/** Others may be laid beside it, as far as a page knows: what is cut again is not. */
export const isJoinable = (cut: Pick<Cut, 'state' | 'sheet'>): boolean => isUnbegun(cut) && !cut.sheet;
/** It stands in its cutter's lane, waiting or under way. */
export const isInLane = (cut: InState): boolean => cut.state !== 'held' && isIn(OPEN_STATES, cut);

/** What is due on a day has to be done by then (our own). */
const CLOSING_HOUR = 17;

/** A cut as the floor reckons with it. @param now when that is */
export function laneCutOf(cut: Cut, now: Date): LaneCut {
  const { id: cutId, film, rollWidth, roll, sheet, recipe, seconds, secondsDone, orderDue } = cut;
  const due = orderDue === null ? undefined : new Date(`${orderDue}T00:00`).setHours(CLOSING_HOUR);
  return {
    id: cutId,
    film: film.id,
    width: rollWidth,
    blade: recipe.blade,
    isSheet: sheet !== null || roll?.sheets !== undefined || roll?.offcut !== undefined,
    seconds: Math.max(0, seconds - secondsDone),
    isBegun: !isWaiting(cut),
    ...(due === undefined ? {} : { due: (due - now.getTime()) / 1000 }),
  };
}

/** A cut with what decides whether others can be laid beside it. */
export const joinableOf = (cut: Cut): Joinable & { readonly cut: Cut } => ({
  id: cut.id,
  cutter: cut.cutterId,
  film: cut.film.id,
  orders: cut.shares.map(({ orderId }) => orderId),
  cut,
});

/** What of a cut decides where it can go. */
export const wantedOf = ({ film, rollWidth, length, sheet, needsSecondTool }: Cut): Wanted => ({
  film,
  rollWidth,
  length: sheet?.width ?? length,
  needsSecondTool,
  ...(sheet ? { marks: [...new Set(sheet.marks.map(({ kind }) => kind))] } : {}),
});
