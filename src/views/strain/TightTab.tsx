/** The setting of a line, and whether every run holds with it between summer and winter. */
import { useMemo } from 'react';
import { say } from '../../core/base/units.js';
import { recordOf } from '../../core/plan/catalogue.js';
import type { Plan } from '../../core/plan/schema.js';
import type { Strain } from '../../core/report/schema.js';
import { REFERENCE_C } from '../../core/wire/strung.js';
import { pushMost, windowOf, type WholeWindow, type Window } from '../../core/wire/window.js';
import { Check, Choice, QuantityField } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { MEASURED, Num, useUnits, WhereFrom } from '../../ui/parts/Num.js';
import { commit } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { LIMIT, SAG, SLIDES, STATE, WINDOW } from './origins.js';
import type { Strained } from './strained.js';
import { WindowChart } from './WindowChart.js';

export function TightTab({ of }: { of: Strained }) {
  const { line, report, cat, climate } = of;
  const units = useUnits();
  const school = recordOf(cat.schools, line.school);
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <Choice
          label="How tight"
          value={line.school}
          options={Object.entries(cat.schools).map(
            ([k, s]) => [k, `${s.name.toLowerCase()} ${say(s.tension_N, 'force', units)}`] as const,
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
        <Check
          label="a spring in each strand of each run"
          checked={line.springs ?? false}
          onChange={(on) =>
            commit(`springs of ${line.name}`, (d) => {
              if (on) d.lines[line.id]!.springs = true;
              else delete d.lines[line.id]!.springs;
            })
          }
        />
      </div>
      <p className="label mt-1">
        {school.why} Stated at {say(REFERENCE_C, 'temperature', units)}, at the tensioner.
      </p>
      <Climate climate={climate} />
      <Windows of={of} />
      <details className="mt-3">
        <summary className="cursor-pointer py-1">In figures: each run, each wire</summary>
        <Runs rows={report.strain} of={of} />
      </details>
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

/** The window of settings of the run that is looked at, with a spring and without. */
function Windows({ of }: { of: Strained }) {
  const { line, report, bayed, wire, climate, cat } = of;
  const units = useUnits();
  const push_m = pushMost(line, report, cat);
  const [plain, sprung] = useMemo(
    () =>
      [false, true].map((springs) =>
        windowOf({ line: { ...line, springs }, bayed, wire, climate, push_m }, cat),
      ) as [WholeWindow, WholeWindow],
    [line, bayed, wire, climate, push_m, cat],
  );
  const wider = Math.max(0, sprung.high_N - sprung.low_N) - Math.max(0, plain.high_N - plain.low_N);
  const own = line.springs ? sprung : plain;
  const panel = recordOf(cat.wires, wire).form === 'panel';
  return (
    <section aria-label="Settings that hold" className="mt-4">
      <h3 className="heading">
        Settings that hold
        <WhereFrom origin={WINDOW} shown="the window" />
      </h3>
      <WindowChart of={of} plain={plain} sprung={panel ? null : sprung} />
      <p className="mt-1 max-w-[44rem]">
        <WindowWords w={own} of={of} />{' '}
        {!panel && (
          <>
            A spring in each strand{' '}
            {wider > 0.5 ? (
              <>
                widens it by <Num value={wider} q="force" />
              </>
            ) : (
              'does not widen it'
            )}
            {of.row.ground_m > 400
              ? ': on so long a run the wire itself gives more than a spring does'
              : ''}
            .
          </>
        )}{' '}
        {plain.lowBy === 'push' && push_m !== null && (
          <>
            What decides below is the push between two strands: each may give{' '}
            {say(push_m, 'height', units)}.
          </>
        )}
      </p>
    </section>
  );
}

function WindowWords({ w, of }: { w: Window; of: Strained }) {
  const { row, climate } = of;
  const units = useUnits();
  const set = row.at15_N;
  if (w.low_N > w.high_N)
    return (
      <strong>
        Nothing holds:{' '}
        {w.none ? (
          'no tension is enough'
        ) : (
          <>
            <Num value={w.low_N} q="force" /> is wanted
          </>
        )}{' '}
        for the hottest day, and the coldest night allows <Num value={w.high_N} q="force" />.
      </strong>
    );
  const at = `${say(climate.cold_C, 'temperature', units)} to ${say(climate.hot_C, 'temperature', units)}`;
  return (
    <>
      From {at} this run holds with <Num value={w.low_N} q="force" /> to{' '}
      <Num value={w.high_N} q="force" />; it is set to <Num value={set} q="force" />
      {set < w.low_N ? (
        <strong>, which is too slack in summer.</strong>
      ) : set > w.high_N ? (
        <strong>, which is too tight in winter.</strong>
      ) : (
        '.'
      )}
    </>
  );
}

function Runs({
  rows,
  of: { report, cat, climate, line },
}: {
  rows: readonly Strain[];
  of: Strained;
}) {
  const warmth = useView((v) => v.warmth);
  const mark = (key: typeof warmth): string => (warmth === key ? '!text-ink !font-bold' : '');
  const set = { ...STATE, inputs: [{ name: 'Tension at 15 °C', path: `schools.${line.school}.tension_N`, quantity: 'force' as const }, ...STATE.inputs!] }; // prettier-ignore
  return (
    <DataTable
      label="Tension by run"
      rows={rows}
      keyOf={(_, i) => i}
      below={
        <tr>
          <td colSpan={5} />
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
          cell: (s) => (
            <>
              <Num value={report.runs[s.run]!.from_m} q="length" /> to{' '}
              <Num value={report.runs[s.run]!.to_m} q="length" />
            </>
          ),
        },
        { name: 'wire', cell: (s) => recordOf(cat.wires, s.wire).name },
        {
          name: 'length',
          n: true,
          cell: (s) => <Num value={s.ground_m} q="tape" from={MEASURED} />,
        },
        { name: 'ruling span', n: true, cell: (s) => <Num value={s.ruling_m} q="tape" /> },
        {
          name: 'slackest bay keeps',
          n: true,
          from: SLIDES,
          cell: (s) => <Num value={s.least15_N / s.at15_N} q="percent" />,
        },
        {
          name: <span className={mark('today')}>set today</span>,
          n: true,
          className: 'font-semibold',
          attributes: () => ({ 'data-set-today': true }),
          cell: (s) => <Num value={s.today_N} q="force" from={set} />,
        },
        {
          name: (
            <span className={mark('cold')}>
              tightest, coldest night
              <WhereFrom origin={SLIDES} shown="the tension on the coldest night" />
            </span>
          ),
          n: true,
          cell: (s) => (
            <span className={s.cold_N > s.limit_N ? 'text-stop font-semibold' : ''}>
              <Num value={s.cold_N} q="force" />
              {s.cold_N > s.limit_N && <span className="label text-stop"> over</span>}
              <Held value={s.coldHeld_N} beside={s.cold_N} />
            </span>
          ),
        },
        {
          name: (
            <span className={mark('hot')}>
              slackest, hottest day
              <WhereFrom origin={SLIDES} shown="the tension on the hottest day" />
            </span>
          ),
          n: true,
          cell: (s) => (
            <>
              <Num value={s.hot_N} q="force" />
              <Held value={s.hotHeld_N} beside={s.hot_N} />
            </>
          ),
        },
        { name: 'limit', n: true, from: LIMIT, cell: (s) => <Num value={s.limit_N} q="force" /> },
        { name: 'most sag', n: true, from: SAG, cell: (s) => <Num value={s.sagHot_m} q="sag" /> },
      ]}
    />
  );
}

/** The other bound: with the wire held fast at every post. */
const Held = ({ value, beside }: { value: number; beside: number }) =>
  Math.abs(value - beside) < 0.5 ? null : (
    <span className="label block">
      held fast <Num value={value} q="force" />
    </span>
  );
