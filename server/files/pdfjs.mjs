// The parser of PDFs as both children that use it open a file: without scripts, without typefaces of this machine.
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

export const PDFJS = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

/** @param more options of its own */
export const openPdf = (data, more = {}) =>
  getDocument({
    data: new Uint8Array(data),
    useSystemFonts: false,
    isEvalSupported: false,
    enableXfa: false,
    verbosity: 0,
    standardFontDataUrl: join(PDFJS, 'standard_fonts/'),
    cMapUrl: join(PDFJS, 'cmaps/'),
    cMapPacked: true,
    wasmUrl: join(PDFJS, 'wasm/'),
    ...more,
  }).promise;
