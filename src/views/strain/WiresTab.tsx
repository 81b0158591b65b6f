/** Of what wire and with what joints: strength, creep, weakest joint, own wires, own break tests. */
import { say } from '../../core/base/units.js';
import { figure, recordOf } from '../../core/plan/catalogue.js';
import { dueOn } from '../../core/wire/creep.js';
import { jointsOfLine, weakestJoint, wireOf } from '../../core/wire/wires.js';
import { commit } from '../../session/session.js';
import { Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import { BreakTests } from './BreakTests.js';
import { LIMIT } from './origins.js';
import { OwnWires } from './OwnWires.js';
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
