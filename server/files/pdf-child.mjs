// Runs the PDF parser in a process of its own: a file that makes it hang or crash takes nothing with it.
// argv: page number. stdin: the file. stdout: JSON of what core/readers/pdf/readPdf.ts takes, or { problem }.
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { PDFArray, PDFDocument, PDFName, PDFObjectCopier } from 'pdf-lib';
import { drawnParts, entriesOf, entryOf, lookUp } from './drawnParts.mjs';
import { INK, withInksMarked } from './inks.mjs';
import { openPdf, PDFJS } from './pdfjs.mjs';

const NAMES = Object.fromEntries(Object.entries(OPS).map(([name, code]) => [code, name]));
const MOST_STEPS = 3_000_000;

const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const bytes = Buffer.concat(chunks);
process.on('unhandledRejection', () => {});

// glyphs as outlines, not as fonts for a page
const load = (data) => openPdf(data, { disableFontFace: true, fontExtraProperties: true });

async function main() {
  const document = await load(bytes);
  const number = Math.min(Math.max(1, Number(process.argv[2] ?? 1)), document.numPages);
  const pages = [];
  for (let n = 1; n <= Math.min(document.numPages, 200); n++) {
    const { view, rotate, userUnit } = await document.getPage(n);
    pages.push({ view, rotate, unit: userUnit });
  }
  const plain = await document.getPage(number);
  const given = await plain.getOperatorList();
  if (given.fnArray.length > MOST_STEPS) return { problem: 'complicated' };
  // a file that this one cannot open is drawn all the same
  const source = await PDFDocument.load(bytes, { ignoreEncryption: true, updateMetadata: false }).catch(
    () => undefined,
  );
  const { boxes, spots, notEmbedded } = await parts(source, number).catch(() => ({
    boxes: {},
    spots: {},
    notEmbedded: new Set(),
  }));
  // changes it: all else of it is known by now
  const { page, fnArray, argsArray, inks } = await inked({ page: plain, ...given }, source, number);
  if (fnArray.length > MOST_STEPS) return { problem: 'complicated' };
  return {
    pages,
    page: number,
    boxes,
    spots,
    inks,
    layers: await layersOf(document),
    fonts: await fontsOf(page, fnArray, argsArray, notEmbedded),
    shadings: shadingsOf(page, fnArray, argsArray),
    steps: fnArray.map((code, i) => [NAMES[code], argsArray[i]]),
  };
}

/** The page as it is drawn, with its inks marked where it has any and nothing else of it changes by that. */
async function inked(given, source, number) {
  const found = await withInksMarked(source, number - 1).catch(() => undefined);
  if (!found) return { ...given, inks: [] };
  const page = await (await load(found.bytes)).getPage(number);
  const marked = await page.getOperatorList();
  const isMark = (i) =>
    marked.fnArray[i] === OPS.beginMarkedContent && String(marked.argsArray[i]?.[0]?.name).startsWith(INK);
  // what a page waits for is told at other places
  const isStep = (code) => code !== OPS.dependency;
  const own = marked.fnArray.filter((code, i) => isStep(code) && !isMark(i) && !(i > 0 && isMark(i - 1)));
  const wanted = given.fnArray.filter(isStep);
  const isSame = own.length === wanted.length && own.every((code, i) => code === wanted[i]);
  return isSame ? { page, ...marked, inks: found.inks } : { ...given, inks: [] };
}

async function layersOf(document) {
  const config = await document.getOptionalContentConfig();
  return Object.fromEntries(
    [...config].map(([id, group]) => [id, { name: group.name, visible: group.visible }]),
  );
}

/** Outlines of every glyph that is shown, by font and character. */
async function fontsOf(page, fnArray, argsArray, notEmbedded) {
  const fonts = {};
  const bare = new Map();
  let font;
  fnArray.forEach((code, i) => {
    if (code === OPS.setFont) {
      [font] = argsArray[i];
      if (fonts[font] || !page.commonObjs.has(font)) return;
      const { name, missingFile, isType3Font, vertical, fontMatrix, composite } = page.commonObjs.get(font);
      const missing = missingFile === true || notEmbedded.has(name);
      fonts[font] = {
        name,
        missing,
        type3: isType3Font === true,
        vertical,
        fontMatrix,
        composite,
        glyphs: {},
      };
      if (missing) fonts[font].standIn = standInOf(name, missingFile === true);
      if (missingFile === true) bare.set(font, new Map());
    } else if (code === OPS.showText && fonts[font]) {
      for (const glyph of argsArray[i][0]) {
        if (glyph?.fontChar === undefined) continue;
        bare.get(font)?.set(glyph.fontChar, glyph.unicode);
        const key = `${font}_path_${glyph.fontChar}`;
        if (!page.commonObjs.has(key)) continue;
        fonts[font].glyphs[glyph.fontChar] ??= Array.from(page.commonObjs.get(key).path ?? []);
      }
    }
  });
  for (const [id, letters] of bare) fonts[id].glyphs = await drawnBy(fonts[id].name, letters);
  return fonts;
}

