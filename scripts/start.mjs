// Everything a fresh clone needs to be used: packages, PostgreSQL, pages, the simulated cutters, the server.
import { installPackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
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
const sim = await startUntilReady(process.execPath, [program, 'cutter-sim/main.ts']);
const links = JSON.parse(sim.said);
const firstPort = Number(process.env.PORT ?? '4270');
/** Each on a port of its own, on one database. */
const startServer = (i) =>
  startUntilReady(process.execPath, [program, 'server/main.ts'], {
    DATABASE_URL: databaseUrl,
    SIMULATORS: sim.said,
    PORT: String(firstPort + i),
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
  });
const servers = [];
// one after the other: the first lays the database out
for (let i = 0; i < count; i++) servers.push(await startServer(i));
const [server] = servers;

const panels = Object.entries(links)
  .map(([id, { panel }]) => `    ${id.padEnd(14)} ${panel}`)
  .join('\n');
const demo = JSON.parse(/^demo (.+)$/m.exec(server.text)[1]);
const open = demo.length > 0 && (process.env.HOSTS || process.env.LISTEN);
const people = demo
  .map(
    ({ name, role, password, pin }) =>
      `    ${name.padEnd(14)} ${role.padEnd(10)} ${password.padEnd(24)} PIN ${pin}`,
  )
  .join('\n');
console.log(`
  Jam Pan          ${servers.map(({ said }) => said).join('\n                   ')}
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
  for (const { child } of all) child.removeAllListeners('exit');
  const ended = all.map(
    ({ child }) => new Promise((done) => (child.exitCode === null ? child.once('exit', done) : done())),
  );
  for (const { child } of all) child.kill('SIGTERM');
  await Promise.race([Promise.all(ended), new Promise((done) => setTimeout(done, 8000))]);
  for (const { child } of all) child.kill('SIGKILL');
  postgres?.stop();
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));

/** One of several that ends is started again: the others go on with its cuts meanwhile. */
function watch(i) {
  const { child } = servers[i];
  child.removeAllListeners('exit');
  child.on('exit', () => {
    if (count === 1) return void stop(1);
    console.log(`  The server at ${servers[i].said} ended and is started again.`);
    setTimeout(() => {
      if (stopping) return;
      startServer(i).then(
        (again) => {
          if (stopping) return void again.child.kill('SIGKILL');
          servers[i] = again;
          watch(i);
        },
        () => void stop(1),
      );
    }, 1000);
  });
}
servers.forEach((_, i) => watch(i));
sim.child.removeAllListeners('exit');
sim.child.on('exit', () => void stop(1));
