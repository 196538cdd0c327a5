import Papa from 'papaparse';

const NEWLINE = '\r\n';

/**
 * A table that any spreadsheet opens (RFC 4180), its last line ended too.
 * @param isRead it is read back as it is; otherwise no text in it is taken for a formula
 */
export const csvText = (
  fields: readonly string[],
  data: readonly (readonly (string | number)[])[],
  isRead = false,
): string =>
  `${Papa.unparse({ fields: [...fields], data: [...data] }, { newline: NEWLINE, escapeFormulae: !isRead })}${NEWLINE}`;
