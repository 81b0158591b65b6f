/** The list: everything the plan wants, what of it is there, and what it costs. */
import { Download } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { moneyText } from '../../core/base/locale.js';
import { FOOT, unitOf } from '../../core/base/units.js';
import type { Report, Supply } from '../../core/report/schema.js';
import { taxOf } from '../../core/compare/apart.js';
import { byGroup, GROUPS, groupOf } from '../../core/supplies/groups.js';
import { ownShare } from '../../core/supplies/takeoff.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { Caution, Choice, Part, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { useMoney } from '../../ui/parts/money.js';
import { Num, WhereFrom } from '../../ui/parts/Num.js';
import { countOrigin, PROPERTY } from './origins.js';
import { OwnItems } from './OwnItems.js';
import { Price, shownPrice } from './Price.js';
import { RowDetail } from './RowDetail.js';
import { useBasket, useCuts, useLedger, useSupplies } from './supplied.js';

const CostBar = lazy(() => import('./CostBar.js').then((m) => ({ default: m.CostBar })));

type Grouping = 'group' | 'line';

export function BuyTab() {
  const report = useSession((s) => s.report)!;
  const plan = useSession((s) => s.plan);
  const id = useSession((s) => s.id);
  const cat = useCatalogue();
  const [only, setOnly] = useState('all');
  const [by, setBy] = useState<Grouping>('group');
  const ledger = useLedger();
  const { value: cuts } = useCuts(ledger);
  const supplies = useSupplies(cuts);
  const money = useMoney();
  const things = [...Object.values(plan.lines), ...Object.values(plan.energisers)];
  const known = only === 'all' || only === PROPERTY || things.some((t) => t.id === only);
  const chosen = known ? only : 'all';
  const all = chosen === 'all';
  const rows = all ? supplies : supplies.flatMap((s) => ownShare(s, chosen, cat) ?? []);
  const ground_m = all ? report.totals.ground_m : (report.lines[chosen]?.ground_m ?? 0);
  return (
    <>
      <Part
        title="Supplies"
        aside={
          <a
            className="button"
            href={`/api/properties/${id}/export?format=order${all ? '' : `&only=${encodeURIComponent(chosen)}`}`}
            download
          >
            <Download size={14} aria-hidden /> Order list, CSV
          </a>
        }
      >
        <Totals rows={rows} ground_m={ground_m} />
        <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
          <Select
            label="Quantities of"
            value={chosen}
            options={[
              ['all', 'the whole property'],
              ...things.map((t) => [t.id, t.name] as const),
              [PROPERTY, 'tools and hire'],
            ]}
            onChange={setOnly}
          />
          <Choice<Grouping>
            label="Costs shown"
            value={by}
            options={[
              ['group', 'by group'],
              ['line', 'by line'],
            ]}
            onChange={setBy}
          />
        </div>
        {by === 'group' ? (
          <>
            <Suspense fallback={<div className="h-14" />}>
              <CostBar
                shares={GROUPS.map((name) => ({
                  name,
                  cost: rows.reduce((sum, s) => sum + (groupOf(s.id) === name ? s.cost : 0), 0),
                })).filter((s) => s.cost > 0)}
                money={money}
                onPress={(name) =>
                  document
                    .querySelector(`[data-group="${name}"]`)
                    ?.scrollIntoView({ block: 'start', behavior: 'smooth' })
                }
              />
            </Suspense>
            <List rows={rows} whole={all} ledger={ledger} />
          </>
        ) : (
          <ByLine supplies={supplies} />
        )}
      </Part>
      {all && by === 'group' && <OwnItems />}
      <p className="label">
        {spacingWords(report)} A post that two lines share is counted once.{' '}
        {all ? '' : 'One line as it is used: coils and boxes are not rounded up. '}
        Jumpers, brace wires and leads come off what is left of the coils.
      </p>
      <Caution>
        Treated timber, wet concrete and coils can hurt: gloves, eyes, and two people for heavy
        posts. Mains work is for a licensed electrician.
      </Caution>
    </>
  );
}

/** The sums, without and with tax, and by the metre. */
function Totals({ rows, ground_m }: { rows: readonly Supply[]; ground_m: number }) {
  const plan = useSession((s) => s.plan);
  const money = useMoney();
  const cost = rows.reduce((sum, s) => sum + s.cost, 0);
  const tax = taxOf({ supplies: [...rows] });
  const metric = plan.units === 'metric';
  const per = (amount: number) => {
    const perM = ground_m > 0 ? amount / ground_m : 0;
    return `${moneyText(metric ? perM : perM * FOOT, plan.currency)} per ${metric ? 'm' : 'ft'}`;
  };
  return (
    <p className="mb-3 flex flex-wrap items-baseline gap-x-6 gap-y-1">
      <span>
        <span className="text-lg font-semibold" data-total>
          {money(cost)}
        </span>{' '}
        without tax
      </span>
      <span>
        <span data-taxed>{money(cost + tax)}</span> with tax
        <WhereFrom
          shown={money(cost + tax)}
          origin={{
            kind: 'formula',
            title: 'With tax',
            formula: 'cost + sum of cost x the tax of each price',
            source: 'Your own rate, and whether you can claim it back, is for your accountant',
            inputs: [{ name: 'Tax', path: 'defaults.supplies.tax.value', quantity: 'percent' }],
          }}
        />
      </span>
      {ground_m > 0 && (
        <span>
          for <Num value={ground_m} q="far" /> of fence, {per(cost)}, {per(cost + tax)} with tax
        </span>
      )}
      {plan.invented && <span className="label">prices are invented</span>}
    </p>
  );
}

