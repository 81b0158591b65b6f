/** The order list as CSV. */
import { round } from '../core/base/numbers.js';
import Papa from 'papaparse';
import { say } from '../core/base/units.js';
import type { Catalogue } from '../core/plan/catalogue.js';
import type { Plan } from '../core/plan/schema.js';
import type { Report, Supply } from '../core/report/schema.js';
import { taxOf } from '../core/compare/apart.js';
import type { OrderLine } from '../core/supplies/basket.js';
import { ownShare } from '../core/supplies/takeoff.js';
import { plainCell } from './csv.js';

/**
 * One row an item, with a closing total; money in the property's currency.
 * @param only what one line takes of it, or what else takes supplies: as it is used, nothing rounded up to
 * whole coils and boxes
 */
export function orderCsv(
  report: Report,
  plan: Pick<Plan, 'lines' | 'units'>,
  cat: Catalogue,
  only?: string,
): string {
  const rows =
    only === undefined
      ? report.supplies
      : report.supplies.flatMap((s) => ownShare(s, only, cat) ?? []);
  const total = rows.reduce((sum, s) => sum + s.cost, 0);
  return Papa.unparse(
    {
      fields: [
        'item',
        'quantity',
        'unit',
        'price',
        'price per',
        `cost ${report.currency}`,
        'tax %',
        'note',
        'places',
      ],
      data: [
        ...rows.map((s) => [
          plainCell(s.name),
          s.quantity,
          s.unit,
          s.price.toFixed(2),
          `${report.currency} per ${s.per}`,
          s.cost.toFixed(2),
          percent(s.tax),
          plainCell([s.out ? 'left out' : '', s.changed ?? '', s.note].filter(Boolean).join('; ')),
          plainCell(placesText(s, plan)),
        ]),
        ['Total without tax', '', '', '', '', total.toFixed(2), '', report.invented ? 'invented prices' : '', ''], // prettier-ignore
        ['Total with tax', '', '', '', '', (total + taxOf({ supplies: rows })).toFixed(2), '', '', ''], // prettier-ignore
      ],
    },
    { newline: '\r\n' },
  );
}

const percent = (share: number): number => round(100 * share, 4);

/** Lines of an order as CSV: to send it, or to check it in. */
export function orderLinesCsv(
  lines: readonly (OrderLine & { readonly name: string; readonly toCome: number })[],
  currency: string,
): string {
  const cost = lines.reduce((sum, l) => sum + l.quantity * l.price, 0);
  const tax = lines.reduce((sum, l) => sum + l.quantity * l.price * l.tax, 0);
  const sum = (words: string, amount: number) => [words, '', '', '', '', '', '', amount.toFixed(2), '', '']; // prettier-ignore
  return Papa.unparse(
    {
      fields: ['order', 'supplier', 'delivery', 'item', 'quantity', 'unit', `price ${currency}`, `cost ${currency}`, 'tax %', 'to come'], // prettier-ignore
      data: [
        ...lines.map((l) => [
          plainCell(l.order),
          plainCell(l.supplier),
          plainCell(l.delivery),
          plainCell(l.name),
          l.quantity,
          l.unit,
          l.price.toFixed(2),
          (l.quantity * l.price).toFixed(2),
          percent(l.tax),
          l.toCome,
        ]),
        sum('Total without tax', cost),
        sum('Total with tax', cost + tax),
      ],
    },
    { newline: '\r\n' },
  );
}

/** For which places an item is, by plan distance along each line: "Burn side 0 m: 7, 172 m: 14". */
function placesText(
  { places = {}, unit }: Supply,
  { lines, units }: Pick<Plan, 'lines' | 'units'>,
) {
  const amount = (n: number) => (unit === 'm' ? say(n, 'tape', units) : String(round(n, 2)));
  return Object.entries(places)
    .map(
      ([line, at]) =>
        `${lines[line]?.name ?? line} ${at.map(([s, n]) => `${say(s, 'along', units)}: ${amount(n)}`).join(', ')}`,
    ) // prettier-ignore
    .join('; ');
}
