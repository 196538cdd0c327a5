import type { TextSource } from '../../../../core/artwork/choices';

/** Endings offered in the file dialog; what a file is shows when it is read. */
export const ACCEPTED = '.svg,.svgz,.pdf,.eps,.ps,.dxf,.plt,.hpgl,.hpg,.png,.jpg,.jpeg,.webp';

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
