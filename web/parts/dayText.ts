/** Days as they are said in the shop. */

/** A day, `yyyy-mm-dd`, at its noon here: no change of clocks makes it another one. */
export const noonOf = (day: string): Date => new Date(`${day}T12:00:00`);

/** Such as 28 Nov, or 28 Nov 2026. */
export const dayText = (at: Date, withYear = false): string =>
  at.toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    ...(withYear && { year: 'numeric' }),
  });
