/** Far ends and earth read against what the plan expects, and what that says. */
import { say } from '../../core/base/units.js';
import { earthVerdict, provePoints, togetherOf, VERDICT_WORDS, verdictOf, type ProvePoint } from '../../core/build/prove.js'; // prettier-ignore
import { useCatalogue } from '../../session/catalogue.js';
import { useStanding, type KeptRecord } from '../../session/kept.js';
import { happened } from '../../session/records.js';
import { useSession } from '../../session/session.js';
import { Caution, Part, QuantityField } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { keepEarthTest, lastRod } from '../power/earthReading.js';
import { dayName } from './built.js';

interface Reading extends KeptRecord {
  readonly kind: string;
  readonly value: number;
  readonly line: string | null;
  readonly at_m: number | null;
  readonly spot: string | null;
}

/** Readings closer than this to a place are of it, m. */
const NEAR = 15;
const TODAY = 'today';

const EXPECTED: Origin = {
  kind: 'formula',
  title: 'Expected as built, today',
  formula: 'the pulse of the unit on the whole network, at the place of each line that is lowest',
  source: 'docs/model.md, Pulse',
  inputs: [{ name: 'Agrees within', path: 'defaults.build.proveShare.value', quantity: 'percent' }],
};

export function ProveTab() {
  const report = useSession((s) => s.report);
  const plan = useSession((s) => s.plan);
  const cat = useCatalogue();
  const { records } = useStanding<Reading>('readings');
  if (!report) return <p role="status">Working it out …</p>;
  const points = provePoints(report, TODAY);
  if (points.length === 0)
    return <p className="mt-4">No unit feeds a line yet: there is nothing to prove. Units are put in on Power.</p>; // prettier-ignore
  const of = (p: ProvePoint) =>
    records.filter((r) => r.kind === 'volts' && r.line === p.line && r.at_m !== null && Math.abs(r.at_m - p.at_m) <= NEAR).at(-1); // prettier-ignore
  return (
    <div className="max-w-[60em]">
      <Caution>
        Mains work by a licensed electrician. Whoever wears a heart device keeps off. That a fence reads well does not
        make it lawful: local codes say what else it wants.
      </Caution>
      {Object.values(plan.energisers).map((unit) => {
        const own = points.filter((p) => p.energiser === unit.id);
        if (own.length === 0) return null;
        const read = own.flatMap((p) => {
          const r = of(p);
          return r ? [{ ...p, read_V: r.value }] : [];
        });
        const said = togetherOf(read, cat);
        return (
          <Part key={unit.id} title={unit.name}>
            <Points points={own} of={of} />
            <p className="my-2" role="status" data-together>
              {read.length} of {own.length} places read.{' '}
              {said && (
                <strong>
                  {said.words}
                  {said.lines.length > 0 && ` ${said.lines.map((id) => plan.lines[id]?.name ?? id).join(', ')}.`}
                </strong>
              )}
            </p>
            <EarthTest unit={unit} records={records} />
          </Part>
        );
      })}
    </div>
  );
} // prettier-ignore

function Points({ points, of }: { points: readonly ProvePoint[]; of: (p: ProvePoint) => Reading | undefined }) {
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  const cat = useCatalogue();
  return (
    <DataTable<ProvePoint>
      label="Places to read"
      rows={points}
      keyOf={(p) => p.line}
      rowProps={(p) => ({ 'data-prove': p.line })}
      columns={[
        { name: 'line', head: 'plain', cell: (p) => lines[p.line]?.name ?? p.line },
        { name: 'at', n: true, cell: (p) => say(p.at_m, 'along', units) },
        { name: 'expected', n: true, from: EXPECTED, cell: (p) => <Num value={p.expected_V / 1000} q="kilovolt" /> },
        {
          name: 'read',
          cell: (p) => (
            <QuantityField
              label={`Read on ${lines[p.line]?.name ?? p.line}`}
              hideLabel
              q="kilovolt"
              min={0}
              max={20}
              width="w-16"
              value={of(p) ? of(p)!.value / 1000 : NaN}
              onCommit={(kV) => happened('readings', { line: p.line, at_m: p.at_m, spot: null, kind: 'volts', value: kV * 1000, note: 'proving' })}
            />
          ),
        },
        {
          name: 'verdict',
          cell: (p) => {
            const r = of(p);
            if (!r) return 'not read yet';
            const verdict = verdictOf(r.value, p.expected_V, cat);
            const good = verdict === 'as' || verdict === 'more';
            return `${good ? '✓' : verdict === 'low' ? '△' : '✗'} ${VERDICT_WORDS[verdict]} (${dayName(r.time.slice(0, 10))})`;
          },
        },
      ]}
    />
  );
} // prettier-ignore

function EarthTest({ unit, records }: { unit: { id: string; name: string }; records: readonly Reading[] }) {
  const report = useSession((s) => s.report?.energisers[unit.id]);
  const cat = useCatalogue();
  const read = records.filter((r) => r.kind === 'earth_volts' && r.spot === lastRod(unit)).at(-1);
  if (!report) return null;
  const foretold = report.earth.test.reading_V;
  return (
    <p className="flex flex-wrap items-center gap-x-3 gap-y-1" data-earth-test>
      <span>
        Earth test beside the last rod, fence loaded: foretold <Num value={foretold} q="smallVolt" /> for the driest month.
      </span>
      <QuantityField
        label="read"
        q="smallVolt"
        min={0}
        max={5000}
        width="w-20"
        value={read?.value ?? NaN}
        onCommit={(value) => keepEarthTest(unit, value)}
      />
      {read && <span>{earthVerdict(read.value, foretold, cat)}</span>}
    </p>
  );
} // prettier-ignore
