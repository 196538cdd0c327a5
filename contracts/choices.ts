import { z } from 'zod';
import type { Choices } from '../core/plan/plan';

const colour = z.string().regex(/^#[0-9a-f]{6}$/);
const size = z.number().positive().max(100_000).nullable();

const recipeChanges = z.strictObject({
  force: z.number().int().min(5).max(600).optional(),
  speed: z.number().min(1).max(150).optional(),
  blade: z.string().min(1).max(40).optional(),
  bladeOffset: z.number().min(0).max(2).optional(),
  overcut: z.number().min(0).max(10).optional(),
});

export const choicesSchema = z.strictObject({
  artwork: z.strictObject({ width: size, height: size, lockAspect: z.boolean() }),
  films: z.strictObject({
    film: z.record(colour, z.string().max(60)),
    off: z.array(colour).max(10_000),
    order: z.array(colour).max(10_000),
  }),
  layout: z.strictObject({
    copies: z.number().int().min(1).max(1000),
    spacing: z.number().min(0).max(1000),
    turn: z.enum(['as-drawn', 'turned', 'shorter']),
    mirror: z.enum(['by-film', 'mirrored', 'not-mirrored']),
    border: z.boolean(),
    borderDistance: z.number().min(0).max(200),
    place: z.enum(['edge', 'middle']),
  }),
  cut: z.strictObject({ recipes: z.record(z.string().max(60), recipeChanges) }),
  cutter: z.string().max(60).nullable(),
});

// the schema and core's plain type must stay one and the same
type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
const CHOICES_MATCH_CORE: Same<z.infer<typeof choicesSchema>, Mutable<Choices>> = true;
void CHOICES_MATCH_CORE;
type Mutable<T> = T extends (infer I)[] | readonly (infer I)[]
  ? Mutable<I>[]
  : T extends object
    ? { -readonly [K in keyof T]: Mutable<T[K]> }
    : T;
