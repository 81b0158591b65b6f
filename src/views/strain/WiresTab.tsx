/** Of what wire and with what joints: strength, creep, weakest joint, own wires, own break tests. */
import { useState } from 'react';
import { say } from '../../core/base/units.js';
import { figure, recordOf } from '../../core/plan/catalogue.js';
import { brokenJoint, brokenWire, strengthOf, type Broken } from '../../core/plan/ownFigures.js';
import type { BreakTest, OwnWire } from '../../core/plan/schema.js';
import { dueOn } from '../../core/wire/creep.js';
import { jointsOfLine, weakestJoint, wireOf } from '../../core/wire/wires.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { QuantityField, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { LIMIT } from './origins.js';
import type { Strained } from './strained.js';

export function WiresTab({ of }: { of: Strained }) {
  return (
    <>
      <Joints of={of} />
      <Creep of={of} />
      <Catalogue of={of} />
      <BreakTests of={of} />
      <OwnWires of={of} />
    </>
  );
}

/** How strands are tied and joined, and the weakest of it. */
function Joints({ of: { line, cat, wire, row } }: { of: Strained }) {
  const own = jointsOfLine(line);
  const weakest = weakestJoint(line, cat);
  const { break_N } = wireOf(wire, cat);
  const units = useUnits();
  const options = (where: 'end' | 'join') =>
    Object.entries(cat.joints)
      .filter(([, j]) => j.where.includes(where))
      .map(([id, j]) => [id, `${j.name}, ${say(j.efficiency, 'percent', units)}`] as const);
  const set = (use: 'tie' | 'join', id: string) =>
    commit(`joints of ${line.name}`, (d) => {
      d.lines[line.id]![use] = id;
    });
  return (
    <section aria-label="Joints">
      <div className="flex flex-wrap gap-x-5 gap-y-2">
        <Select
          label="Tied to its ends with"
          width="max-w-[16rem]"
          value={own.tie}
          options={options('end')}
          onChange={(id) => set('tie', id)}
        />
        <Select
          label="Joined where a coil ends with"
          width="max-w-[16rem]"
          value={own.join}
          options={options('join')}
          onChange={(id) => set('join', id)}
        />
      </div>
      <p className="mt-1 max-w-[46rem]">
        The weakest joint of each strand keeps <Num value={weakest.efficiency} q="percent" /> of{' '}
        <Num value={break_N} q="force" />: it holds{' '}
        <Num value={weakest.efficiency * break_N} q="force" />, and the coldest night may ask{' '}
        <Num value={row.limit_N} q="force" from={LIMIT} />. {recordOf(cat.joints, weakest.id).why}
      </p>
      <p className="label">Taps and line clamps carry no tension: they hold nothing here.</p>
    </section>
  );
}

/** Wire that creeps: when it was strung, when it is to be taken up. */
function Creep({ of: { line, cat, row } }: { of: Strained }) {
  const creeping = [...new Set(line.strands.map((s) => s.wire))].filter((w) => (recordOf(cat.wires, w).creep ?? 0) > 0); // prettier-ignore
  const put = (key: 'strung_on' | 'takenUp_on', value: string) =>
    commit(key === 'strung_on' ? `${line.name} strung` : `${line.name} taken up`, (d) => {
      const l = d.lines[line.id]!;
      if (value === '') delete l[key];
      else l[key] = value;
    });
  const field = (key: 'strung_on' | 'takenUp_on', words: string) => (
    <span className="inline-flex items-center gap-1.5">
      <label className="label" htmlFor={key}>
        {words}
      </label>
      <input
        id={key}
        type="date"
        className="field"
        min="1950-01-01"
        max="2200-12-31"
        value={line[key] ?? ''}
        onChange={(e) => {
          if (e.target.value === '' || /^(19[5-9]\d|20\d\d|21\d\d)-/.test(e.target.value))
            put(key, e.target.value);
        }}
      />
    </span>
  );
  return (
    <section aria-label="Creep" className="mt-4">
      <h3 className="heading">Taken up</h3>
      <div className="flex flex-wrap gap-x-5 gap-y-2">
        {field('strung_on', 'Strung on')}
        {creeping.length > 0 && field('takenUp_on', 'Taken up on')}
      </div>
      <p className="mt-1 max-w-[46rem]" data-creep>
        {creeping.length === 0
          ? 'High-tensile wire hardly creeps: after the braces have bedded it is checked yearly.'
          : line.takenUp_on
            ? `Taken up on ${line.takenUp_on}: from then on it is reckoned as it is set.`
            : `${creeping.map((w) => recordOf(cat.wires, w).name).join(', ')} loses about ${Math.round(100 * recordOf(cat.wires, creeping[0]!).creep!)} % of its tension in the first year; the hottest day is reckoned with that. ${line.strung_on ? `Take it up from ${dueOn(line.strung_on)} on.` : 'Say when it was strung: it is due a year later.'}`}
        {line.takenUp_on && line.strung_on && line.takenUp_on < line.strung_on && (
          <strong role="alert"> That is before it was strung.</strong>
        )}
      </p>
      {creeping.length > 0 && !line.takenUp_on && (
        <p className="label">
          Allowance: set now, <Num value={row.at15_N} q="force" /> becomes{' '}
          <Num value={row.at15_N * (1 - recordOf(cat.wires, creeping[0]!).creep!)} q="force" />.
        </p>
      )}
    </section>
  );
}

