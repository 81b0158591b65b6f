/** Kinds of fence by the metre and over the years: first cost, upkeep, life, and when one overtakes another. */
import { useState } from 'react';
import { FOOT } from '../../core/base/units.js';
import { crossings, paidAfter, type Kept } from '../../core/compare/years.js';
import type { KindRow } from '../../core/compare/kinds.js';
import { figure } from '../../core/plan/catalogue.js';
import { useCatalogue } from '../../session/catalogue.js';
import { usePower } from '../../session/power.js';
import { useSession } from '../../session/session.js';
import { Asked } from '../../ui/parts/Asked.js';
import { Check, Part, QuantityField, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { LineChart, type Curve } from '../../ui/parts/LineChart.js';
import { usePerMetre } from '../../ui/parts/money.js';
import { Num, WhereFrom } from '../../ui/parts/Num.js';
import { PAID } from './origins.js';

const DASHES = [[], [8, 4], [2, 3], [10, 3, 2, 3], [4, 4]] as const;
const POINTS = ['circle', 'triangle', 'rect', 'rectRot', 'cross'] as const;
/** Kinds drawn at once, beside the line's own. */
const DRAWN = 4;

export function YearsTab() {
  const lines = Object.values(useSession((s) => s.plan.lines));
  const [asked, setLine] = useState('');
  const line = lines.find((l) => l.id === asked) ?? lines[0];
  const answer = usePower(line ? `kinds ${line.id}` : null, (api) => api.kinds(line!.id));
  const [years, setYears] = useState(30);
  const [chosen, setChosen] = useState<readonly string[] | null>(null);
  const [work, setWork] = useState(true);
  if (!line) return <p className="label">No lines yet: there is nothing to compare.</p>;
  if (!answer.value) return <Asked of={answer} doing="Working the kinds out" />;
  const { rows, own } = answer.value;
  const able = rows.filter((r) => r.height_m === null);
  const picked =
    chosen ??
    able
      .filter((r) => r.fails.length === 0)
      .slice(0, 3)
      .map((r) => r.kind);
  return (
    <Part title="Kinds of fence over the years">
      <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
        <Select
          label="On the ground of"
          value={line.id}
          width="max-w-[14rem]"
          options={lines.map((l) => [l.id, l.name] as const)}
          onChange={setLine}
        />
        <QuantityField label="Over" q="years" min={1} max={100} value={years} onCommit={setYears} />
        <Check label="work to build it counts" checked={work} onChange={setWork} />
      </div>
      <Years
        own={own}
        rows={able}
        picked={picked}
        years={years}
        work={work}
        onPick={(kind, on) => setChosen(on ? [...picked, kind].slice(-DRAWN) : picked.filter((k) => k !== kind))} // prettier-ignore
      />
    </Part>
  );
}

interface YearsProps {
  readonly own: KindRow;
  readonly rows: readonly KindRow[];
  readonly picked: readonly string[];
  readonly years: number;
  readonly work: boolean;
  readonly onPick: (kind: string, on: boolean) => void;
}

function Years({ own, rows, picked, years, work, onPick }: YearsProps) {
  const cat = useCatalogue();
  const perMetre = usePerMetre();
  const { units, currency } = useSession((s) => s.plan);
  const wage = figure(cat, 'supplies.wage');
  const keptOf = (r: KindRow): Kept => ({
    first: r.cost_per_m + (work ? r.hours_per_m * wage : 0),
    yearly: (r.upkeep_h_per_km / 1000) * wage,
    life_y: r.life_y,
  });
  const name = (kind: string) => (kind === '' ? 'as planned here' : cat.kinds[kind]!.name);
  const shown = [own, ...rows.filter((r) => picked.includes(r.kind))];
  const scale = units === 'metric' ? 1 : FOOT;
  const curves = (colour: (n: string) => string): Curve[] =>
    shown.map((r, k) => ({
      label: name(r.kind),
      data: stepped(keptOf(r), years).map(({ x, y }) => ({ x, y: y * scale })),
      borderColor: colour(k === 0 ? 'live' : 'ink'),
      backgroundColor: colour(k === 0 ? 'live' : 'ink'),
      borderDash: [...DASHES[k % DASHES.length]!],
      borderWidth: k === 0 ? 2.5 : 1.5,
      pointStyle: POINTS[k % POINTS.length]!,
      pointRadius: 3,
    }));
  const meets = shown.slice(1).map((r) => ({ kind: r.kind, at: crossings(keptOf(own), keptOf(r), years) })); // prettier-ignore
  return (
    <>
      <div className="mb-2 h-[300px] max-w-[60rem]">
        <LineChart
          label="Paid over the years, by the metre"
          curves={curves}
          x={{ title: 'years', min: 0, max: years }}
          y={{ title: `${currency} per ${units === 'metric' ? 'm' : 'ft'}`, beginAtZero: true }}
          box={8}
        />
      </div>
      <ul className="mb-3" data-crossings>
        {meets.map(({ kind, at }) => (
          <li key={kind}>
            <strong>{name(kind)}:</strong>{' '}
            {crossWords(at, keptOf(own), keptOf(rows.find((r) => r.kind === kind)!), years)}
          </li>
        ))}
      </ul>
      <DataTable<KindRow>
        label="Kinds of fence by the metre"
        rows={[own, ...rows]}
        keyOf={(r) => r.kind}
        rowProps={(r) => ({ className: r === own ? 'bg-chosen' : '' })}
        columns={[
          {
            name: 'kind',
            head: 'plain',
            by: (r) => name(r.kind),
            cell: (r) =>
              r === own ? (
                'As planned here'
              ) : (
                <Check
                  label={name(r.kind)}
                  checked={picked.includes(r.kind)}
                  onChange={(on) => onPick(r.kind, on)}
                />
              ),
          },
          { name: 'parts', n: true, className: 'figure', by: (r) => r.cost_per_m, cell: (r) => perMetre(r.cost_per_m) }, // prettier-ignore
          { name: 'work', n: true, className: 'figure', by: (r) => r.hours_per_m, cell: (r) => perMetre(r.hours_per_m * wage) }, // prettier-ignore
          { name: 'upkeep', n: true, by: (r) => r.upkeep_h_per_km, cell: (r) => <Num value={r.upkeep_h_per_km} q="upkeep" /> }, // prettier-ignore
          { name: 'lasts', n: true, by: (r) => r.life_y, cell: (r) => <Num value={r.life_y} q="years" /> }, // prettier-ignore
          {
            name: `paid in ${years} years`,
            n: true,
            className: 'figure font-semibold',
            by: (r) => paidAfter(keptOf(r), years),
            cell: (r) => (
              <>
                {perMetre(paidAfter(keptOf(r), years))}
                <WhereFrom shown={name(r.kind)} origin={PAID} />
              </>
            ),
          },
          {
            name: 'for this line',
            cell: (r) =>
              r === own ? (
                'see Strands'
              ) : r.fails.length > 0 ? (
                <span className="text-stop">✕ does not hold all</span>
              ) : (
                <span className="text-good">✓ holds all</span>
              ),
          },
        ]}
      />
      <p className="label mt-2">
        Parts as they are used at this property’s prices, without tax; work and upkeep at {wage}{' '}
        {currency} an hour. Lives are from memory and practice: soil, salt and care change them
        much.
      </p>
    </>
  );
}

/** A point before and after each building anew, and at both ends. */
function stepped(kept: Kept, years: number): { x: number; y: number }[] {
  const out = [{ x: 0, y: paidAfter(kept, 0) }];
  for (let t = kept.life_y; t < years; t += kept.life_y)
    out.push({ x: t, y: paidAfter(kept, t) }, { x: t + 1e-6, y: paidAfter(kept, t + 1e-6) });
  return [...out, { x: years, y: paidAfter(kept, years) }];
}

function crossWords(
  at: ReturnType<typeof crossings>,
  own: Kept,
  other: Kept,
  years: number,
): string {
  if (at.length === 0)
    return paidAfter(own, years) <= paidAfter(other, years)
      ? `dearer than what is planned, all through ${years} years.`
      : `cheaper than what is planned, all through ${years} years.`;
  return `${at.map(({ year, b }) => `${b ? 'cheaper' : 'dearer'} than what is planned from year ${Math.ceil(year)}`).join(', ')}.`; // prettier-ignore
}
