/** The order list as CSV. */
import Papa from 'papaparse';
import type { Report } from '../core/report/schema.js';
import { plainCell } from './csv.js';

/** One row an item, with a closing total; money in the property's currency. */
export function orderCsv(report: Report): string {
  const rows = report.supplies.map((s) => [
    plainCell(s.name),
    s.quantity,
    s.unit,
    s.price.toFixed(2),
    `${report.currency} per ${s.per}`,
    s.cost.toFixed(2),
    plainCell(s.note),
  ]);
  return Papa.unparse(
    {
      fields: ['item', 'quantity', 'unit', 'price', 'price per', `cost ${report.currency}`, 'note'],
      data: [
        ...rows,
        [
          'Total',
          '',
          '',
          '',
          '',
          report.totals.cost.toFixed(2),
          report.invented ? 'invented prices' : '',
        ],
      ],
    },
    { newline: '\r\n' },
  );
}
