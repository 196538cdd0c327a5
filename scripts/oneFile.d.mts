/** A TypeScript program as one file that node runs. @returns the file, named by what is in it */
export function oneFileOf(entry: string): string;
