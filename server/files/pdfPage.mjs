// What a PDF's page is drawn with, as core/readers/pdf/readPdf.ts takes it: steps, typefaces, gradients, inks, boxes.
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { PDFArray, PDFDocument, PDFName, PDFObjectCopier } from 'pdf-lib';
import { drawnParts, entriesOf, entryOf, lookUp } from './drawnParts.mjs';
import { INITIAL, INK, withInksMarked } from './inks.mjs';
import { openPdf, PDFJS } from './pdfjs.mjs';

const NAMES = Object.fromEntries(Object.entries(OPS).map(([name, code]) => [code, name]));
const MOST_STEPS = 3_000_000;
/** Pages that can be chosen from. */
const MOST_PAGES = 5000;

// glyphs as outlines, not as fonts for a page
const load = (data) =>
  openPdf(data, { disableFontFace: true, fontExtraProperties: true, verbosity: WARNINGS });

/** What the parser leaves out because it is damaged, it only warns of. */
const WARNINGS = 1;
const damage = { skipped: 0 };
console.warn = (text) => {
  if (LEFT_OUT.test(String(text))) damage.skipped++;
};
const LEFT_OUT =
  /^Warning: ((getOperatorList|getContentStream) - ignoring (errors|XObject|Shading|ExtGState|sub-stream)|(handleTilingType|_handleColorSpace|parseShading|buildFontPaths) - ignoring|Type3 font resource|Skipping command)/;

/**
 * Reads one page of a PDF.
 * @param bytes the file
 * @param wanted the page's number, from 1; past the last: the last
 * @returns what `readPdf` takes, or { problem: 'complicated' }
 * @throws PasswordException, and whatever the parser makes of a damaged file
 */
export async function readPage(bytes, wanted) {
  damage.skipped = 0;
  const document = await load(bytes);
  const number = Math.min(Math.max(1, wanted), document.numPages);
  const pages = [];
  for (let n = 1; n <= Math.min(document.numPages, MOST_PAGES); n++)
    pages.push(sheetOf(await document.getPage(n)));
  const plain = await document.getPage(number);
  const given = await plain.getOperatorList();
  const { skipped } = damage;
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
  const { page, inks, ...list } = await inked({ page: plain, ...given }, source, number);
  if (list.fnArray.length > MOST_STEPS) return { problem: 'complicated' };
  const config = await document.getOptionalContentConfig();
  const steps = (operators) => stepsOf(operators, config);
  return {
    pages,
    page: number,
    sheet: sheetOf(plain),
    boxes,
    spots,
    inks,
    skipped,
    ...(await resourcesOf(page, list, notEmbedded, steps)),
    steps: steps(list),
  };
}

const sheetOf = ({ view, rotate, userUnit }) => ({ view, rotate, unit: userUnit });

/** The page as it is drawn, with its inks marked where it has any and nothing else of it changes by that. */
async function inked(given, source, number) {
  const found = await withInksMarked(source, number - 1).catch(() => undefined);
  if (!found) return { ...given, inks: [] };
  const page = await (await load(found.bytes)).getPage(number);
  const marked = await page.getOperatorList();
  const own = withoutMarks(marked);
  // what a page waits for is told at other places
  const wanted = given.fnArray.filter((code) => code !== OPS.dependency);
  const isSame = own.length === wanted.length && own.every((code, i) => code === wanted[i]);
  return isSame ? { page, ...marked, inks: found.inks } : { ...given, inks: [] };
}

/** Codes of all steps but those that were added: marks, and the colours that a colour space begins with. */
function withoutMarks({ fnArray, argsArray }) {
  const codes = [];
  let until;
  fnArray.forEach((code, i) => {
    const name = code === OPS.beginMarkedContent ? String(argsArray[i]?.[0]?.name) : '';
    if (name.startsWith(INK) || name === INITIAL) until = OPS.endMarkedContent;
    else if (until === undefined && code !== OPS.dependency) codes.push(code);
    if (code === until) until = undefined;
  });
  return codes;
}

/** Steps by name; a part that is optional says whether it is shown, and the name of its layer. */
function stepsOf({ fnArray, argsArray }, config) {
  return fnArray.map((code, i) => {
    const [tag, properties] = argsArray[i] ?? [];
    const isLayer = code === OPS.beginMarkedContentProps && tag === 'OC';
    return [NAMES[code], isLayer ? [tag, layerOf(config, properties)] : argsArray[i]];
  });
}

function layerOf(config, properties) {
  const group = properties?.id === undefined ? undefined : config.getGroup(properties.id);
  let visible = true;
  try {
    visible = config.isVisible(properties);
  } catch {
    // of groups that are not in the file
  }
  return { name: group?.name ?? null, visible };
}

