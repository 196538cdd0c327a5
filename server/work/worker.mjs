// A pool thread: teaches this thread to read TypeScript, then hands out the tasks.
import { register } from 'tsx/esm/api';

register();
export const {
  takeIn,
  read,
  typeset,
  lookAtFont,
  measurePicture,
  showPicture,
  summarise,
  make,
  onSign,
  registerSheet,
  strips,
  sheetFile,
  print,
  apply,
  fit,
  printMap,
  compare,
  fewestSwapsOf,
} = await import('./tasks.ts');
