// The inks of a PDF's page, which its parser turns into colours of light: every step that sets one is followed by a mark
// that names it, so that whatever is painted next is known to be painted with it (ISO 32000-1, 8.6 and 14.6).
import { decodePDFRawStream, PDFArray, PDFName, PDFNumber, PDFRawStream, PDFRef } from 'pdf-lib';
import { drawnParts, entryOf, lookUp } from './drawnParts.mjs';
import { stepsIn } from './contentSteps.mjs';

/** Begins the name of such a mark; `f` or `s`, for fills or strokes, and the number of the ink follow, or `none`. */
export const INK = 'JamPanInk.';
/**
 * Names a mark around the colour that a colour space begins with (ISO 32000-2, 8.6.8), where nothing sets another one
 * before it is used: the parser keeps the colour that was set before.
 */
export const INITIAL = 'JamPanInitial';
/** The ink that leaves no mark anywhere. */
const NONE = 'none';

/**
 * @param document as pdf-lib reads it; it is changed
 * @param page from 0
 * @returns the inks by their numbers, and whether anything was marked
 */
function markInks(document, page) {
  const inks = new Inks();
  const leaf = document.getPage(page).node;
  const { context } = document;
  const marker = new Marker(context, inks);
  let isMarked = false;
  for (const { resources, form, reference } of drawnParts(context, leaf.Resources())) {
    const text = marker.textOf(form ?? leaf.Contents());
    const marked = marker.marked(text, resources);
    if (marked === text) continue;
    isMarked = true;
    const stream = context.flateStream(marked);
    if (!form) leaf.set(PDFName.of('Contents'), context.register(stream));
    else if (reference instanceof PDFRef) {
      for (const [name, value] of form.dict.entries())
        if (!['/Length', '/Filter', '/DecodeParms'].includes(String(name))) stream.dict.set(name, value);
      context.assign(reference, stream);
    }
  }
  return { inks: inks.all, isMarked };
}

class Inks {
  all = [];
  known = new Map();
  numberOf(ink) {
    const key = JSON.stringify(ink);
    if (!this.known.has(key)) this.known.set(key, this.all.push(ink) - 1);
    return this.known.get(key);
  }
}

/** Operators that set a colour by its shares alone. */
const DIRECT = {
  g: ([white]) => ({ kind: 'grey', white }),
  k: (shares) => ({ kind: 'cmyk', shares }),
};

const SETS_COLOUR = new Set(['sc', 'scn', 'g', 'rg', 'k']);

/** Of the colour spaces that begin with the same colour whatever their details are (ISO 32000-2, table 73). */
const INITIALS = {
  '/DeviceGray': [0],
  '/CalGray': [0],
  '/DeviceRGB': [0, 0, 0],
  '/CalRGB': [0, 0, 0],
  '/DeviceCMYK': [0, 0, 0, 1],
  '/Lab': [0, 0, 0],
  '/Indexed': [0],
  '/Separation': [1],
};

class Marker {
  constructor(context, inks) {
    this.context = context;
    this.inks = inks;
  }

  look(value) {
    return lookUp(this.context, value);
  }
  entry(dict, name) {
    return entryOf(this.context, dict, name);
  }

  /** What a page or a form draws with, as one text of one byte a letter. */
  textOf(contents) {
    const parts =
      contents instanceof PDFArray ? contents.asArray().map((part) => this.look(part)) : [contents];
    return parts
      .filter((part) => part instanceof PDFRawStream)
      .map((part) => Buffer.from(decodePDFRawStream(part).decode()).toString('latin1'))
      .join('\n');
  }

