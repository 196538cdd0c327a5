import type { TextSource } from '../../../../core/artwork/choices';

/** Text as it starts. */
export const PLAIN_TEXT: TextSource = {
  kind: 'text',
  text: 'Text',
  font: 'archivo',
  weight: 700,
  capHeight: 50,
  tracking: 0,
  lineSpacing: 1.2,
  align: 'left',
  arcRadius: 0,
  colour: '#261c2c',
};
