import { inUnits } from '../../core/base/prose.js';
import { useState } from 'react';
import { say } from '../../core/base/units.js';
import type { Energiser } from '../../core/plan/schema.js';
import type { EnergiserReport } from '../../core/report/schema.js';
import type { Candidate } from '../../core/power/sizing.js';
import { sizingViews } from '../../core/sizing/views.js';
import { Asked } from '../../ui/parts/Asked.js';
import { usePower } from '../../session/power.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Part, QuantityField } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { LoadLineChart } from './LoadLineChart.js';
import { PLATE, PULSE } from './origins.js';
import { OwnPlate } from './OwnPlate.js';
import { Remedies } from './Remedies.js';

interface Of {
  readonly unit: Energiser;
  readonly report: EnergiserReport;
}

/** Which unit: every one on this fence, the one to take with its reason, and what helps where none is enough. */
export function Units({ unit, report }: Of) {
  const cat = useCatalogue();
  const units = useUnits();
  const reserve = useSession((s) => s.plan.sizing.reserve);
  const answer = usePower(`units ${unit.id}`, (api) => api.units(unit.id));
  const { value: all, waiting } = answer;
  const room = usePower(report.smallest && all ? `room ${unit.id}` : null, (api) =>
    api.room(unit.id),
  );
  const lines = useSession((s) => s.plan.lines);
  const [more, setMore] = useState(false);
  const [plate, setPlate] = useState(false);
  const best = report.smallest;
  const chosen = unit.plate ? null : unit.model;
  const season = report.least ? cat.seasons[report.least.season]!.name.toLowerCase() : '';
  return (
    <>
      <p data-recommended={best ?? 'none'}>
        {best ? (
          <>
            Take <strong>{cat.energisers[best]!.name}</strong>: the smallest{' '}
            {cat.energisers[best]!.supply} unit that keeps every aim with{' '}
            {say(reserve, 'percent', units)} in reserve, {season} deciding.
          </>
        ) : (
          <>
            <strong>No unit within the limit</strong> keeps every aim with{' '}
            {say(reserve, 'percent', units)} in reserve; in the season “{season}” this one reaches{' '}
            {say(report.least?.share ?? 0, 'percent', units)} of the aim. What helps:
          </>
        )}{' '}
        {room.value && best && (
          <span className="label">
            Room to grow: <Num value={room.value.length_m} q="far" from={ROOM} /> more like{' '}
            {lines[room.value.like]?.name} before its worst point falls to the aim.
          </span>
        )}
      </p>
      {!best && <Remedies unit={unit} />}
      <div className="my-2 flex flex-wrap items-center gap-3">
        <QuantityField
          label="Reserve"
          q="percent"
          at="sizing/reserve"
          value={reserve}
          width="w-14"
          onCommit={(r) => commit('reserve', (d) => void (d.sizing.reserve = r))}
        />
        <Button aria-expanded={plate} onClick={() => setPlate(!plate)}>
          {unit.plate ? 'Its own plate' : 'I have another unit'}
        </Button>
      </div>
      {(plate || unit.plate) && <OwnPlate unit={unit} onDone={() => setPlate(false)} />}
      <Asked of={answer} doing="Trying every unit on this fence" />
      {all && <UnitTable all={all} chosen={chosen} best={best} unit={unit} waiting={waiting} />}
      {best && (
        <details className="mt-3" onToggle={(e) => setMore(e.currentTarget.open)}>
          <summary className="cursor-pointer">What else would raise the worst point</summary>
          {/* Tried when it is looked at. */}
          {more && <Remedies unit={unit} />}
        </details>
      )}
      <Views report={report} />
      <Part title="The unit and the fence as its load">
        <LoadLineChart unit={unit} report={report} />
      </Part>
    </>
  );
}

const ROOM: Origin = {
  kind: 'formula',
  title: 'How far the fence may still grow',
  formula: 'fence like the worst line, hung at its worst place, until the worst volts are the aim',
  source: 'The same pulse on the longer fence',
};

function UnitTable({
  all,
  chosen,
  best,
  unit,
  waiting,
}: {
  all: readonly Candidate[];
  chosen: string | null;
  best: string | null;
  unit: Energiser;
  waiting: boolean;
}) {
  const cat = useCatalogue();
  const units = useUnits();
  const goal = 1 + useSession((s) => s.plan.sizing.reserve);
  const most = Math.max(2, ...all.map((c) => c.share));
  return (
    <div aria-busy={waiting} className={waiting ? 'opacity-60' : ''}>
      <DataTable
        label="Units of the catalogue on this fence"
        rows={all}
        keyOf={(c) => c.model}
        rowProps={(c) => ({ className: c.model === chosen ? 'bg-chosen' : '' })}
        columns={[
          {
            name: 'unit',
            cell: (c) => (
              <>
                {cat.energisers[c.model]!.name}
                {c.model === best && <span className="label font-semibold"> take this</span>}
                {!cat.energisers[c.model]!.offered && (
                  <span className="label"> over the limit</span>
                )}
              </>
            ),
          },
          {
            name: 'into 500 ohm',
            n: true,
            cell: (c) => <Num value={c.output_J} q="joule" from={PLATE(c.model)} />,
          },
          {
            name: 'worst volts against the aim',
            cell: (c) => (
              <Bar
                share={c.share / most}
                aim={1 / most}
                goal={goal / most}
                meets={c.meets}
                text={say(c.share, 'percent', units)}
              />
            ),
          },
          { name: 'worst', from: PULSE, n: true, cell: (c) => <Num value={c.worst_V} q="volt" /> },
          {
            name: 'choose',
            quiet: true,
            n: true,
            cell: (c) => (
              <Button
                className="small"
                aria-pressed={c.model === chosen}
                aria-label={`${c.model === chosen ? 'chosen' : 'choose'}: ${cat.energisers[c.model]!.name}`}
                onClick={() =>
                  commit(`unit of ${unit.name}: ${cat.energisers[c.model]!.name}`, (d) => {
                    d.energisers[unit.id]!.model = c.model;
                    delete d.energisers[unit.id]!.plate;
                  })
                }
              >
                {c.model === chosen ? 'chosen' : 'choose'}
              </Button>
            ),
          },
        ]}
      />
    </div>
  );
}

