const UNITS = ['bytes', 'kB', 'MB', 'GB', 'TB'] as const;

/** A size as disks are sold: thousands of thousands. */
export function bytesText(bytes: number): string {
  let [value, unit] = [bytes, 0];
  // what would be rounded up to a thousand is one of the next
  while (value >= 999.5 && unit < UNITS.length - 1) [value, unit] = [value / 1000, unit + 1];
  return `${value >= 10 || unit === 0 ? Math.round(value) : value.toFixed(1)} ${UNITS[unit]}`;
}
