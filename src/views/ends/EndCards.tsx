/** The ends of a line on paper, one A5 card each, to be built from in the field. */
import { useMemo } from 'react';
import { say, type Units } from '../../core/base/units.js';
import { addedPosts, fittings, holeTakes, hoursOf } from '../../core/ends/takes.js';
import { twistOf } from '../../core/ends/judge.js';
import { stepsOf } from '../../core/ends/steps.js';
import { recordOf, type Catalogue } from '../../core/plan/catalogue.js';
import { catalogue } from '../../core/plan/shipped.js';
import { ownCatalogue } from '../../core/plan/ownCatalogue.js';
import type { Line, Plan } from '../../core/plan/schema.js';
import type { EndReport, Report } from '../../core/report/schema.js';
import { Card, CardPages } from '../print/CardPages.js';
import { numbered, type Leaf } from '../print/leaf.js';
import { OnLoaded, type Loaded } from '../print/OnLoaded.js';
import { Elevation } from './Elevation.js';

import { judgedOf, ROLES, SIDE_WORDS, worst } from './place.js';
import { waitWords } from './Wait.js';
import { WireWay } from './WireWay.js';

export function EndCards({ id }: { id: string }) {
  return (
    <OnLoaded id={id} words="Drawing the ends …">
      {(loaded) => <Cards id={id} {...loaded} />}
    </OnLoaded>
  );
}

function Cards({ id, plan, report }: { id: string } & Loaded) {
  const asked = new URLSearchParams(location.search);
  const line = plan.lines[asked.get('line') ?? ''];
  const cat = useMemo(() => ownCatalogue(catalogue, plan), [plan]);
  const all = line ? endLeaves(line, report, plan, cat) : [];
  return (
    <CardPages
      back={[`/p/${id}/ends`, 'Ends']}
      title={`Ends of ${line?.name ?? plan.name}`}
      count={`${all.length} ${all.length === 1 ? 'end' : 'ends'}, one A5 card each.`}
    >
      {line && all.length > 0 ? (
        numbered(all)
      ) : (
        <p role="alert" className="p-6">
          {line ? 'No strands yet: nothing pulls at its ends.' : 'There is no such line.'}
        </p>
      )}
    </CardPages>
  );
}

/** The ends of a line as leaves. */
export const endLeaves = (line: Line, report: Report, plan: Plan, cat: Catalogue): Leaf[] =>
  (report.lines[line.id]?.ends ?? []).map((end) => ({
    key: `${line.id} ${end.at_m} ${end.side}`,
    of: line.id,
    draw: (mark) => <EndCard end={end} mark={mark} line={line} plan={plan} cat={cat} />,
  }));

interface CardProps {
  readonly end: EndReport;
  readonly mark: string;
  readonly line: Line;
  readonly plan: Plan;
  readonly cat: Catalogue;
}

function EndCard({ end, mark, line, plan, cat }: CardProps) {
  const units: Units = plan.units;
  const w = worst(end);
  const judged = judgedOf(end, cat);
  const lengths = { metres: (m: number) => say(m, 'tape', units), mm: (m: number) => say(m, 'height', units),
    newtons: (n: number) => say(n, 'force', units), }; // prettier-ignore
  const wait = recordOf(cat.settings, end.setting).wait_h;
  return (
    <Card
      label={`End ${mark}: ${say(end.at_m, 'length', units)}`}
      title={
        <>
          {' '}
          <bdi>{line.name}</bdi>, {say(end.at_m, 'length', units)}:{' '}
          {recordOf(cat.ends, end.kind).name}
        </>
      }
      mark={mark}
    >
      <p className="text-[0.82rem]">
        {ROLES[end.role] ?? end.role} {SIDE_WORDS[end.side]};{' '}
        {recordOf(cat.soils, end.soil).name.toLowerCase()}; {end.strands.length} strands pull with{' '}
        {say(end.pull_N, 'force', units)} on the coldest night.
      </p>
      {(w.share > 1 || end.wire === 'brace') && (
        <p className="mt-1 font-semibold">
          {end.wire === 'brace'
            ? 'The brace wire of this plan runs the WRONG way: look at the plan before you build it.'
            : 'As planned this end does not hold: look at the plan before you build it.'}
        </p>
      )}
      <div className="mt-1">
        <Elevation end={end} forces={judged.forces} units={units} cat={cat} width={500} />
      </div>
      <div className="mt-1 grid grid-cols-[1.9fr_1fr] gap-4 text-[0.78rem] leading-snug">
        <div>
          <h3 className="font-semibold">Build</h3>
          <ol className="list-decimal space-y-[2px] pl-4">
            {stepsOf(end, lengths, cat, twistOf(judged.forces, cat)).map((s, k) => (
              <li key={k}>{s}</li>
            ))}
          </ol>
        </div>
        <div>
          <h3 className="font-semibold">Take</h3>
          <ul className="list-disc pl-4">
            {takeOf(end, units, cat).map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
          <p className="mt-1">
            {say(hoursOf(end, cat), 'hours', units)} of work
            {wait > 0 ? `, then wait ${waitWords(wait)}` : ''}.
          </p>
          {(end.kind === 'h' || end.kind === 'double-h') && (
            <div className="mt-2">
              <WireWay end={{ ...end, wire: end.wire === 'both' ? 'both' : 'end' }} small />
            </div>
          )}
        </div>
      </div>
      <footer className="mt-auto flex justify-between gap-4 pt-1 text-[0.7rem]">
        <span>
          <bdi>{plan.name}</bdi>
          {plan.invented ? ', invented' : ''}. Eyes, gloves; stand away from a tight wire; find
          buried services first. Local practice first; above a great pull an engineer.
        </span>
        <span className="whitespace-nowrap">{end.hand ? 'set by hand' : 'as proposed'}</span>
      </footer>
    </Card>
  );
}

/** Posts, fittings, and what the holes take, in words. */
function takeOf(end: EndReport, units: Units, cat: Catalogue): string[] {
  const posts = [end.post, ...addedPosts(end)];
  const many = [...new Set(posts)].map((p) => `${posts.filter((q) => q === p).length} × ${recordOf(cat.posts, p).name.toLowerCase()}`); // prettier-ignore
  const items = fittings(end, cat)
    .filter(([, n]) => n > 0)
    .map(([id, n]) => id.startsWith('wire.') ? `${say(n, 'length', units)} of brace wire` : id === 'staple' ? `${Math.ceil(n)} staples` : `${Math.ceil(n)} × ${recordOf(cat.prices, id).name.toLowerCase()}`); // prettier-ignore
  const holes = new Map<string, number>();
  for (const p of posts)
    for (const [id, n] of holeTakes(end.setting, p, end.depth_m, cat)) holes.set(id, (holes.get(id) ?? 0) + n); // prettier-ignore
  const filled = [...holes].filter(([, n]) => n > 0).map(([id, n]) => id === 'gravel' ? `${say(n, 'tonne', units)} of gravel` : `${Math.ceil(n - 1e-9)} bags of mix`); // prettier-ignore
  return [...many, ...items, ...filled];
}
