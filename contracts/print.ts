/** Printed sheets as they cross the wire. */
import { z } from 'zod';
import { MARK_KINDS } from '../core/registration/readMarks';
import { DISTORTIONS } from '../core/registration/distortion';
import { MODELS } from '../core/registration/models';

/** What is printed as PDF or picture; what is cut as drawing, or as HP-GL. */
export const SHEET_FILES = ['pdf', 'png', 'svg', 'dxf', 'plt'] as const;
export type SheetFile = (typeof SHEET_FILES)[number];

export const sheetQuery = z.object({
  as: z.enum(SHEET_FILES).default('pdf'),
  /** Cut lines are in the PDF too, as spot colours. */
  lines: z.enum(['yes', 'no']).default('no'),
  dpi: z.coerce.number().int().min(36).max(1200).default(300),
});
export type SheetQuery = z.output<typeof sheetQuery>;

const spot = z.tuple([z.number(), z.number()]).readonly();

/** A printed sheet on its way to a cutter. */
export const cutSheetSchema = z.object({
  /** Which of how many, from 1. */
  number: z.number(),
  of: z.number(),
  /** mm */
  width: z.number(),
  height: z.number(),
  /** mm that marks are wide */
  line: z.number(),
  /** In the order in which they are read, mm on the strip of a sheet that lies straight. */
  marks: z
    .array(
      z.object({
        kind: z.enum(MARK_KINDS),
        at: spot,
        arms: spot,
      }),
    )
    .readonly(),
});
export type CutSheet = z.infer<typeof cutSheetSchema>;

/** What a sensor made of a sheet. */
export const sheetReadingSchema = z.object({
  /** Every mark that was read, in order: where it is, mm on the strip, and how far off the fit it lies. */
  marks: z
    .array(
      z.object({
        /** Which of the sheet's marks, from 0. */
        mark: z.number(),
        at: spot,
        off: spot,
        /** What one look across it saw; null: it was taken by hand. */
        scan: z
          .object({
            step: z.number(),
            values: z.array(z.number()).readonly(),
            edges: spot.nullable(),
            contrast: z.number(),
          })
          .nullable(),
      }),
    )
    .readonly(),
  /** Null: the marks are not those of this sheet, or one was not found. */
  fit: z
    .object({
      model: z.enum(MODELS),
      rotation: z.number(),
      scaleX: z.number(),
      scaleY: z.number(),
      skew: z.number(),
      bow: z.number(),
      worst: z.number(),
      limit: z.number(),
      isTurned: z.boolean(),
      /** mm that a place of the sheet lies off at most, on 95 of 100 sheets; missing in older readings. */
      within95: z.number().optional(),
      /** What the marks showed of the sheet's distortion, by kind. */
      distortion: z.partialRecord(z.enum(DISTORTIONS), z.number()).optional(),
    })
    .nullable(),
  /** What a person is told beside it. */
  notes: z.array(z.string()).readonly(),
});
export type ReadSheet = z.infer<typeof sheetReadingSchema>;

const way = z.number().min(-5000).max(5000);
/** How far the head is moved, mm on the strip. */
export const jogSchema = z.strictObject({ dx: way, dy: way });
/** Where it stands then. */
export const headAtSchema = z.object({ x: z.number(), y: z.number() });

/** Marks that a person put the pointer onto: which, from 0, and where, mm on the strip. */
export const takenSchema = z.strictObject({
  taken: z
    .array(z.strictObject({ mark: z.number().int().min(0).max(200), at: z.tuple([way, way]).readonly() }))
    .min(2)
    .max(100)
    .readonly(),
});
export type TakenMarks = z.output<typeof takenSchema>['taken'];
