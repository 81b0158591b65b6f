/** Day by day: the sheet of a day, ticked as the trailer is loaded; what was missing is asked for next time. */
import { Printer } from 'lucide-react';
import { useMemo, useState } from 'react';
import { asked, daysOf, loadOf, type Load } from '../../core/build/loadout.js';
import { nameOf } from '../../core/build/kinds.js';
import { Asked } from '../../ui/parts/Asked.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useStanding } from '../../session/kept.js';
import { happened, takeBack } from '../../session/records.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, Select } from '../../ui/parts/controls.js';
import { useCuts, useLedger } from '../supplies/supplied.js';
import { dayName, useBuildTab, useWork, useWorking, type LoadRecord } from './built.js';
import { DaySheet } from './DaySheet.js';

export function DaysTab() {
  const work = useWork();
  const { value: planned, waiting } = work;
  const plan = useSession((s) => s.plan);
  const id = useSession((s) => s.id);
  const cat = useCatalogue();
  const w = useWorking();
  const { value: cuts } = useCuts(useLedger());
  const { records } = useStanding<LoadRecord>('loads');
  const asked_day = useBuildTab((t) => t.day);
  const days = planned ? daysOf(planned.tasks) : [];
  const day = asked_day !== null && days.includes(asked_day) ? asked_day : days[0];
  const load = useMemo(
    () => (planned && day ? loadOf(planned.tasks, day, cat, cuts ?? []) : null),
    [planned, day, cat, cuts],
  );
  if (!planned) return <Asked of={work} doing="Planning the work" />;
  if (planned.fault !== null) return <p role="alert">{planned.fault}</p>;
  if (!load || !day) return <p className="mt-4">Nothing is left to be done.</p>;
  const k = days.indexOf(day);
  const go = (d: string) => useBuildTab.setState({ day: d });
  const loaded = records.filter((r) => r.day === day && r.state === 'loaded');
  const missed = records.filter((r) => r.day === day && r.state === 'forgotten');
  const isIn = (row: Load) => loaded.find((r) => r.item === row.item);
  // What everybody has every day is no matter of the kind of work.
  const kindOfRow = (row: Load) => load.tasks.find((t) => row.drops.some((d) => d.task === t.task.id))?.task.kind ?? ''; // prettier-ignore
  const ticked = load.loads.filter((row) => isIn(row)).length;
  const earlier = records.filter((r) => r.state === 'forgotten' && r.day < day);
  return (
    <div aria-busy={waiting} className="max-w-[72em]">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <Button disabled={k <= 0} onClick={() => go(days[k - 1]!)}>
          ◂ day before
        </Button>
        <Select
          label="Day"
          hideLabel
          width="max-w-[12rem]"
          value={day}
          options={days.map((d) => [d, dayName(d)] as const)}
          onChange={go}
        />
        <Button disabled={k >= days.length - 1} onClick={() => go(days[k + 1]!)}>
          next day ▸
        </Button>
        <span role="status" data-ticked>
          {ticked} of {load.loads.length} loaded
        </span>
        <a className="button" href={`/day/${id}?day=${day}`}>
          <Printer size={14} aria-hidden /> Print
        </a>
      </div>
      <DaySheet
        load={load}
        plan={plan}
        w={w}
        tick={(row) => (
          <Check
            label={`${row.name} is loaded`}
            hideLabel
            checked={isIn(row) !== undefined}
            onChange={(on) => {
              const own = isIn(row);
              if (on)
                happened('loads', { day, item: row.item, kind: kindOfRow(row), state: 'loaded' }); // prettier-ignore
              else if (own) takeBack('loads', own);
            }}
          />
        )}
        behind={(row) =>
          missed.some((r) => r.item === row.item) ? (
            <span className="label">was missing: asked for next time</span>
          ) : (
            <Button
              className="small"
              aria-label={`${row.name} was missing`}
              onClick={() => happened('loads', { day, item: row.item, kind: kindOfRow(row), state: 'forgotten' })} // prettier-ignore
            >
              was missing
            </Button>
          )
        }
        before={
          <Before
            rows={asked(load, earlier)}
            onDrop={(item) =>
              earlier.filter((r) => r.item === item).forEach((r) => takeBack('loads', r))
            }
          />
        }
        below={<Missing day={day} said={missed} />}
      />
    </div>
  );
}

/** What was left behind on earlier days of such work. */
function Before({
  rows,
  onDrop,
}: {
  rows: readonly { item: string; times: number }[];
  onDrop: (item: string) => void;
}) {
  const cat = useCatalogue();
  if (rows.length === 0) return null;
  return (
    <p
      className="border-mend mb-2 flex flex-wrap items-center gap-2 border-l-4 pl-2"
      data-forgotten
    >
      △ Forgotten before. Is it on?
      {rows.map(({ item, times }) => (
        <span key={item} className="inline-flex items-center gap-1">
          <strong>{nameOf(item, cat)}</strong>
          {times > 1 && ` (${times} times)`}
          <Button
            className="small"
            aria-label={`${nameOf(item, cat)}: no longer ask`}
            onClick={() => onDrop(item)}
          >
            ✕
          </Button>
        </span>
      ))}
    </p>
  );
}

/** Something that the list does not have was missing. */
function Missing({ day, said }: { day: string; said: readonly LoadRecord[] }) {
  const cat = useCatalogue();
  const [words, setWords] = useState('');
  return (
    <form
      className="mt-3 flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const item = words.trim().slice(0, 60);
        if (item) happened('loads', { day, item, kind: '', state: 'forgotten' });
        setWords('');
      }}
    >
      <label className="flex flex-col">
        <span className="label">Missing at the fence, and not on the list</span>
        <input
          className="field w-52"
          value={words}
          maxLength={60}
          onChange={(e) => setWords(e.target.value)}
        />{' '}
        {/* prettier-ignore */}
      </label>
      <Button type="submit">Ask for it next time</Button>
      {said.length > 0 && (
        <span className="label" data-missed>
          Noted: {said.map((r) => nameOf(r.item, cat)).join(', ')}
        </span>
      )}
    </form>
  );
}
