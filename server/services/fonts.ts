/** Typefaces: those that come with the app, and the shop's own, which can be put away and cleared. */
import { createHash } from 'node:crypto';
import { eq, getTableColumns, sql } from 'drizzle-orm';
import type { FontInfo } from '../../contracts/api';
import type { Db } from '../db/connect';
import { fonts, orders, revisions } from '../db/schema';
import { SHIPPED_FONTS } from '../files/shippedFonts';
import { notFound, Trouble } from '../problem';
import type { ReadingServices } from './readings';
import { valueOf } from './readings';

/** Typefaces that text can be set in: those that come with the app, then the shop's own. */
export async function listFonts(db: Db): Promise<FontInfo[]> {
  const { bytes: _bytes, ...told } = getTableColumns(fonts);
  const own = await db.select(told).from(fonts).orderBy(fonts.name);
  const shipped = SHIPPED_FONTS.map(({ id, name, weights: [lightest, heaviest] }) => {
    return { id, name, lightest, heaviest, own: false, putAway: false };
  });
  return [...shipped, ...own.map((font) => ({ ...font, own: true }))];
}

/** Keeps a typeface that the shop brought; one that was put away is brought back. @throws Trouble when it is none */
export async function addFont({ db, pool }: ReadingServices, bytes: Buffer): Promise<FontInfo[]> {
  const { name, weights } = valueOf(await pool.run('lookAtFont', { bytes }));
  const id = `own-${createHash('sha256').update(bytes).digest('hex').slice(0, 16)}`;
  const [lightest, heaviest] = weights.map(Math.round);
  await db
    .insert(fonts)
    .values({ id, name: name.slice(0, 120), lightest, heaviest, bytes })
    .onConflictDoUpdate({ target: fonts.id, set: { putAway: false } });
  return listFonts(db);
}

/** Puts one of the shop's own typefaces out of sight, or brings it back. */
export async function putFontAway(db: Db, id: string, putAway: boolean): Promise<FontInfo[]> {
  const changed = await db.update(fonts).set({ putAway }).where(eq(fonts.id, id)).returning({ id: fonts.id });
  if (changed.length === 0) throw notFound('typeface');
  return listFonts(db);
}

/** Takes a typeface that was put away out for good. @throws Trouble while text is set in it */
export async function clearFont(db: Db, id: string): Promise<FontInfo[]> {
  await db.transaction(async (tx) => {
    const [font] = await tx
      .select({ putAway: fonts.putAway })
      .from(fonts)
      .where(eq(fonts.id, id))
      .for('update');
    if (!font) throw notFound('typeface');
    if (!font.putAway)
      throw new Trouble(409, 'not-put-away', 'Put the typeface away first; then it can be cleared.');
    const like = `%${id}%`;
    const used = await tx.execute(
      sql`select 1 from ${orders} where ${orders.choices}::text like ${like}
          union all select 1 from ${revisions} where ${revisions.edits}::text like ${like} or ${revisions.choices}::text like ${like}
          limit 1`,
    );
    if (used.rows.length > 0)
      throw new Trouble(409, 'in-use', 'Text of an order is set in this typeface: it stays, out of sight.');
    await tx.delete(fonts).where(eq(fonts.id, id));
  });
  return listFonts(db);
}
