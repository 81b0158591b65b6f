/** Lines as a table: one row a point, by name; degrees or local metres by the headings. */
import Papa from 'papaparse';
import { FormatError } from './error.js';

/** Points of one name, in the order of the file. */
export interface CsvLine {
  readonly name: string;
  readonly points: readonly (readonly [x: number, y: number])[];
}

const MOST_ROWS = 200_000;

const X = /^(lon|lng|longitude|e|east|easting|x)(_m)?$/i;
const Y = /^(lat|latitude|n|north|northing|y)(_m)?$/i;
const NAME = /^(name|line|fence)$/i;

/**
 * Parses a CSV of line points with a heading row.
 * @returns lines, and whether the headings name degrees
 * @throws FormatError with the line number
 */
export function parseCsvLines(text: string): { lines: CsvLine[]; degrees: boolean } {
  const { data } = Papa.parse<string[]>(text.trim(), {
    skipEmptyLines: true,
    preview: MOST_ROWS + 2,
  });
  if (data.length > MOST_ROWS + 1) throw new FormatError('', `more than ${MOST_ROWS} points`);
  const head = (data[0] ?? []).map((h) => h.trim());
  const find = (is: RegExp) => head.findIndex((h) => is.test(h));
  const [ix, iy, iname] = [find(X), find(Y), find(NAME)];
  if (ix < 0 || iy < 0)
    throw new FormatError('line 1', 'headings are wanted: name, and lon, lat or east, north');
  const degrees = /^l/i.test(head[ix]!);
  if (degrees !== /^l/i.test(head[iy]!))
    throw new FormatError('line 1', 'one heading names degrees and the other metres');
  const byName = new Map<string, [number, number][]>();
  data.slice(1).forEach((row, i) => {
    const [x, y] = [Number(row[ix] || NaN), Number(row[iy] || NaN)];
    if (!Number.isFinite(x) || !Number.isFinite(y))
      throw new FormatError(`line ${i + 2}`, `${head[ix]} and ${head[iy]} must be numbers`);
    const name = (iname < 0 ? '' : (row[iname] ?? '').trim()) || 'Walked line';
    const points = byName.get(name);
    if (points) points.push([x, y]);
    else byName.set(name, [[x, y]]);
  });
  return { lines: [...byName].map(([name, points]) => ({ name, points })), degrees };
}
