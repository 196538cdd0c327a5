import { serveShop } from './serve';

const sims = await serveShop(Number(process.env.TIME_FACTOR ?? 8));
const links = Object.entries(sims).map(([id, { port, panel }]) => [id, { host: '127.0.0.1', port, panel }]);
process.stdout.write(`ready ${JSON.stringify(Object.fromEntries(links))}\n`);
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(
    signal,
    () => void Promise.all(Object.values(sims).map((sim) => sim.close())).then(() => process.exit(0)),
  );
