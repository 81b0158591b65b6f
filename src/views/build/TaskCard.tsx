/** One task: when, who, how long and why, what it waits for; all of it to be changed, and marked as done. */
import { kindOf } from '../../core/build/kinds.js';
import type { Planned } from '../../core/build/planned.js';
import { AS_SAID } from '../../core/build/rates.js';
import type { PlannedTask } from '../../core/build/shifts.js';
import { say, type Units } from '../../core/base/units.js';
import { inUnits } from '../../core/base/prose.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, Part, QuantityField } from '../../ui/parts/controls.js';
import { Num, useUnits, type Origin } from '../../ui/parts/Num.js';
import { CARDS } from '../../core/hand/cards/index.js';
import { dayName, editTask, fullName, timeName, useBuildTab, useWorking } from './built.js';
import { DateField } from './DateField.js';
import { DoneForm } from './DoneForm.js';

export function TaskCard({ task, planned }: { task: PlannedTask; planned: Planned }) {
  const lines = useSession((s) => s.plan.lines);
  const edit = useSession((s) => s.plan.build?.tasks?.[task.id]);
  const units = useUnits();
  const kind = kindOf(task.kind);
  return (
    <Part title={fullName(task, lines)}>
      <p className="label mb-2">{inUnits(kind.why, units)}</p>
      {task.start === null ? (
        <p>✓ Done{task.doneOn ? ` on ${dayName(task.doneOn)}` : ''}.</p>
      ) : (
        <>
          <p data-when>
            {timeName(task.start)} to {timeName(task.end!)}
            {task.critical && (
              <>
                {' '}
                · <strong>critical</strong>: no number of people makes this path of work and waits shorter
              </>
            )}
          </p>
          <p>
            <Num value={task.left_h} q="hours" from={hoursOrigin(task, planned, units)} /> for one
            person, {task.people} at it
            {task.float_h !== null && task.float_h > 0 && (
              <>; with this crew it may be <Num value={task.float_h} q="hours" /> of work later without the end being later</>
            )}
            {task.done > 0 && <>; {Math.round(task.done * 100)} % are done</>}.
          </p>
          <WaitsFor task={task} planned={planned} />
          <CardLinks task={task} />
          <Who task={task} />
          <details className="my-2">
            <summary className="cursor-pointer">Change it{edit ? ' (changed by hand)' : ''}</summary>
            <ChangeTask task={task} />
          </details>
          <DoneForm key={task.id} task={task} />
        </>
      )}
    </Part>
  );
} // prettier-ignore

/** Where the hours of a task come from. */
function hoursOrigin(task: PlannedTask, { rates }: Planned, units: Units): Origin {
  const rate = rates[task.kind] ?? AS_SAID;
  return {
    kind: 'formula',
    title: `Hours of ${task.name}`,
    formula:
      rate.days > 0
        ? `counts times hours of each, times ${rate.times.toFixed(2)}: what this crew took on ${rate.days} ${rate.days === 1 ? 'day' : 'days'}` // prettier-ignore
        : 'counts times hours of each; nothing of the kind was done yet',
    inputs: task.amounts.map((a) => ({
      name: `${Math.round(a.n * 10) / 10} ${inUnits(a.of, units)}`,
      text: say(a.hours, 'hours', units),
      ...(a.figure.startsWith('defaults.') ? { path: a.figure } : {}),
    })),
  };
}

/** The ways of the hand that a task wants. */
function CardLinks({ task }: { task: PlannedTask }) {
  const cards = kindOf(task.kind).cards.flatMap((id) => CARDS.filter((c) => c.id === id));
  if (cards.length === 0) return null;
  return (
    <p className="my-1 flex flex-wrap gap-1">
      <span className="label">Cards</span>
      {cards.map((c) => (
        <Button
          key={c.id}
          className="small"
          onClick={() => useBuildTab.setState({ tab: 'cards', card: c.id })}
        >
          {c.name}
        </Button>
      ))}
    </p>
  );
}

