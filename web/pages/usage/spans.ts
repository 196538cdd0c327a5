/** Weeks that use is looked at over. */
export const SPANS = ['week', 'four weeks', 'year'] as const;
export type SpanName = (typeof SPANS)[number];
const WEEKS: Readonly<Record<SpanName, number>> = { week: 1, 'four weeks': 4, year: 52 };

export interface WeekSpan {
  /** The first day and the last, as `2026-11-28`. */
  readonly from: string;
  readonly to: string;
  /** Of each week its first day. */
  readonly mondays: readonly string[];
}

const text = (day: Date): string => day.toISOString().slice(0, 10);
const daysOn = (day: Date, days: number): Date => new Date(day.getTime() + days * 86_400_000);

/**
 * Whole weeks up to the one that today is in.
 * @param today as `2026-11-28`
 * @param back by so many spans earlier
 */
export function weeksOf(span: SpanName, today: string, back: number): WeekSpan {
  // at noon no change of clocks moves a day
  const day = new Date(`${today}T12:00:00Z`);
  const weeks = WEEKS[span];
  const monday = daysOn(day, -((day.getUTCDay() + 6) % 7) - 7 * (weeks * (back + 1) - 1));
  const mondays = Array.from({ length: weeks }, (_, i) => text(daysOn(monday, 7 * i)));
  return { from: mondays[0], to: text(daysOn(monday, 7 * weeks - 1)), mondays };
}

/** Today by the clocks here. */
export function todayHere(now = new Date()): string {
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
