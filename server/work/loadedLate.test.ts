/** What a server and its threads load before anybody asks them for anything: it is what their start takes. */
import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { builtProgram } from '../../scripts/builtProgram.mjs';

/** Packages that a program loads at its start, by its own files. */
function loadedBy(file: string, seen = new Set<string>()): Set<string> {
  const packages = new Set<string>();
  if (seen.has(file)) return packages;
  seen.add(file);
  for (const [, from] of readFileSync(file, 'utf8').matchAll(/^(?:import|export)\b[^;]*?"([^"]+)";$/gm)) {
    if (!from.startsWith('.')) packages.add(from);
    else for (const one of loadedBy(join(dirname(file), from), seen)) packages.add(one);
  }
  return packages;
}

/** Each takes a tenth to half a second of a processor. */
const LONG = ['fontkit', 'pdf-lib', 'pdfkit', 'sharp', 'css-tree', 'culori', 'harfbuzzjs'];

test.each([
  ['server/main.ts', ['express', 'drizzle-orm']],
  ['server/work/planningTasks.ts', ['@resvg/resvg-js', 'clipper2-ts']],
])('%s loads nothing that reads files or draws PDFs before it is asked for', (entry, does) => {
  const packages = [...loadedBy(builtProgram(entry))];
  expect(packages).toEqual(expect.arrayContaining(does));
  expect(packages.filter((name) => LONG.includes(name))).toEqual([]);
});

test('what reads files is in threads of its own', () => {
  const packages = [...loadedBy(builtProgram('server/work/readingTasks.ts'))];
  expect(packages).toEqual(expect.arrayContaining(['fontkit', 'css-tree']));
  // PDFs are drawn by those who plan, and read in a process
  expect(packages.filter((name) => name.startsWith('pdf'))).toEqual([]);
});
