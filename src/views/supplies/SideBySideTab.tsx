/** Two designs side by side: states of the plan that have a name, or a line made up another way. */
import { useEffect, useState } from 'react';
import { say } from '../../core/base/units.js';
import type { Apart } from '../../core/compare/apart.js';
import type { Plan } from '../../core/plan/schema.js';
import { Asked } from '../../ui/parts/Asked.js';
import { useStanding, type KeptRecord } from '../../session/kept.js';
import { usePower } from '../../session/power.js';
import { planAt } from '../../session/server.js';
import { happened, takeBack } from '../../session/records.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Part, Select } from '../../ui/parts/controls.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { useMoney } from '../../ui/parts/money.js';
import { useUnits } from '../../ui/parts/Num.js';
import { ApartTables } from './ApartTables.js';

interface Named extends KeptRecord {
  readonly name: string;
  readonly revision: number;
  readonly waiting?: boolean;
}

export function SideBySideTab() {
  return (
    <>
      <OneLine />
      <States />
    </>
  );
}

/** One line made up another way: a strand more, or a design of the property. */
function OneLine() {
  const lines = useSession((s) => s.plan.lines);
  const designs = useSession((s) => s.plan.designs) ?? {};
  const [asked, setLine] = useState('');
  const [way, setWay] = useState<string | null>(null);
  const money = useMoney();
  const units = useUnits();
  const strung = Object.values(lines).filter((l) => l.strands.length > 0);
  const line = strung.find((l) => l.id === asked) ?? strung[0];
  const design = way !== null && way !== MORE ? designs[way] : undefined;
  const more = usePower(line && way === MORE ? `more ${line.id}` : null, (api) => api.oneMore(line!.id)); // prettier-ignore
  const other = usePower(line && design ? `design ${line.id} ${design.id}` : null, (api) => api.withDesign(line!.id, design!.id)); // prettier-ignore
  if (!line) return null;
  const apart = way === MORE ? (more.value?.apart ?? null) : other.value;
  const waiting = way !== null && (way === MORE ? more.waiting : other.waiting);
  const named = way === MORE ? 'with one strand more' : `as ${design?.name ?? ''}`;
  return (
    <Part title="One line made up another way">
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <Select
          label="Line"
          value={line.id}
          width="max-w-[14rem]"
          options={strung.map((l) => [l.id, l.name] as const)}
          onChange={(id) => {
            setLine(id);
          }}
        />
        <Button strong={way === null} aria-pressed={way === MORE} onClick={() => setWay(MORE)}>
          What does one strand more cost?
        </Button>
        {Object.values(designs).map((d) => (
          <Button key={d.id} aria-pressed={way === d.id} onClick={() => setWay(d.id)}>
            As {d.name}
          </Button>
        ))}
      </div>
      {waiting ? (
        <Asked of={{ ...(way === MORE ? more : other), value: null }} doing="Working it out" />
      ) : way !== null && apart ? (
        <>
          <p className="mb-2" data-more>
            <bdi>{line.name}</bdi> {named}:{' '}
            <strong>{signed(apart.used[1] - apart.used[0], money)}</strong> as it is used,{' '}
            {signed(apart.cost[1] - apart.cost[0], money)} in whole coils and boxes, without tax
            {way === MORE && more.value
              ? `, at ${say(more.value.strand.height_m, 'height', units)}, in the middle of its widest gap`
              : ''}
            .
          </p>
          <ApartTables apart={apart} names={['as planned', named]} />
        </>
      ) : way !== null ? (
        <p role="alert">
          {way === MORE
            ? 'No room for a strand more: a line has 2 to 20.'
            : 'This cannot be compared.'}
        </p>
      ) : null}
    </Part>
  );
}

const MORE = '+1';
const signed = (amount: number, money: (x: number) => string): string =>
  amount < 0 ? `${money(-amount)} less` : amount > 0 ? `${money(amount)} more` : 'costs the same';

