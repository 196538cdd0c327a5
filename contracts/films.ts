/** Films as they cross the wire: what lies on the shelf, what they are, how they are bought. */
import { z } from 'zod';
import { BUILDS, FINISHES, PRINT_GROUNDS } from '../core/films/film';

export const rollSchema = z.strictObject({
  width: z.number().min(20).max(5000),
  lengthLeft: z.number().min(0).max(1e7),
  sheets: z.number().int().min(0).max(1e5).optional(),
  offcut: z.string().min(1).max(12).optional(),
});
export const rollsSchema = z.array(rollSchema).max(200).readonly();
const limits = z.strictObject({
  narrowest: z.number().min(0).max(1000).optional(),
  island: z.number().min(0).max(1000).optional(),
  gap: z.number().min(0).max(1000).optional(),
  stack: z.number().int().min(1).max(20).optional(),
  track: z.number().min(10).max(1e6).optional(),
});
const kind = z.enum(['sign', 'garment']);
/** What a film need not say, and what may be changed of it alike. */
const more = {
  limits: limits.optional(),
  build: z.enum(BUILDS).optional(),
  grain: z.boolean().optional(),
  finish: z.enum(FINISHES).optional(),
  price: z.number().min(0).max(1e6).optional(),
  low: z.number().min(0).max(1e6).optional(),
  pack: rollSchema
    .omit({ offcut: true })
    .extend({ lengthLeft: z.number().min(20).max(1e6) })
    .optional(),
  coming: z.number().int().min(0).max(1000).optional(),
  thickness: z.number().min(0.01).max(20).optional(),
  print: z.enum(PRINT_GROUNDS).nullish(),
  putAway: z.boolean().optional(),
} as const;

export const filmSchema = z.object({
  id: z.string(),
  name: z.string(),
  code: z.string(),
  colour: z.string(),
  rolls: rollsSchema,
  cutFromBack: z.boolean(),
  kind,
  ...more,
});

/** What can be changed of a film; its id stays. */
export const filmChangeSchema = z.strictObject({
  name: z.string().trim().min(1).max(120).optional(),
  code: z.string().trim().max(60).optional(),
  colour: z
    .string()
    .regex(/^#[0-9a-f]{6}$/)
    .optional(),
  rolls: rollsSchema.optional(),
  cutFromBack: z.boolean().optional(),
  kind: kind.optional(),
  ...more,
});

export const filmTableSchema = z.strictObject({ csv: z.string().max(1_000_000) });
