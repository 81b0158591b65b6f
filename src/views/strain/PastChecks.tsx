/** What was checked before on a run: each strand over the years, and what that says. */
import { say, toField, unitOf, type Units } from '../../core/base/units.js';
import type { Tool } from '../../core/wire/checks.js';
import { driftOf, type Checked, type StrandDrift } from '../../core/wire/drift.js';
import { isSimulated } from '../../core/rounds/logged.js';
import { REFERENCE_C } from '../../core/wire/strung.js';
import { recordOf } from '../../core/plan/catalogue.js';
import { useStanding, type KeptRecord } from '../../session/kept.js';
import { takeBack } from '../../session/records.js';
import { Button } from '../../ui/parts/Button.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { LineChart } from '../../ui/parts/LineChart.js';
import { Num, useUnits } from '../../ui/parts/Num.js';
import type { Strained } from './strained.js';

export interface TensionCheck extends KeptRecord, Checked {
  readonly id: string;
  readonly time: string;
  readonly line: string | null;
  readonly wire: string;
  readonly tool: Tool;
  readonly detail: string;
  readonly celsius: number;
  readonly tension_N: number;
  readonly expected15_N: number | null;
  readonly waiting?: boolean;
}

const day = (time: string): string => time.slice(0, 10);

export function PastChecks({ of, near_m }: { of: Strained; near_m: number }) {
  const { line, bayed, cat } = of;
  const at15 = say(REFERENCE_C, 'temperature', useUnits());
  const { records, known } = useStanding<TensionCheck>('tension');
  const own = records.filter((r) => r.line === line.id && r.at_m !== null && r.at_m >= bayed.run.from_m - 0.05 && r.at_m <= bayed.run.to_m + 0.05); // prettier-ignore
  const creeps = (strand: number) => (recordOf(cat.wires, line.strands[strand - 1]?.wire ?? of.wire).creep ?? 0) > 0; // prettier-ignore
  // What a stand-in showed is no wire that slackened.
  const real = own.filter((r) => !isSimulated(r));
  const drift = driftOf({ checks: real, creeps, strung_on: line.strung_on ?? null, near_m });
  if (own.length === 0)
    return (
      <p className="label mt-4">
        {known ? 'No checks kept on this run yet.' : 'Asking for earlier checks …'}
      </p>
    );
  return (
    <section aria-label="Earlier checks" className="mt-5">
      <h3 className="heading">Over the years, at {at15}</h3>
      <ul className="mb-2" data-drift>
        {drift.map((d) => (
          <li key={d.strand}>
            <strong>Strand {d.strand}:</strong> <Verdict d={d} />
          </li>
        ))}
      </ul>
      {real.length > 1 && <DriftChart checks={real} of={of} />}
      <DataTable<TensionCheck>
        label="Checks kept"
        rows={[...own].reverse()}
        keyOf={(r) => r.id}
        columns={[
          { name: 'day', head: true, by: (r) => r.time, cell: (r) => day(r.time) },
          { name: 'strand', n: true, by: (r) => r.strand, cell: (r) => r.strand },
          {
            name: 'at',
            n: true,
            by: (r) => r.at_m ?? 0,
            cell: (r) => <Num value={r.at_m} q="length" />,
          },
          { name: 'read', cell: (r) => (isSimulated(r) ? `${r.detail}, simulated` : r.detail) },
          { name: 'warmth', n: true, cell: (r) => <Num value={r.celsius} q="temperature" /> },
          { name: 'tension', n: true, cell: (r) => <Num value={r.tension_N} q="force" /> },
          {
            name: `at ${at15}`,
            n: true,
            className: 'font-semibold',
            by: (r) => r.at15_N,
            cell: (r) => <Num value={r.at15_N} q="force" />,
          },
          { name: 'plan then', n: true, cell: (r) => <Num value={r.expected15_N} q="force" /> },
          { name: 'who', cell: (r) => r.who || '–' },
          {
            name: 'take back',
            quiet: true,
            cell: (r) => (
              <>
                <TakeBack check={r} /> {r.waiting && <span className="label">not sent yet</span>}
              </>
            ),
          },
        ]}
      />
    </section>
  );
}

