/** What the bench and the wall are shown of an order: weeding, taping and applying, and where panels go. */
import { z } from 'zod';
import { DATUMS_ACROSS, DATUMS_DOWN } from '../core/panels/fittingMap';
import { keepOutSchema, wallPictureSchema } from './choices';

const numberedPieces = z
  .array(z.object({ number: z.number(), at: z.tuple([z.number(), z.number()]).readonly() }))
  .readonly();
const boundsSchema = z.object({ minX: z.number(), minY: z.number(), maxX: z.number(), maxY: z.number() });
const placingSchema = z.object({
  box: boundsSchema,
  sign: numberedPieces,
  strips: z.array(
    z.object({
      length: z.number(),
      cuttable: z.number(),
      outline: z.string(),
      /** What other orders have on the same film. */
      others: z.string(),
      pieces: numberedPieces,
    }),
  ),
});

/** For weeding, taping and applying, as a page shows it. */
export const applyPageSchema = z.object({
  width: z.number(),
  height: z.number(),
  view: boundsSchema,
  marks: z.string().nullable(),
  taping: z.string(),
  /** Top film first. */
  steps: z.array(
    z.object({
      film: z.object({ name: z.string(), code: z.string(), colour: z.string() }),
      /** SVG path data, mm on the sign. */
      outline: z.string(),
      hints: z.array(z.string()),
      /** Of a film that is cut piece by piece: where each sits, numbered as it is cut. */
      placing: placingSchema.optional(),
    }),
  ),
});
export type ApplyPage = z.infer<typeof applyPageSchema>;

const measuredSchema = z
  .array(
    z.object({
      at: z.number(),
      from: z.number(),
      overlap: z.number().optional(),
      way: z.array(z.number()).readonly().optional(),
    }),
  )
  .readonly();

/** Edges or the centre line that a fitting map is measured from. */
export const datumSchema = z.object({
  across: z.enum(DATUMS_ACROSS).default('left'),
  down: z.enum(DATUMS_DOWN).default('upper'),
});

/** Where panels go, as a page shows it. */
export const mapPageSchema = z.object({
  width: z.number(),
  height: z.number(),
  isOnSurface: z.boolean(),
  sign: boundsSchema,
  keepOuts: z.array(keepOutSchema).readonly(),
  picture: wallPictureSchema.nullable(),
  datum: datumSchema,
  overlap: z.number(),
  tape: z.object({ upright: measuredSchema, level: measuredSchema }),
  /** In the order in which they go on. */
  panels: z
    .array(
      z.object({
        number: z.number(),
        turn: z.number(),
        seen: boundsSchema,
        whole: boundsSchema,
        across: z.number(),
        down: z.number(),
        films: z.array(z.object({ name: z.string(), colour: z.string() })).readonly(),
        isPiece: z.boolean(),
      }),
    )
    .readonly(),
  /** SVG path data, mm on the sign. */
  outlines: z.array(z.object({ colour: z.string(), outline: z.string() })).readonly(),
});
export type MapPage = z.infer<typeof mapPageSchema>;
