import { DataTable } from '../../ui/parts/DataTable.js';
import { figure } from '../../core/plan/catalogue.js';
import { say } from '../../core/base/units.js';
import type { Line } from '../../core/plan/schema.js';
import type { LineArrangement, RunResult } from '../../core/posts/arrange.js';
import type { Loosening } from '../../core/posts/loosen.js';
import type { LineReport } from '../../core/report/schema.js';
import { Part } from '../../ui/parts/controls.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { useCatalogue } from '../../session/catalogue.js';
import { startPlacing, stopPlacing, takePlacing, usePlacing } from '../../session/placing.js';
import { commit, useSession } from '../../session/session.js';
import { look } from '../../session/view.js';
import { Button } from '../../ui/parts/Button.js';

/** Placement by the ground, beside what equal bays would take for the same limits. */
export function PlacementPart({ line, report }: { line: Line; report: LineReport }) {
  const job = usePlacing();
  const all = useSession((s) => s.plan.lines);
  const mine = job.results[line.id];
  const stale = job.lines[line.id] !== undefined && job.lines[line.id] !== line;
  return (
    <Part title={`Posts of ${line.name}`}>
      <p className="mb-2">
        {line.placed
          ? 'Placed by the ground; they stay where they are until you place them again.'
          : 'In equal bays between fixed posts.'}{' '}
        <Num
          value={report.posts.length}
          q="count"
          from={{
            kind: 'measured',
            title: 'Posts of the line',
            source: 'Counted in the layout: ends, corners, bends, gates, pins and line posts',
          }}
        />{' '}
        posts, the longest bay{' '}
        <Num value={Math.max(0, ...report.stretches.map((s) => s.bay_m))} q="tape" from={BAY} />
      </p>
      <div className="flex flex-wrap items-center gap-2">
        {job.state === 'running' ? (
          <>
            <progress
              className="w-40"
              max={Math.max(1, job.total)}
              value={job.done}
              aria-label="Runs placed"
            />
            <span role="status" className="label">
              {job.done} of {job.total} runs
            </span>
            <Button onClick={stopPlacing}>Stop</Button>
          </>
        ) : (
          <>
            <Button strong onClick={() => void startPlacing([line.id])}>
              Place by the ground
            </Button>
            <Button onClick={() => void startPlacing(Object.keys(all))}>
              All {Object.keys(all).length} lines
            </Button>
            {line.placed && (
              <Button
                onClick={() =>
                  commit(`equal bays on ${line.name}`, (d) => {
                    delete d.lines[line.id]!.placed;
                  })
                }
              >
                Back to equal bays
              </Button>
            )}
          </>
        )}
      </div>
      {job.fault && (
        <p role="alert" className="text-stop mt-2">
          This could not be worked out: {job.fault}
        </p>
      )}
      {job.state === 'done' && (
        <div className="border-ink mt-3 border p-3" data-placement>
          {stale && <p className="text-warn mb-2">The line has changed since: place it again.</p>}
          {mine && <Compared made={mine} line={line} report={report} />}
          <Summary results={job.results} />
          <div className="mt-3 flex gap-2">
            <Button strong disabled={!takeable(job.results)} onClick={takePlacing}>
              Take it
            </Button>
            <Button onClick={stopPlacing}>Leave it</Button>
          </div>
        </div>
      )}
    </Part>
  );
}

const BAY: Origin = {
  kind: 'measured',
  title: 'Longest bay',
  source: 'Taped over the ground from post to post',
};

const takeable = (results: Readonly<Record<string, LineArrangement>>): boolean =>
  Object.values(results).some((r) => r.placed !== null);

const total = (runs: readonly RunResult[], of: (r: RunResult) => number | undefined | null) => {
  let sum = 0;
  for (const r of runs) {
    const n = of(r);
    if (n === undefined || n === null) return null;
    sum += n;
  }
  return sum;
};

