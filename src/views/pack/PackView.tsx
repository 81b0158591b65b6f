/** The pack: all that goes out to the fence on paper, as one document with its contents in front. */
import './pack.css';
import '../build/build.css';
import { ArrowLeft, Printer } from 'lucide-react';
import { Fragment, useState } from 'react';
import { dayText } from '../../core/base/locale.js';
import { range } from '../../core/base/numbers.js';
import type { Plan } from '../../core/plan/schema.js';
import { keepHere, keptHere } from '../../session/here.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, Select } from '../../ui/parts/controls.js';
import { OnLoaded, type Loaded } from '../print/OnLoaded.js';
import { useStandingAlone } from '../print/standing.js';
import { useFillings } from './fillings.js';
import { BY_LINE, contentsOf, PARTS, papersFor, type ContentsRow, type Filling, type PartId } from './pack.js'; // prettier-ignore

type Part = (typeof PARTS)[number];
const KEY = 'anabatic.pack';

export function PackView({ id }: { id: string }) {
  return (
    <OnLoaded id={id} words="Putting the pack together …">
      {(loaded) => <Standing id={id} loaded={loaded} />}
    </OnLoaded>
  );
}

function Standing({ id, loaded }: { id: string; loaded: Loaded }) {
  return useStandingAlone(id, loaded) ? <Pack id={id} loaded={loaded} /> : null;
}

function Pack({ id, loaded }: { id: string; loaded: Loaded }) {
  const { plan } = loaded;
  const [only, setOnly] = useState(() => {
    const asked = new URLSearchParams(location.search).get('line') ?? '';
    return asked in plan.lines ? asked : '';
  });
  // The bench cards go to the fence once; who wants them again says so.
  const [without, setWithout] = useState(() => keptHere<readonly PartId[]>(KEY, ['cards']));
  const fillings = useFillings(loaded, only || null);
  const chosen = PARTS.filter((p) => !without.includes(p.id));
  const waiting = chosen.filter((p) => fillings[p.id] === null);
  const sheets = chosen.reduce((n, p) => n + papersFor(p.form, leavesOf(fillings[p.id]).length), 1);
  const choose = (part: PartId, on: boolean) => {
    const now = on ? without.filter((w) => w !== part) : [...without, part];
    keepHere(KEY, now);
    setWithout(now);
  };
  return (
    <main aria-label="Print pack">
      <div className="no-print border-rule bg-panel sticky top-0 z-10 flex flex-wrap items-center gap-x-4 gap-y-2 border-b p-3">
        <a className="button" href={`/p/${id}/build`}>
          <ArrowLeft size={14} aria-hidden /> Build
        </a>
        <h1 className="heading">
          Print pack of <bdi>{plan.name}</bdi>
        </h1>
        <Select
          label="Lines"
          value={only}
          options={[
            ['', 'all lines'],
            ...Object.values(plan.lines).map((l) => [l.id, l.name] as const),
          ]}
          onChange={setOnly}
        />
        <Button strong disabled={waiting.length > 0} onClick={() => print()}>
          <Printer size={14} aria-hidden /> Print
        </Button>
        <span role="status" data-sheets>
          {waiting.length > 0
            ? `${waiting.map((p) => p.name.toLowerCase()).join(' and ')}: on the way …`
            : `at least ${sheets} sheets of A4`}
        </span>
        <fieldset className="flex flex-wrap gap-x-4">
          <legend className="sr-only">What is in it</legend>
          {PARTS.map((p) => (
            <Check
              key={p.id}
              label={`${p.name.toLowerCase()}${leavesOf(fillings[p.id]).length > 0 ? `, ${leavesOf(fillings[p.id]).length}` : ''}`}
              checked={!without.includes(p.id)}
              onChange={(on) => choose(p.id, on)}
            />
          ))}
        </fieldset>
        <p className="label">
          Print at 100 %, without “fit to page”. Sheets with two cards are cut down the middle.
        </p>
      </div>
      <Contents plan={plan} only={only} parts={chosen} fillings={fillings} />
      {chosen.map((part) => (
        <PartLeaves key={part.id} part={part} filling={fillings[part.id]} />
      ))}
    </main>
  );
}

const leavesOf = (filling: Filling) => (typeof filling === 'string' ? [] : (filling ?? []));

interface ContentsProps {
  readonly plan: Plan;
  readonly only: string;
  readonly parts: readonly Part[];
  readonly fillings: Readonly<Record<PartId, Filling>>;
}

