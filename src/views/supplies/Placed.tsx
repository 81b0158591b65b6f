/** Orders that were made: what came of each line, and the way back where one was made by mistake. */
import { Download, Printer } from 'lucide-react';
import { useState } from 'react';
import { cameOf } from '../../core/supplies/basket.js';
import { orderLinesCsv } from '../../formats/orderCsv.js';
import { useCatalogue } from '../../session/catalogue.js';
import { happened, takeBack } from '../../session/records.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Part, QuantityField } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { useMoney } from '../../ui/parts/money.js';
import { Amount } from './Amount.js';
import { saveText } from '../../ui/parts/saveText.js';
import { type Came, type Ordered, type useLedger } from './supplied.js';

type Books = ReturnType<typeof useLedger>;

export function Placed({ ledger }: { ledger: Books }) {
  const names = [...new Set(ledger.orders.map((o) => o.order))].reverse();
  if (names.length === 0) return null;
  return (
    <>
      {names.map((name) => (
        <Order key={name} name={name} ledger={ledger} />
      ))}
    </>
  );
}

function Order({ name, ledger }: { name: string; ledger: Books }) {
  const id = useSession((s) => s.id);
  const currency = useSession((s) => s.plan.currency);
  const cat = useCatalogue();
  const money = useMoney();
  const [open, setOpen] = useState<string | null>(null);
  const lines = ledger.orders.filter((o) => o.order === name);
  const rows = lines.map((o) => ({ ...o, name: cat.prices[o.item]?.name ?? o.item, ...cameOf(o, ledger.deliveries) })); // prettier-ignore
  const cost = lines.reduce((sum, o) => sum + o.quantity * o.price, 0);
  const tax = lines.reduce((sum, o) => sum + o.quantity * o.price * o.tax, 0);
  const coming = rows.filter((r) => r.toCome > 0);
  const suppliers = [...new Set(lines.map((o) => o.supplier).filter(Boolean))].join(', ');
  const came = (r: (typeof rows)[number], state: Came['state'], quantity: number) =>
    happened('deliveries', { order: name, item: r.item, quantity, state });
  return (
    <Part
      title={name}
      aside={
        <span className="inline-flex flex-wrap gap-1">
          {coming.length > 0 && (
            <Button onClick={() => coming.forEach((r) => came(r, 'received', r.toCome))}>
              All of it came
            </Button>
          )}
          <a className="button" href={`/order/${id}?order=${encodeURIComponent(name)}`}>
            <Printer size={14} aria-hidden /> Order sheet
          </a>
          <Button
            onClick={() => saveText(orderLinesCsv(rows, currency), `${name}.csv`, 'text/csv')}
          >
            <Download size={14} aria-hidden /> CSV
          </Button>
        </span>
      }
    >
      <p className="label mb-1">
        {lines[0]!.time.slice(0, 10)}
        {suppliers ? `, ${suppliers}` : ''}, {money(cost)} without tax, {money(cost + tax)} with.{' '}
        {coming.length === 0
          ? 'Nothing more is to come.'
          : `${coming.length} of ${rows.length} still to come.`}
      </p>
      <DataTable
        label={`Lines of ${name}`}
        rows={rows}
        keyOf={(r) => r.id}
        finds={rows.length > 12 ? (r) => r.name : undefined}
        detail={(r) => open === r.id && <CameIn row={r} onCame={(state, n) => came(r, state, n)} deliveries={ledger.deliveries.filter((d) => d.order === name && d.item === r.item)} />} // prettier-ignore
        columns={[
          {
            name: 'item',
            head: 'plain',
            by: (r) => r.name,
            cell: (r) => r.name,
          },
          { name: 'delivery', by: (r) => r.delivery, cell: (r) => r.delivery },
          { name: 'ordered', n: true, cell: (r) => <Amount of={r.unit} n={r.quantity} /> },
          { name: 'received', n: true, cell: (r) => r.received > 0 && <Amount of={r.unit} n={r.received} /> }, // prettier-ignore
          { name: 'short', n: true, cell: (r) => r.short > 0 && <Amount of={r.unit} n={r.short} /> }, // prettier-ignore
          { name: 'wrong', n: true, cell: (r) => r.wrong > 0 && <Amount of={r.unit} n={r.wrong} /> }, // prettier-ignore
          {
            name: 'to come',
            n: true,
            className: 'font-semibold',
            by: (r) => r.toCome,
            cell: (r) => (r.toCome > 0 ? <Amount of={r.unit} n={r.toCome} /> : '✓'),
          },
          { name: 'cost', n: true, className: 'figure', by: (r) => r.quantity * r.price, cell: (r) => money(r.quantity * r.price) }, // prettier-ignore
          {
            name: 'what came',
            quiet: true,
            cell: (r) =>
              r.waiting ? (
                <span className="label">not sent yet</span>
              ) : (
                <span className="inline-flex gap-1">
                  <Button
                    aria-expanded={open === r.id}
                    aria-label={`What came of ${r.name}`}
                    onClick={() => setOpen(open === r.id ? null : r.id)}
                  >
                    came …
                  </Button>
                  {r.received + r.short + r.wrong === 0 && (
                    <Button
                      aria-label={`Take ${r.name} off the order`}
                      onClick={() => takeBack('orders', r)}
                    >
                      off
                    </Button>
                  )}
                </span>
              ),
          },
        ]}
      />
    </Part>
  );
}

const STATES: readonly (readonly [Came['state'], string])[] = [
  ['received', 'came'],
  ['short', 'will not come'],
  ['wrong', 'wrong, to be changed'],
];

/** What came of one line of an order, put in by how much of it was right. */
function CameIn({
  row,
  deliveries,
  onCame,
}: {
  row: Ordered & { readonly name: string; readonly toCome: number };
  deliveries: readonly Came[];
  onCame: (state: Came['state'], n: number) => void;
}) {
  const [n, setN] = useState(Math.max(row.toCome, 1));
  return (
    <div>
      <div className="flex flex-wrap items-end gap-3">
        <QuantityField
          label="How much"
          q={row.unit === 'm' ? 'length' : 'count'}
          min={0.01}
          max={1e6}
          value={n}
          onCommit={setN}
        />
        {STATES.map(([state, words]) => (
          <Button
            key={state}
            disabled={state !== 'wrong' && row.toCome === 0}
            onClick={() => onCame(state, n)}
          >
            {words}
          </Button>
        ))}
      </div>
      {deliveries.length > 0 && (
        <ul className="mt-1" aria-label={`What came of ${row.name}`}>
          {deliveries.map((d) => (
            <li key={d.id} className="flex flex-wrap items-baseline gap-3 py-0.5">
              <span className="figure">{d.time.slice(0, 10)}</span>
              <Amount of={row.unit} n={d.quantity} />
              <span>{STATES.find(([s]) => s === d.state)?.[1]}</span>
              {!d.waiting && <Button onClick={() => takeBack('deliveries', d)}>take back</Button>}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