/** The plain wires of the catalogue side by side. */
function Catalogue({ of: { line, cat } }: { of: Strained }) {
  const used = new Set(line.strands.map((s) => s.wire));
  const rows = Object.entries(cat.wires).filter(([, w]) => w.form === 'plain' && !w.insulates);
  const share = figure(cat, 'wire.coldLimit');
  const weakest = weakestJoint(line, cat).efficiency;
  return (
    <section aria-label="Wires" className="mt-4">
      <h3 className="heading">Wires</h3>
      <DataTable
        label="Wires"
        rows={rows}
        keyOf={([id]) => id}
        chosen={([id]) => used.has(id)}
        columns={[
          {
            name: 'wire',
            head: true,
            cell: ([id, w]) => `${w.name}${used.has(id) ? ' (here)' : ''}`,
          },
          {
            name: 'diameter',
            n: true,
            cell: ([, w]) => <Num value={w.diameter_mm / 1000} q="diameter" />,
          },
          {
            name: 'strength',
            n: true,
            cell: ([, w]) => <Num value={w.tensile_MPa * 1e6} q="strength" />,
          },
          {
            name: 'breaks at',
            n: true,
            cell: ([id]) => <Num value={wireOf(id, cat).break_N} q="force" />,
          },
          {
            name: 'with the weakest joint',
            n: true,
            cell: ([id]) => <Num value={weakest * wireOf(id, cat).break_N} q="force" />,
          },
          {
            name: 'coldest night at most',
            n: true,
            from: LIMIT,
            cell: ([id]) => <Num value={share * weakest * wireOf(id, cat).break_N} q="force" />,
          },
          { name: 'a coil', n: true, cell: ([, w]) => <Num value={w.coil_m} q="length" /> },
          {
            name: 'weighs',
            n: true,
            cell: ([id]) => <Num value={wireOf(id, cat).coil_mass_kg} q="mass" />,
          },
          {
            name: 'creeps',
            n: true,
            cell: ([, w]) => (w.creep ? <Num value={w.creep} q="percent" /> : '–'),
          },
        ]}
      />
    </section>
  );
}

/** Pieces broken on a bench: the wire alone, and with a joint in it. */
function BreakTests({ of: { wire, cat } }: { of: Strained }) {
  const units = useUnits();
  const tests = useSession((s) => s.plan.breakTests) ?? NO_TESTS;
  const [joint, setJoint] = useState('');
  const [broken, setBroken] = useState(NaN);
  const [round, setRound] = useState(0);
  const plain = recordOf(cat.wires, wire);
  const strength = (id: string) => strengthOf(recordOf(cat.wires, id));
  const groups = [...new Set(tests.map((t) => t.joint))];
  const spread = (b: Broken, q: 'force' | 'percent') =>
    b.spread === null ? 'one test tells no spread' : `± ${say(b.spread, q, units)} of ${b.tests}`;
  const alone = brokenWire(tests, wire);
  return (
    <section aria-label="Break tests" className="mt-4">
      <h3 className="heading">Own break tests</h3>
      <p className="max-w-[46rem]">
        Pull a piece of {plain.name.toLowerCase()} until it breaks, then one with your own joint in
        it: what they bear takes the place of the figures above.
      </p>
      <div className="my-1 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Select
          label="Broken"
          width="max-w-[16rem]"
          value={joint}
          options={[
            ['', 'the wire alone'],
            ...Object.entries(cat.joints).map(
              ([id, j]) => [id, `with ${j.name.toLowerCase()}`] as const,
            ),
          ]}
          onChange={setJoint}
        />
        <QuantityField
          key={round}
          label="at"
          q="force"
          min={50}
          max={50_000}
          width="w-20"
          value={broken}
          onCommit={setBroken}
        />
        <Button
          disabled={!(broken > 0)}
          onClick={() => {
            commit(`break test of ${plain.name}`, (d) => {
              d.breakTests = [
                ...(d.breakTests ?? []),
                { wire, joint: joint || null, break_N: broken },
              ];
            });
            setBroken(NaN);
            setRound(round + 1);
          }}
        >
          Add it
        </Button>
      </div>
      {alone && (
        <p data-broken-alone>
          {plain.name} alone: <Num value={alone.mean} q="force" /> ({spread(alone, 'force')}), by
          its section <Num value={strength(wire)} q="force" />.
        </p>
      )}
      {groups.flatMap((id) => {
        const kept = id === null ? null : brokenJoint(tests, id, strength);
        return kept
          ? [
              <p key={id} data-broken-joint>
                {recordOf(cat.joints, id!).name}: <Num value={kept.mean} q="percent" /> of the wire
                ({spread(kept, 'percent')}).
                {kept.mean > 1
                  ? ' More than the wire itself: the spread of the tests; it is reckoned as whole.'
                  : ''}
              </p>,
            ]
          : [];
      })}
      {tests.length > 0 && (
        <DataTable<BreakTest>
          label="Break tests"
          className="!w-auto"
          rows={tests}
          keyOf={(_, i) => i}
          columns={[
            { name: 'wire', cell: (t) => recordOf(cat.wires, t.wire).name },
            { name: 'joint', cell: (t) => (t.joint ? recordOf(cat.joints, t.joint).name : 'none') },
            { name: 'broke at', n: true, cell: (t) => <Num value={t.break_N} q="force" /> },
            {
              name: 'take away',
              quiet: true,
              cell: (_, i) => (
                <Button
                  aria-label={`Take break test ${i + 1} away`}
                  onClick={() =>
                    commit('break test taken away', (d) => {
                      d.breakTests = (d.breakTests ?? []).filter((_t, k) => k !== i);
                      if (d.breakTests.length === 0) delete d.breakTests;
                    })
                  }
                >
                  take away
                </Button>
              ),
            },
          ]}
        />
      )}
    </section>
  );
}
const NO_TESTS: readonly BreakTest[] = [];

