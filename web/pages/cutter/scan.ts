/** Keys that a hand scanner types: one right after the other, Enter last. */

/** No hand types as fast as this, ms from key to key. */
const SLOWEST = 60;
/** What a code of a printed sheet begins with. */
const BEGINS = 'JP ';

/** @returns takes a key and when it came, ms; says whether that key belongs to a code */
export function createScan(found: (code: string) => void): (key: string, at: number) => boolean {
  let text = '';
  let last = -Infinity;
  return (key, at) => {
    if (at - last > SLOWEST) text = '';
    last = at;
    if (key === 'Enter') {
      const code = text;
      text = '';
      if (!code.startsWith(BEGINS)) return false;
      found(code);
      return true;
    }
    // Shift comes as a key of its own
    if (key.length === 1) text += key;
    return text.length >= BEGINS.length && text.startsWith(BEGINS);
  };
}
