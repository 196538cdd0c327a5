import { join } from 'node:path';
import { pino } from 'pino';
import { z } from 'zod';
import { seedOrders, seedShop } from '../demo/seed';
import { openServer } from './open';

const databaseUrl = process.env.DATABASE_URL;
if (!databaseUrl) throw new Error('DATABASE_URL is not set: start with npm start');
/** Where the demo shop's cutters answer, by id. */
const linksSchema = z.record(
  z.string(),
  z.object({ host: z.string(), port: z.number(), panel: z.string().optional() }),
);

const log = pino({ level: process.env.LOG_LEVEL ?? 'info' }, pino.destination(2));
const server = await openServer({
  databaseUrl,
  port: Number(process.env.PORT ?? 0),
  pagesDir: join(process.cwd(), 'dist/web'),
  log,
});
await seedShop(server.services, linksSchema.parse(JSON.parse(process.env.CUTTERS ?? '{}')));
await seedOrders(server.services);
process.stdout.write(`ready ${server.url}\n`);
let closing = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    if (closing) return;
    closing = true;
    void server.close().then(() => process.exit(0));
  });
}
