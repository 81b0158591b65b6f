/** Readings of the log as CSV, out and in. */
import Papa from 'papaparse';
import type { Plan } from '../core/plan/schema.js';
import { planLength } from '../core/plan/geometry.js';
import { GROWTHS, READ, WEATHERS, type Logged } from '../core/rounds/logged.js';
import { plainCell } from './csv.js';
import { FormatError } from './error.js';

/** Columns, in their order. `value` is V or A, `at_m` metres along the line from its start. */
export const COLUMNS = [
  'time',
  'line',
  'at_m',
  'unit',
  'what',
  'value',
  'towards',
  'weather',
  'growth',
  'who',
  'note',
] as const;
type Column = (typeof COLUMNS)[number];

export type LoggedRow = Omit<Logged, 'id'> & { readonly who: string; readonly note: string };
type Named = Pick<Plan, 'lines' | 'energisers'>;

/** Readings as CSV, lines and units by their names. */
export const readingsCsv = (
  read: readonly (Logged & { readonly who: string; readonly note: string })[],
  { lines, energisers }: Named,
): string =>
  Papa.unparse(
    {
      fields: [...COLUMNS],
      data: read.map((r) => [
        r.time,
        plainCell(r.line === null ? '' : (lines[r.line]?.name ?? r.line)),
        r.at_m ?? '',
        plainCell(r.unit ? (energisers[r.unit]?.name ?? r.unit) : (r.spot ?? '')),
        r.kind,
        r.value,
        r.towards ?? '',
        r.weather ?? '',
        r.growth ?? '',
        plainCell(r.who),
        plainCell(r.note),
      ]),
    },
    { newline: '\r\n' },
  );

const MOST = 20_000;
/** What a figure may be followed by, and what it is in SI. */
const FACTORS: Readonly<Record<string, number>> = { '': 1, v: 1, kv: 1000, a: 1 };

/**
 * Readings of a CSV file with the headings of `COLUMNS`, in any order; `time`, `value` and a place are wanted. A figure may
 * have its unit behind it: 5.3 kV.
 * @throws FormatError with the line and what is wrong there; nothing of such a file is taken
 */
export function parseReadings(text: string, { lines, energisers }: Named): LoggedRow[] {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: true });
  const quotes = errors.find((e) => e.type === 'Quotes');
  if (quotes) throw new FormatError(`line ${(quotes.row ?? 0) + 1}`, 'a quote is not closed');
  const head = data[0]?.map((h) => h.trim().toLowerCase());
  if (!head) throw new FormatError('', 'the file is empty');
  for (const needed of ['time', 'value'] as const)
    if (!head.includes(needed)) throw new FormatError('line 1', `no column "${needed}"; there may be ${COLUMNS.join(', ')}`);
  const rows = data.slice(1);
  if (rows.length === 0) throw new FormatError('', 'there is no reading below the headings');
  if (rows.length > MOST) throw new FormatError('', `more than ${MOST} readings`);
  const byName = <T extends { id: string; name: string }>(all: Readonly<Record<string, T>>, said: string): T | undefined =>
    all[said] ?? Object.values(all).find((t) => t.name.trim().toLowerCase() === said.toLowerCase());
  return rows.map((cells, i): LoggedRow => {
    const at = (reason: string) => new FormatError(`line ${i + 2}`, reason);
    const cell = (name: Column) => (cells[head.indexOf(name)] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
    const one = <T extends string>(name: Column, of: readonly T[], otherwise: T | null): T | null => {
      const said = cell(name).toLowerCase();
      if (said === '') return otherwise;
      if (!(of as readonly string[]).includes(said)) throw at(`${name} is "${said.slice(0, 20)}"; it may be ${of.join(', ')}`);
      return said as T;
    };
    const time = Date.parse(cell('time'));
    if (Number.isNaN(time)) throw at(`time is "${cell('time').slice(0, 30)}"; write 2026-04-19T08:30 or 2026-04-19`);
    const [, digits = '', suffix = ''] = /^([\d.,]+)\s*([a-z]*)$/i.exec(cell('value')) ?? [];
    const value = Number(digits.replace(',', '.')) * (FACTORS[suffix.toLowerCase()] ?? NaN);
    if (digits === '' || !Number.isFinite(value) || value > 100_000) throw at(`value is "${cell('value').slice(0, 20)}", which is no reading`);
    const said = cell('line');
    const line = said === '' ? undefined : byName(lines, said);
    if (said !== '' && !line) throw at(`there is no line "${said.slice(0, 40)}"`);
    const named = cell('unit');
    const unit = named === '' ? undefined : byName(energisers, named);
    if (!line && named !== '' && !unit) throw at(`there is no unit "${named.slice(0, 40)}"`);
    if (!line && !unit) throw at('neither a line nor a unit is named');
    const along = cell('at_m') === '' ? null : Number(cell('at_m').replace(',', '.'));
    if (line && (along === null || !(along >= 0 && along <= planLength(line) + 0.5))) throw at(`at_m is "${cell('at_m').slice(0, 20)}"; ${line.name} is ${planLength(line).toFixed(1)} m long`);
    const kind = one('what', READ, 'volts')!;
    return {
      time: new Date(time).toISOString(),
      kind,
      value,
      line: line?.id ?? null,
      at_m: line ? along : null,
      spot: line ? null : kind === 'earth_volts' ? `${unit!.name}, last rod` : kind === 'battery_volts' ? 'battery' : 'terminal',
      unit: line ? null : unit!.id,
      towards: kind === 'amps' ? one('towards', ['end', 'start'] as const, 'end') : null,
      weather: one('weather', WEATHERS, null),
      growth: one('growth', GROWTHS, null),
      who: cell('who').slice(0, 80),
      note: cell('note').slice(0, 400),
    };
  });
} // prettier-ignore
