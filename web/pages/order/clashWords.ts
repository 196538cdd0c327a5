import { rounded } from '../../../core/units/rounded';
import type { Key } from '../../../contracts/edits';
import type { MetClash } from '../../stores/session';

const SECTIONS: Readonly<Record<string, string>> = {
  artwork: 'Artwork',
  films: 'Films',
  panels: 'Panels',
  layout: 'Layout',
  print: 'Print',
  cut: 'Cut settings',
  cutter: 'Cutter',
};

/** Where two people changed the same, in words: the section, then the field. */
export function clashPlace([section, ...rest]: readonly Key[]): string {
  const field = rest.map((key) => (typeof key === 'string' ? spaced(key) : key.id)).join(' ');
  const name = typeof section === 'string' ? (SECTIONS[section] ?? section) : section.id;
  return field === '' ? name : `${name}, ${field}`;
}

/** A value as short as it can be read. */
export function clashValue(value: unknown): string {
  if (value === undefined || value === null) return 'nothing';
  if (typeof value === 'number') return String(rounded(value));
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return `“${value.length > 40 ? `${value.slice(0, 40)} …` : value}”`;
  if (Array.isArray(value)) return value.length === 1 ? '1 entry' : `${value.length} entries`;
  return 'something else';
}

export function clashSentence({ path, theirs, mine, met }: MetClash): string {
  const [is, would] = [clashValue(theirs), clashValue(mine)];
  return met === 'change'
    ? `${clashPlace(path)}: somebody else set ${is} while you set ${would}.`
    : `${clashPlace(path)}: somebody else has set ${is} since, so ${met} left it. It would be ${would}.`;
}

const spaced = (name: string): string =>
  name.startsWith('#') ? name : name.replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`);
