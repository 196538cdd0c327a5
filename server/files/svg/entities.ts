import { FileProblem } from '../fileProblem';

/** A plain entity in a document's head: name and text. */
export const ENTITY = /<!ENTITY\s+([\w.-]+)\s+["']([^"'<]*)["']\s*>/g;

const LONGEST_ENTITY = 200;
const MOST_ENTITY_TEXT = 2_000_000;

/**
 * Short plain entities are harmless and common; nested, long or outside ones are traps.
 * @throws FileProblem for those
 */
export function checkEntities(text: string): void {
  const head = text.slice(0, 200_000);
  if (!head.includes('<!ENTITY')) return;
  const plain = [...head.matchAll(ENTITY)];
  const all = head.match(/<!ENTITY/g) ?? [];
  const unsafe =
    plain.length !== all.length || plain.some(([, , v]) => v.includes('&') || v.length > LONGEST_ENTITY);
  const expanded = plain.reduce(
    (sum, [, name, v]) => sum + v.length * (text.split(`&${name};`).length - 1),
    0,
  );
  if (!unsafe && expanded <= MOST_ENTITY_TEXT) return;
  throw new FileProblem(
    'entities',
    'The file builds its text out of nested or outside entities, which is how harmful files are made. Save it again as plain SVG and bring that in.',
  );
}
