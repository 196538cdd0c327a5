import type { LineKind } from '../../../../core/artwork/choices';

export const LINE_KINDS: readonly { readonly value: LineKind; readonly label: string }[] = [
  { value: 'kiss', label: 'kiss' },
  { value: 'through', label: 'through' },
  { value: 'perforated', label: 'perforated' },
  { value: 'crease', label: 'crease' },
  { value: 'pen', label: 'pen' },
  { value: 'print', label: 'print only' },
];

const NAMES = new Map(LINE_KINDS.map(({ value, label }) => [value, label]));
export const kindName = (kind: LineKind): string => NAMES.get(kind) ?? kind;
