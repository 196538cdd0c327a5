import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** The words of a PDF, page after page, as an independent reader finds them. */
export async function textOf(bytes: Uint8Array): Promise<string> {
  const pdf = await getDocument({ data: new Uint8Array(bytes) }).promise;
  const pages = await Promise.all(
    Array.from({ length: pdf.numPages }, async (_, i) => (await pdf.getPage(i + 1)).getTextContent()),
  );
  return pages
    .flatMap(({ items }) => items.map((item) => ('str' in item ? item.str : '')))
    .join(' ')
    .replace(/\s+/g, ' ');
}