function WaitsFor({ task, planned }: { task: PlannedTask; planned: Planned }) {
  const lines = useSession((s) => s.plan.lines);
  const waits = task.after.flatMap((a) => {
    const before = planned.tasks.find((t) => t.id === a.id);
    return before && before.start !== null ? [{ ...a, before }] : [];
  });
  if (waits.length === 0) return null;
  const shown = waits.slice(0, 4);
  return (
    <p className="label">
      Waits for{' '}
      {shown
        .map(({ before, wait_h, why }) => {
          const name = before.line === task.line ? before.name : fullName(before, lines);
          return wait_h > 0 ? `${name} and ${wait_h} h (${why ?? 'it sets'})` : name;
        })
        .join('; ')}
      {waits.length > shown.length ? `; and ${waits.length - shown.length} more` : ''}.
    </p>
  );
}

function Who({ task }: { task: PlannedTask }) {
  const w = useWorking();
  const edit = useSession((s) => s.plan.build?.tasks?.[task.id]);
  const planned = new Set(task.shifts.flatMap((s) => s.who));
  const given = edit?.who ?? [];
  const toggle = (id: string, on: boolean) => {
    const who = on ? [...given, id] : given.filter((g) => g !== id);
    editTask(task, 'given to', { who: who.length > 0 ? who : undefined });
  };
  return (
    <fieldset className="my-1 flex flex-wrap gap-x-3 gap-y-1">
      <legend className="label">Given to (nobody ticked: whoever is free)</legend>
      {w.crew.map((m) => (
        <Check
          key={m.id}
          label={`${m.name}${planned.has(m.id) && !given.includes(m.id) ? ' (planned)' : ''}`}
          checked={given.includes(m.id)}
          onChange={(on) => toggle(m.id, on)}
        />
      ))}
    </fieldset>
  );
}

function ChangeTask({ task }: { task: PlannedTask }) {
  const edit = useSession((s) => s.plan.build?.tasks?.[task.id]);
  const whole = task.id.split('#')[0]!;
  const split = useSession((s) => s.plan.build?.tasks?.[whole]?.split ?? 1);
  return (
    <div className="flex flex-col items-start gap-2 py-2">
      <DateField
        label="Not before"
        value={edit?.from?.slice(0, 10) ?? ''}
        onCommit={(day) => editTask(task, 'not before', { from: day ? `${day}T${edit?.from?.slice(11) ?? '00:00'}` : undefined })} // prettier-ignore
      />
      <Check
        label="before all that could go before it"
        checked={edit?.first ?? false}
        onChange={(on) => editTask(task, 'comes first', { first: on || undefined })}
      />
      <QuantityField
        label="People at once"
        q="count"
        whole
        min={1}
        max={20}
        width="w-14"
        value={edit?.people ?? task.people}
        onCommit={(people) => editTask(task, 'people', { people })}
      />
      <QuantityField
        label="Hours for one person"
        q="hours"
        min={0.25}
        max={2000}
        width="w-16"
        value={edit?.hours ?? task.work_h}
        onCommit={(hours) => editTask(task, 'hours', { hours })}
      />
      <QuantityField
        label="In pieces"
        q="count"
        whole
        min={1}
        max={20}
        width="w-14"
        value={split}
        onCommit={(n) => editTask({ ...task, id: whole }, 'in pieces', { split: n > 1 ? n : undefined })} // prettier-ignore
      />
      <span className="flex flex-wrap gap-2">
        <Button onClick={() => editTask({ ...task, id: whole }, 'left out', { out: true })}>
          Leave it out
        </Button>
        {edit && (
          <Button onClick={() => editTask(task, 'put back', { hours: undefined, people: undefined, from: undefined, first: undefined, who: undefined, split: undefined })}>
            As it was planned
          </Button>
        )}
      </span>
    </div>
  );
} // prettier-ignore
