// What a PDF's page is drawn with: its own resources, and those of every drawing within it (ISO 32000-1, 7.8.3 and 8.10).
import { PDFDict, PDFName, PDFRawStream, PDFRef } from 'pdf-lib';

/** What a reference stands for. */
export const lookUp = (context, value) => (value instanceof PDFRef ? context.lookup(value) : value);

/** An entry of a dictionary; undefined: there is none, or no dictionary. */
export const entryOf = (context, dict, name) =>
  dict instanceof PDFDict ? lookUp(context, dict.get(PDFName.of(name))) : undefined;

/** Entries of a dictionary, as they stand in it; none when it is no dictionary. */
export const entriesOf = (dict) => (dict instanceof PDFDict ? dict.entries() : []);

/**
 * @param resources those of the page
 * @yields resources, and the drawing that they are of, with what refers to it; undefined: the page itself
 */
export function* drawnParts(context, resources) {
  yield { resources };
  yield* formsIn(context, resources, new Set());
}

/** What a drawing within has no resources of its own for it takes from around it. */
function* formsIn(context, resources, seen) {
  for (const [, reference] of entriesOf(entryOf(context, resources, 'XObject'))) {
    const form = lookUp(context, reference);
    // by what refers to it: whoever asks may put another one in its place, and it may lie in itself
    const one = reference instanceof PDFRef ? reference : form;
    if (seen.has(one) || !(form instanceof PDFRawStream)) continue;
    seen.add(one);
    if (String(entryOf(context, form.dict, 'Subtype')) !== '/Form') continue;
    const own = entryOf(context, form.dict, 'Resources') ?? resources;
    yield { resources: own, form, reference };
    yield* formsIn(context, own, seen);
  }
}
