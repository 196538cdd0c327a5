/** `npm run plan -- art.svg …` */
import { run } from './run';

process.exitCode = await run(process.argv.slice(2), console);
