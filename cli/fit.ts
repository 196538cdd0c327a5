/** `npm run fit -- marks.json` */
import { runFit } from './runFit';

process.exitCode = await runFit(process.argv.slice(2), console);
