import { Download } from 'lucide-react';
import { useState } from 'react';
import type { Supply } from '../../core/report/schema.js';
import { FOOT } from '../../core/base/units.js';
import { Part, Select } from '../../ui/parts/controls.js';
import { Num, WhereFrom } from '../../ui/parts/Num.js';
import { commit, useSession } from '../../session/session.js';
import { PriceField } from './PriceField.js';

const GROUPS: readonly { name: string; has: (id: string) => boolean }[] = [
  { name: 'Posts and ends', has: (id) => id.startsWith('post.') || id.startsWith('end.') },
  {
    name: 'Wire and joints',
    has: (id) => id.startsWith('wire.') || id === 'joiner' || id === 'tensioner' || id === 'staple',
  },
  {
    name: 'Insulators, jumpers, cable',
    has: (id) => id.startsWith('insulator.') || ['clamp.jumper', 'cable', 'conduit'].includes(id),
  },
  {
    name: 'Energisers and earth',
    has: (id) => id.startsWith('energiser.') || id.startsWith('earth.'),
  },
  { name: 'Gates and signs', has: (id) => id === 'gate' || id === 'sign' },
];

/** What to buy and what it costs: counted from the plan, priced from the property's price book. */
export function SuppliesView() {
  const report = useSession((s) => s.report);
  const plan = useSession((s) => s.plan);
  const id = useSession((s) => s.id);
  const [only, setOnly] = useState('all');
  if (!report)
    return (
      <p className="p-4" role="status">
        Counting …
      </p>
    );
  const money = (x: number) =>
    new Intl.NumberFormat(undefined, { style: 'currency', currency: plan.currency }).format(x);
  const perUnit = report.totals.ground_m > 0 ? report.totals.cost / report.totals.ground_m : null;
  const metric = plan.units === 'metric';
  const things = [...Object.values(plan.lines), ...Object.values(plan.energisers)];
  return (
    <div className="h-full overflow-auto p-4">
      <Part
        title="Supplies"
        aside={
          <a className="button" href={`/api/properties/${id}/export?format=order`} download>
            <Download size={14} aria-hidden /> Order list, CSV
          </a>
        }
      >
        <div className="mb-3 flex flex-wrap items-baseline gap-x-6 gap-y-1">
          <span className="text-lg font-semibold" data-total>
            {money(report.totals.cost)}
          </span>
          <span>
            for <Num value={report.totals.ground_m} q="far" /> of fence
            {perUnit !== null && (
              <>
                {', '}
                {money(metric ? perUnit : perUnit * FOOT)} per {metric ? 'm' : 'ft'}
              </>
            )}
          </span>
          {plan.invented && <span className="label">prices are invented</span>}
          <Select
            label="Quantities of"
            value={only}
            options={[['all', 'the whole property'], ...things.map((t) => [t.id, t.name] as const)]}
            onChange={setOnly}
          />
        </div>
        <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Supplies">
          <table className="sheet-table">
            <thead>
              <tr>
                <th>item</th>
                <th className="n">quantity</th>
                <th>unit</th>
                <th className="n">price, {plan.currency}</th>
                <th className="n">cost</th>
                <th>note</th>
              </tr>
            </thead>
            {GROUPS.map((g) => (
              <Group
                key={g.name}
                name={g.name}
                rows={report.supplies.filter((s) => g.has(s.id))}
                only={only}
                money={money}
              />
            ))}
          </table>
        </div>
      </Part>
      <p className="label">
        Counted at equal bays with a brace at both ends of every run. Offcuts serve as jumpers.
        Treated timber, wet concrete and coils can hurt: gloves, eyes, and two people for heavy
        posts.
      </p>
    </div>
  );
}

function Group({
  name,
  rows,
  only,
  money,
}: {
  name: string;
  rows: readonly Supply[];
  only: string;
  money: (x: number) => string;
}) {
  const units = useSession((s) => s.plan.units);
  const shown = only === 'all' ? rows : rows.filter((r) => r.lines[only]);
  if (shown.length === 0) return null;
  const isLength = (s: Supply) => s.unit === 'm' || (only !== 'all' && s.id.startsWith('wire.'));
  const quantity = (s: Supply) => (only === 'all' ? s.quantity : s.lines[only]!);
  return (
    <tbody>
      <tr>
        <th colSpan={6} scope="rowgroup" className="!text-ink !pt-4 !text-[14px] !font-semibold">
          {name}
        </th>
      </tr>
      {shown.map((s) => (
        <tr key={s.id} data-supply={s.id}>
          <td>{s.name}</td>
          <td className="n">
            {isLength(s) ? (
              <Num value={quantity(s)} q="length" bare />
            ) : (
              <Num value={Math.ceil(quantity(s) - 1e-9)} q="count" />
            )}
            <WhereFrom shown={s.name} origin={countOrigin(s)} />
          </td>
          <td>
            {isLength(s)
              ? units === 'metric'
                ? 'm'
                : 'ft'
              : only !== 'all' && s.unit === 'box'
                ? 'pieces'
                : s.unit}
          </td>
          <td className="n">
            <PriceField
              name={s.name}
              price={s.price}
              onCommit={(value) =>
                commit(`price of ${s.name}`, (d) => {
                  d.overrides[`prices.${s.id}.price`] = { value };
                })
              }
            />
          </td>
          <td className="n figure">{only === 'all' ? money(s.cost) : ''}</td>
          <td className="label">{only === 'all' ? s.note : ''}</td>
        </tr>
      ))}
    </tbody>
  );
}

function countOrigin(s: Supply) {
  const inputs = [];
  if (s.id.startsWith('wire.')) {
    inputs.push({
      name: 'Tail for each tie',
      path: 'defaults.end.tail.value',
      quantity: 'tape' as const,
    });
    inputs.push({
      name: 'Spare',
      path: 'defaults.supplies.spareWire.value',
      quantity: 'percent' as const,
    });
    inputs.push({
      name: 'Diagonal of one brace',
      path: 'defaults.end.braceWire.value',
      quantity: 'tape' as const,
    });
  }
  if (s.id === 'staple')
    inputs.push({
      name: 'For each insulator on timber',
      path: 'defaults.supplies.staplesPerPost.value',
    });
  if (s.id === 'sign')
    inputs.push({
      name: 'A sign each',
      path: 'defaults.supplies.signEvery.value',
      quantity: 'length' as const,
    });
  if (s.id === 'cable')
    inputs.push({
      name: 'Beyond the opening',
      path: 'defaults.gate.cableExtra.value',
      quantity: 'tape' as const,
    });
  return {
    kind: 'formula' as const,
    title: `${s.name}: counted on the plan`,
    formula: s.note || 'one for each place where the plan has it',
    source: 'docs/model.md, Supplies',
    inputs,
  };
}