const OPTIMUM: Origin = {
  kind: 'formula',
  title: 'Cheapest placement',
  formula:
    'least sum of post prices over all sequences of places with bay ≤ longest bay, lowest gap ≤ gap under the lowest strand ≤ highest gap, uplift × safety ≤ pull-out',
  source: 'Exact search over all places (second-order dynamic programming); model.md, Posts',
  inputs: [
    { name: 'Places looked at every', path: 'defaults.posts.step.value', quantity: 'tape' },
    { name: 'Gap may grow by', path: 'defaults.posts.clearanceAbove.value', quantity: 'height' },
    { name: 'Least gap', path: 'defaults.posts.clearanceMin.value', quantity: 'height' },
    { name: 'Safety on uplift', path: 'defaults.posts.upliftSafety.value' },
    { name: 'Closest two posts', path: 'defaults.posts.minBay.value', quantity: 'tape' },
  ],
};

/** The rules that a placement keeps to. */
const LIMITS = ['post-lifts', 'clearance', 'bays-too-long', 'post-barred'];

/** Best, equal bays and the hurried hand, side by side. */
function Compared({
  made,
  line,
  report,
}: {
  made: LineArrangement;
  line: Line;
  report: LineReport;
}) {
  const units = useUnits();
  const broken = useSession(
    (s) =>
      s.report?.findings.filter((f) => f.place.line === line.id && LIMITS.includes(f.rule)).length,
  );
  const currency = useSession((s) => s.plan.currency);
  const { runs } = made;
  const best = total(runs, (r) => r.best?.intermediate_posts);
  const uniform = total(runs, (r) => r.uniform?.intermediate_posts);
  const money = (x: number | null) => (x === null ? '–' : `${x.toFixed(0)} ${currency}`);
  const high = (of: (r: RunResult) => number | undefined) =>
    Math.max(...runs.map((r) => of(r) ?? -Infinity));
  const stuck = runs.filter((r) => r.stuck);
  const compared: {
    placed: string;
    posts: number | null;
    cost?: number | null;
    gap_m?: number | null | undefined;
    keeps: string;
  }[] = [
    {
      placed: 'by the ground',
      posts: best,
      cost: total(runs, (r) => r.best?.cost),
      gap_m: best === null ? null : high((r) => r.best?.clearance_max_m),
      keeps: best === null ? 'none does' : 'yes',
    },
    {
      placed: 'as it stands',
      posts: report.posts.filter((p) => p.role === 'line' || p.role === 'bend').length,
      gap_m: report.clearance?.high.gap_m,
      keeps: broken === 0 ? 'yes' : 'no',
    },
    {
      placed: 'equal bays',
      posts: uniform,
      cost: total(runs, (r) => r.uniform?.cost),
      gap_m: uniform === null ? null : high((r) => r.uniform?.clearance_max_m),
      keeps: uniform === null ? 'none does' : 'yes',
    },
    {
      placed: 'longest bay each time',
      posts: total(runs, (r) => r.greedy?.posts),
      cost: total(runs, (r) => r.greedy?.cost),
      keeps: greedyWords(runs),
    },
  ];
  return (
    <>
      {best !== null && (
        <p className="mb-2 text-[1.071rem] font-semibold" data-saved>
          {uniform === null
            ? `${best} posts between the ends; no equal bays keep these limits.`
            : uniform > best
              ? `${best} posts between the ends: ${uniform - best} fewer than the fewest equal bays that keep the same limits.`
              : `${best} posts between the ends, as many as equal bays that keep the same limits.`}
        </p>
      )}
      <DataTable
        label={`Placement of ${line.name} compared`}
        className="text-[0.929rem]"
        rows={compared}
        keyOf={(c) => c.placed}
        rowProps={(_, i) => ({ className: i === 0 ? 'font-semibold' : '' })}
        columns={[
          { name: 'placed', cell: (c) => c.placed },
          {
            name: 'posts',
            from: OPTIMUM,
            n: true,
            cell: (c) => (c.posts === null ? '–' : <Num value={c.posts} q="count" />),
          },
          {
            name: 'cost',
            from: {
              kind: 'formula',
              title: 'Cost of the posts',
              formula: 'sum of post price + insulated strands × insulator',
              source: 'Price book; posts that stand anyway are not counted',
            },
            n: true,
            className: 'figure',
            cell: (c) => (c.cost === undefined ? '' : money(c.cost)),
          },
          {
            name: 'highest gap',
            from: {
              kind: 'formula',
              title: 'Highest gap under the lowest strand',
              formula: 'chord + strand height − w c² x (L − x) / (2 T L²) − ground',
              source: 'At the hot-day tension',
            },
            n: true,
            cell: (c) =>
              c.gap_m === null ? '–' : c.gap_m !== undefined && <Num value={c.gap_m} q="height" />,
          },
          { name: 'keeps limits', cell: (c) => c.keeps },
        ]}
      />
      {stuck.map((r) => (
        <div key={r.from_m} className="border-warn mt-3 border-l-4 pl-3" data-stuck>
          <p>
            <strong>
              No placement between {say(r.from_m, 'tape', units)} and {say(r.to_m, 'tape', units)}.
            </strong>{' '}
            Nothing gets past{' '}
            <button
              className="cursor-pointer underline"
              onClick={() => look({ cursor: r.stuck!.at_m })}
            >
              {say(r.stuck!.at_m, 'tape', units)}
            </button>
            .
          </p>
          {r.stuck!.loosen.length === 0 ? (
            <p>
              No single limit frees it: several stand in the way together. End the run here, or
              fill.
            </p>
          ) : (
            <ul className="list-disc pl-5">
              {r.stuck!.loosen.map((l) => (
                <li key={l.limit}>{loosenWords(l, units)}</li>
              ))}
            </ul>
          )}
        </div>
      ))}
    </>
  );
}

