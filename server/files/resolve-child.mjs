// Runs the native SVG resolver in a process of its own: a file that makes it hang or crash takes nothing with it.
// argv: JSON { files, standIn } of typefaces. stdin: SVG text. stdout: JSON { svg } with the resolved text.
import { Resvg } from '@resvg/resvg-js';

const { files, standIn } = JSON.parse(process.argv[2] ?? '{"files":[],"standIn":""}');
const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const text = Buffer.concat(chunks).toString('utf8');
const families = [
  'defaultFontFamily',
  'serifFamily',
  'sansSerifFamily',
  'cursiveFamily',
  'fantasyFamily',
  'monospaceFamily',
];
const font = {
  loadSystemFonts: false,
  ...(files.length > 0
    ? { fontFiles: files, ...Object.fromEntries(families.map((key) => [key, standIn])) }
    : {}),
};
try {
  process.stdout.write(JSON.stringify({ svg: new Resvg(text, { font }).toString() }));
} catch (error) {
  process.stdout.write(JSON.stringify({ problem: String(error?.message ?? error) }));
}
