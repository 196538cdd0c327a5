import type { LineKind } from '../../../../core/artwork/choices';

export const LINE_KINDS: readonly (readonly [LineKind, string])[] = [
  ['kiss', 'kiss'],
  ['through', 'through'],
  ['perforated', 'perforated'],
  ['crease', 'crease'],
  ['pen', 'pen'],
  ['print', 'print only'],
];
