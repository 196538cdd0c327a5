import type { AsCutSaid } from '../../contracts/cuts';

/** mm: less is where a blade swung into its way. */
const LEAST_ELSEWHERE = 1;
/** Lines that are named one by one. */
const MOST = 6;

const isAllOnce = ({ twice, missing }: AsCutSaid): boolean => twice.length === 0 && missing.length === 0;

function lines(of: readonly number[]): string {
  if (of.length > MOST) return `${of.length} lines`;
  const numbers = of.map((line) => line + 1);
  const last = numbers[numbers.length - 1];
  return of.length === 1 ? `line ${last}` : `lines ${numbers.slice(0, -1).join(', ')} and ${last}`;
}
const capital = (text: string): string => text[0].toUpperCase() + text.slice(1);

/** What a cut's record says of its lines, in sentences. @param length mm in the reader's units */
export function asCutText(said: AsCutSaid, length: (mm: number) => string): string {
  const { twice, missing, elsewhere } = said;
  return [
    ...(isAllOnce(said) ? ['Every line is cut once.'] : []),
    ...(missing.length > 0
      ? [`${capital(lines(missing))} ${missing.length === 1 ? 'is' : 'are'} not whole.`]
      : []),
    ...(twice.length > 0 ? [`Some of ${lines(twice)} is cut twice.`] : []),
    ...(elsewhere >= LEAST_ELSEWHERE
      ? [`${length(elsewhere)} lie beside the lines: film slipped, or ended before its line did.`]
      : []),
  ].join(' ');
}

/** Somebody should look at the film. */
export const isAmiss = (said: AsCutSaid): boolean => !isAllOnce(said);
