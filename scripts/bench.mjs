// Prints the performance table: the computation first, then the pages in a real browser.
import { spawnSync } from 'node:child_process';
import { installBrowser } from './browser.mjs';
import { installPackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { run, startUntilReady } from './run.mjs';

installPackages();
installBrowser();
const program = 'scripts/program.mjs';
spawnSync(process.execPath, [program, 'bench/core.ts'], { stdio: 'inherit' });
run('npx', ['vite', 'build', '--logLevel', 'error']);
const postgres = await startPostgres('test', { fast: true });
const server = await startUntilReady(process.execPath, [program, 'e2e/serve.ts'], {
  DATABASE_URL: postgres.fresh('jampan_bench'),
});
server.child.removeAllListeners('exit');
spawnSync(process.execPath, [program, 'bench/page.ts'], {
  stdio: 'inherit',
  env: { ...process.env, SHOP: JSON.parse(server.said).url },
});
server.child.kill('SIGKILL');
spawnSync(process.execPath, [program, 'bench/floor.ts'], {
  stdio: 'inherit',
  env: { ...process.env, DATABASE_URL: postgres.fresh('jampan_bench_floor') },
});
postgres.stop();