/** Three ways of sizing side by side, and why they differ. */
function Views({ report }: { report: EnergiserReport }) {
  const cat = useCatalogue();
  const lines = useSession((s) => s.plan.lines);
  const reports = useSession((s) => s.report?.lines);
  const v = sizingViews(
    report.lines.flatMap((id) =>
      lines[id] && reports?.[id] ? [{ line: lines[id], ground_m: reports[id].ground_m }] : [],
    ),
    cat,
  );
  const [low, high] = v.label(50_000);
  const units = useUnits();
  const rows = [
    {
      way: 'The pulse, on this very fence',
      says: report.smallest ? cat.energisers[report.smallest]!.name : 'no unit within the limit',
      why: 'knows strands, branches, growth, earth and the aim of each line',
    },
    {
      way: 'Joules by length of fence',
      says: <Num value={v.byFence_J} q="joule" from={RULE('energiser.joulesPerKm', 'J/km')} />,
      why: 'a rule of many strands kept cut; it leaves 4 to 5 kV, whatever the aim',
    },
    {
      way: 'Joules by length of wire',
      says: (
        <>
          <Num value={v.byWire_J[0]} q="joule" bare /> to{' '}
          <Num value={v.byWire_J[1]} q="joule" from={RULE('sizing.wireKmLeast', 'km/J')} />
        </>
      ),
      why: 'counts conductors, a rope’s filaments once; knows no growth and no branch',
    },
    {
      way: inUnits('A label of 50 km', units),
      says: (
        <>
          <Num value={low} q="far" bare /> to <Num value={high} q="far" from={LABEL} />
        </>
      ),
      why: 'one clean wire: by the strands, then by growth, this is what is left of it',
    },
  ];
  return (
    <Part title="Other ways of sizing">
      <DataTable
        label="Ways of sizing side by side"
        rows={rows}
        keyOf={(r) => r.way}
        columns={[
          { name: 'way', head: true, cell: (r) => r.way },
          { name: 'asks', n: true, cell: (r) => r.says },
          { name: 'because', cell: (r) => <span className="label">{r.why}</span> },
        ]}
      />
      <p className="label mt-1">
        <Num value={v.fence_m} q="far" /> of fence, <Num value={v.wire_m} q="far" /> of live wire.
      </p>
    </Part>
  );
}

const RULE = (key: string, unit: string): Origin => ({
  kind: 'default',
  title: 'A rule of the trade',
  source: 'Common practice',
  inputs: [{ name: `Figure, ${unit}`, path: `defaults.${key}.value` }],
});
const LABEL: Origin = {
  kind: 'formula',
  title: 'A label derated',
  formula: 'label ÷ live strands ÷ growth',
  source: 'Common practice',
  inputs: [
    { name: 'Growth, at best', path: 'defaults.sizing.growthLeast.value' },
    { name: 'Growth, at worst', path: 'defaults.sizing.growthMost.value' },
  ],
};

/** Share of the aim, with a stroke at the aim and one where the reserve ends. */
function Bar({
  share,
  aim,
  goal,
  meets,
  text,
}: {
  share: number;
  aim: number;
  goal: number;
  meets: boolean;
  text: string;
}) {
  return (
    <span className="flex items-center gap-2 whitespace-nowrap">
      <span className="border-rule relative inline-block h-3 w-16 border">
        <span
          className="absolute inset-y-0 left-0"
          style={{
            width: `${Math.min(1, share) * 100}%`,
            background: meets ? 'var(--good)' : 'var(--soft)',
          }}
        />
        <span className="bg-ink absolute -inset-y-1 w-px" style={{ left: `${aim * 100}%` }} />
        <span
          className="bg-ink absolute -inset-y-1 w-0.5"
          style={{ left: `${Math.min(1, goal) * 100}%` }}
        />
      </span>
      <span className="figure text-xs">{text}</span>
      <span className="label">
        {meets ? 'aim and reserve' : share >= aim ? 'aim, less than the reserve' : 'below the aim'}
      </span>
    </span>
  );
}
