// Everything a fresh clone needs to be used: packages, PostgreSQL, pages, the simulated cutters, the server.
import { installPackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { keepRunning } from './keepRunning.mjs';
import { run, startUntilReady } from './run.mjs';
import { parseArgs } from 'node:util';
import { existsSync } from 'node:fs';

const MOST_SERVERS = 16;
function serversAsked() {
  try {
    return parseArgs({ options: { servers: { type: 'string', default: '1' } } }).values.servers;
  } catch (error) {
    console.error(`${error.message}\nAsk in this way: npm start -- --servers 2`);
    process.exit(2);
  }
}
const asked = serversAsked();
const count = Number(asked);
if (!Number.isInteger(count) || count < 1 || count > MOST_SERVERS) {
  console.error(`--servers ${asked}: say how many, from 1 to ${MOST_SERVERS}, such as --servers 2.`);
  process.exit(2);
}

installPackages();
const postgres = process.env.DATABASE_URL ? undefined : await startPostgres('shop');
const databaseUrl = process.env.DATABASE_URL ?? postgres.url;
if (!process.env.KEEP_PAGES || !existsSync('dist/web/index.html')) {
  console.log('Building the pages …');
  run('npx', ['vite', 'build', '--logLevel', 'error'], { stdio: ['ignore', 'inherit', 'inherit'] });
}
const program = 'scripts/program.mjs';
const log = (text) => console.log(`  ${text}`);
let simulators = '{}';
const sim = await keepRunning(
  'The simulated shop',
  async () => {
    const started = await startUntilReady(process.execPath, [program, 'cutter-sim/main.ts'], {
      SIMULATORS: simulators,
    });
    simulators = started.said;
    return started;
  },
  log,
);
const links = JSON.parse(simulators);
const firstPort = Number(process.env.PORT ?? '4270');
/** Each on a port of its own, on one database. */
const startServer = (i) =>
  startUntilReady(process.execPath, [program, 'server/main.ts'], {
    DATABASE_URL: databaseUrl,
    SIMULATORS: simulators,
    PORT: String(firstPort + i),
    SERVERS: String(count),
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
  });
const servers = [];
// one after the other: the first lays the database out
for (let i = 0; i < count; i++)
  servers.push(await keepRunning(`The server on port ${firstPort + i}`, () => startServer(i), log));
const [server] = servers;

const panels = Object.entries(links)
  .map(([id, { panel }]) => `    ${id.padEnd(14)} ${panel}`)
  .join('\n');
const demo = JSON.parse(/^demo (.+)$/m.exec(server.now().text)[1]);
const open = demo.length > 0 && (process.env.HOSTS || process.env.LISTEN);
const people = demo
  .map(
    ({ name, role, password, pin }) =>
      `    ${name.padEnd(14)} ${role.padEnd(10)} ${password.padEnd(24)} PIN ${pin}`,
  )
  .join('\n');
console.log(`
  Jam Pan          ${servers.map((one) => one.now().said).join('\n                   ')}
${people && `\n  The demo shop's people, with their passwords:\n${people}\n`}
${open ? `\n  Open on the network, and the demo's passwords are shown to whoever opens it: change them, or remove\n  these people, before it is used in earnest.\n` : ''}
  Front panels of the simulated cutters, where film is loaded:
${panels}

  Ctrl-C stops everything.
`);

let stopping = false;
async function stop(code) {
  if (stopping) return;
  stopping = true;
  const all = [...servers, sim];
  await Promise.race([
    Promise.all(all.map((one) => one.end())),
    new Promise((done) => setTimeout(done, 8000)),
  ]);
  for (const one of all) one.kill();
  postgres?.stop();
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
