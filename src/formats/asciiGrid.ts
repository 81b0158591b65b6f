/** ASCII grid of heights (`.asc`): six header lines, then rows from the north. */
import { FormatError } from './error.js';

/** A grid as the file has it: its own coordinates, values row by row from the south. */
export interface RawGrid {
  readonly x0: number;
  readonly y0: number;
  readonly cell: number;
  readonly cols: number;
  readonly rows: number;
  readonly z: (number | null)[];
}

const MAX_CELLS = 4_000_000;

/**
 * Parses an ASCII grid; x0, y0 are the coordinates of the south-west value.
 * @throws FormatError with the line number
 */
export function parseAsciiGrid(text: string): RawGrid {
  const header: Record<string, number> = {};
  const lines = text.split(/\r\n|\r|\n/);
  let at = 0;
  for (; at < lines.length && at < 12; at++) {
    const match = /^\s*([a-z_]+)\s+(\S+)\s*$/i.exec(lines[at]!);
    if (!match) break;
    const value = Number(match[2]);
    if (!Number.isFinite(value))
      throw new FormatError(`line ${at + 1}`, `${match[1]} is no number`);
    header[match[1]!.toLowerCase()] = value;
  }
  const need = (key: string, ...others: string[]) => {
    const found = [key, ...others].map((k) => header[k]).find((v) => v !== undefined);
    if (found === undefined) throw new FormatError(`line ${at + 1}`, `the header lacks ${key}`);
    return found;
  };
  const cols = need('ncols');
  const rows = need('nrows');
  const cell = need('cellsize');
  for (const [key, n] of [
    ['ncols', cols],
    ['nrows', rows],
  ] as const) {
    if (!Number.isInteger(n) || n < 2 || n > 5000) {
      throw new FormatError('header', `${key} must be a whole number from 2 to 5000`);
    }
  }
  if (cols * rows > MAX_CELLS) throw new FormatError('header', `more than ${MAX_CELLS} heights`);
  if (!(cell > 0)) throw new FormatError('header', 'cellsize must be above 0');
  const half = (corner: string) => (header[corner] !== undefined ? cell / 2 : 0);
  const x0 = need('xllcorner', 'xllcenter') + half('xllcorner');
  const y0 = need('yllcorner', 'yllcenter') + half('yllcorner');
  const gap = header['nodata_value'] ?? -9999;
  return { x0, y0, cell, cols, rows, z: readRows(lines, at, cols, rows, gap) };
}

function readRows(lines: readonly string[], from: number, cols: number, rows: number, gap: number) {
  const z = new Array<number | null>(cols * rows).fill(null);
  let count = 0;
  for (let k = from; k < lines.length; k++) {
    const words = lines[k]!.trim();
    if (words === '') continue;
    for (const word of words.split(/\s+/)) {
      const value = Number(word);
      if (!Number.isFinite(value))
        throw new FormatError(`line ${k + 1}`, `"${word.slice(0, 20)}" is no height`);
      if (count >= cols * rows)
        throw new FormatError(`line ${k + 1}`, 'more heights than ncols x nrows');
      const row = rows - 1 - Math.floor(count / cols);
      z[row * cols + (count % cols)] = value === gap ? null : value;
      count++;
    }
  }
  if (count < cols * rows) {
    throw new FormatError(
      `line ${lines.length}`,
      `${count} heights where ncols x nrows is ${cols * rows}`,
    );
  }
  return z;
}