function Verdict({ d }: { d: StrandDrift }) {
  const units = useUnits();
  return <>{verdictWords(d, units)}</>;
}

/** What a strand's drift says, in words. */
export function verdictWords(d: StrandDrift, units: Units): string {
  const now = say(d.last.at15_N, 'force', units);
  if (d.change_N === null || !d.before) return `${now}, the first check here.`;
  const by = `${say(Math.abs(d.change_N), 'force', units)} ${d.change_N < 0 ? 'less' : 'more'} than on ${day(d.before.time)}, known to ${say(2 * d.error_N, 'force', units)}`; // prettier-ignore
  switch (d.verdict) {
    case 'holds':
      return `${now}: it holds (${by}).`;
    case 'crept':
      return `${now}: ${by}. It is wire that creeps in its first year: take it up.`;
    case 'moved':
      return `${now}: ${by}. All strands fell alike: an end has moved, or a brace gave. Look at the posts first.`;
    case 'slipped':
      return `${now}: ${by}, and not all of them: a knot or joiner of this strand slipped. Look at its ties.`;
    case 'rose':
      return `${now}: ${by}. Somebody tensioned it, something leans on it, or it was misread: check again.`;
    default:
      return `${now}: ${by}. Check the other strands too: if all fell, an end moved; if one, its knot slipped.`;
  }
}

function TakeBack({ check }: { check: TensionCheck }) {
  return (
    <Button
      onClick={() => takeBack('tension', check)}
      aria-label={`Take back the check of ${day(check.time)}, strand ${check.strand}`}
    >
      take back
    </Button>
  );
}

const POINTS = ['circle', 'triangle', 'rect', 'rectRot', 'cross', 'star', 'crossRot'] as const;
const DASHES = [[], [7, 4], [2, 3], [9, 3, 2, 3]] as const;

/** Each strand over the days; the plan dotted across. */
function DriftChart({ checks, of }: { checks: readonly TensionCheck[]; of: Strained }) {
  const units = useUnits();
  const strands = [...new Set(checks.map((c) => c.strand))].sort((a, b) => a - b);
  const N = (n: number) => Number(toField(n, 'force', units));
  const t = (c: TensionCheck) => Date.parse(c.time);
  const span = [Math.min(...checks.map(t)), Math.max(...checks.map(t))] as const;
  return (
    <div className="mb-2 h-[220px] max-w-[46rem]">
      <LineChart
        label={`Tension at ${say(REFERENCE_C, 'temperature', units)} over time. ${strands
          .map(
            (s) =>
              `Strand ${s}: ${checks
                .filter((c) => c.strand === s)
                .map((c) => `${day(c.time)} ${say(c.at15_N, 'force', units)}`)
                .join(', ')}`,
          )
          .join('; ')}`}
        curves={(colour) => [
          ...strands.map((s, k) => ({
            label: `strand ${s}`,
            data: checks.filter((c) => c.strand === s).map((c) => ({ x: t(c), y: N(c.at15_N) })).sort((a, b) => a.x - b.x), // prettier-ignore
            borderColor: colour('ink'),
            backgroundColor: colour('panel'),
            borderWidth: 1.5,
            pointStyle: POINTS[k % POINTS.length]!,
            pointRadius: 6,
            borderDash: [...DASHES[k % DASHES.length]!],
          })),
          {
            label: 'set in the plan',
            data: span.map((x) => ({ x, y: N(of.row.at15_N) })),
            borderColor: colour('soft'),
            borderDash: [1, 4],
            borderWidth: 1.5,
            pointRadius: 0,
            pointStyle: 'line',
          },
        ]}
        x={{
          title: 'day',
          ticks: {
            maxTicksLimit: 6,
            callback: (v) => new Date(Number(v)).toISOString().slice(0, 10),
          },
        }}
        y={{
          beginAtZero: true,
          title: `at ${say(REFERENCE_C, 'temperature', units)}, ${unitOf('force', units)}`,
        }}
        box={18}
      />
    </div>
  );
}
