// A TypeScript program as one file that node runs: loaded file by file, it takes seconds in every process and every thread.
import { createHash } from 'node:crypto';
import {
  chmodSync,
  mkdirSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { basename, join } from 'node:path';
import { buildSync } from 'esbuild';

/** In the project, where its packages are found; written by nobody else. */
const ROOM = join(process.cwd(), '.data/cache/programs');
/** A server that runs still starts threads from the file that it began with, whatever was written since. */
const KEPT_MS = 60 * 86_400_000;

/** @returns the file, named by what is in it; packages are not in it */
export function oneFileOf(entry) {
  const { outputFiles } = buildSync({
    entryPoints: [entry],
    bundle: true,
    write: false,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    sourcemap: 'inline',
    logLevel: 'error',
  });
  const [{ contents }] = outputFiles;
  const name = basename(entry, '.ts');
  const hash = createHash('sha256').update(contents).digest('hex').slice(0, 16);
  const file = join(ROOM, `${name}-${hash}.mjs`);
  if (isKept(file)) return file;
  mkdirSync(ROOM, { recursive: true, mode: 0o700 });
  chmodSync(ROOM, 0o700);
  removeOld(`${name}-`);
  // nobody reads half a file
  const mine = `${file}.${process.pid}`;
  writeFileSync(mine, contents);
  renameSync(mine, file);
  return file;
}

/** Whether it is there; then it is from now on kept for as long as one that is new. */
function isKept(file) {
  const now = new Date();
  try {
    utimesSync(file, now, now);
    return true;
  } catch {
    return false;
  }
}

function removeOld(prefix) {
  for (const name of readdirSync(ROOM)) {
    if (!name.startsWith(prefix)) continue;
    const file = join(ROOM, name);
    // another process that starts just now may have given it its name, or removed it
    const written = statSync(file, { throwIfNoEntry: false });
    if (written && Date.now() - written.mtimeMs > KEPT_MS) rmSync(file, { force: true });
  }
}
