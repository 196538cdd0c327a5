// Runs the PDF parser in a process of its own: a file that makes it hang or crash takes nothing with it.
// argv: page number. stdin: the file. stdout: JSON of what core/readers/pdf/readPdf.ts takes, or { problem }.
import { readPage } from './pdfPage.mjs';

const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
process.on('unhandledRejection', () => {});

let answer;
try {
  answer = await readPage(Buffer.concat(chunks), Number(process.argv[2] ?? 1));
} catch (error) {
  answer = { problem: error?.name === 'PasswordException' ? 'password' : 'unreadable' };
}
const plain = (_key, value) => (ArrayBuffer.isView(value) ? Array.from(value) : value);
process.stdout.write(JSON.stringify(answer, plain), () => process.exit(0));
