// Runs a TypeScript program: `node scripts/program.mjs server/main.ts`, with its arguments behind it.
import { pathToFileURL } from 'node:url';
import { builtProgram } from './builtProgram.mjs';

const [entry] = process.argv.splice(2, 1);
// what goes wrong is told by the lines that people wrote
process.setSourceMapsEnabled(true);
await import(pathToFileURL(builtProgram(entry)).href);
