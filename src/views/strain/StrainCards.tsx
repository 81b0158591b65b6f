/** One A5 card for each run: what to set at each temperature, in which order, where from, and room for what was read. */
import { useMemo } from 'react';
import { say, type Units } from '../../core/base/units.js';
import { recordOf, type Catalogue } from '../../core/plan/catalogue.js';
import { catalogue } from '../../core/plan/shipped.js';
import { ownCatalogue } from '../../core/plan/ownCatalogue.js';
import type { Line, Plan } from '../../core/plan/schema.js';
import type { LineReport, Report } from '../../core/report/schema.js';
import { stringingTable, temperatures } from '../../core/wire/stringing.js';
import { tighteningSteps } from '../../core/wire/order.js';
import { Card, CardPages } from '../print/CardPages.js';
import { numbered, type Leaf } from '../print/leaf.js';
import { OnLoaded, type Loaded } from '../print/OnLoaded.js';
import { strainedOf, strandsOf, type Strained } from './strained.js';
import { toolsFor, useSaid } from './tools.js';

export function StrainCards({ id }: { id: string }) {
  return (
    <OnLoaded id={id} words="Working the tables out …">
      {(loaded) => <Cards id={id} {...loaded} />}
    </OnLoaded>
  );
}

function Cards({ id, plan, report }: { id: string } & Loaded) {
  const asked = new URLSearchParams(location.search);
  const line = plan.lines[asked.get('line') ?? ''];
  const cat = useMemo(() => ownCatalogue(catalogue, plan), [plan]);
  const runs = line ? strainLeaves(line, report, plan, cat) : [];
  return (
    <CardPages
      back={[`/p/${id}/strain`, 'Strain']}
      title={`Strain of ${line?.name ?? plan.name}`}
      count={`${runs.length} ${runs.length === 1 ? 'run' : 'runs'}, one A5 card each.`}
    >
      {line && runs.length > 0 ? (
        numbered(runs)
      ) : (
        <p role="alert" className="p-6">
          {line ? 'No strands yet: there is nothing to tension.' : 'There is no such line.'}
        </p>
      )}
    </CardPages>
  );
}

/** The runs of a line as leaves. */
export function strainLeaves(line: Line, report: Report, plan: Plan, cat: Catalogue): Leaf[] {
  const of = report.lines[line.id];
  if (!of) return [];
  const runs = of.runs.map((_, k) => wiresIn(line, of, k, plan, cat));
  return runs
    .filter((wires) => wires.length > 0)
    .map((wires) => ({
      key: `${line.id} ${wires[0]!.bayed.run.from_m}`,
      of: line.id,
      draw: (mark) => <RunCard wires={wires} mark={mark} line={line} plan={plan} cat={cat} />,
    }));
}

const wiresIn = (
  line: Line,
  report: LineReport,
  index: number,
  plan: Plan,
  cat: Catalogue,
): Strained[] =>
  [...new Set(report.strain.map((s) => s.wire))].flatMap(
    (wire) => strainedOf(line, report, index, wire, plan.climate, cat) ?? [],
  );

interface CardProps {
  readonly wires: readonly Strained[];
  readonly mark: string;
  readonly line: Line;
  readonly plan: Plan;
  readonly cat: Catalogue;
}

