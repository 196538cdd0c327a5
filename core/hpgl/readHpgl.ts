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

const INSTRUCTION = /\s*([A-Za-z]{2})([^;A-Za-z]*);?/y;

/**
 * A reader for a stream of HP-GL (HP 7475A manual, 1983: two letters, numbers apart by commas or blanks, closed by a semicolon
 * or by the next mnemonic). What is no instruction is passed over up to the next semicolon, as plotters do.
 */
export function createHpglReader(): HpglReader {
  let rest = '';
  return {
    push: (text) => {
      rest += text;
      const last = rest.lastIndexOf(';');
      const out: Instruction[] = [];
      for (let at = 0; at <= last;) {
        INSTRUCTION.lastIndex = at;
        const match = INSTRUCTION.exec(rest);
        if (!match) at = rest.indexOf(';', at) + 1;
        else {
          at = INSTRUCTION.lastIndex;
          out.push({ code: match[1].toUpperCase(), values: numbersIn(match[2]) });
        }
      }
      rest = rest.slice(last + 1);
      return out;
    },
    pending: () => rest.length,
  };
}

const NONE: readonly number[] = [];

const numbersIn = (text: string): readonly number[] =>
  text === '' ? NONE : (text.match(/[-+]?\d*\.?\d+/g) ?? []).map(Number);
