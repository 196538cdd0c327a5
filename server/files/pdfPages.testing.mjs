// Reads the first page of many PDFs in one process, for tests: a path a line in, a line of JSON out.
import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { readPage } from './pdfPage.mjs';

const plain = (_key, value) => (ArrayBuffer.isView(value) ? Array.from(value) : value);
for await (const path of createInterface({ input: process.stdin }))
  process.stdout.write(`${JSON.stringify(await readPage(readFileSync(path), 1), plain)}\n`);