function RunCard({ wires, mark, line, plan, cat }: CardProps) {
  const { units } = plan;
  const { bayed, row, report } = wires[0]!;
  const { run } = bayed;
  const from = report.posts.findIndex((p) => Math.abs(p.s_m - run.from_m) < 0.01) + 1;
  const to = report.posts.findIndex((p) => Math.abs(p.s_m - run.to_m) < 0.01) + 1;
  return (
    <Card
      label={`Strain ${mark}: run of ${say(run.ground_m, 'length', units)}`}
      title={
        <>
          {' '}
          <bdi>{line.name}</bdi>, {say(run.from_m, 'length', units)} to{' '}
          {say(run.to_m, 'length', units)}
        </>
      }
      mark={mark}
    >
      <p className="text-[0.82rem]">
        Post {from} to post {to}, {say(run.ground_m, 'length', units)} as taped.{' '}
        {line.tensioner ? 'Tensioners' : 'Pulled, no tensioners left in it,'} at{' '}
        {say(row.at_m, 'length', units)}
        {line.springs ? ', a spring beside each' : ''}. Longest bay {say(row.bay_m, 'tape', units)}.
        Of what is set the slackest bay keeps {say(row.least15_N / row.at15_N, 'percent', units)}.
      </p>
      {wires.map((of) => (
        <Wire key={of.wire} of={of} units={units} cat={cat} />
      ))}
      <div className="mt-2 text-[0.76rem] leading-snug">
        <h3 className="font-semibold">In this order</h3>
        <ol className="list-decimal space-y-[2px] pl-4">
          {tighteningSteps(
            line,
            wires.map((w) => w.row),
            { newtons: (n) => say(n, 'force', units) },
          ).map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ol>
      </div>
      <Readings line={line} />
      <footer className="mt-auto pt-1 text-[0.7rem]">
        <bdi>{plan.name}</bdi>
        {plan.invented ? ', invented' : ''}. Fence off and proved dead. Eyes, gloves; nobody in line
        with a tight wire or astride a puller; never above the limit. Friction and springs are
        judgement: trust the scale.
      </footer>
    </Card>
  );
}

/** The table of one wire: temperatures down, tools across. */
function Wire({ of, units, cat }: { of: Strained; units: Units; cat: Catalogue }) {
  const said = useSaid();
  const tools = toolsFor(of, said);
  const { line, row, wire } = of;
  const rows = stringingTable(of.strung, temperatures(of.climate.today_C), tools, cat);
  const cell = 'px-1 text-right tabular-nums';
  const over = row.cold_N > row.limit_N;
  return (
    <div className="mt-1">
      <h3 className="text-[0.85rem] font-semibold">
        Strand {strandsOf(line, wire).join(', ')}: {recordOf(cat.wires, wire).name}, never above{' '}
        {say(row.limit_N, 'force', units)}
      </h3>
      {over && (
        <p className="text-[0.8rem] font-semibold">
          As planned this is too tight on the coldest night: look at the plan first.
        </p>
      )}
      <table className="w-full border-collapse text-[0.76rem]">
        <thead>
          <tr className="border-b border-black align-bottom">
            <th className={cell}>warmth</th>
            <th className={cell}>set</th>
            {line.springs && <th className={cell}>spring</th>}
            <th className={cell}>sag, {say(tools.bay_m, 'tape', units)} bay</th>
            <th className={cell}>
              {tools.returns} returns, {say(tools.over_m, 'length', units)}
            </th>
            <th className={cell}>
              pull for {say(tools.moved_m, 'height', units)}
              {tools.slides_m === null
                ? ', held'
                : `, slides ${say(tools.slides_m, 'length', units)}`}
            </th>
            <th className={cell}>turns</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr
              key={r.celsius}
              className={`border-b border-neutral-300 ${r.celsius === of.climate.today_C ? 'font-semibold' : ''}`}
            >
              <th className={`${cell} font-normal`}>{say(r.celsius, 'temperature', units)}</th>
              <td className={`${cell} font-semibold`}>{say(r.tension_N, 'force', units)}</td>
              {line.springs && <td className={cell}>{say(r.spring_m!, 'height', units)}</td>}
              <td className={cell}>{say(r.sag_m, 'sag', units)}</td>
              <td className={cell}>{say(r.time_s, 'seconds', units)}</td>
              <td className={cell}>{say(r.pull_N, 'force', units)}</td>
              <td className={cell}>{r.turns.toFixed(1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Room for what is read: when it is strung, as the braces bed, and a year later. */
function Readings({ line }: { line: Line }) {
  const columns = ['set', 'a day', 'a week', 'a year'];
  return (
    <div className="mt-3 text-[0.76rem]">
      <h3 className="font-semibold">Read, with day and warmth</h3>
      <table className="w-full table-fixed border-collapse">
        <thead>
          <tr className="border-b border-black">
            <th className="w-14 text-left font-normal">strand</th>
            {columns.map((c) => (
              <th key={c} className="border-l border-neutral-400 pl-1 text-left font-normal">
                {c}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...line.strands.keys()].reverse().map((i) => (
            <tr key={i} className="border-b border-neutral-400">
              <th className="py-[1.4mm] text-left font-normal">{i + 1}</th>
              {columns.map((c) => (
                <td key={c} className="border-l border-neutral-400" />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
