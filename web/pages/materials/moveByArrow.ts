/** Up and down from one row's field to the same column's field of the next, as in any table that is edited. */
export function moveByArrow(event: KeyboardEvent): void {
  const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  const from = event.target as HTMLElement;
  // a list of choices has its own use for these keys
  if (by === 0 || from.role === 'combobox') return;
  const cell = from.closest('td');
  const row = cell?.closest('tr');
  if (!cell || !row || cell.colSpan > 1) return;
  const column = [...row.children].indexOf(cell);
  const rows = [...row.parentElement!.children].filter((one) => one.children.length === row.children.length);
  const field = rows[rows.indexOf(row) + by]?.children[column]?.querySelector<HTMLElement>('input, button');
  if (!field) return;
  event.preventDefault();
  field.focus();
  field.scrollIntoView({ block: 'nearest' });
}