const SANS = 'Liberation Sans';

/** What a typeface that the file does not carry is drawn in: the parser has stand-ins for the fourteen standard ones. */
const standInOf = (name, isUnknown) =>
  isUnknown || /helvetica|arial/i.test(name) ? SANS : 'the standard face of that kind';

/** Letters of a typeface that nobody here has, in the stand-in; by the character that stands for each in the steps. */
async function drawnBy(name, letters) {
  const style = `${/bold|black|heavy/i.test(name) ? 'Bold' : ''}${/italic|oblique/i.test(name) ? 'Italic' : ''}`;
  const file = await readFile(join(PDFJS, `standard_fonts/LiberationSans-${style || 'Regular'}.ttf`));
  const hb = await import('harfbuzzjs');
  const face = new hb.Face(new hb.Blob(new Uint8Array(file).buffer));
  const font = new hb.Font(face);
  const glyphs = {};
  for (const [fontChar, unicode] of letters) {
    const buffer = new hb.Buffer();
    buffer.addText(unicode);
    buffer.guessSegmentProperties();
    hb.shape(font, buffer);
    const [glyph] = buffer.getGlyphInfos();
    if (glyph && glyph.codepoint !== 0)
      glyphs[fontChar] = packed(font.glyphToPath(glyph.codepoint), 1 / face.upem);
  }
  return glyphs;
}

/** Path text of M, L, Q, C and Z as the parser packs it. */
function packed(text, scale) {
  const CODES = { M: 0, L: 1, C: 2, Q: 3, Z: 4 };
  return [...text.matchAll(/([MLQCZ])([^MLQCZ]*)/g)].flatMap(([, op, numbers]) => [
    CODES[op],
    ...(numbers.match(/-?[\d.]+(?:e-?\d+)?/g) ?? []).map((v) => Number(v) * scale),
  ]);
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

/** Page boxes, spot colours and typefaces without a file, which the drawing steps do not tell. */
async function parts(document, number) {
  const page = document.getPage(number - 1);
  const box = ({ x, y, width, height }) => [x, y, x + width, y + height];
  const boxes = {
    media: box(page.getMediaBox()),
    crop: box(page.getCropBox()),
    trim: box(page.getTrimBox()),
    bleed: box(page.getBleedBox()),
    art: box(page.getArtBox()),
  };
  return { boxes, spots: await spotsOf(document, page), notEmbedded: fontsWithoutFile(document, page) };
}

/** `#rrggbb` at full tint → the spot colour's name; the parser itself says which colour that is. */
async function spotsOf(document, page) {
  const spaces = spotsIn(document, page);
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

/** Spot colours of a page by their names. */
function spotsIn(document, page) {
  const { context } = document;
  const found = new Map();
  for (const { resources } of drawnParts(context, page.node.Resources())) {
    for (const [, value] of entriesOf(entryOf(context, resources, 'ColorSpace'))) {
      const space = lookUp(context, value);
      if (!(space instanceof PDFArray) || String(space.get(0)) !== '/Separation') continue;
      const name = space.lookup(1);
      if (name instanceof PDFName && !['All', 'None'].includes(name.decodeText()))
        found.set(name.decodeText(), space);
    }
  }
  return found;
}

/** Names of the typefaces that a page uses and the file does not carry. */
function fontsWithoutFile(document, page) {
  const { context } = document;
  const entry = (dict, name) => entryOf(context, dict, name);
  const found = new Set();
  for (const { resources } of drawnParts(context, page.node.Resources())) {
    for (const [, value] of entriesOf(entry(resources, 'Font'))) {
      const font = lookUp(context, value);
      const parts = entry(font, 'DescendantFonts');
      const descriptor = entry(
        parts instanceof PDFArray ? lookUp(context, parts.get(0)) : font,
        'FontDescriptor',
      );
      const hasFile = ['FontFile', 'FontFile2', 'FontFile3'].some((name) => entry(descriptor, name));
      const name = entry(font, 'BaseFont');
      const isDrawn = String(entry(font, 'Subtype')) === '/Type3';
      if (name instanceof PDFName && !hasFile && !isDrawn) found.add(name.decodeText());
    }
  }
  return found;
}

let answer;
try {
  answer = await main();
} catch (error) {
  answer = { problem: error?.name === 'PasswordException' ? 'password' : 'unreadable' };
}
const plain = (_key, value) => (ArrayBuffer.isView(value) ? Array.from(value) : value);
process.stdout.write(JSON.stringify(answer, plain), () => process.exit(0));
