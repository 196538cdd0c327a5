/** A time of day as the shop says it, hh:mm. */
export const clock = (date: Date): string => date.toTimeString().slice(0, 5);
