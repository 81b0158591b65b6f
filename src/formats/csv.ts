/** What every table that leaves the program keeps to. */
/** A cell that a spreadsheet would take for a formula is kept as text. */
export const plainCell = (text: string): string =>
  /^[\s\u0000-\u0020]*[=+\-@]|^[\t\r\n]/.test(text) ? `'${text}` : text;
