/** Printed sheets as they cross the wire. */
import { z } from 'zod';

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
