/** Answers that tell on the way how far they have come, a line of JSON each. */
import type { Problem } from '../../contracts/api';

type Step<T> =
  { readonly share: number } | { readonly value: T } | { readonly status: number; readonly problem: Problem };

/** The share that the newest whole line tells; an answer without steps has no whole line. */
export function shareIn(text: string): number | undefined {
  const line = text.split('\n').at(-2);
  return line ? (JSON.parse(line) as { share?: number }).share : undefined;
}

/** The last line; an answer without steps is its value. */
export function lastStep<T>(text: string): Step<T> | undefined {
  const lines = text.trimEnd().split('\n');
  try {
    const last = JSON.parse(lines.at(-1)!) as Step<T>;
    return lines.length === 1 && !('value' in last) && !('problem' in last) ? { value: last as T } : last;
  } catch {
    return undefined;
  }
}
