/** Gives the browser a text to save as a file. */
export function saveText(text: string, name: string, type: string): void {
  const link = document.createElement('a');
  // A byte order mark: spreadsheets read the letters right. Calendars want none.
  const marked = type.startsWith('text/csv') ? ['\uFEFF', text] : [text];
  link.href = URL.createObjectURL(new Blob(marked, { type }));
  link.download = name.replace(/[^\p{L}\p{N} ._-]+/gu, '');
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
