/** One end: drawn with its forces, what it is made of, and the other ways side by side. */
import { Check as Tick, Undo2 } from 'lucide-react';
import { useMemo, type ReactNode } from 'react';
import { say } from '../../core/base/units.js';
import { asProposed, copyEnd, endsAlike, setAssembly, setEnd } from '../../core/edit/ending.js';
import { twistOf } from '../../core/ends/judge.js';
import { assemblyOf, handAt } from '../../core/ends/hand.js';
import { optionsFor, type Option } from '../../core/ends/options.js';
import { hoursOf } from '../../core/ends/takes.js';
import { HELD_WORDS, reasonWords } from '../../core/ends/words.js';
import { recordOf, type Catalogue } from '../../core/plan/catalogue.js';
import type { Assembly, Line } from '../../core/plan/schema.js';
import type { EndReport } from '../../core/report/schema.js';
import { endCost } from '../../core/supplies/braceCost.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, tell, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { QuantityField, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { useMoney } from '../../ui/parts/money.js';
import { Num, useUnits, WhereFrom, type Origin } from '../../ui/parts/Num.js';
import { Elevation } from './Elevation.js';
import { CODE_DEPTH, COST, FORCES, HOURS, PULL, TWIST, USED, WAIT } from './origins.js';
import { ROLES, SIDE_WORDS, useFrost, worst } from './place.js';
import { RailChart } from './RailChart.js';
import { Wait } from './Wait.js';
import { WireWay } from './WireWay.js';

interface Props {
  readonly line: Line;
  readonly end: EndReport;
}

export function EndTab({ line, end }: Props) {
  const units = useUnits();
  const cat = useCatalogue();
  const frost_m = useFrost();
  const lines = useSession((s) => s.report?.lines);
  const on = { line: line.id, end };
  const where = `the ${ROLES[end.role] ?? 'end'} at ${say(end.at_m, 'length', units)} of ${line.name}`;
  const alike = lines ? endsAlike(on, lines) : [];
  const change = (words: string, recipe: Parameters<typeof commit>[1]) => {
    commit(`${words} at ${where}`, recipe);
    tell(`${words} at ${where}`);
  };
  const own = (part: Partial<Assembly>): Assembly => ({ ...assemblyOf(end), ...part });
  const take = ({ built }: Option) =>
    change(recordOf(cat.ends, built.kind).name, (d) => setAssembly(d, on, assemblyOf({ ...end, ...built }))); // prettier-ignore
  const railed = end.kind === 'h' || end.kind === 'double-h' || end.kind === 'n';
  // The section's cursor draws this anew at every move: the ways are worked out once for an end.
  const options = useMemo(() => optionsFor(end, line, frost_m, cat), [end, line, frost_m, cat]);
  const hand = end.hand || handAt(line, end.at_m) !== undefined;
  const mm = { newtons: (n: number) => say(n, 'force', units), moment: (n: number) => say(n, 'moment', units), metres: (m: number) => say(m, 'length', units) }; // prettier-ignore
  return (
    <section aria-label={where}>
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-2">
        <h3 className="font-semibold">
          {recordOf(cat.ends, end.kind).name}, {ROLES[end.role] ?? end.role} {SIDE_WORDS[end.side]}
        </h3>
        <span className="label">{end.hand ? 'set by hand' : 'as proposed'}</span>
      </div>
      <p className="label mb-2">Why: {reasonWords(end, mm, cat)}.</p>
      <Elevation end={end} forces={options[0]!.judged.forces} units={units} cat={cat} />
      <p className="mt-1 text-[0.929rem]">
        Pull <Num value={end.pull_N} q="force" from={PULL} /> at the coldest, in{' '}
        {recordOf(cat.soils, end.soil).name.toLowerCase()}; most used: <Worst end={end} />
      </p>
      <div className="no-print mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        {railed && !end.shared && (
          <QuantityField
            label="Rail"
            q="tape"
            at="lines/*/ends/*/before/rail_m"
            value={end.rail_m}
            onCommit={(rail_m) => change('rail', (d) => setAssembly(d, on, own({ rail_m })))}
          />
        )}
        <QuantityField
          label="Depth of its posts"
          q="tape"
          at="lines/*/ends/*/depth_m"
          value={end.depth_m}
          onCommit={(depth_m) => change('depth', (d) => setEnd(d, line.id, end.at_m, { depth_m }))}
        />
        <Select
          label="End post"
          width="max-w-[13rem]"
          value={end.post}
          options={Object.entries(cat.posts)
            .filter(([id, p]) => id === end.post || p.use === 'end')
            .map(([id, p]) => [id, p.name] as const)}
          onChange={(post) => change('end post', (d) => setEnd(d, line.id, end.at_m, { post }))}
        />
        {(end.kind === 'h' || end.kind === 'double-h') && (
          <Select
            label="Brace wire"
            width="max-w-[15rem]"
            value={end.wire}
            options={[
              ['end', 'from the foot of the end post'],
              ['both', 'both diagonals'],
              ['brace', 'from the brace post: wrong'],
            ]}
            onChange={(wire) => change('brace wire', (d) => setAssembly(d, on, own({ wire })))}
          />
        )}
        {end.kind === 'stay' && end.side !== 'bend' && (
          <Select
            label="Its foot"
            value={end.foot}
            options={[
              ['post', 'next post of the fence'],
              ['block', 'block in the ground'],
            ]}
            onChange={(foot) =>
              change('foot of the stay', (d) => setAssembly(d, on, own({ foot })))
            }
          />
        )}
        {hand && (
          <Button onClick={() => change('as proposed', (d) => asProposed(d, on))}>
            <Undo2 size={14} aria-hidden /> As proposed
          </Button>
        )}
        {alike.length > 0 && (
          <Button
            onClick={() =>
              change(`given to ${alike.length} ends alike`, (d) => copyEnd(d, on, alike))
            }
          >
            Give it to {alike.length} {alike.length === 1 ? 'end' : 'ends'} alike
          </Button>
        )}
      </div>
      <h3 className="heading mt-5 mb-1">Ways to build it</h3>
      <Options end={end} options={options} cat={cat} onTake={take} />
      {railed && !end.shared && (
        <div className="mt-5 grid gap-5 @[60rem]:grid-cols-2">
          <RailChart end={end} line={line} frost_m={frost_m} />
          {end.kind !== 'n' && <WireWay end={end} />}
        </div>
      )}
    </section>
  );
}

