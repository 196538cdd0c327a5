/** Files and texts, and what they read as. */
import { createHash } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import type { Artwork } from '../../core/readers/artwork';
import type { ArtworkChoices, FilePart, FileSource, Source, TextSource } from '../../core/artwork/choices';
import { sourceKey } from '../../core/artwork/choices';
import type { TakenPicture } from '../../contracts/api';
import type { Db } from '../db/connect';
import { files, fonts, readings } from '../db/schema';
import { notFound, Trouble } from '../problem';
import type { Answer } from '../work/readingTasks';
import type { Watch, WorkPool } from '../work/pool';
import { pack, unpack } from './pack';

export interface ReadingServices {
  readonly db: Db;
  readonly pool: WorkPool;
}

const sha256 = (data: string | Uint8Array): string => createHash('sha256').update(data).digest('hex');

export function valueOf<T>(answer: Answer<T>): T {
  if (answer.ok) return answer.value;
  throw new Trouble(answer.code === 'too-big' ? 413 : 422, answer.code, answer.message);
}

/**
 * Keeps a file as it came and reads it.
 * @param watch may give the reading up, and hears how far it has come
 * @throws Trouble with a sentence when it cannot be read; then nothing is kept
 */
export async function takeFile(
  services: ReadingServices,
  name: string,
  bytes: Buffer,
  watch?: Watch,
): Promise<FileSource> {
  const { db, pool } = services;
  const { artwork, reading } = valueOf(await pool.run('takeIn', { bytes }, watch));
  const hash = sha256(bytes);
  const source: FileSource = { kind: 'file', hash, name, ...reading };
  await keepFile(db, hash, bytes);
  await keep(db, source, pack(artwork));
  return source;
}

/** Brought in once more, it is new again: what nobody makes an order of goes after a while. */
const keepFile = (db: Db, hash: string, bytes: Buffer) =>
  db
    .insert(files)
    .values({ hash, bytes })
    .onConflictDoUpdate({ target: files.hash, set: { createdAt: sql`now()` } });

const keep = (db: Db, source: Source, data: Buffer) =>
  db
    .insert(readings)
    .values({ key: sha256(sourceKey(source)), data })
    .onConflictDoNothing();

/**
 * What a source reads as, packed; read now when it has not been read before.
 * @param isKept whether it is written down for the next time
 */
export async function packedReading(
  services: ReadingServices,
  source: Source,
  isKept = true,
): Promise<Buffer> {
  const key = sha256(sourceKey(source));
  const [known] = await services.db
    .select({ data: readings.data, isLongAgo: sql<boolean>`${readings.usedAt} < now() - interval '1 hour'` })
    .from(readings)
    .where(eq(readings.key, key));
  if (known?.isLongAgo && isKept)
    await services.db.update(readings).set({ usedAt: sql`now()` }).where(eq(readings.key, key)); // prettier-ignore
  if (known) return known.data;
  const answer = source.kind === 'file' ? await readFile(services, source) : await typeset(services, source);
  if (!answer.ok) return pack(unreadable(answer.message));
  const data = pack(answer.value);
  if (isKept) await keep(services.db, source, data);
  return data;
}

async function readFile({ db, pool }: ReadingServices, source: FileSource): Promise<Answer<Artwork>> {
  const { page, box, units, trace, font } = source;
  const bytes = await originalOf(db, source.hash);
  return pool.run('read', { bytes, reading: { page, box, units, trace, font } });
}

async function typeset({ db, pool }: ReadingServices, source: TextSource): Promise<Answer<Artwork>> {
  const [own] = await db.select({ bytes: fonts.bytes }).from(fonts).where(eq(fonts.id, source.font));
  return pool.run('typeset', { source, font: own?.bytes });
}

/** A piece that cannot be read keeps the order back and says why; the rest of the order stays workable. */
const unreadable = (message: string): Artwork => ({
  page: { width: 0, height: 0 },
  shapes: [],
  clips: [],
  findings: [
    {
      code: 'unreadable-piece',
      severity: 'stop',
      message,
      waysOut: ['Replace or remove the piece under Artwork'],
    },
  ],
});

/** All that an order's pieces read as, by source key. */
export async function artworksFor(
  services: ReadingServices,
  { pieces }: ArtworkChoices,
): Promise<Map<string, Artwork>> {
  const sources = new Map(pieces.map(({ source }) => [sourceKey(source), source]));
  const found = await Promise.all(
    [...sources].map(
      async ([key, source]) => [key, unpack<Artwork>(await packedReading(services, source))] as const,
    ),
  );
  return new Map(found);
}

export async function originalOf(db: Db, fileHash: string): Promise<Buffer> {
  const [row] = await db.select({ bytes: files.bytes }).from(files).where(eq(files.hash, fileHash));
  if (!row) throw notFound('file');
  return row.bytes;
}

/** Keeps a picture that is only looked at. @throws Trouble when the file is none */
export async function takePicture({ db, pool }: ReadingServices, bytes: Buffer): Promise<TakenPicture> {
  const size = valueOf(await pool.run('measurePicture', { bytes }));
  const file = sha256(bytes);
  await keepFile(db, file, bytes);
  return { file, ...size };
}

/** A picture to look at, or a drawing's page. @throws Trouble when the file is neither */
export async function pictureOf(
  { db, pool }: ReadingServices,
  hash: string,
  { width, page = null, box = null, font = null }: { readonly width: number } & Partial<FilePart>,
): Promise<Uint8Array> {
  const bytes = await originalOf(db, hash);
  return valueOf(await pool.run('showPicture', { bytes, width, part: { page, box, font } }));
}
