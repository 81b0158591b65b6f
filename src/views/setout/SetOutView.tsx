/** Where every post goes, on paper: large tape figures from the start of each run, with a box to tick. */
import { ArrowLeft, Printer } from 'lucide-react';
import { useState } from 'react';
import { dayText } from '../../core/base/locale.js';
import { say, unitOf } from '../../core/base/units.js';
import { catalogue } from '../../core/plan/shipped.js';
import { ownCatalogue } from '../../core/plan/ownCatalogue.js';
import type { Line, Plan } from '../../core/plan/schema.js';
import type { LineReport, Run } from '../../core/report/schema.js';
import { Button } from '../../ui/parts/Button.js';
import type { Leaf } from '../print/leaf.js';
import { OnLoaded, type Loaded } from '../print/OnLoaded.js';
import { useStandingAlone } from '../print/standing.js';
import { PaperSection } from './PaperSection.js';

export function SetOutView({ id }: { id: string }) {
  return (
    <OnLoaded id={id} words="Writing the sheet …">
      {(loaded) => <Standing id={id} loaded={loaded} />}
    </OnLoaded>
  );
}

function Standing({ id, loaded }: { id: string; loaded: Loaded }) {
  return useStandingAlone(id, loaded) ? <Sheets id={id} loaded={loaded} /> : null;
}

function Sheets({ id, loaded }: { id: string; loaded: Loaded }) {
  const { plan, report } = loaded;
  const [only, setOnly] = useState(() => new URLSearchParams(location.search).get('line') ?? '');
  const lines = Object.values(plan.lines).filter((l) => only === '' || l.id === only);
  return (
    <main>
      <div className="no-print border-rule bg-panel sticky top-0 z-10 flex flex-wrap items-center gap-3 border-b p-3">
        <a className="button" href={`/p/${id}/section`}>
          <ArrowLeft size={14} aria-hidden /> Section
        </a>
        <h1 className="heading">Where each post goes</h1>
        <label className="flex items-center gap-1.5">
          <span className="label">Line</span>
          <select
            className="field"
            value={only in plan.lines ? only : ''}
            onChange={(e) => setOnly(e.target.value)}
          >
            <option value="">all of them</option>
            {Object.values(plan.lines).map((l) => (
              <option key={l.id} value={l.id}>
                {l.name}
              </option>
            ))}
          </select>
        </label>
        <Button strong onClick={() => print()}>
          <Printer size={14} aria-hidden /> Print
        </Button>
      </div>
      {lines.map((line) => (
        <LineSheet key={line.id} line={line} report={report.lines[line.id]!} plan={plan} />
      ))}
      {lines.length === 0 && <p className="p-6">No line yet.</p>}
    </main>
  );
}

/** The posts of a line as a leaf, which runs over as many pages as it takes. */
export const setOutLeaf = (line: Line, report: LineReport, plan: Plan): Leaf => ({
  key: line.id,
  of: line.id,
  draw: (mark) => <LineSheet line={line} report={report} plan={plan} mark={mark} />,
});

interface LineSheetProps {
  readonly line: Line;
  readonly report: LineReport;
  readonly plan: Plan;
  /** Its mark in the pack, said at the head of every page. */
  readonly mark?: string;
}

function LineSheet({ line, report, plan, mark }: LineSheetProps) {
  const { units } = plan;
  return (
    <section className="set-out mx-auto max-w-[190mm] p-6 print:p-0" data-set-out={line.id}>
      <h2 className="text-[1.6rem] font-semibold">
        <bdi>{line.name}</bdi>
      </h2>
      <p className="label">
        <bdi>{plan.name}</bdi>, {dayText(new Date(), plan.currency)}.{' '}
        {say(report.ground_m, 'tape', units)} over the ground, {report.posts.length} posts,{' '}
        {report.runs.length} {report.runs.length === 1 ? 'run' : 'runs'}. The tape lies on the
        ground and starts anew at the first post of each run.
        {plan.invented && ' Everything in this property is made up.'} Locate buried services before
        digging; look for overhead lines.
      </p>
      <PaperSection line={line} report={report} />
      {report.runs.map((run, k) => (
        <RunSheet key={k} line={line} report={report} run={run} index={k} plan={plan} mark={mark} />
      ))}
    </section>
  );
}

function RunSheet(p: LineSheetProps & { run: Run; index: number }) {
  const { line, report, run, index, plan, mark } = p;
  const { units } = plan;
  const cat = ownCatalogue(catalogue, plan);
  const rows = report.posts
    .map((post, i) => ({ post, i }))
    .filter(({ post }) => post.s_m >= run.from_m - 1e-6 && post.s_m <= run.to_m + 1e-6);
  const start = rows[0]?.post.tape_m ?? 0;
  return (
    <table className="sheet-table mt-4">
      <thead>
        {/* In the head and not a caption: it stands again on every page that the run goes on to. */}
        <tr>
          <td colSpan={6} className="!border-0 pb-1 font-semibold">
            <span className="flex justify-between">
              <span>
                Run {index + 1} of {report.runs.length}, <bdi>{line.name}</bdi>:{' '}
                {say(run.ground_m, 'tape', units)}
              </span>
              <span>{mark}</span>
            </span>
          </td>
        </tr>
        <tr>
          <th className="w-10">set</th>
          <th className="w-16">post</th>
          <th className="n w-40">tape, {unitOf('tape', units)}</th>
          <th className="n w-28">bay</th>
          <th className="!pl-6">what stands there</th>
          <th className="n">in the ground</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ post, i }, k) => (
          <tr key={i}>
            <td>
              <span className="border-ink inline-block size-5 border-2 align-middle" aria-hidden />
            </td>
            <td className="figure">{i + 1}</td>
            <td className="n figure text-[1.45rem] leading-tight font-semibold">
              {say(post.tape_m - start, 'tape', units).replace(/\u00a0\D*$/, '')}
            </td>
            <td className="n figure">
              {k > 0 && say(post.tape_m - rows[k - 1]!.post.tape_m, 'tape', units)}
            </td>
            <td className="!pl-6">
              {cat.posts[post.kind]?.name}
              {post.role !== 'line' && <strong>, {post.role}</strong>}
              {post.role === 'line' && post.fixed && ', pinned'}
            </td>
            <td className="n figure">
              {say(cat.posts[post.kind]?.embedment_m ?? NaN, 'height', units)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
