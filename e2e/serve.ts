/** The whole application for browser tests and screenshots: demo shop, simulated cutters, quick time. */
import { join } from 'node:path';
import { linksTo, serveShop } from '../cutter-sim/serve';
import { seedDemo } from '../demo/seed';
import { openServer } from '../server/open';

const databaseUrl = process.env.DATABASE_URL;
if (!databaseUrl) throw new Error('DATABASE_URL is not set: run npm test');
const sims = await serveShop(Number(process.env.TIME_FACTOR ?? 30));
process.env.SIMULATORS = JSON.stringify(linksTo(sims));
const server = await openServer({ databaseUrl, pagesDir: join(process.cwd(), 'dist/web') });
await seedDemo(server.services);
const panels = Object.fromEntries(Object.entries(sims).map(([id, { panel }]) => [id, panel]));
process.stdout.write(`ready ${JSON.stringify({ url: server.url, panels })}\n`);
