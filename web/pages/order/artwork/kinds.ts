import type { LineKind } from '../../../../core/artwork/choices';

export const LINE_KINDS: readonly { readonly value: LineKind; readonly label: string }[] = [
  { value: 'kiss', label: 'kiss' },
  { value: 'through', label: 'through' },
  { value: 'perforated', label: 'perforated' },
  { value: 'crease', label: 'crease' },
  { value: 'pen', label: 'pen' },
  { value: 'print', label: 'print only' },
];
