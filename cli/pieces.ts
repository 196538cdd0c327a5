/** The art of an order's pieces, and of orders that are cut with it, from the files that were given. */
import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import type { Piece, Source } from '../core/artwork/choices';
import { pieceOfFile, sourceKey } from '../core/artwork/choices';
import type { Artwork } from '../core/readers/artwork';
import { readFile as readArtwork } from '../server/files/readFile';
import { setText } from '../server/files/setText';
import { readingFrom } from './asked';
import type { Values } from './options';
import { UsageProblem } from './options';

/** A file that was given. */
export interface GivenFile {
  readonly name: string;
  readonly hash: string;
  readonly bytes: Buffer;
}

/** @throws UsageProblem for a file that is not there */
export async function givenFiles(paths: readonly string[]): Promise<GivenFile[]> {
  return Promise.all(
    paths.map(async (path) => {
      const bytes = await readFile(path).catch(() => {
        throw new UsageProblem(`There is no file ${path} that can be read.`);
      });
      return { name: basename(path), hash: createHash('sha256').update(bytes).digest('hex'), bytes };
    }),
  );
}

/**
 * The pieces to plan: those of stored choices where they are of the files given, or typed; else one piece of the first file,
 * whatever the choices name.
 */
export async function piecesOf(
  stored: readonly Piece[],
  files: readonly GivenFile[],
  values: Values,
): Promise<readonly Piece[]> {
  const isGiven = ({ source }: Piece): boolean =>
    source.kind === 'text' || files.some(({ hash }) => hash === source.hash);
  if (stored.length > 0 && stored.every(isGiven)) return stored;
  const [first] = files;
  if (!first) throw new UsageProblem('The choices name files that were not given: name them in front.');
  return [pieceOfFile(first.hash, first.name, await readingFrom(values, first.bytes))];
}

/** What pieces read as, by source key. @throws UsageProblem for a piece whose file was not given */
export async function artworksOf(
  pieces: readonly Piece[],
  files: readonly GivenFile[],
): Promise<Map<string, Artwork>> {
  const read = async (source: Source): Promise<Artwork> => {
    if (source.kind === 'text') return setText(source, undefined);
    const file = files.find(({ hash }) => hash === source.hash);
    if (!file) throw new UsageProblem(`${source.name} is part of the order, and was not given.`);
    return readArtwork(file.bytes, source);
  };
  const sources = new Map(pieces.map(({ source }) => [sourceKey(source), source]));
  return new Map(
    await Promise.all([...sources].map(async ([key, source]) => [key, await read(source)] as const)),
  );
}