function Worst({ end }: { end: EndReport }) {
  const w = worst(end);
  return (
    <>
      {HELD_WORDS[w.of]}, <Num value={w.share} q="percent" from={USED} />
      {w.share > 1 && <strong className="text-stop"> does not hold</strong>}
    </>
  );
}

/** One thing that the ways differ in. */
interface Measure {
  readonly name: string;
  readonly from?: Origin;
  cell(o: Option): ReactNode;
}

/** Every way side by side; where the two models differ, the one that decides first. */
function Options({
  end,
  options,
  cat,
  onTake,
}: {
  end: EndReport;
  options: readonly Option[];
  cat: Catalogue;
  onTake: (o: Option) => void;
}) {
  const money = useMoney();
  const asEnd = (o: Option): EndReport => ({ ...end, ...o.built, shared: o.own && end.shared });
  const two = (key: 'rail_N' | 'leg_N' | 'lift_N' | 'secondDown_N') => (o: Option) => {
    const { hinged, embedded } = o.judged.forces;
    const [own, other] = hinged && hinged[key] > embedded[key] ? [hinged, embedded] : [embedded, hinged]; // prettier-ignore
    // What presses an end post down, or lifts a buried log, is told as such.
    if (key === 'lift_N' && own[key] < 1) return 'pressed down';
    if (own[key] < 0) return (<><Num value={-own[key]} q="force" /> <span className="label">up</span></>); // prettier-ignore
    if (Math.max(Math.abs(own[key]), Math.abs(other?.[key] ?? 0)) < 1) return '–';
    return (
      <>
        <Num value={own[key]} q="force" />
        {other && Math.abs(other[key] - own[key]) > 1 && (
          <span className="label block">
            {own === hinged ? 'in ground' : 'hinged'} <Num value={other[key]} q="force" bare />
          </span>
        )}
      </>
    );
  };
  const wait = recordOf(cat.settings, end.setting).wait_h;
  const measures: Measure[] = [
    { name: 'rail or strut', from: FORCES, cell: two('rail_N') },
    { name: 'wire, each leg', from: FORCES, cell: two('leg_N') },
    {
      name: 'twist each leg to',
      from: TWIST,
      cell: (o) => {
        const N = twistOf(o.judged.forces, cat);
        return N < 1 ? '–' : <Num value={N} q="force" />;
      },
    },
    { name: 'end post lifts', from: FORCES, cell: two('lift_N') },
    {
      name: 'ground holds it, times',
      from: USED,
      cell: (o) => {
        const c = o.judged.checks.find((k) => k.of === 'lift')!;
        return c.asked > 1 ? <span className="figure">{(c.gives / c.asked).toFixed(1)}</span> : '–';
      },
    },
    { name: 'second post down', from: FORCES, cell: two('secondDown_N') },
    { name: 'depth by the code, alone', from: CODE_DEPTH, cell: (o) => <Num value={o.codeDepth_m} q="tape" /> }, // prettier-ignore
    {
      name: 'used at the weakest',
      from: USED,
      cell: ({ judged: { weakest } }) => (
        <span className={weakest.share > 1 ? 'text-stop font-semibold' : ''}>
          <Num value={weakest.share} q="percent" />
          <span className="label block">{HELD_WORDS[weakest.of]}</span>
        </span>
      ),
    },
    { name: 'cost', from: COST, cell: (o) => <span className="figure">{money(endCost(asEnd(o), cat))}</span> }, // prettier-ignore
    { name: 'hours', from: HOURS, cell: (o) => <Num value={hoursOf(asEnd(o), cat)} q="hours" /> },
    { name: 'wait', from: WAIT, cell: () => <Wait hours={wait} /> },
    {
      name: 'take',
      cell: (o) =>
        o.own || end.shared ? (
          <span className="label">as planned</span>
        ) : (
          <Button
            aria-label={`Take the ${recordOf(cat.ends, o.built.kind).name}`}
            onClick={() => onTake(o)}
          >
            <Tick size={14} aria-hidden /> Take
          </Button>
        ),
    },
  ];
  return (
    <DataTable
      label="Ways to build it"
      rows={measures}
      keyOf={(m) => m.name}
      columns={[
        {
          name: 'of each',
          quiet: true,
          head: true,
          cell: ({ name, from }) => (
            <span className="label">
              {name}
              {from && <WhereFrom origin={from} shown={name} />}
            </span>
          ),
        },
        ...options.map((o) => ({
          name: recordOf(cat.ends, o.built.kind).name,
          n: true,
          className: o.own ? 'bg-chosen' : '',
          headClass: o.own ? 'bg-chosen' : '',
          cell: (m: Measure) => m.cell(o),
        })),
      ]}
    />
  );
}
