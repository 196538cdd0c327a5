import { serveSim } from './serve';

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
  timeFactor: Number(process.env.TIME_FACTOR ?? 8),
  film: { name: 'Damson', width: 610, length: 22_000, toughness: 60 },
});
process.stdout.write(`ready ${JSON.stringify({ port: sim.port, panel: sim.panel })}\n`);
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => void sim.close().then(() => process.exit(0)));
