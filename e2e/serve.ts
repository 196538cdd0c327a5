/** The whole application for browser tests and screenshots: demo shop, simulated cutter, quick time. */
import { join } from 'node:path';
import { CURLEW_SPEC, DAMSON_ROLL } from '../cutter-sim/curlew';
import { serveSim } from '../cutter-sim/serve';
import { seedOrders, seedShop } from '../demo/seed';
import { openServer } from '../server/open';

const databaseUrl = process.env.DATABASE_URL;
if (!databaseUrl) throw new Error('DATABASE_URL is not set: run npm test');
const sim = await serveSim({
  spec: CURLEW_SPEC,
  timeFactor: Number(process.env.TIME_FACTOR ?? 12),
  film: DAMSON_ROLL,
});
const server = await openServer({ databaseUrl, pagesDir: join(process.cwd(), 'dist/web') });
await seedShop(server.services, { host: '127.0.0.1', port: sim.port, panel: sim.panel });
await seedOrders(server.services);
process.stdout.write(`ready ${JSON.stringify({ url: server.url, panels: { curlew: sim.panel } })}\n`);
