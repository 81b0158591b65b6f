import { Download } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import type { Report, Supply } from '../../core/report/schema.js';
import { ownShare } from '../../core/supplies/takeoff.js';
import { moneyText } from '../../core/base/locale.js';
import { FOOT, unitOf } from '../../core/base/units.js';
import { Part, PriceField, Select } from '../../ui/parts/controls.js';
import { Num, WhereFrom } from '../../ui/parts/Num.js';
import { commit, useSession } from '../../session/session.js';
import { useCatalogue } from '../../session/catalogue.js';
import { Currency } from './Currency.js';
import { DataTable } from '../../ui/parts/DataTable.js';

const CostBar = lazy(() => import('./CostBar.js').then((m) => ({ default: m.CostBar })));

const GROUPS: readonly { name: string; has: (id: string) => boolean }[] = [
  { name: 'Posts and ends', has: (id) => /^(post|end|dropper)\./.test(id) },
  {
    name: 'Wire and joints',
    has: (id) => /^(wire|joiner)\b/.test(id) || ['tensioner', 'spring', 'staple'].includes(id),
  },
  {
    name: 'Insulators, jumpers, cable',
    has: (id) =>
      /^(insulator|clip|switch|sleeve|crimp)\./.test(id) ||
      ['clamp.jumper', 'cable', 'conduit'].includes(id),
  },
  {
    name: 'Energisers and earth',
    has: (id) => /^(energiser|earth)\./.test(id) || id === 'diverter',
  },
  { name: 'Gates and signs', has: (id) => ['gate', 'sign', 'floodgate'].includes(id) },
];

/** What to buy and what it costs: counted from the plan, priced from the property's price book. */
export function SuppliesView() {
  const report = useSession((s) => s.report);
  const plan = useSession((s) => s.plan);
  const id = useSession((s) => s.id);
  const cat = useCatalogue();
  const [only, setOnly] = useState('all');
  if (!report)
    return (
      <p className="p-4" role="status">
        Counting …
      </p>
    );
  const money = (x: number) => moneyText(x, plan.currency);
  const all = only === 'all';
  const rows = all ? report.supplies : report.supplies.flatMap((s) => ownShare(s, only, cat) ?? []);
  const cost = rows.reduce((sum, s) => sum + s.cost, 0);
  const ground_m = all ? report.totals.ground_m : (report.lines[only]?.ground_m ?? 0);
  const perUnit = ground_m > 0 ? cost / ground_m : null;
  const metric = plan.units === 'metric';
  const things = [...Object.values(plan.lines), ...Object.values(plan.energisers)];
  return (
    <div className="h-full overflow-auto p-4">
      <Part
        title="Supplies"
        aside={
          <a
            className="button"
            href={`/api/properties/${id}/export?format=order${all ? '' : `&only=${encodeURIComponent(only)}`}`}
            download
          >
            <Download size={14} aria-hidden /> Order list, CSV
          </a>
        }
      >
        <div className="mb-3 flex flex-wrap items-baseline gap-x-6 gap-y-1">
          <span className="text-lg font-semibold" data-total>
            {money(cost)}
          </span>
          <span>
            {ground_m > 0 && (
              <>
                for <Num value={ground_m} q="far" /> of fence
              </>
            )}
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
          <Currency />
        </div>
        <Suspense fallback={<div className="h-14" />}>
          <CostBar
            shares={GROUPS.map((g) => g.name)
              .concat('Further')
              .map((name) => ({
                name,
                cost: rows.reduce((sum, s) => sum + (groupOf(s) === name ? s.cost : 0), 0),
              }))
              .filter((s) => s.cost > 0)}
            money={money}
            onPress={(name) =>
              document
                .querySelector(`[data-group="${name}"]`)
                ?.scrollIntoView({ block: 'start', behavior: 'smooth' })
            }
          />
        </Suspense>
        <SupplyTable rows={rows} money={money} />
      </Part>
      <p className="label">
        {spacingWords(report)} A brace at both ends of every run; a post that two lines share is
        counted once. {all ? '' : 'One line as it is used: coils and boxes are not rounded up. '}
        Offcuts serve as jumpers. Treated timber, wet concrete and coils can hurt: gloves, eyes, and
        two people for heavy posts.
      </p>
    </div>
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

const groupOf = (s: Supply): string => GROUPS.find((g) => g.has(s.id))?.name ?? 'Further';
const rank = (s: Supply): number => GROUPS.findIndex((g) => g.has(s.id)) + 99 * Number(groupOf(s) === 'Further'); // prettier-ignore

function SupplyTable({ rows, money }: { rows: readonly Supply[]; money: (x: number) => string }) {
  const { units, currency } = useSession((s) => s.plan);
  const isLength = (s: Supply) => s.unit === 'm';
  return (
    <DataTable
      label="Supplies"
      rows={[...rows].sort((a, b) => rank(a) - rank(b))}
      keyOf={(s) => s.id}
      groupOf={groupOf}
      rowProps={(s) => ({ 'data-supply': s.id })}
      columns={[
        {
          name: 'item',
          head: true,
          className: '!text-ink !font-normal !text-[1rem] !font-stretch-normal',
          cell: (s) => s.name,
        },
        {
          name: 'quantity',
          n: true,
          cell: (s) => (
            <span className="whitespace-nowrap">
              {isLength(s) ? (
                <Num value={s.quantity} q="length" bare />
              ) : (
                <Num value={s.quantity} q="count" />
              )}
              <WhereFrom shown={s.name} origin={countOrigin(s)} />
            </span>
          ),
        },
        {
          name: 'unit',
          cell: (s) => (isLength(s) ? unitOf('length', units) : s.unit),
        },
        {
          name: `price, ${currency}`,
          n: true,
          cell: (s) => (
            <PriceField
              label={`Price of ${s.name}`}
              price={s.price}
              onCommit={(value) =>
                commit(`price of ${s.name}`, (d) => {
                  d.overrides[`prices.${s.id}.price`] = { value };
                })
              }
            />
          ),
        },
        { name: 'cost', n: true, className: 'figure', cell: (s) => money(s.cost) },
        {
          name: 'note',
          className: 'label',
          cell: (s) => (
            <>
              {s.note}
              {s.places && <PlacesOf supply={s} places={s.places} />}
            </>
          ),
        },
      ]}
    />
  );
}

/** For which places of which lines an item is. */
function PlacesOf({
  supply: s,
  places,
}: {
  supply: Supply;
  places: NonNullable<Supply['places']>;
}) {
  const lines = useSession((x) => x.plan.lines);
  const n = Object.values(places).reduce((sum, at) => sum + at.length, 0);
  // Mix and gravel are bought for several holes at once: a place has a part of a bag.
  const q =
    s.unit === 'm' ? 'tape' : s.unit === 't' ? 'tonne' : s.unit === 'bag' ? 'bags' : 'count';
  return (
    <details>
      <summary className="cursor-pointer py-1">
        at {n} {n === 1 ? 'place' : 'places'}
      </summary>
      <ul>
        {Object.entries(places).map(([line, at]) => (
          <li key={line}>
            <bdi>{lines[line]?.name ?? line}</bdi>{' '}
            {at.map(([along, quantity], k) => (
              <span key={along}>
                {k > 0 && ', '}
                <Num value={along} q="length" />: <Num value={quantity} q={q} />
              </span>
            ))}
          </li>
        ))}
      </ul>
    </details>
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
      name: 'Legs of a brace wire, and one more',
      path: 'defaults.ends.legs.value',
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
