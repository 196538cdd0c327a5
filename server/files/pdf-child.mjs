// Runs the PDF parser in a process of its own: a file that makes it hang or crash takes nothing with it.
// argv: page number. stdin: the file. stdout: JSON of what core/artwork/readPdf.ts takes, or { problem }.
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { PDFArray, PDFDict, PDFDocument, PDFName, PDFObjectCopier, PDFRawStream, PDFRef } from 'pdf-lib';

const HOME = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));
const NAMES = Object.fromEntries(Object.entries(OPS).map(([name, code]) => [code, name]));
const MOST_STEPS = 3_000_000;

const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const bytes = Buffer.concat(chunks);
process.on('unhandledRejection', () => {});

const load = (data) =>
  getDocument({
    data: new Uint8Array(data),
    // glyphs as outlines, not as fonts for a page
    disableFontFace: true,
    useSystemFonts: false,
    isEvalSupported: false,
    enableXfa: false,
    verbosity: 0,
    standardFontDataUrl: join(HOME, 'standard_fonts/'),
    cMapUrl: join(HOME, 'cmaps/'),
    cMapPacked: true,
    fontExtraProperties: true,
  }).promise;

async function main() {
  const document = await load(bytes);
  const number = Math.min(Math.max(1, Number(process.argv[2] ?? 1)), document.numPages);
  const pages = [];
  for (let n = 1; n <= Math.min(document.numPages, 200); n++) {
    const { view, rotate, userUnit } = await document.getPage(n);
    pages.push({ view, rotate, unit: userUnit });
  }
  const page = await document.getPage(number);
  const { fnArray, argsArray } = await page.getOperatorList();
  if (fnArray.length > MOST_STEPS) return { problem: 'complicated' };
  const { boxes, spots } = await parts(number).catch(() => ({ boxes: {}, spots: {} }));
  return {
    pages,
    page: number,
    boxes,
    spots,
    layers: await layersOf(document),
    fonts: fontsOf(page, fnArray, argsArray),
    shadings: shadingsOf(page, fnArray, argsArray),
    steps: fnArray.map((code, i) => [NAMES[code], argsArray[i]]),
  };
}

async function layersOf(document) {
  const config = await document.getOptionalContentConfig();
  return Object.fromEntries(
    [...config].map(([id, group]) => [id, { name: group.name, visible: group.visible }]),
  );
}

/** Outlines of every glyph that is shown, by font and character. */
function fontsOf(page, fnArray, argsArray) {
  const fonts = {};
  let font;
  fnArray.forEach((code, i) => {
    if (code === OPS.setFont) {
      [font] = argsArray[i];
      if (fonts[font] || !page.commonObjs.has(font)) return;
      const { name, missingFile, isType3Font, vertical, fontMatrix } = page.commonObjs.get(font);
      fonts[font] = {
        name,
        missing: missingFile === true,
        type3: isType3Font === true,
        vertical,
        fontMatrix,
        glyphs: {},
      };
    } else if (code === OPS.showText && fonts[font]) {
      for (const glyph of argsArray[i][0]) {
        const key = `${font}_path_${glyph?.fontChar}`;
        if (glyph?.fontChar === undefined || !page.commonObjs.has(key)) continue;
        fonts[font].glyphs[glyph.fontChar] ??= Array.from(page.commonObjs.get(key).path ?? []);
      }
    }
  });
  return fonts;
}

/** Colour stops of every gradient that is used. */
function shadingsOf(page, fnArray, argsArray) {
  const shadings = {};
  fnArray.forEach((code, i) => {
    const [kind, id] = argsArray[i] ?? [];
    const key = code === OPS.shadingFill ? kind : kind === 'Shading' ? id : undefined;
    if (key === undefined || !page.objs.has(key)) return;
    const [type, , , stops] = page.objs.get(key);
    shadings[key] = type === 'RadialAxial' ? stops : [];
  });
  return shadings;
}

/** Page boxes and spot colours, which the drawing steps do not tell. */
async function parts(number) {
  const document = await PDFDocument.load(bytes, { ignoreEncryption: true, updateMetadata: false });
  const page = document.getPage(number - 1);
  const box = ({ x, y, width, height }) => [x, y, x + width, y + height];
  const boxes = {
    media: box(page.getMediaBox()),
    crop: box(page.getCropBox()),
    trim: box(page.getTrimBox()),
    bleed: box(page.getBleedBox()),
    art: box(page.getArtBox()),
  };
  return { boxes, spots: await spotsOf(document, page) };
}

/** `#rrggbb` at full tint → the spot colour's name; the parser itself says which colour that is. */
async function spotsOf(document, page) {
  const spaces = new Map();
  collectSpots(document, page.node.Resources(), spaces, new Set());
  if (spaces.size === 0) return {};
  const proof = await PDFDocument.create();
  const copier = PDFObjectCopier.for(document.context, proof.context);
  const names = [...spaces.keys()];
  const colours = proof.context.obj({});
  names.forEach((name, i) => colours.set(PDFName.of(`S${i}`), copier.copy(spaces.get(name))));
  const sheet = proof.addPage([100, 100]);
  sheet.node.set(PDFName.of('Resources'), proof.context.obj({ ColorSpace: colours }));
  const text = names.map((_, i) => `/S${i} cs 1 scn 0 0 1 1 re f`).join('\n');
  sheet.node.set(PDFName.of('Contents'), proof.context.register(proof.context.stream(text)));
  const { fnArray, argsArray } = await (await (await load(await proof.save())).getPage(1)).getOperatorList();
  const shown = argsArray.filter((_, i) => fnArray[i] === OPS.setFillRGBColor).map(([colour]) => colour);
  return Object.fromEntries(names.flatMap((name, i) => (shown[i] ? [[shown[i], name]] : [])));
}

function collectSpots(document, resources, found, seen) {
  if (!(resources instanceof PDFDict) || seen.has(resources)) return;
  seen.add(resources);
  const look = (value) => (value instanceof PDFRef ? document.context.lookup(value) : value);
  const spaces = look(resources.get(PDFName.of('ColorSpace')));
  for (const [, value] of spaces instanceof PDFDict ? spaces.entries() : []) {
    const space = look(value);
    if (!(space instanceof PDFArray) || String(space.get(0)) !== '/Separation') continue;
    const name = space.lookup(1);
    if (name instanceof PDFName && !['All', 'None'].includes(name.decodeText()))
      found.set(name.decodeText(), space);
  }
  const forms = look(resources.get(PDFName.of('XObject')));
  for (const [, value] of forms instanceof PDFDict ? forms.entries() : []) {
    const form = look(value);
    if (form instanceof PDFRawStream)
      collectSpots(document, look(form.dict.get(PDFName.of('Resources'))), found, seen);
  }
}

let answer;
try {
  answer = await main();
} catch (error) {
  answer = { problem: error?.name === 'PasswordException' ? 'password' : 'unreadable' };
}
const packed = (_key, value) => (ArrayBuffer.isView(value) ? Array.from(value) : value);
process.stdout.write(JSON.stringify(answer, packed), () => process.exit(0));
