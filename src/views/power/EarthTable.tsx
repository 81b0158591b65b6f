import { moneyText } from '../../core/base/locale.js';
import { useState } from 'react';
import type { Energiser } from '../../core/plan/schema.js';
import { distance } from '../../core/plan/geometry.js';
import { offThing, thingsOf } from '../../core/land/things.js';
import { rodsInLine } from '../../core/earth/rods.js';
import type { EarthRow } from '../../core/sizing/earthBench.js';
import { usePower } from '../../session/power.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Asked } from '../../ui/parts/Asked.js';
import { Button } from '../../ui/parts/Button.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { say } from '../../core/base/units.js';

const READ: Origin = {
  kind: 'formula',
  title: 'The earth test, foretold',
  formula: 'I·(R − Σ ρ/(2πL) asinh(L/d)) in the driest month',
  source: 'docs/model.md, Earth',
};

/** Rods by number for one spacing: cost, reading, and what they give back at the worst point. */
export function EarthTable({ unit }: { unit: Energiser }) {
  const cat = useCatalogue();
  const units = useUnits();
  const currency = useSession((s) => s.plan.currency);
  const limit = cat.defaults['earth.testLimit']!.value;
  const answer = usePower(`earth ${unit.id}`, (api) => api.earth(unit.id));
  const { value } = answer;
  const spacings = [...new Set((value ?? []).map((r) => r.spacing_m))];
  const [spacing, setSpacing] = useState(3);
  if (!value) return <Asked of={answer} doing="Trying rods" />;
  const rows = value.filter((r) => r.spacing_m === spacing);
  const volts = new Map(value.filter((r) => r.worst_V !== null).map((r) => [r.rods, r.worst_V!]));
  const money = (x: number) => moneyText(x, currency, true);
  return (
    <div className="mt-3">
      <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Rods apart">
        <span className="label">Apart</span>
        {spacings.map((m) => (
          <Button
            key={m}
            className="small"
            aria-pressed={m === spacing}
            onClick={() => setSpacing(m)}
          >
            {say(m, 'tape', units)}
          </Button>
        ))}
      </div>
      <Curve rows={rows} limit={limit} now={unit.rods} />
      <DataTable
        label="Rods by number"
        rows={rows}
        keyOf={(r) => r.rods}
        rowProps={(r) => ({
          className: r.rods === unit.rods && spacing === unit.rodSpacing_m ? 'bg-chosen' : '',
        })}
        columns={[
          { name: 'rods', n: true, cell: (r) => r.rods },
          { name: 'resistance', n: true, cell: (r) => <Num value={r.r_dry_ohm} q="ohm" /> },
          {
            name: 'test reads',
            n: true,
            from: READ,
            cell: (r) => (
              <>
                <Num
                  value={r.reading_V}
                  q="smallVolt"
                  className={r.reading_V > limit ? 'text-stop' : ''}
                />
                <span className="label"> {r.reading_V > limit ? 'over' : 'meets'}</span>
              </>
            ),
          },
          {
            name: 'worst point then',
            n: true,
            cell: (r) => <Num value={volts.get(r.rods)} q="fineVolt" />,
          },
          { name: 'cost', n: true, cell: (r) => money(r.cost) },
          {
            name: 'choose',
            quiet: true,
            n: true,
            cell: (r) => (
              <Button
                className="small"
                aria-label={`Set ${r.rods} rods ${say(spacing, 'tape', units)} apart`}
                onClick={() =>
                  commit(`rods of ${unit.name}`, (d) => {
                    d.energisers[unit.id]!.rods = r.rods;
                    d.energisers[unit.id]!.rodSpacing_m = spacing;
                  })
                }
              >
                set
              </Button>
            ),
          },
        ]}
      />
      <p className="label">
        In the driest month. Where the curve lies flat more rods stop paying; the last column but
        one shows how few volts they give back.
      </p>
    </div>
  );
}