function greedyWords(runs: readonly RunResult[]): string {
  if (runs.some((r) => r.greedy === null)) return 'gets stuck';
  const lifting = runs.reduce((n, r) => n + r.greedy!.lifting, 0);
  return lifting === 0 ? 'yes' : `no: ${lifting} lift`;
}

function loosenWords(l: Loosening, units: ReturnType<typeof useUnits>): string {
  switch (l.limit) {
    case 'hollow':
      return `Let the gap under the lowest strand grow to ${say(l.needed, 'height', units)}, or fill the hollow by ${say(l.needed - l.now, 'height', units)}, or hang a dropper there.`;
    case 'hump':
      return `Take ${say(l.now - l.needed, 'height', units)} off the hump.`;
    case 'hold':
      return `A post or an anchor that holds ${say(l.needed, 'force', units)}; the stoutest here holds ${say(l.now, 'force', units)}. Or end the run there, or pull less.`;
    case 'bay':
      return `Let one bay be ${say(l.needed, 'tape', units)} long.`;
  }
}

function Summary({ results }: { results: Readonly<Record<string, LineArrangement>> }) {
  const lines = useSession((s) => s.plan.lines);
  const cat = useCatalogue();
  const rows = Object.entries(results);
  if (rows.length < 2) return null;
  const failed = rows.filter(([, r]) => r.placed === null && r.runs.length > 0);
  const saved = rows.reduce((sum, [, r]) => {
    const [best, uniform] = [
      total(r.runs, (x) => x.best?.intermediate_posts),
      total(r.runs, (x) => x.uniform?.intermediate_posts),
    ];
    return best === null || uniform === null ? sum : sum + uniform - best;
  }, 0);
  return (
    <p className="mt-2" data-summary>
      {rows.length - failed.length} of {rows.length} lines placed; over all of them {saved} posts
      fewer than equal bays at a safety of {figure(cat, 'posts.upliftSafety')} on uplift.
      {failed.length > 0 &&
        ` No placement: ${failed.map(([id]) => lines[id]?.name ?? id).join(', ')}.`}
    </p>
  );
}
