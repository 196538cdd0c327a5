// A TypeScript program as few files that node runs: loaded file by file, it takes seconds in every process and every thread.
import { createHash } from 'node:crypto';
import {
  chmodSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { buildSync } from 'esbuild';

/** In the project, where its packages are found; written by nobody else. */
const ROOM = join(process.cwd(), '.data/cache/programs');
/** A server that runs still starts threads from the file that it began with, whatever was written since. */
const KEPT_MS = 60 * 86_400_000;
/** A program is another one when any of these is. */
const HOW_IT_IS_BUILT = [
  'package.json',
  'tsconfig.json',
  'scripts/builtProgram.mjs',
  'node_modules/esbuild/package.json',
];
/** Of two things that a file system dates as far apart as this, either may have been first. */
const TICK_MS = 100;

/**
 * One file, and one more for whatever it imports only once it needs it.
 * @returns its first file, in a folder that is named by what is in it; packages are not in it
 */
export function builtProgram(entry) {
  const name = basename(entry, '.ts');
  // some go by one name in different rooms
  const record = join(ROOM, `${entry.replaceAll('/', '-')}.json`);
  return builtBefore(record) ?? build(entry, name, record);
}

function build(entry, name, record) {
  const began = Date.now();
  const { outputFiles, metafile } = buildSync({
    entryPoints: [entry],
    bundle: true,
    splitting: true,
    // as deep as what is written: sources are named from there
    outdir: join(ROOM, name),
    outExtension: { '.js': '.mjs' },
    write: false,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    sourcemap: 'inline',
    metafile: true,
    logLevel: 'error',
  });
  const all = createHash('sha256');
  for (const { contents } of outputFiles) all.update(contents);
  const folder = join(ROOM, `${name}-${all.digest('hex').slice(0, 16)}`);
  const first = join(folder, `${name}.mjs`);
  if (!isKept(folder)) {
    mkdirSync(ROOM, { recursive: true, mode: 0o700 });
    chmodSync(ROOM, 0o700);
    removeOld(`${name}-`);
    // nobody reads half a program
    const mine = `${folder}.${process.pid}`;
    // one of the same number may have been killed while it wrote
    rmSync(mine, { recursive: true, force: true });
    mkdirSync(mine);
    for (const { path, contents } of outputFiles) writeFileSync(join(mine, basename(path)), contents);
    putInPlace(mine, folder);
  }
  note(record, { first, metafile, began });
  return first;
}

/** What was built last, while nothing has changed that it was built from: to build it takes longer than to load it. */
function builtBefore(record) {
  try {
    const built = JSON.parse(readFileSync(record, 'utf8'));
    const isSame = built.from.every(([path, is]) => stampOf(stat(path)) === is);
    return isSame && isKept(dirname(built.first)) ? built.first : undefined;
  } catch {
    return undefined;
  }
}

/** Writes down what a program was built from, unless some of it may have been changed while it was built. */
function note(record, { first, metafile, began }) {
  const from = sourcesOf(metafile).map((path) => [path, stat(path)]);
  if (from.some(([, is]) => is && is.ctimeMs > began - TICK_MS)) return;
  const mine = `${record}.${process.pid}`;
  writeFileSync(mine, JSON.stringify({ first, from: from.map(([path, is]) => [path, stampOf(is)]) }));
  renameSync(mine, record);
}

/** A file that is added to a folder may be found before the one that was: folders count too. */
function sourcesOf({ inputs }) {
  return [...new Set([...Object.keys(inputs).flatMap(withFolders), ...HOW_IT_IS_BUILT])];
}

const withFolders = (path) => (path === '.' ? [] : [path, ...withFolders(dirname(path))]);

const stat = (path) => statSync(path, { bigint: true, throwIfNoEntry: false });

/** Differs once a file is written, or another is put in its place, whatever time anybody gives it. */
const stampOf = (is) => (is ? `${is.ino} ${is.size} ${is.ctimeNs}` : 'none');

/** Another process may have put the same there meanwhile. */
function putInPlace(mine, folder) {
  try {
    renameSync(mine, folder);
  } catch (error) {
    rmSync(mine, { recursive: true, force: true });
    if (!isKept(folder)) throw error;
  }
}

/** Whether it is there; then it is from now on kept for as long as one that is new. */
function isKept(folder) {
  const now = new Date();
  try {
    utimesSync(folder, now, now);
    return true;
  } catch {
    return false;
  }
}

function removeOld(prefix) {
  for (const name of readdirSync(ROOM)) {
    if (!name.startsWith(prefix)) continue;
    const folder = join(ROOM, name);
    // another process that starts just now may have given it its name, or removed it
    const written = statSync(folder, { throwIfNoEntry: false });
    if (written && Date.now() - written.mtimeMs > KEPT_MS) rmSync(folder, { recursive: true, force: true });
  }
}
