import { linksTo, portsOf, serveShop } from './serve';

// one that is started again answers where it did before
const before = portsOf(JSON.parse(process.env.SIMULATORS ?? '{}'));
const sims = await serveShop(Number(process.env.TIME_FACTOR ?? 8), before);
process.stdout.write(`ready ${JSON.stringify(linksTo(sims))}\n`);
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(
    signal,
    () => void Promise.all(Object.values(sims).map((sim) => sim.close())).then(() => process.exit(0)),
  );
