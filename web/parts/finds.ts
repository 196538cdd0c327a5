/** Whether every word of a search stands somewhere in a text, whatever its case. */
export function finds(search: string, text: string): boolean {
  const within = text.toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => within.includes(word));
}
