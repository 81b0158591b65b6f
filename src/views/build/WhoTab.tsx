/** Who builds, on which days and hours, with what hired machines; days that weather took. */
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { crewOf } from '../../core/build/calendar.js';
import { changeBuild, dropMember, toggled } from '../../core/build/edits.js';
import { MACHINES } from '../../core/build/kinds.js';
import { minutes } from '../../core/base/days.js';
import { freeId } from '../../core/plan/ids.js';
import type { BuildPlan } from '../../core/plan/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, NameField, Part, Select } from '../../ui/parts/controls.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { useMoney } from '../../ui/parts/money.js';
import { dayName, useWork, useWorking, weekdayName } from './built.js';
import { DateField } from './DateField.js';

const put = (words: string, change: Partial<BuildPlan>) => commit(words, (d) => changeBuild(d, change)); // prettier-ignore
/** Times of the day by quarters of an hour. */
const CLOCK = Array.from({ length: 96 }, (_, k) => {
  const text = `${String(Math.floor(k / 4)).padStart(2, '0')}:${String((k % 4) * 15).padStart(2, '0')}`;
  return [text, text] as const;
});
const BREAKS = [0, 15, 30, 45, 60, 90, 120].map((m) => [String(m), m === 0 ? 'none' : `${m} min`] as const); // prettier-ignore

export function WhoTab() {
  return (
    <div className="max-w-[64em]">
      <Crew />
      <Hours />
      <Off />
      <Hired />
    </div>
  );
}

function Crew() {
  const named = useSession((s) => s.plan.build?.crew);
  const w = useWorking();
  const cat = useCatalogue();
  const [name, setName] = useState('');
  const machines = Object.entries(MACHINES);
  /** The crew in the draft; the usual one is written down when it is first changed. */
  const change = (words: string, recipe: (crew: NonNullable<BuildPlan['crew']>) => void) =>
    commit(words, (d) => {
      changeBuild(d, { crew: crewOf(d.build, cat) });
      recipe(d.build!.crew!);
    });
  return (
    <Part title="Who">
      <p className="label mb-2">
        Roles, not names: lead hand, driver, neighbour on Fridays.
        {named ? '' : ' Nobody is named yet: these two stand in.'}
      </p>
      {w.crew.map((m) => (
        <div key={m.id} className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1" data-member={m.id}>
          <NameField
            name={m.name}
            label={`Role of ${m.name}`}
            width="w-48"
            onCommit={(n) => change(`role ${n}`, (c) => void (c[m.id]!.name = n.slice(0, 60)))}
          />
          {machines.map(([item, words]) => (
            <Check
              key={item}
              label={`trained on the ${words}`}
              spoken={`${m.name} is trained on the ${words}`}
              checked={m.runs.includes(item)}
              onChange={(on) =>
                change(`${m.name}, ${words}`, (c) => {
                  const own = c[m.id]!;
                  const runs = (own.runs ?? []).filter((r) => r !== item);
                  own.runs = on ? [...runs, item as 'hire.driver'] : runs;
                })
              }
            />
          ))}
          <DateField
            label="away on"
            value=""
            onCommit={(day) => day && change(`${m.name} away on ${dayName(day)}`, (c) => void (c[m.id]!.off = toggled(c[m.id]!.off, day) ?? []))}
          />
          {[...m.off].sort().map((day) => (
            <Button
              key={day}
              className="small"
              aria-label={`${m.name} is there on ${dayName(day)} after all`}
              onClick={() => change(`${m.name} there on ${dayName(day)}`, (c) => void (c[m.id]!.off = toggled(c[m.id]!.off, day) ?? []))}
            >
              {dayName(day)} ✕
            </Button>
          ))}
          {w.crew.length > 1 && named && (
            <Button
              aria-label={`${m.name} leaves the crew`}
              onClick={() => commit(`${m.name} leaves the crew`, (d) => dropMember(d, m.id))}
            >
              <Trash2 size={14} aria-hidden />
            </Button>
          )}
        </div>
      ))}
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          const role = name.trim() || 'One more hand';
          change(`${role} joins`, (c) => {
            const id = freeId(c, 'hand');
            c[id] = { id, name: role.slice(0, 60) };
          });
          setName('');
        }}
      >
        <label className="flex flex-col">
          <span className="label">Who else</span>
          <input className="field w-48" value={name} maxLength={60} onChange={(e) => setName(e.target.value)} />
        </label>
        <Button type="submit">Put in</Button>
      </form>
    </Part>
  );
} // prettier-ignore