/** States of the plan with a name, any two of them or with the plan of now. */
function States() {
  const { records, known } = useStanding<Named>('states');
  const book = useSession((s) => s.book);
  const [a, setA] = useState('');
  const [b, setB] = useState('now');
  const first = records.some((r) => r.id === a) || a === 'now' ? a : (records.at(-1)?.id ?? 'now');
  const second = records.some((r) => r.id === b) ? b : 'now';
  const options = [['now', 'the plan of now'] as const, ...records.map((r) => [r.id, `${r.name} (${r.time.slice(0, 10)})`] as const)]; // prettier-ignore
  const found = (id: string) => records.find((r) => r.id === id) ?? null;
  return (
    <Part title="States of the plan">
      <NameNow
        taken={records.map((r) => r.name)}
        revision={book.revision}
        saved={book.pending.length === 0}
      />
      {records.length > 0 ? (
        <>
          <div className="mb-3 flex flex-wrap items-end gap-3">
            <Select
              label="Beside"
              value={first}
              options={options}
              width="max-w-[16rem]"
              onChange={setA}
            />{' '}
            {/* prettier-ignore */}
            <Select label="set" value={second} options={options} width="max-w-[16rem]" onChange={setB} />{' '}
            {/* prettier-ignore */}
          </div>
          <Compared a={found(first)} b={found(second)} />
          <ul className="mt-3">
            {records.map((r) => (
              <li key={r.id} className="flex flex-wrap items-baseline gap-3 py-0.5">
                <bdi>{r.name}</bdi> <span className="label">{r.time.slice(0, 10)}</span>
                {!r.waiting && (
                  <Button
                    aria-label={`Take the name ${r.name} away`}
                    onClick={() => takeBack('states', r)}
                  >
                    take the name away
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p className="label">
          {known
            ? 'No state has a name yet. Name the plan as it is now, change it, and set the two side by side.'
            : 'Asking for the names …'}
        </p>
      )}
    </Part>
  );
}

function NameNow(p: { taken: readonly string[]; revision: number; saved: boolean }) {
  const [name, setName] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  return (
    <form
      className="mb-3 flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        const clean = name.trim();
        if (clean === '') return setFault('A name is wanted, such as: as priced in March.');
        if (p.taken.includes(clean)) return setFault('There is a state of that name.');
        if (!p.saved) return setFault('One moment: the plan is being saved. Then press again.');
        happened('states', { name: clean, revision: p.revision });
        setName('');
        setFault(null);
      }}
    >
      <label className="flex flex-col">
        <span className="label">Name the plan as it is now</span>
        <input
          className="field w-56"
          value={name}
          maxLength={60}
          placeholder="as priced in March"
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <Button type="submit">Keep the name</Button>
      {fault && <FieldFault>{fault}</FieldFault>}
    </form>
  );
}

function Compared({ a, b }: { a: Named | null; b: Named | null }) {
  const [plans, setPlans] = useState<readonly [Plan | null, Plan | null] | 'gone' | null>(null);
  const [ra, rb] = [a?.revision ?? null, b?.revision ?? null];
  useEffect(() => {
    let here = true;
    setPlans(null);
    const of = (revision: number | null) => (revision === null ? null : planAt(revision));
    void Promise.all([of(ra), of(rb)]).then(([x, y]) => {
      if (here) setPlans((ra !== null && !x) || (rb !== null && !y) ? 'gone' : [x, y]);
    });
    return () => void (here = false);
  }, [ra, rb]);
  const ready = plans !== null && plans !== 'gone';
  const answer = usePower<Apart>(ready && (a || b) ? `apart ${ra} ${rb}` : null, (api) =>
    api.apart(...(plans as [Plan | null, Plan | null])),
  );
  if (ra === rb) return <p className="label">Choose two different states.</p>;
  if (plans === 'gone') return <p role="alert">That state could not be had from the server now.</p>;
  if (!answer.value || answer.waiting) return <Asked of={{ value: null, waiting: true, fault: answer.fault }} doing="Working both out" />; // prettier-ignore
  return <ApartTables apart={answer.value} names={[a?.name ?? 'now', b?.name ?? 'now']} />;
}
