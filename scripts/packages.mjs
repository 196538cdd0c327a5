// npm packages as the lock file has them; nothing is done when they are there already.
import { existsSync, readFileSync, statSync } from 'node:fs';
import { run } from './run.mjs';

export function installPackages() {
  const mark = 'node_modules/.package-lock.json';
  if (existsSync(mark) && statSync(mark).mtimeMs >= statSync('package-lock.json').mtimeMs) return;
  if (existsSync(mark) && sameVersions(mark)) return;
  console.log('Installing packages …');
  run('npm', ['ci', '--no-audit', '--no-fund'], { stdio: 'inherit' });
}

/** A fresh checkout's lock file is newer than what was installed from the very same one. */
function sameVersions(mark) {
  const versions = (file) =>
    Object.entries(JSON.parse(readFileSync(file, 'utf8')).packages)
      .filter(([path, p]) => path && !p.optional)
      .map(([path, p]) => `${path}@${p.version}`)
      .sort()
      .join();
  return versions(mark) === versions('package-lock.json');
}
