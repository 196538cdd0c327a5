/** Documents out of Debian's packages, fetched from its archive and kept with the project's data. Only tests use this. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';

const FOLDER = resolve('.data/debian-docs');

/**
 * Unpacks a package of Debian's without installing it.
 * @returns the folder in which its files lie
 */
export function debianPackage(name: string): string {
  const folder = join(FOLDER, name);
  if (existsSync(folder)) return folder;
  const draft = `${folder}.${process.pid}`;
  mkdirSync(draft, { recursive: true });
  const download = (): unknown =>
    execFileSync('apt-get', ['download', '-qq', name], { cwd: draft, stdio: 'pipe' });
  try {
    download();
  } catch {
    // a machine that has not asked Debian yet what there is
    execFileSync('apt-get', ['update', '-qq'], { stdio: 'pipe' });
    download();
  }
  const [file] = readdirSync(draft);
  execFileSync('dpkg', ['-x', file, '.'], { cwd: draft });
  rmSync(join(draft, file));
  execFileSync('find', ['.', '-name', '*.pdf.gz', '-exec', 'gunzip', '-f', '{}', '+'], { cwd: draft });
  if (!existsSync(folder)) renameSync(draft, folder);
  return folder;
}
