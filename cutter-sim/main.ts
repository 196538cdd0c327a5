import { CURLEW_SPEC, DAMSON_ROLL } from './curlew';
import { serveSim } from './serve';

const sim = await serveSim({
  spec: CURLEW_SPEC,
  timeFactor: Number(process.env.TIME_FACTOR ?? 8),
  film: DAMSON_ROLL,
});
process.stdout.write(`ready ${JSON.stringify({ port: sim.port, panel: sim.panel })}\n`);
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => void sim.close().then(() => process.exit(0)));
