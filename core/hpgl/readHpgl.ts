/** One HP-GL instruction: two letters and its numbers. */
export interface Instruction {
  readonly code: string;
  readonly values: readonly number[];
}

/** Takes bytes as they come and gives whole instructions; what is unfinished waits for the next bytes. */
export interface HpglReader {
  /** Instructions completed by these characters. */
  readonly push: (text: string) => Instruction[];
  /** Characters taken in that do not make an instruction yet. */
  readonly pending: () => number;
}

const INSTRUCTION = /^\s*([A-Za-z]{2})([^;A-Za-z]*);?/;

/**
 * A reader for a stream of HP-GL (HP 7475A manual, 1983: two letters, numbers apart by commas or blanks, closed by a semicolon
 * or by the next mnemonic). What is no instruction is passed over up to the next semicolon, as plotters do.
 */
export function createHpglReader(): HpglReader {
  let rest = '';
  const take = (): Instruction | undefined => {
    const end = rest.indexOf(';');
    if (end < 0) return undefined;
    const match = INSTRUCTION.exec(rest);
    if (!match) {
      rest = rest.slice(end + 1);
      return { code: '', values: [] };
    }
    rest = rest.slice(match[0].length);
    return { code: match[1].toUpperCase(), values: numbersIn(match[2]) };
  };
  return {
    push: (text) => {
      rest += text;
      const out: Instruction[] = [];
      for (let next = take(); next; next = take()) if (next.code) out.push(next);
      return out;
    },
    pending: () => rest.length,
  };
}

const numbersIn = (text: string): number[] => (text.match(/[-+]?\d*\.?\d+/g) ?? []).map(Number);