/** What each line costs, as its parts are used. */
function ByLine({ supplies }: { supplies: readonly Supply[] }) {
  const plan = useSession((s) => s.plan);
  const report = useSession((s) => s.report)!;
  const cat = useCatalogue();
  const money = useMoney();
  const metric = plan.units === 'metric';
  const things = [
    ...Object.values(plan.lines),
    ...Object.values(plan.energisers),
    { id: PROPERTY, name: 'Tools and hire' },
  ];
  const rows = things.flatMap((t) => {
    const own = supplies.flatMap((s) => ownShare(s, t.id, cat) ?? []);
    const cost = own.reduce((sum, s) => sum + s.cost, 0);
    const length = report.lines[t.id]?.ground_m ?? 0;
    return cost > 0 ? [{ ...t, cost, tax: taxOf({ supplies: own }), length }] : [];
  });
  const perM = (r: (typeof rows)[number]) => (r.length > 0 ? r.cost / r.length : 0);
  return (
    <DataTable
      label="Cost by line"
      rows={rows}
      keyOf={(r) => r.id}
      finds={(r) => r.name}
      columns={[
        { name: 'line', head: true, by: (r) => r.name, cell: (r) => <bdi>{r.name}</bdi> },
        {
          name: 'length',
          n: true,
          by: (r) => r.length,
          cell: (r) => (r.length > 0 ? <Num value={r.length} q="length" /> : '–'),
        },
        { name: 'without tax', n: true, className: 'figure', by: (r) => r.cost, cell: (r) => money(r.cost) }, // prettier-ignore
        { name: 'with tax', n: true, className: 'figure', by: (r) => r.cost + r.tax, cell: (r) => money(r.cost + r.tax) }, // prettier-ignore
        {
          name: metric ? 'per m' : 'per ft',
          n: true,
          className: 'figure',
          by: perM,
          cell: (r) => (r.length > 0 ? money(metric ? perM(r) : perM(r) * FOOT) : '–'),
        },
      ]}
    />
  );
}

interface ListProps {
  readonly rows: readonly Supply[];
  /** Of the whole property, with what is in the shed. */
  readonly whole: boolean;
  readonly ledger: ReturnType<typeof useLedger>;
}

function List({ rows, whole, ledger }: ListProps) {
  const { units, currency } = useSession((s) => s.plan);
  const money = useMoney();
  const [open, setOpen] = useState<string | null>(null);
  const basket = useBasket(rows, ledger);
  const of = new Map(basket.map((b) => [b.supply.id, b]));
  const sorted = [...rows].sort((a, b) => byGroup(a.id, b.id));
  const isLength = (s: Supply) => s.unit === 'm';
  const amount = (s: Supply, n: number) =>
    isLength(s) ? <Num value={n} q="length" bare /> : <Num value={n} q="count" />;
  return (
    <DataTable
      label="Supplies"
      rows={sorted}
      keyOf={(s) => s.id}
      groupOf={(s) => groupOf(s.id)}
      finds={(s) => `${s.name} ${s.note}`}
      rowProps={(s) => ({ 'data-supply': s.id, className: s.out ? 'text-soft line-through' : '' })}
      detail={(s) => whole && open === s.id && <RowDetail supply={s} row={of.get(s.id)!} />}
      columns={[
        {
          name: 'item',
          head: 'plain',
          by: (s) => s.name,
          cell: (s) =>
            whole ? (
              <button
                className="cursor-pointer text-left underline-offset-2 hover:underline"
                aria-expanded={open === s.id}
                onClick={() => setOpen(open === s.id ? null : s.id)}
              >
                <span aria-hidden className="text-soft inline-block w-[1.1em]">
                  {open === s.id ? '▾' : '▸'}
                </span>
                {s.name}
              </button>
            ) : (
              s.name
            ),
        },
        {
          name: 'quantity',
          n: true,
          by: (s) => s.quantity,
          cell: (s) => (
            <span className="whitespace-nowrap">
              {amount(s, s.quantity)}
              <WhereFrom shown={s.name} origin={countOrigin(s, units)} />
            </span>
          ),
        },
        {
          name: 'unit',
          cell: (s) => (isLength(s) ? unitOf('length', units) : s.unit),
        },
        whole && {
          name: 'in the shed',
          n: true,
          by: (s) => of.get(s.id)!.shed,
          cell: (s) => (of.get(s.id)!.shed > 0 ? amount(s, of.get(s.id)!.shed) : ''),
        },
        whole && {
          name: 'to buy',
          n: true,
          className: 'font-semibold',
          by: (s) => of.get(s.id)!.buy,
          cell: (s) => amount(s, of.get(s.id)!.buy),
        },
        {
          name: `price, ${currency}`,
          n: true,
          className: 'figure',
          by: (s) => s.price,
          cell: (s) =>
            whole ? (
              <Price item={s.id} name={s.name} />
            ) : (
              shownPrice(s.price, s.per, units).toFixed(2)
            ),
        },
        {
          name: 'cost',
          n: true,
          className: 'figure',
          by: (s) => s.cost,
          cell: (s) => money(s.cost),
        },
        {
          name: 'note',
          className: 'label',
          cell: (s) => (
            <>
              {s.out && <strong>left out. </strong>}
              {s.changed !== undefined && !s.out && <strong>by hand. </strong>}
              {s.changed} {s.note}
            </>
          ),
        },
      ]}
    />
  );
}

/** How the posts were counted. */
function spacingWords(report: Report): string {
  const lines = Object.values(report.lines);
  const placed = lines.filter((l) => l.stretches.some((s) => !s.equal)).length;
  if (placed === 0) return 'Posts counted at equal bays.';
  if (placed === lines.length) return 'Posts counted as they were placed by the ground.';
  return `Posts counted as placed by the ground on ${placed} of ${lines.length} lines, at equal bays on the others.`;
}
