/** DXF text is pairs of lines: a group code and its value (DXF Reference, “Group Codes in Numerical Order”). */
export interface Group {
  readonly code: number;
  readonly value: string;
}

/** One entity, table entry or block: what follows a group 0 up to the next. */
export interface Item {
  readonly type: string;
  readonly groups: readonly Group[];
}

/** Everything in a file that drawing needs. */
export interface DxfFile {
  readonly header: ReadonlyMap<string, Group>;
  readonly layers: readonly Item[];
  readonly blocks: readonly (readonly Item[])[];
  readonly entities: readonly Item[];
}

/** @throws Error when the text stops in the middle or is no pairs of code and value */
export function parseDxf(text: string): DxfFile {
  const sections = new Map<string, Item[]>();
  const header = new Map<string, Group>();
  let section = '';
  let item: { type: string; groups: Group[] } | undefined;
  let variable = '';
  let ended = false;
  for (const group of groupsOf(text)) {
    if (group.code === 0) {
      item = { type: group.value, groups: [] };
      if (group.value === 'EOF') {
        ended = true;
        break;
      }
      if (section && group.value !== 'ENDSEC') sections.get(section)?.push(item);
      if (group.value === 'ENDSEC') section = '';
    } else if (item?.type === 'SECTION' && group.code === 2 && section === '') {
      section = group.value;
      sections.set(section, sections.get(section) ?? []);
      item = undefined;
    } else if (section === 'HEADER') {
      if (group.code === 9) variable = group.value;
      else if (!header.has(variable)) header.set(variable, group);
    } else item?.groups.push(group);
  }
  if (!ended && section !== '') throw new Error('the file stops in the middle');
  const tables = sections.get('TABLES') ?? [];
  return {
    header,
    layers: tables.filter(({ type }) => type === 'LAYER'),
    blocks: blocksOf(sections.get('BLOCKS') ?? []),
    entities: sections.get('ENTITIES') ?? [],
  };
}

function* groupsOf(text: string): Generator<Group> {
  let at = 0;
  const line = (): string | undefined => {
    if (at >= text.length) return undefined;
    let end = text.indexOf('\n', at);
    if (end < 0) end = text.length;
    const found = text.slice(at, text.charCodeAt(end - 1) === 13 ? end - 1 : end);
    at = end + 1;
    return found;
  };
  for (let code = line(); code !== undefined; code = line()) {
    const value = line();
    if (code.trim() === '' && value === undefined) return;
    const number = Number(code);
    if (!Number.isInteger(number) || code.trim() === '')
      throw new Error(`no group code: ${code.slice(0, 20)}`);
    if (value === undefined) throw new Error('the file stops in the middle');
    // a comment says nothing
    if (number !== 999) yield { code: number, value: value.trim() };
  }
}

function blocksOf(items: readonly Item[]): Item[][] {
  const out: Item[][] = [];
  for (const item of items) {
    if (item.type === 'BLOCK') out.push([item]);
    else if (item.type !== 'ENDBLK') out[out.length - 1]?.push(item);
  }
  return out;
}

/** The first value of a code as text. */
export const textOf = ({ groups }: Item, code: number): string | undefined =>
  groups.find((group) => group.code === code)?.value;

/** The first value of a code as a number, or what it means when it is not there. @throws Error when it is none */
export function numberOf(item: Item, code: number, missing = 0): number {
  const text = textOf(item, code);
  return text === undefined ? missing : finite(text);
}

/** @throws Error when the text is not a finite number of a size that a drawing can have */
export function finite(text: string): number {
  const value = Number(text);
  if (text === '' || !Number.isFinite(value) || Math.abs(value) > 1e12)
    throw new Error(`no coordinate: ${text.slice(0, 20)}`);
  return value;
}