function Hours() {
  const build = useSession((s) => s.plan.build);
  const w = useWorking();
  const hours = (minutes(w.to) - minutes(w.from) - w.break_min) / 60;
  const wrong = minutes(w.to) <= minutes(w.from) ? 'The day ends before it begins.' : null;
  return (
    <Part title="When">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <DateField
          label="Begin on"
          value={build?.start ?? ''}
          onCommit={(day) => put('begin of the work', { start: day || undefined })}
        />
        <Select
          label="from"
          value={w.from}
          options={CLOCK}
          onChange={(from) => from < w.to && put('hours of the day', { from })}
        />
        <Select
          label="to"
          value={w.to}
          options={CLOCK.filter(([c]) => c > w.from)}
          onChange={(to) => put('hours of the day', { to })}
        />
        <Select
          label="break at noon"
          value={String(w.break_min)}
          options={BREAKS}
          onChange={(m) => put('break', { break_min: Number(m) })}
        />
        <span>{hours} h a day</span>
        {wrong && <FieldFault>{wrong}</FieldFault>}
      </div>
      <fieldset className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
        <legend className="label">Days of the week that are worked</legend>
        {[1, 2, 3, 4, 5, 6, 7].map((n) => (
          <Check
            key={n}
            label={weekdayName(n)}
            checked={w.days.includes(n)}
            disabled={w.days.length === 1 && w.days.includes(n)}
            onChange={(on) => put('days of the week', { days: [...w.days.filter((d) => d !== n), ...(on ? [n] : [])].sort() })} // prettier-ignore
          />
        ))}
      </fieldset>
      <p className="label mt-1">
        {build?.start ? '' : 'No day is said: it begins today. '}Nothing that is not done is planned before today.
      </p>
    </Part>
  );
} // prettier-ignore

function Off() {
  const build = useSession((s) => s.plan.build);
  const list = (key: 'off' | 'rain', label: string, words: string) => (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <DateField
        label={label}
        value=""
        onCommit={(day) => day && put(`${words} ${dayName(day)}`, { [key]: toggled(build?.[key], day) })} // prettier-ignore
      />
      {(build?.[key] ?? []).map((day) => (
        <Button
          key={day}
          className="small"
          aria-label={`${dayName(day)} is worked after all`}
          onClick={() => put(`worked on ${dayName(day)}`, { [key]: toggled(build?.[key], day) })}
        >
          {dayName(day)} ✕
        </Button>
      ))}
    </div>
  );
  return (
    <Part title="Days without work">
      {list('off', 'Day off', 'day off')}
      {list('rain', 'Lost to weather', 'lost to weather')}
    </Part>
  );
}

function Hired() {
  const build = useSession((s) => s.plan.build);
  const { value: planned } = useWork();
  const money = useMoney();
  const change = (item: string, words: string, hire: NonNullable<BuildPlan['machines']>[string]) => {
    const clean = Object.fromEntries(Object.entries(hire).filter(([, v]) => v !== undefined));
    put(words, { machines: { ...build?.machines, [item]: clean } });
  };
  return (
    <Part title="Hired machines">
      {Object.entries(MACHINES).map(([item, words]) => {
        const hire = build?.machines?.[item] ?? {};
        const found = planned?.hires.find((h) => h.item === item);
        const wrong = hire.from && hire.to && hire.to < hire.from ? 'It goes back before it comes.' : null;
        return (
          <div key={item} className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1" data-machine={item}>
            <strong className="w-24">{words}</strong>
            <Check
              label="is there already, nothing is hired"
              spoken={`The ${words} is there already`}
              checked={hire.own ?? false}
              onChange={(own) => change(item, `${words} is there`, { ...hire, own: own || undefined })}
            />
            {!hire.own && (
              <>
                <DateField
                  label="from"
                  value={hire.from ?? ''}
                  onCommit={(from) => !(from && hire.to && hire.to < from) && change(item, `${words} hired from`, { ...hire, from: from || undefined })}
                />
                <DateField
                  label="to"
                  value={hire.to ?? ''}
                  onCommit={(to) => !(to && hire.from && to < hire.from) && change(item, `${words} hired to`, { ...hire, to: to || undefined })}
                />
                <span>
                  {found
                    ? `${dayName(found.from)} to ${dayName(found.to)}: ${found.days} days, ${found.idle} idle, ${money(found.cost)}`
                    : 'not wanted by this plan'}
                </span>
              </>
            )}
            {wrong && <FieldFault>{wrong}</FieldFault>}
          </div>
        );
      })}
      <p className="label">
        Without dates it comes on the first day on which it is wanted and goes after the last. What it costs a day is a
        price of Supplies.
      </p>
    </Part>
  );
} // prettier-ignore
