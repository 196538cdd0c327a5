// Small helpers for the scripts: running commands and waiting for what they say.
import { spawn, spawnSync } from 'node:child_process';

/** Runs a command to its end. @returns its output; throws with it when it fails */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { encoding: 'utf8', ...options });
  if (result.status !== 0) {
    throw new Error(`${command} ${args.join(' ')} failed\n${result.stdout ?? ''}${result.stderr ?? ''}`);
  }
  return result.stdout;
}

/** Starts a program that prints `ready …` once it can be used. @returns what followed that word, all that it printed, and the process */
export function startUntilReady(command, args, env = {}) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, {
      env: { ...process.env, ...env },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    let text = '';
    child.stdout.on('data', (chunk) => {
      text += chunk;
      const match = /^ready (.+)$/m.exec(text);
      if (match) done({ said: match[1], text, child });
    });
    child.on('exit', (code) => fail(new Error(`${args.join(' ')} ended with ${code}\n${text}`)));
  });
}

export const isRoot = () => process.getuid?.() === 0;

const has = (command) => spawnSync('which', [command], { stdio: 'ignore' }).status === 0;

/** Installs what is missing of some tools. @param tools command → Debian's package */
export function aptMissing(tools) {
  const missing = Object.entries(tools).flatMap(([command, name]) => (has(command) ? [] : [name]));
  if (missing.length > 0) aptInstall(...missing);
}

/** Installs the tools of others that tests compare with. */
export const aptForTests = () =>
  aptMissing({
    hp2xx: 'hp2xx',
    gs: 'ghostscript',
    pstoedit: 'pstoedit',
    pdftoppm: 'poppler-utils',
    'rsvg-convert': 'librsvg2-bin',
    socat: 'socat',
  });

export const aptInstall = (...packages) => {
  if (!isRoot())
    throw new Error(
      `Install ${packages.join(', ')} from Debian first: apt-get install ${packages.join(' ')}`,
    );
  console.log(`Installing ${packages.join(', ')} from Debian …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...packages], { env });
};