/** What is in the pack and under which marks; what is not, and why. */
function Contents({ plan, only, parts, fillings }: ContentsProps) {
  return (
    <section
      className="pack-leaf pack-text mx-auto max-w-[186mm] bg-white p-6 text-black print:p-0"
      aria-label="Contents"
      data-contents
    >
      <h2 className="text-[1.8rem] font-semibold">
        <bdi>{only ? plan.lines[only]!.name : plan.name}</bdi>
      </h2>
      <p>
        {only && (
          <>
            <bdi>{plan.name}</bdi>,{' '}
          </>
        )}
        as planned on {dayText(new Date(), plan.currency)}.
        {plan.invented && ' Everything in this property is made up.'}
      </p>
      <p className="mt-2">
        Each sheet has its letter and number in a corner. Cards are A5, two on a sheet: cut them apart.
        A newer plan makes all of this old: look at the day above before you build from it.
      </p>
      <p className="mt-2 border-l-4 border-black pl-2">
        Locate buried services before you dig; look up for overhead lines. Eyes and gloves at every
        wire. Fence off and proved dead before a hand goes to it. Local codes and the maker’s
        instructions go before this paper; what is beyond you is done by a licensed person.
      </p>
      <LineTable plan={plan} parts={parts} fillings={fillings} />
      <dl className="mt-3 columns-1 gap-x-8 text-[0.86rem] sm:columns-3 print:columns-3">
        {parts
          .filter((p) => !BY_LINE.some((l) => l === p.id) || leavesOf(fillings[p.id]).length === 0)
          .map((part) => (
            <PartList key={part.id} part={part} filling={fillings[part.id]} />
          ))}
      </dl>
    </section>
  );
} // prettier-ignore

/** Lines down, their parts across. */
function LineTable({ plan, parts, fillings }: Pick<ContentsProps, 'plan' | 'parts' | 'fillings'>) {
  const columns = parts.filter(
    (p) => BY_LINE.some((l) => l === p.id) && leavesOf(fillings[p.id]).length > 0,
  );
  if (columns.length === 0) return null;
  const rows = columns.map((p) => contentsOf(leavesOf(fillings[p.id])));
  const lines = Object.values(plan.lines).filter((l) => rows.some((r) => r.some((x) => x.of === l.id))); // prettier-ignore
  return (
    <table className="sheet-table mt-3 text-[0.86rem]" aria-label="Sheets of each line">
      <thead>
        <tr>
          <th scope="col">line</th>
          {columns.map((p) => (
            <th key={p.id} scope="col">
              {p.name.toLowerCase()}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {lines.map((line) => (
          <tr key={line.id} className="break-inside-avoid">
            <th scope="row" className="!py-[0.5mm] !text-black">
              <bdi>{line.name}</bdi>
            </th>
            {columns.map((p, k) => (
              <td key={p.id} className="!py-[0.5mm] whitespace-nowrap">
                {rows[k]!.filter((r) => r.of === line.id).map((r) => marksOf(p, r))}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const marksOf = ({ letter }: Part, { from, to }: ContentsRow) =>
  to > from ? `${letter} ${from} to ${to}` : `${letter} ${from}`;

/** What a part has that is of no single line. */
function PartList({ part, filling }: { part: Part; filling: Filling }) {
  const rows = contentsOf(leavesOf(filling));
  return (
    <div className="mb-3 break-inside-avoid-page" data-part={part.id}>
      <dt className="font-semibold">{part.name}</dt>
      {rows.map((row) => (
        <dd key={row.from} className="flex justify-between gap-4">
          <bdi>{row.of}</bdi>
          <span className="whitespace-nowrap">{marksOf(part, row)}</span>
        </dd>
      ))}
      {filling === null && <dd>on the way …</dd>}
      {typeof filling === 'string' && <dd>None: {filling}</dd>}
    </div>
  );
}

/** The leaves of a part, as they lie on paper. */
function PartLeaves({ part: { id, letter, form }, filling }: { part: Part; filling: Filling }) {
  const leaves = leavesOf(filling);
  const each = form === 'pair' ? 2 : 1;
  return range(papersFor(form, leaves.length)).map((n) => (
    <div key={`${id} ${n}`} className={`pack-leaf pack-${form}`} data-leaf={id}>
      {leaves.slice(n * each, (n + 1) * each).map((leaf, k) => (
        <Fragment key={leaf.key}>{leaf.draw(`${letter} ${n * each + k + 1}`)}</Fragment>
      ))}
    </div>
  ));
}