  /** The text with a mark behind every step that sets an ink. */
  marked(text, resources) {
    const spaces = this.entry(resources, 'ColorSpace');
    const kept = [];
    let now = {};
    let out = '';
    let from = 0;
    const put = (end, more) => {
      out += text.slice(from, end) + more;
      from = end;
    };
    const mark = (which, ink) => ` /${INK}${which}${ink === NONE ? NONE : this.inks.numberOf(ink)} BMC EMC `;
    /** Of colour spaces whose colour is not set yet, by `f` and `s`. */
    const begun = {};
    for (const { operator, operands, end } of stepsIn(text)) {
      const which = operator === operator.toLowerCase() ? 'f' : 's';
      const plain = operator.toLowerCase();
      if (SETS_COLOUR.has(plain)) delete begun[which];
      else if (plain !== 'cs')
        for (const [key, { at, colour, ink }] of Object.entries(begun)) {
          put(
            at,
            ` /${INITIAL} BMC ${colour} ${key === 'f' ? 'scn' : 'SCN'} EMC ${ink ? mark(key, ink) : ''}`,
          );
          delete begun[key];
        }
      if (operator === 'q') kept.push(now);
      else if (operator === 'Q') now = kept.pop() ?? now;
      else if (plain === 'cs') {
        const space = this.entry(spaces, operands[0]) ?? operands[0];
        now = { ...now, [which]: this.space(space) };
        const colour = this.initial(space);
        if (colour) begun[which] = { at: end, colour: colour.join(' '), ink: now[which]?.(colour) };
      }
      const shares = operands.filter((value) => typeof value === 'number');
      const ink =
        DIRECT[plain]?.(shares) ?? (plain === 'sc' || plain === 'scn' ? now[which]?.(shares) : undefined);
      if (ink) put(end, mark(which, ink));
    }
    return out + text.slice(from);
  }

  /** The shares of the colour that a colour space begins with; undefined: none that can be set. */
  initial(space) {
    const name = this.nameOf(space);
    if (name === '/ICCBased') {
      const stream = this.look(space.get(1));
      const n = stream instanceof PDFRawStream ? this.entry(stream.dict, 'N') : undefined;
      return n instanceof PDFNumber ? new Array(n.asNumber()).fill(0) : undefined;
    }
    if (name === '/DeviceN') return new Array(this.look(space.get(1)).size()).fill(1);
    return INITIALS[name];
  }

  nameOf(space) {
    return space instanceof PDFArray
      ? String(this.look(space.get(0)))
      : `/${String(space).replace(/^\//, '')}`;
  }

  /** From shares of a colour space to an ink; undefined: it is one of light, or none that can be kept. */
  space(space) {
    const name = this.nameOf(space);
    if (name === '/DeviceGray') return DIRECT.g;
    if (name === '/DeviceCMYK') return DIRECT.k;
    if (!(space instanceof PDFArray)) return undefined;
    if (name === '/ICCBased') return this.byProfile(this.look(space.get(1)));
    return name === '/Separation' ? this.separation(space) : undefined;
  }

  byProfile(stream) {
    const n = stream instanceof PDFRawStream ? this.entry(stream.dict, 'N') : undefined;
    return { 1: DIRECT.g, 4: DIRECT.k }[n instanceof PDFNumber ? n.asNumber() : 0];
  }

  separation(space) {
    const name = this.look(space.get(1)).decodeText();
    if (name === 'None') return () => NONE;
    const process = ['Cyan', 'Magenta', 'Yellow', 'Black'].indexOf(name);
    if (process >= 0)
      return ([tint]) => ({ kind: 'cmyk', shares: [0, 1, 2, 3].map((i) => (i === process ? tint : 0)) });
    const full = this.fullTint(this.look(space.get(2)), this.look(space.get(3)));
    if (!full || name === 'All') return undefined;
    return ([tint]) => ({ kind: 'spot', name, tint, full });
  }

  /** What stands in for a spot colour, where that is four shares and told as plainly as most programs do. */
  fullTint(alternate, tinting) {
    if (this.space(alternate) !== DIRECT.k) return undefined;
    const dict = tinting instanceof PDFRawStream ? tinting.dict : tinting;
    const end = this.entry(dict, 'C1');
    if (String(this.entry(dict, 'FunctionType')) !== '2' || !(end instanceof PDFArray)) return undefined;
    const shares = end.asArray().map((share) => this.look(share).asNumber());
    return shares.length === 4 ? shares : undefined;
  }
}

/**
 * The same file with its inks marked; undefined where it has none, or cannot be changed.
 * @param document as pdf-lib reads it; it is changed
 * @param page from 0
 */
export async function withInksMarked(document, page) {
  if (document.isEncrypted) return undefined;
  const { inks, isMarked } = markInks(document, page);
  if (!isMarked) return undefined;
  return { inks, bytes: await document.save({ useObjectStreams: false, updateFieldAppearances: false }) };
}
