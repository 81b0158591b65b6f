/** The price book: what was asked for each item, when, by whom; out and in as CSV. */
import { Download, Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import { figure } from '../../core/plan/catalogue.js';
import { newest, type Quote } from '../../core/plan/book.js';
import { dropQuote, putQuote } from '../../core/supplies/bookEdits.js';
import { daysBetween } from '../../core/base/days.js';
import { byGroup, groupOf } from '../../core/supplies/groups.js';
import { MOST_BYTES, pricesCsv, readPrices, type PricesRead } from '../../formats/priceCsv.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { WordsField } from '../../ui/parts/bookFields.js';
import { Check, Part, QuantityField } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { useMoney } from '../../ui/parts/money.js';
import { Num, useUnits, WhereFrom } from '../../ui/parts/Num.js';
import { Currency } from './Currency.js';
import { Price, quoteToday, shownPer, shownPrice } from './Price.js';
import { saveText } from '../../ui/parts/saveText.js';
import { today } from '../../session/today.js';

interface Row {
  readonly item: string;
  readonly name: string;
  readonly per: string;
  readonly price: number;
  readonly used: boolean;
  readonly quotes: readonly Quote[];
  readonly newest: Quote | null;
  readonly old: boolean;
}

export function PricesTab() {
  const cat = useCatalogue();
  const units = useUnits();
  const { book = {}, name, invented } = useSession((s) => s.plan);
  const supplies = useSession((s) => s.report?.supplies) ?? [];
  const [allItems, setAll] = useState(false);
  const [open, setOpen] = useState<string | null>(null);
  const age = figure(cat, 'supplies.priceAge');
  const used = new Set(supplies.map((s) => s.id));
  const now = today();
  const rows = Object.entries(cat.prices)
    .map(([item, p]): Row => {
      const quotes = book[item] ?? [];
      const last = quotes.length > 0 ? newest(quotes) : null;
      const old = last === null || daysBetween(last.on, now) > age;
      return {
        item,
        name: p.name,
        per: p.per,
        price: p.price,
        used: used.has(item),
        quotes,
        newest: last,
        old,
      };
    })
    .filter((r) => allItems || r.used)
    .sort((a, b) => byGroup(a.item, b.item));
  const stale = rows.filter((r) => r.used && r.old).length;
  const put = (r: Row, part: Partial<Quote>) =>
    commit(`price of ${r.name}`, (d) => quoteToday(d, r.item, r.price, part));
  return (
    <>
      <Part
        title="Prices of this property"
        aside={
          <span className="inline-flex flex-wrap gap-1">
            <Button
              onClick={() => saveText(pricesCsv(cat, book), `${name} prices.csv`, 'text/csv')}
            >
              <Download size={14} aria-hidden /> CSV
            </Button>
            <ReadIn />
          </span>
        }
      >
        <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
          <Currency />
          <span>
            Tax{' '}
            <Num
              value={figure(cat, 'supplies.tax')}
              q="percent"
              from={{
                kind: 'default',
                title: 'Tax on what is bought',
                inputs: [{ name: 'Tax', path: 'defaults.supplies.tax.value', quantity: 'percent' }],
              }}
            />
          </span>
          <span>
            {stale > 0
              ? `△ ${stale} used ${stale === 1 ? 'price is' : 'prices are'} without a day, or`
              : 'No used price is'}{' '}
            older than {age} days
            <WhereFrom
              shown={`${age} days`}
              origin={{
                kind: 'default',
                title: 'How long a price holds',
                inputs: [{ name: 'Days', path: 'defaults.supplies.priceAge.value' }],
              }}
            />
          </span>
          <Check label="all items, not only those used" checked={allItems} onChange={setAll} />
          {invented && <span className="label">prices are invented</span>}
        </div>
        <DataTable<Row>
          label="Prices"
          rows={rows}
          keyOf={(r) => r.item}
          groupOf={(r) => groupOf(r.item)}
          finds={(r) => `${r.name} ${r.newest?.supplier ?? ''}`}
          rowProps={(r) => ({ 'data-price': r.item })}
          detail={(r) => open === r.item && <History row={r} />}
          columns={[
            {
              name: 'item',
              head: 'plain',
              by: (r) => r.name,
              cell: (r) => r.name,
            },
            {
              name: 'price',
              n: true,
              by: (r) => r.price,
              cell: (r) => <Price item={r.item} name={r.name} />,
            },
            { name: 'per', cell: (r) => shownPer(r.per, units) },
            {
              name: 'of the day',
              by: (r) => r.newest?.on ?? '',
              cell: (r) => (
                <span className="whitespace-nowrap">
                  {r.newest?.on ?? 'came with the program'}
                  {r.old && r.used && <span className="text-warn"> △ old</span>}
                </span>
              ),
            },
            {
              name: 'supplier',
              by: (r) => r.newest?.supplier ?? '',
              cell: (r) => (
                <WordsField
                  label=""
                  spoken={`Supplier of ${r.name}`}
                  max={80}
                  width="w-32"
                  value={r.newest?.supplier ?? ''}
                  onCommit={(supplier) => put(r, { supplier })}
                />
              ),
            },
            {
              name: 'tax, %',
              n: true,
              cell: (r) => (
                <QuantityField
                  label={`Tax of ${r.name}`}
                  hideLabel
                  hideUnit
                  q="percent"
                  min={0}
                  max={1}
                  width="w-14"
                  value={r.newest?.tax ?? figure(cat, 'supplies.tax')}
                  onCommit={(tax) => put(r, { tax })}
                />
              ),
            },
            {
              name: 'sold by',
              n: true,
              cell: (r) => (
                <QuantityField
                  label={`Pack of ${r.name}`}
                  hideLabel
                  q="count"
                  min={0.001}
                  max={1e5}
                  width="w-16"
                  value={r.newest?.pack ?? 1}
                  onCommit={(pack) => put(r, { pack: pack === 1 ? undefined : pack })}
                />
              ),
            },
            {
              name: 'earlier',
              cell: (r) =>
                r.quotes.length > 0 ? (
                  <Button
                    aria-expanded={open === r.item}
                    aria-label={`Prices of ${r.name} over time`}
                    onClick={() => setOpen(open === r.item ? null : r.item)}
                  >
                    {r.quotes.length}
                  </Button>
                ) : (
                  ''
                ),
            },
          ]}
        />
      </Part>
    </>
  );
}

function History({ row }: { row: Row }) {
  const money = useMoney();
  const units = useUnits();
  const quotes = row.quotes.map((q, k) => ({ ...q, k })).sort((a, b) => b.on.localeCompare(a.on));
  return (
    <ul aria-label={`Prices of ${row.name} over time`}>
      {quotes.map((q) => (
        <li key={q.k} className="flex flex-wrap items-baseline gap-3 py-0.5">
          <span className="figure">{q.on}</span>
          <span className="figure">{money(shownPrice(q.price, row.per, units))}</span>
          <span className="label">{q.supplier ?? ''}</span>
          <Button
            aria-label={`Take the price of ${q.on} away`}
            onClick={() =>
              commit(`took a price of ${row.name} away`, (d) => dropQuote(d, row.item, q.k))
            }
          >
            take away
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** Prices out of a file: what was read, and what was not, before any of it is taken. */
function ReadIn() {
  const cat = useCatalogue();
  const input = useRef<HTMLInputElement>(null);
  const [read, setRead] = useState<PricesRead | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const look = async (file: File | undefined) => {
    setRead(null);
    setFault(null);
    if (!file) return;
    if (file.size > MOST_BYTES) return setFault('That file is too large for a price list.');
    const found = readPrices(await file.text(), cat, today());
    if (found.quotes.length === 0)
      setFault(found.faults[0] ? `Line ${found.faults[0].line}: ${found.faults[0].reason}.` : 'There are no prices in it.'); // prettier-ignore
    else setRead(found);
  };
  return (
    <>
      <Button onClick={() => input.current?.click()}>
        <Upload size={14} aria-hidden /> Read prices in
      </Button>
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv,text/plain"
        className="sr-only"
        aria-label="File of prices"
        tabIndex={-1}
        onChange={(e) => {
          void look(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      {fault && <FieldFault>{fault}</FieldFault>}
      {read && (
        <span
          role="group"
          aria-label="Prices that were read"
          className="border-ink basis-full border p-2"
        >
          {read.quotes.length} {read.quotes.length === 1 ? 'price' : 'prices'} read
          {read.faults.length > 0 && (
            <>
              , {read.faults.length} passed over:{' '}
              {read.faults
                .slice(0, 5)
                .map((f) => `line ${f.line}: ${f.reason}`)
                .join('; ')}
              {read.faults.length > 5 ? ' …' : ''}
            </>
          )}
          .{' '}
          <Button
            strong
            onClick={() => {
              commit(`${read.quotes.length} prices read in`, (d) => {
                for (const { item, quote } of read.quotes) putQuote(d, item, quote);
              });
              setRead(null);
            }}
          >
            Take them
          </Button>{' '}
          <Button onClick={() => setRead(null)}>Leave them</Button>
        </span>
      )}
    </>
  );
}
