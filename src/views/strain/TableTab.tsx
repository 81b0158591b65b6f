/** The stringing table of a run and wire for the day, for whatever tool is at hand. */
import { useMemo } from 'react';
import { stringingTable, temperatures, type StringingRow } from '../../core/wire/stringing.js';
import { REFERENCE_C } from '../../core/wire/strung.js';
import { tighteningSteps } from '../../core/wire/order.js';
import { useView } from '../../session/view.js';
import { Check, QuantityField } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { say } from '../../core/base/units.js';
import { PULL, SAG, SPRING, STATE, TAKE_UP, WAVE } from './origins.js';
import type { Strained } from './strained.js';
import { sayTools, toolsFor, useSaid } from './tools.js';

export function TableTab({ of }: { of: Strained }) {
  const { strung, row, climate, cat, line } = of;
  const units = useUnits();
  const warmth = useView((v) => v.warmth);
  const said = useSaid();
  const now = climate[`${warmth}_C`];
  const tools = toolsFor(of, said);
  const rows = useMemo(
    () => stringingTable(strung, temperatures(now), tools, cat),
    // The tools are a handful of figures.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [strung, now, JSON.stringify(tools), cat],
  );
  const today = rows.find((r) => r.celsius === now)!;
  return (
    <>
      <p className="mb-2 max-w-[46rem]" data-set-now>
        At <Num value={now} q="temperature" /> set{' '}
        <strong>
          <Num value={today.tension_N} q="force" from={STATE} />
        </strong>{' '}
        at the tensioner
        {today.spring_m === null ? null : (
          <>
            : spring <Num value={today.spring_m} q="height" /> long
          </>
        )}
        . That is <Num value={row.at15_N} q="force" /> at {say(REFERENCE_C, 'temperature', units)}{' '}
        over the ruling span of <Num value={row.ruling_m} q="tape" />; the slackest bay then has{' '}
        <Num value={row.least15_N} q="force" />.
      </p>
      <ToolFields of={of} />
      <DataTable<StringingRow>
        label="Stringing table"
        rows={rows}
        keyOf={(r) => r.celsius}
        chosen={(r) => r.celsius === now}
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
            className: 'font-semibold',
            cell: (r) => <Num value={r.tension_N} q="force" />,
          },
          line.springs === true && {
            name: 'spring, length',
            n: true,
            from: SPRING,
            cell: (r) => <Num value={r.spring_m} q="height" />,
          },
          {
            name: 'sag at mid-bay',
            n: true,
            from: SAG,
            cell: (r) => <Num value={r.sag_m} q="sag" />,
          },
          {
            name: `${tools.returns} returns over ${say(tools.over_m, 'length', units)}`,
            n: true,
            from: WAVE,
            cell: (r) => <Num value={r.time_s} q="seconds" />,
          },
          {
            name: `pull for ${say(tools.moved_m, 'height', units)}`,
            n: true,
            from: PULL,
            cell: (r) => <Num value={r.pull_N} q="force" />,
          },
          {
            name: 'wound in',
            n: true,
            from: TAKE_UP,
            cell: (r) => <Num value={r.wound_m} q="height" />,
          },
          {
            name: 'turns of the spool',
            n: true,
            cell: (r) => <Num value={r.turns} q="turns" bare />,
          },
        ]}
      />
      <p className="label mt-1">
        Turns and wound in count from a wire drawn out by hand, with both ties bedded. A spool tells
        least, a scale or spring most: use two where you can.
      </p>
      <section aria-label="In which order" className="mt-4">
        <h3 className="heading">In this order</h3>
        <ol className="max-w-[46rem] list-decimal pl-5">
          {tighteningSteps(
            line,
            of.report.strain.filter((s) => s.run === of.index),
            { newtons: (n) => say(n, 'force', units) },
          ).map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ol>
      </section>
    </>
  );
}

/** How one measures: which bay, how far it is pulled, whether the wire slides, over what the pulse runs. */
export function ToolFields({ of }: { of: Strained }) {
  const said = useSaid();
  const tools = toolsFor(of, said);
  const length = of.strung.shape.length_m;
  const slides = said.slides_m !== null;
  return (
    <fieldset className="border-rule my-2 flex flex-wrap items-center gap-x-5 gap-y-2 border-y py-2">
      <legend className="sr-only">How you measure</legend>
      <QuantityField
        label="Bay"
        q="tape"
        min={0.5}
        max={length}
        width="w-16"
        value={tools.bay_m}
        onCommit={(v) => sayTools({ bay_m: v })}
      />
      <QuantityField
        label="Pulled aside by"
        q="height"
        min={0.01}
        max={1}
        width="w-16"
        value={tools.moved_m}
        onCommit={(v) => sayTools({ moved_m: v })}
      />
      <Check
        label="the wire slides over its posts"
        checked={slides}
        onChange={(on) => sayTools({ slides_m: on ? Math.min(20, length) : null })}
      />
      {slides ? (
        <QuantityField
          label="how far it slides from"
          q="length"
          min={1}
          max={length}
          width="w-16"
          value={tools.slides_m!}
          onCommit={(v) => sayTools({ slides_m: v })}
        />
      ) : (
        <span className="label">held fast at both posts</span>
      )}
      <QuantityField
        label="Returns"
        q="count"
        min={1}
        max={50}
        whole
        width="w-14"
        value={tools.returns}
        onCommit={(v) => sayTools({ returns: v })}
      />
      <QuantityField
        label="over"
        q="length"
        min={1}
        max={length}
        width="w-16"
        value={tools.over_m}
        onCommit={(v) => sayTools({ over_m: v })}
      />
    </fieldset>
  );
}
