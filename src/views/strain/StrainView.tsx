import type { Quantity } from '../../core/base/units.js';
import { PullBars } from './PullBars.js';
import { DataTable, type Column } from '../../ui/parts/DataTable.js';
import { recordOf } from '../../core/plan/catalogue.js';
import type { Line, Plan } from '../../core/plan/schema.js';
import type { LineReport, Strain } from '../../core/report/schema.js';
import { REFERENCE_C, stringingTable } from '../../core/wire/strain.js';
import { say } from '../../core/base/units.js';
import { Caution, Choice, Part, QuantityField, Check } from '../../ui/parts/controls.js';
import { MEASURED, Num, useUnits, WhereFrom, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { useView, type Warmth } from '../../session/view.js';

/** How tight, today: what to set, and what the coldest night and the hottest day make of it. */
export function StrainView() {
  const id = useView((v) => v.line);
  const line = useSession((s) => (id ? s.plan.lines[id] : undefined));
  const report = useSession((s) => (id ? s.report?.lines[id] : undefined));
  return (
    <div className="relative p-4">
      {line && report && <LineStrain line={line} report={report} />}
    </div>
  );
}

function LineStrain({ line, report }: { line: Line; report: LineReport }) {
  const cat = useCatalogue();
  const units = useUnits();
  const climate = useSession((s) => s.plan.climate);
  const warmth = useView((v) => v.warmth);
  const school = recordOf(cat.schools, line.school);
  return (
    <>
      <Part title={`How tight is ${line.name}?`}>
        <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
          <Choice
            label="How tight"
            value={line.school}
            options={Object.entries(cat.schools).map(
              ([k, s]) =>
                [k, `${s.name.toLowerCase()} ${say(s.tension_N, 'force', units)}`] as const,
            )}
            onChange={(s) =>
              commit(`tension of ${line.name}`, (d) => {
                d.lines[line.id]!.school = s;
              })
            }
          />
          <Check
            label="a tensioner in each strand of each run"
            checked={line.tensioner}
            onChange={(on) =>
              commit(`tensioners of ${line.name}`, (d) => {
                d.lines[line.id]!.tensioner = on;
              })
            }
          />
        </div>
        <p className="label mt-1">
          {school.why} Stated at {say(REFERENCE_C, 'temperature', units)}.
        </p>
        <Climate climate={climate} />
      </Part>
      <Part title="Each run, each strand">
        <PullBars report={report} />
        <details className="mt-2">
          <summary className="cursor-pointer py-1">In figures: each run, each strand</summary>
          <Runs report={report} warmth={warmth} climate={climate} school={line.school} />
        </details>
        <Caution>
          Eyes and gloves always. Stand away from the line of a tight wire, nobody in line while
          tensioning, and never above the limit shown.
        </Caution>
      </Part>
      {report.strain[0] && <Table strain={report.strain[0]} />}
    </>
  );
}

function Climate({ climate }: { climate: Plan['climate'] }) {
  const set = (key: keyof Plan['climate'], value: number) =>
    commit('temperatures', (d) => {
      d.climate[key] = value;
    });
  return (
    <div className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
      <QuantityField
        label="Coldest night"
        q="temperature"
        at="climate/cold_C"
        max={climate.today_C}
        value={climate.cold_C}
        width="w-16"
        onCommit={(c) => set('cold_C', c)}
      />
      <QuantityField
        label="Today"
        q="temperature"
        at="climate/today_C"
        min={climate.cold_C}
        max={climate.hot_C}
        value={climate.today_C}
        width="w-16"
        onCommit={(c) => set('today_C', c)}
      />
      <QuantityField
        label="Hottest day"
        q="temperature"
        at="climate/hot_C"
        min={climate.today_C}
        value={climate.hot_C}
        width="w-16"
        onCommit={(c) => set('hot_C', c)}
      />
    </div>
  );
}

const STATE: Origin = {
  kind: 'formula',
  title: 'Wire between fixed ends',
  formula: 'T/EA − w²L²/(24 T²) + αθ = const, L the ruling span',
  source: 'State-change equation of overhead-line practice; docs/model.md, Wire',
  inputs: [
    { name: 'Thermal expansion', path: 'defaults.wire.expansion.value' },
    { name: 'Modulus of steel', path: 'defaults.wire.modulus.value' },
    { name: 'Density of steel', path: 'defaults.wire.density.value' },
  ],
};
const LIMIT: Origin = {
  kind: 'formula',
  title: 'Most tension on the coldest night',
  formula: 'share × break load × joint efficiency',
  source: 'Common practice',
  inputs: [
    { name: 'Share of the break load', path: 'defaults.wire.coldLimit.value' },
    { name: 'Joint efficiency', path: 'defaults.wire.jointEfficiency.value' },
  ],
};
/** Straight below the chord, at the middle. */
const SAG: Origin = {
  kind: 'formula',
  title: 'Sag at mid-bay',
  formula: 's = w L² / (8 T)',
  source: 'Parabola; the exact catenary differs by parts in a million here',
  inputs: [],
};

function Runs({
  report,
  warmth,
  climate,
  school,
}: {
  report: LineReport;
  warmth: Warmth;
  climate: Plan['climate'];
  school: string;
}) {
  const cat = useCatalogue();
  const sagOf = (s: Strain) =>
    warmth === 'hot'
      ? s.sagHot_m
      : warmth === 'today'
        ? s.sagToday_m
        : (s.sagToday_m * s.today_N) / s.cold_N;
  const at = (key: Warmth): string => (warmth === key ? '!text-ink !font-bold' : '');
  const from: Origin = {
    ...STATE,
    inputs: [
      { name: 'Tension at 15 °C', path: `schools.${school}.tension_N`, quantity: 'force' },
      ...STATE.inputs!,
    ],
  };
  if (report.strain.length === 0) return <p>No strands yet.</p>;
  return (
    <DataTable
      label="Tension by run"
      rows={report.strain}
      keyOf={(_, i) => i}
      below={
        <tr>
          <td colSpan={4} />
          {[climate.today_C, climate.cold_C, climate.hot_C].map((celsius, i) => (
            <td key={i} className="n label">
              <Num value={celsius} q="temperature" />
            </td>
          ))}
          <td colSpan={2} />
        </tr>
      }
      columns={[
        {
          name: 'run',
          cell: (s) => {
            const run = report.runs[s.run]!;
            return (
              <>
                <Num value={run.from_m} q="length" /> to <Num value={run.to_m} q="length" />
              </>
            );
          },
        },
        { name: 'wire', cell: (s) => cat.wires[s.wire]?.name },
        figure('length', 'tape', (s) => s.ground_m, { from: MEASURED }),
        figure('longest bay', 'tape', (s) => s.bay_m, { from: MEASURED }),
        {
          name: <span className={at('today')}>set today</span>,
          n: true,
          className: 'font-semibold',
          attributes: () => ({ 'data-set-today': true }),
          cell: (s) => <Num value={s.today_N} q="force" from={from} />,
        },
        {
          name: (
            <span className={at('cold')}>
              coldest night
              <WhereFrom origin={STATE} shown="the tension on the coldest night" />
            </span>
          ),
          n: true,
          cell: (s) => (
            <span className={s.cold_N > s.limit_N ? 'text-stop font-semibold' : ''}>
              <Num value={s.cold_N} q="force" />
              {s.cold_N > s.limit_N && <span className="label text-stop"> over</span>}
            </span>
          ),
        },
        {
          name: (
            <span className={at('hot')}>
              hottest day
              <WhereFrom origin={STATE} shown="the tension on the hottest day" />
            </span>
          ),
          n: true,
          cell: (s) => <Num value={s.hot_N} q="force" />,
        },
        { name: 'limit', n: true, cell: (s) => <Num value={s.limit_N} q="force" from={LIMIT} /> },
        {
          name: `sag ${warmth === 'today' ? 'today' : warmth}`,
          n: true,
          cell: (s) => <Num value={sagOf(s)} q="sag" from={SAG} />,
        },
      ]}
    />
  );
}

/** A column of one figure of each run. */
const figure = (
  name: string,
  q: Quantity,
  of: (s: Strain) => number,
  more: Partial<Column<Strain>> = {},
): Column<Strain> => ({ name, n: true, cell: (s) => <Num value={of(s)} q={q} />, ...more });

/** What to set at other temperatures. */
function Table({ strain }: { strain: Strain }) {
  const cat = useCatalogue();
  const rows = stringingTable(strain.at15_N, strain.bay_m, strain.wire, cat);
  return (
    <Part
      title="Stringing table"
      aside={
        <span className="label">
          for a bay of <Num value={strain.bay_m} q="tape" />, fixed ends
        </span>
      }
    >
      <DataTable
        label="Stringing table"
        className="!w-auto"
        rows={rows}
        keyOf={(r) => r.celsius}
        columns={[
          {
            name: 'temperature',
            n: true,
            head: true,
            cell: (r) => <Num value={r.celsius} q="temperature" />,
          },
          {
            name: 'set',
            n: true,
            from: STATE,
            cell: (r) => <Num value={r.tension_N} q="force" />,
          },
          {
            name: 'sag at mid-bay',
            n: true,
            from: SAG,
            cell: (r) => <Num value={r.sag_m} q="sag" />,
          },
        ]}
      />
    </Part>
  );
}
