// Runs the native SVG resolver in a process of its own: a file that makes it hang or crash takes nothing with it.
// stdin: SVG text. stdout: JSON { svg, png } with the resolved text and a thumbnail in base64.
import { Resvg } from '@resvg/resvg-js';

const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const text = Buffer.concat(chunks).toString('utf8');
const options = {
  font: { loadSystemFonts: false },
  fitTo: { mode: 'width', value: Number(process.argv[2] ?? 480) },
};
try {
  const resvg = new Resvg(text, options);
  const svg = resvg.toString();
  const tall = resvg.height > 3 * resvg.width;
  const png = tall ? '' : resvg.render().asPng().toString('base64');
  process.stdout.write(JSON.stringify({ svg, png }));
} catch (error) {
  process.stdout.write(JSON.stringify({ problem: String(error?.message ?? error) }));
}