const NEW: OwnWire = { name: 'Own wire', diameter_mm: 2.5, tensile_MPa: 1200, coating: 'zinc', coil_m: 1000 }; // prettier-ignore

/** Wires that the catalogue does not have. */
function OwnWires({ of: { line } }: { of: Strained }) {
  const own = useSession((s) => s.plan.ownWires) ?? {};
  const plan = useSession((s) => s.plan);
  const inUse = (id: string) =>
    Object.values(plan.lines).some((l) => l.strands.some((s) => s.wire === id)) ||
    Object.values(plan.designs ?? {}).some((d) => d.strands.some((s) => s.wire === id)) ||
    (plan.breakTests ?? []).some((t) => t.wire === id);
  const change = (id: string, part: Partial<OwnWire>) =>
    commit('own wire', (d) => {
      Object.assign(d.ownWires![id]!, part);
    });
  return (
    <section aria-label="Own wires" className="mt-4">
      <h3 className="heading">Wires of your own</h3>
      {Object.entries(own).map(([id, w]) => (
        <fieldset
          key={id}
          className="border-rule my-2 flex flex-wrap items-center gap-x-4 gap-y-2 border-b pb-2"
        >
          <legend className="sr-only">{w.name}</legend>
          <span className="inline-flex items-center gap-1.5">
            <label className="label" htmlFor={`name-${id}`}>
              Name
            </label>
            <input
              id={`name-${id}`}
              className="field w-40"
              maxLength={60}
              defaultValue={w.name}
              onBlur={(e) =>
                e.target.value.trim() &&
                e.target.value !== w.name &&
                change(id, { name: e.target.value.trim() })
              }
            />
          </span>
          <QuantityField
            label="Diameter"
            q="diameter"
            min={0.001}
            max={0.006}
            width="w-20"
            value={w.diameter_mm / 1000}
            onCommit={(v) => change(id, { diameter_mm: v * 1000 })}
          />
          <QuantityField
            label="Strength"
            q="strength"
            min={200e6}
            max={2200e6}
            width="w-20"
            value={w.tensile_MPa * 1e6}
            onCommit={(v) => change(id, { tensile_MPa: v / 1e6 })}
          />
          <Select
            label="Coating"
            value={w.coating}
            options={[
              ['zinc', 'zinc'],
              ['aluminium', 'aluminium'],
            ]}
            onChange={(coating) => change(id, { coating })}
          />
          <QuantityField
            label="Coil"
            q="length"
            min={10}
            max={5000}
            width="w-20"
            value={w.coil_m}
            onCommit={(v) => change(id, { coil_m: v })}
          />
          <QuantityField
            label="Loses in a year"
            q="percent"
            min={0}
            max={0.6}
            width="w-16"
            value={w.creep ?? 0}
            onCommit={(v) => change(id, { creep: v })}
          />
          <Button
            onClick={() =>
              commit(`strands of ${line.name} of ${w.name}`, (d) => {
                for (const s of d.lines[line.id]!.strands) if (!s.kept) s.wire = id;
              })
            }
          >
            Use it on {line.name}
          </Button>
          <Button
            disabled={inUse(id)}
            title={inUse(id) ? 'It is in use' : undefined}
            onClick={() =>
              commit('own wire taken away', (d) => {
                delete d.ownWires![id];
                if (Object.keys(d.ownWires!).length === 0) delete d.ownWires;
              })
            }
          >
            Take it away
          </Button>
        </fieldset>
      ))}
      <Button
        onClick={() =>
          commit('own wire', (d) => {
            const all = (d.ownWires ??= {});
            let k = 1;
            while (all[`own-${k}`]) k++;
            all[`own-${k}`] = { ...NEW, name: `Own wire ${k}` };
          })
        }
      >
        Add a wire
      </Button>
    </section>
  );
}
