// Reads pages of many PDFs in one process, for tests: `page path` a line in, a line of JSON out.
import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { readPage } from './pdfPage.mjs';

const plain = (_key, value) => (ArrayBuffer.isView(value) ? Array.from(value) : value);
process.on('unhandledRejection', () => {});
for await (const line of createInterface({ input: process.stdin })) {
  const [page, path] = line.split(/ (.*)/s);
  const answer = await readPage(readFileSync(path), Number(page)).catch((error) => ({
    problem: String(error),
  }));
  process.stdout.write(`${JSON.stringify(answer, plain)}\n`);
}
