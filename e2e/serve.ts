/** The whole application for browser tests and screenshots: demo shop, simulated cutter, quick time. */
import { join } from 'node:path';
import { serveSim } from '../cutter-sim/serve';
import { seedOrders, seedShop } from '../demo/seed';
import { openServer } from '../server/open';

const databaseUrl = process.env.DATABASE_URL;
if (!databaseUrl) throw new Error('DATABASE_URL is not set: run npm test');
const sim = await serveSim({
  spec: {
    name: 'Curlew',
    widestRoll: 1370,
    rollerMargin: 12.7,
    bufferBytes: 4096,
    acceleration: 8000,
    travelSpeed: 60,
    bladeOffset: 0.25,
    wear: 0.05,
  },
  timeFactor: Number(process.env.TIME_FACTOR ?? 12),
  panelPort: 4282,
  film: { name: 'Damson', width: 610, length: 22_000, toughness: 60 },
});
const server = await openServer({ databaseUrl, port: 4281, pagesDir: join(process.cwd(), 'dist/web') });
await seedShop(server.services, { host: '127.0.0.1', port: sim.port, panel: sim.panel });
await seedOrders(server.services);
process.stdout.write(`ready ${server.url}\n`);
