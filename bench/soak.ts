/**
 * Cuts that meet faults, for as long as one likes: `node scripts/program.mjs bench/soak.ts 2000` has 2000 of them with seeds that no run
 * before had. It says its seed at the start: `bench/soak.ts 2000 SEED` has the same once more.
 */
import { spawnSync } from 'node:child_process';
import { ofSize } from './size';
import { startPostgres } from '../scripts/postgres.mjs';

const [runs = '2000', seed = String(1 + (Date.now() % 2_000_000_000))] = process.argv.slice(2);
// where one runs already, that is taken
const postgres = process.env.DATABASE_URL ? undefined : await startPostgres('test', { fast: true });
console.log(`${runs} runs, seed ${seed}`);
const begun = performance.now();
const { status } = spawnSync(
  'npx',
  ['jest', '--selectProjects', 'server', '--testPathPatterns', 'server/seededFaults'],
  {
    stdio: 'inherit',
    env: {
      ...process.env,
      DATABASE_URL: postgres?.fresh('jampan_soak') ?? process.env.DATABASE_URL,
      JAM_PAN_LONG: String(ofSize(1, 0)),
      RUNS: runs,
      SEED: seed,
    },
  },
);
console.log(`${((performance.now() - begun) / Number(runs)).toFixed(0)} ms a run`);
postgres?.stop();
process.exitCode = status ?? 1;
