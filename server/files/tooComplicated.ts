import { FileProblem } from './fileProblem';

/** @param what is read, for a person */
export const tooComplicated = (what: string): FileProblem =>
  new FileProblem(
    'unworkable',
    `The ${what} is too complicated to read: it took too long or more memory than there is. Simplify it and bring it in again.`,
  );
