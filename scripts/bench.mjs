// Prints the performance table: the computation first, then the pages in a real browser.
import { spawnSync } from 'node:child_process';
import { installPackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { run, startUntilReady } from './run.mjs';

installPackages();
const tsx = ['--import', 'tsx'];
spawnSync(process.execPath, [...tsx, 'bench/core.ts'], { stdio: 'inherit' });
run('npx', ['vite', 'build', '--logLevel', 'error']);
const postgres = await startPostgres('test', { fast: true });
const server = await startUntilReady(process.execPath, [...tsx, 'e2e/serve.ts'], {
  DATABASE_URL: postgres.fresh('jampan_bench'),
});
server.child.removeAllListeners('exit');
spawnSync(process.execPath, [...tsx, 'bench/page.ts'], {
  stdio: 'inherit',
  env: { ...process.env, SHOP: JSON.parse(server.said).url },
});
server.child.kill('SIGKILL');
spawnSync(process.execPath, [...tsx, 'bench/floor.ts'], {
  stdio: 'inherit',
  env: { ...process.env, DATABASE_URL: postgres.fresh('jampan_bench_floor') },
});
postgres.stop();
