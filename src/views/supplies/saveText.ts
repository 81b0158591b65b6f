/** Gives the browser a text to save as a file. */
export function saveText(text: string, name: string, type: string): void {
  const link = document.createElement('a');
  // A byte order mark: spreadsheets read the letters right.
  link.href = URL.createObjectURL(new Blob(['\uFEFF', text], { type }));
  link.download = name.replace(/[^\p{L}\p{N} ._-]+/gu, '');
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
