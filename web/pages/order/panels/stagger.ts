/**
 * Rows for handles in a line, so that none lies on another: each in the first row where the one before is far enough.
 * @param at positions, px, in any order
 * @param apart px between two in one row
 * @returns a row for each, 0 first
 */
export function stagger(at: readonly number[], apart: number): number[] {
  const rows: number[] = [];
  const ends: number[] = [];
  for (const i of at.map((_, index) => index).sort((a, b) => at[a] - at[b])) {
    let row = 0;
    while (ends[row] !== undefined && at[i] - ends[row] < apart) row++;
    ends[row] = at[i];
    rows[i] = row;
  }
  return rows;
}
