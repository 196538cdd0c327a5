/** What stands in addresses between braces, and what several of them share. */
import { z } from 'zod';

export const id = z.coerce.number<number>().int().min(1).max(2_000_000_000);
export const byId = z.object({ id });
export const byCutter = z.object({ cutter: z.string().max(60) });
export const nothing = z.object({});