/** Reading against the number of rods, with the limit. */
function Curve({ rows, limit, now }: { rows: readonly EarthRow[]; limit: number; now: number }) {
  const [w, h] = [320, 90];
  const most = Math.max(limit * 1.2, ...rows.map((r) => r.reading_V));
  const x = (n: number) => 34 + ((w - 44) * (n - 1)) / 19;
  const y = (v: number) => h - 16 - ((h - 26) * v) / most;
  return (
    <svg
      viewBox={`0 0 ${w} ${h}`}
      className="my-1 max-w-[420px]"
      role="img"
      aria-label={`Test reading falls from ${Math.round(rows[0]?.reading_V ?? 0)} V with one rod to ${Math.round(rows.at(-1)?.reading_V ?? 0)} V with twenty`}
    >
      <line
        x1={34}
        x2={w - 10}
        y1={y(limit)}
        y2={y(limit)}
        stroke="var(--soft)"
        strokeDasharray="5 4"
      />
      <text x={w - 10} y={y(limit) - 3} textAnchor="end" className="fill-soft text-[0.714rem]">
        at most {limit} V
      </text>
      <path
        d={`M${rows.map((r) => `${x(r.rods)},${y(r.reading_V)}`).join('L')}`}
        fill="none"
        stroke="var(--earth)"
        strokeWidth={2}
      />
      {rows.map((r) => (
        <circle
          key={r.rods}
          cx={x(r.rods)}
          cy={y(r.reading_V)}
          r={r.rods === now ? 4.5 : 2.2}
          fill={r.rods === now ? 'var(--panel)' : 'var(--earth)'}
          stroke="var(--earth)"
          strokeWidth={2}
        />
      ))}
      {[1, 5, 10, 15, 20].map((n) => (
        <text key={n} x={x(n)} y={h - 3} textAnchor="middle" className="fill-soft text-[0.714rem]">
          {n}
        </text>
      ))}
      <text x={4} y={12} className="fill-soft text-[0.714rem]">
        V
      </text>
    </svg>
  );
}

/** The rods in plan beside their unit, with the nearest other earths. */
export function Rods({ unit }: { unit: Energiser }) {
  const cat = useCatalogue();
  const units = useUnits();
  const plan = useSession((s) => s.plan);
  const least = cat.defaults['land.earthsApart']!.value;
  const others = [
    ...thingsOf(plan, 'building', 'mains').filter((t) => t.kind === 'mains' || t.earthed).map((t) => ({ name: t.name, d: offThing(t, unit) })), // prettier-ignore
    ...Object.values(plan.energisers).filter((e) => e.id !== unit.id).map((e) => ({ name: `earth of ${e.name}`, d: distance(e, unit) })), // prettier-ignore
  ].sort((a, b) => a.d - b.d);
  const rods = rodsInLine(unit.rods, unit.rodSpacing_m);
  const long = Math.max(1, rods.at(-1)![0]);
  const k = Math.min(14, 300 / long);
  return (
    <figure className="mt-2">
      <svg
        viewBox="-24 -22 360 48"
        className="max-w-[440px]"
        role="img"
        aria-label={`${unit.rods} rods in a line, ${say(long, 'tape', units)} long in all`}
      >
        <path
          d={`M-14,0H${long * k}`}
          stroke="var(--earth)"
          strokeWidth={2}
          strokeDasharray="9 4"
        />
        <rect
          x={-22}
          y={-7}
          width={14}
          height={14}
          fill="var(--panel)"
          stroke="var(--ink)"
          strokeWidth={1.6}
        />
        {rods.map(([x], i) => (
          <g key={i}>
            <circle
              cx={x * k}
              cy={0}
              r={4}
              fill="var(--panel)"
              stroke="var(--earth)"
              strokeWidth={2}
            />
            {i === 1 && (
              <text
                x={(x * k) / 2}
                y={-9}
                textAnchor="middle"
                className="fill-soft text-[0.714rem]"
              >
                {say(unit.rodSpacing_m, 'tape', units)}
              </text>
            )}
          </g>
        ))}
        <text x={-22} y={21} className="fill-soft text-[0.714rem]">
          unit
        </text>
        <circle cx={long * k + 14} cy={0} r={2.4} fill="var(--ink)" />
        <text x={long * k + 20} y={4} className="fill-soft text-[0.714rem]">
          probe
        </text>
      </svg>
      <figcaption className="label">
        {others.slice(0, 3).map((o) => (
          <span key={o.name} className={o.d < least ? 'text-stop mr-3' : 'mr-3'}>
            {o.name}: {say(o.d, 'length', units)}
            {o.d < least ? ` , less than ${say(least, 'length', units)}` : ''}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
