import { join } from 'node:path';
import { pino } from 'pino';
import { seedDemo } from '../demo/seed';
import { networkFrom } from './network';
import { openServer } from './open';
import { demoPeople } from './people/people';

const databaseUrl = process.env.DATABASE_URL;
if (!databaseUrl) throw new Error('DATABASE_URL is not set: start with npm start');
const log = pino({ level: process.env.LOG_LEVEL ?? 'info' }, pino.destination(2));
const server = await openServer({
  databaseUrl,
  port: Number(process.env.PORT ?? 0),
  pagesDir: join(process.cwd(), 'dist/web'),
  log,
  servers: Number(process.env.SERVERS ?? 1),
  ...networkFrom(process.env),
});
await seedDemo(server.services);
process.stdout.write(`demo ${JSON.stringify(await demoPeople(server.services.db))}\n`);
process.stdout.write(`ready ${server.url}\n`);
let closing = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    if (closing) return;
    closing = true;
    void server.close().then(() => process.exit(0));
  });
}
