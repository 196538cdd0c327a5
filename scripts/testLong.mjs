// What takes long to prove: every case of the tests that `npm test` runs a sample of. `npm run test:long -- --seed 7`
import { spawnSync } from 'node:child_process';
import { installPackages } from './packages.mjs';
import { aptForTests } from './run.mjs';

installPackages();
aptForTests();
const at = process.argv.indexOf('--seed');
const seed = at > 0 ? Number(process.argv[at + 1]) : Date.now() % 1_000_000;
if (!Number.isInteger(seed)) {
  console.error('--seed takes a whole number');
  process.exit(2);
}
console.log(`seed ${seed}`);
const files = ['server/files/pdfByOthers'];
const env = { ...process.env, JAM_PAN_LONG: '1', JAM_PAN_SEED: String(seed) };
const { status } = spawnSync('npx', ['jest', '--testPathPatterns', ...files], { stdio: 'inherit', env });
process.exit(status ?? 1);