/** Typefaces with the outlines of every glyph that is shown, and gradients, those of drawn glyphs too. */
async function resourcesOf(page, list, notEmbedded, steps) {
  const fonts = {};
  const shadings = {};
  const bare = new Map();
  const lists = [list];
  for (let next = lists.pop(); next; next = lists.pop()) {
    gatherShadings(page, next, shadings);
    lists.push(...gatherFonts(page, next, { fonts, bare, notEmbedded, steps }));
  }
  for (const [id, letters] of bare) fonts[id].glyphs = await drawnBy(fonts[id].name, letters);
  return { fonts, shadings };
}

/** @returns what the glyphs of fonts that were found are drawn with */
function gatherFonts(page, { fnArray, argsArray }, { fonts, bare, notEmbedded, steps }) {
  const procedures = [];
  const open = (id) => {
    if (fonts[id] || !page.commonObjs.has(id)) return;
    const font = page.commonObjs.get(id);
    const { name, missingFile, isType3Font, vertical, fontMatrix, composite, defaultVMetrics } = font;
    const missing = missingFile === true || notEmbedded.has(name);
    fonts[id] = { name, missing, type3: isType3Font === true, vertical, fontMatrix, composite, glyphs: {} };
    if (vertical) fonts[id].defaultVMetrics = defaultVMetrics;
    if (missing) fonts[id].standIn = standInOf(name, missingFile === true);
    if (missingFile === true) bare.set(id, new Map());
    if (!isType3Font) return;
    const drawn = Object.entries(font.charProcOperatorList ?? {});
    fonts[id].procedures = Object.fromEntries(drawn.map(([glyph, list]) => [glyph, steps(list)]));
    procedures.push(...drawn.map(([, list]) => list));
  };
  const kept = [];
  let font;
  fnArray.forEach((code, i) => {
    const args = argsArray[i];
    if (code === OPS.save) kept.push(font);
    else if (code === OPS.restore) font = kept.pop() ?? font;
    else if (code === OPS.setFont) open((font = args[0]));
    else if (code === OPS.setGState) {
      const set = args[0].find(([key]) => key === 'Font');
      if (set) open((font = set[1][0]));
    } else if (code === OPS.showText && fonts[font]) gatherGlyphs(page, font, args[0], fonts[font], bare);
  });
  return procedures;
}

function gatherGlyphs(page, id, shown, font, bare) {
  const take = (fontChar) => {
    const key = `${id}_path_${fontChar}`;
    if (page.commonObjs.has(key)) font.glyphs[fontChar] ??= Array.from(page.commonObjs.get(key).path ?? []);
  };
  for (const glyph of shown) {
    if (glyph?.fontChar === undefined) continue;
    bare.get(id)?.set(glyph.fontChar, glyph.unicode);
    take(glyph.fontChar);
    if (glyph.accent?.fontChar) take(glyph.accent.fontChar);
  }
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

/** Every gradient that is used. */
function gatherShadings(page, { fnArray, argsArray }, shadings) {
  fnArray.forEach((code, i) => {
    const [kind, id] = argsArray[i] ?? [];
    const key = code === OPS.shadingFill ? kind : kind === 'Shading' ? id : undefined;
    const objects = [page.objs, page.commonObjs].find((all) => key !== undefined && all.has(key));
    const shading = objects && shadingOf(objects.get(key));
    if (shading) shadings[key] = shading;
  });
}

/** @param given the parser's own form of it; @returns undefined for a kind that it does not read */
function shadingOf(given) {
  const ir = given?.getIR?.() ?? given;
  if (ir[0] === 'RadialAxial') {
    const [, kind, box, all, from, to, r0, r1] = ir;
    const ends = [all[0], all[all.length - 1]].map(([, colour]) => colour !== 'transparent');
    const stops = all.filter(([, colour]) => colour !== 'transparent');
    return { kind, box, stops, from, to, radii: [r0 ?? 0, r1 ?? 0], extends: ends };
  }
  return ir[0] === 'Mesh' ? meshOf(ir) : undefined;
}

function meshOf([, , coords, colours, figures, , box]) {
  const triangles = [];
  // places in the flat list of coordinates
  const corner = (index) => [coords[index], coords[index + 1]];
  const put = (coordinates, ...corners) =>
    triangles.push(...corners.flatMap((at) => corner(coordinates[at])));
  for (const { coords: at, verticesPerRow: across } of figures) {
    // rows of corners, or corners by threes
    for (let i = 0; across && i + across + 1 < at.length; i++) {
      if ((i + 1) % across === 0) continue;
      put(at, i, i + 1, i + across);
      put(at, i + 1, i + across + 1, i + across);
    }
    for (let i = 0; !across && i + 2 < at.length; i += 3) put(at, i, i + 1, i + 2);
  }
  const mean = [0, 1, 2].map((channel) => {
    let sum = 0;
    for (let i = channel; i < colours.length; i += 3) sum += colours[i];
    return Math.round((3 * sum) / Math.max(3, colours.length));
  });
  return {
    kind: 'mesh',
    box,
    triangles,
    colour: `#${mean.map((v) => v.toString(16).padStart(2, '0')).join('')}`,
  };
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
