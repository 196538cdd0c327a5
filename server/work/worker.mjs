// A pool thread: teaches this thread to read TypeScript, then hands out the tasks.
import { register } from 'tsx/esm/api';

register();
export const { read, summarise, make, download, compare } = await import('./tasks.ts');
