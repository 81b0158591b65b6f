/** Surveyed points as CSV: x, y, z in columns, with or without a heading. */
import Papa from 'papaparse';
import { FormatError } from './error.js';

export interface RawPoint {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

const NAMES = {
  x: ['x', 'e', 'east', 'easting', 'lon', 'long', 'longitude'],
  y: ['y', 'n', 'north', 'northing', 'lat', 'latitude'],
  z: ['z', 'h', 'height', 'elev', 'elevation', 'alt', 'altitude'],
} as const;

const MAX_POINTS = 1_000_000;

/**
 * Parses points; columns by their heading, else the first three.
 * @throws FormatError with the line number
 */
export function parseCsvPoints(text: string): RawPoint[] {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: true,
    preview: MAX_POINTS + 2,
  });
  const first = data[0];
  if (!first) throw new FormatError('', 'the file is empty');
  const quotes = errors.find((e) => e.type === 'Quotes');
  if (quotes) throw new FormatError(`line ${(quotes.row ?? 0) + 1}`, 'a quote is not closed');
  const named = first.some((cell) => cell.trim() !== '' && Number.isNaN(Number(cell)));
  const column = (axis: keyof typeof NAMES, usual: number) => {
    if (!named) return usual;
    const k = first.findIndex((cell) =>
      (NAMES[axis] as readonly string[]).includes(cell.trim().toLowerCase()),
    );
    if (k < 0)
      throw new FormatError(
        'line 1',
        `no column for ${axis}; call it ${NAMES[axis].slice(0, 3).join(', ')}`,
      );
    return k;
  };
  const [cx, cy, cz] = [column('x', 0), column('y', 1), column('z', 2)];
  const rows = named ? data.slice(1) : data;
  if (rows.length > MAX_POINTS) throw new FormatError('', `more than ${MAX_POINTS} points`);
  return rows.map((row, i) => {
    const read = (k: number, axis: string) => {
      const cell = row[k]?.trim() ?? '';
      const value = Number(cell);
      if (cell === '' || !Number.isFinite(value)) {
        throw new FormatError(
          `line ${i + (named ? 2 : 1)}`,
          `${axis} is "${cell.slice(0, 20)}", which is no number`,
        );
      }
      return value;
    };
    return { x: read(cx, 'x'), y: read(cy, 'y'), z: read(cz, 'z') };
  });
}
