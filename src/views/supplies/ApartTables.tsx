/** What sets two designs apart, in figures. */
import type { Apart, Pair } from '../../core/compare/apart.js';
import type { Quantity } from '../../core/base/units.js';
import { unitOf } from '../../core/base/units.js';
import type { Finding } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { FindingMark } from '../../ui/parts/FindingMark.js';
import { useMoney } from '../../ui/parts/money.js';
import { Num, useUnits, WhereFrom } from '../../ui/parts/Num.js';
import { HOURS } from './origins.js';

interface ApartProps {
  readonly apart: Apart;
  readonly names: readonly [string, string];
}

export function ApartTables({ apart, names }: ApartProps) {
  return (
    <>
      <Sums apart={apart} names={names} />
      <Volts apart={apart} names={names} />
      <PartsApart apart={apart} names={names} />
      <Holding apart={apart} names={names} />
    </>
  );
}

interface Sum {
  readonly what: string;
  readonly pair: Pair;
  readonly q: Quantity | 'price';
  readonly hours?: boolean;
}

function Sums({ apart, names }: ApartProps) {
  const money = useMoney();
  const rows: Sum[] = [
    { what: 'cost, without tax', pair: apart.cost, q: 'price' },
    { what: 'cost as used, no coil or box rounded up', pair: apart.used, q: 'price' },
    { what: 'cost, with tax', pair: [apart.cost[0] + apart.tax[0], apart.cost[1] + apart.tax[1]], q: 'price' }, // prettier-ignore
    { what: 'hours to build', pair: apart.hours, q: 'hours', hours: true },
    { what: 'fence', pair: apart.ground_m, q: 'far' },
    { what: 'wire strung', pair: apart.wire_m, q: 'far' },
    { what: 'posts', pair: apart.posts, q: 'count' },
  ];
  const show = (n: number, q: Sum['q']) => (q === 'price' ? <span className="figure">{money(n)}</span> : <Num value={n} q={q} />); // prettier-ignore
  return (
    <DataTable<Sum>
      label="Sums of both"
      rows={rows}
      keyOf={(r) => r.what}
      columns={[
        {
          name: 'what',
          quiet: true,
          head: true,
          cell: (r) => (
            <>
              {r.what}
              {r.hours && <WhereFrom shown="hours to build" origin={HOURS} />}
            </>
          ),
        },
        { name: names[0], n: true, cell: (r) => show(r.pair[0], r.q) },
        { name: names[1], n: true, cell: (r) => show(r.pair[1], r.q) },
        {
          name: 'apart',
          n: true,
          className: 'font-semibold',
          cell: (r) => {
            const by = r.pair[1] - r.pair[0];
            if (Math.abs(by) < 1e-6) return 'the same';
            return (
              <>
                {by > 0 ? '+' : '−'}
                {show(Math.abs(by), r.q)}
              </>
            );
          },
        },
      ]}
    />
  );
}

function Volts({ apart, names }: ApartProps) {
  const cat = useCatalogue();
  const lines = useSession((s) => s.plan.lines);
  if (apart.volts.length === 0)
    return <p className="label mt-3">Neither is fed: no volts to set side by side.</p>;
  const worst = (w: Apart['volts'][number]['worst'][number]) =>
    w ? (
      <>
        <Num value={w.v_V} q="fineVolt" /> of <Num value={w.aim_V} q="fineVolt" />
        <span className="label block">
          <bdi>{lines[w.line]?.name ?? w.line}</bdi>
        </span>
      </>
    ) : (
      'not fed'
    );
  return (
    <div className="mt-4">
      <DataTable
        label="Volts where they fall furthest short of the aim"
        rows={apart.volts}
        keyOf={(r) => r.season}
        columns={[
          { name: 'volts at the worst place', head: true, cell: (r) => cat.seasons[r.season]?.name ?? r.season }, // prettier-ignore
          { name: names[0], n: true, cell: (r) => worst(r.worst[0]) },
          { name: names[1], n: true, cell: (r) => worst(r.worst[1]) },
        ]}
      />
    </div>
  );
}

function PartsApart({ apart, names }: ApartProps) {
  const money = useMoney();
  const units = useUnits();
  if (apart.parts.length === 0) return <p className="label mt-3">Both take the same parts.</p>;
  const amount = (unit: string, n: number) => <Num value={n} q={unit === 'm' ? 'length' : 'count'} bare />; // prettier-ignore
  return (
    <div className="mt-4">
      <DataTable
        label="Parts that differ"
        rows={apart.parts}
        keyOf={(r) => r.id}
        columns={[
          {
            name: 'parts',
            head: 'plain',
            by: (r) => r.name,
            cell: (r) => r.name,
          },
          { name: 'of', cell: (r) => (r.unit === 'm' ? unitOf('length', units) : r.unit) },
          { name: names[0], n: true, cell: (r) => amount(r.unit, r.quantity[0]) },
          { name: names[1], n: true, cell: (r) => amount(r.unit, r.quantity[1]) },
          {
            name: 'cost apart',
            n: true,
            className: 'figure',
            by: (r) => r.cost,
            cell: (r) => `${r.cost < 0 ? '−' : '+'}${money(Math.abs(r.cost))}`,
          },
        ]}
      />
    </div>
  );
}

/** Whether both hold: what only one of them is found wanting in. */
function Holding({ apart, names }: ApartProps) {
  const lists: [string, readonly Finding[]][] = [
    [names[0], apart.onlyA],
    [names[1], apart.onlyB],
  ];
  if (apart.onlyA.length + apart.onlyB.length === 0)
    return <p className="label mt-3">Both hold alike: the same things are found in both.</p>;
  return (
    <div className="mt-4 grid gap-4 @[46rem]:grid-cols-2">
      {lists.map(([name, found], k) => (
        <section key={k} aria-label={`Found only ${name}`}>
          <h3 className="heading">Found only: {name}</h3>
          {found.length === 0 ? (
            <p className="label">nothing</p>
          ) : (
            <ul>
              {found.map((f) => (
                <li key={f.id} className="flex gap-2 py-0.5">
                  <FindingMark kind={f.kind} /> <span>{f.title}</span>
                </li>
              ))}
            </ul>
          )}
        </section>
      ))}
    </div>
  );
}
