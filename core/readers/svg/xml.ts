import { SaxesParser } from 'saxes';

/** An element of a parsed document; text is left out, nothing here needs it. */
export interface Element {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Element[];
}

/**
 * Parses a document into its root element. The parser knows no outside entities and fetches nothing.
 * @throws Error with line and column when the document is not well formed
 */
export function parseXml(text: string): Element {
  const parser = new SaxesParser({ xmlns: false });
  let root: Element | undefined;
  const open: { name: string; attributes: Record<string, string>; children: Element[] }[] = [];
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', (tag) => {
    const element = {
      name: tag.name.replace(/^svg:/, ''),
      attributes: tag.attributes as Record<string, string>,
      children: [],
    };
    if (open.length > 0) open[open.length - 1].children.push(element);
    else root = element;
    open.push(element);
  });
  parser.on('closetag', () => void open.pop());
  parser.write(text).close();
  if (!root) throw new Error('the document is empty');
  return root;
}
