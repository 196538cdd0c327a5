/** A TypeScript program as few files that node runs. @returns its first, in a folder named by what is in it */
export function builtProgram(entry: string): string;
