import { noonOf } from './dayText';

/** A day, `yyyy-mm-dd`, as it is said in the shop. */
export const dueText = (due: string): string =>
  new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' }).format(noonOf(due));
