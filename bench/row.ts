/** A line of the performance table. */
export const row = (what: string, figure: string, target: string): void =>
  console.log(`${what.padEnd(58)} ${figure.padStart(16)}   ${target}`);
