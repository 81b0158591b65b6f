/** One day: who does what when and where, what is to be minded, and what goes on the trailer. On screen and on paper. */
import type { ReactNode } from 'react';
import { inUnits } from '../../core/base/prose.js';
import { say, type Units } from '../../core/base/units.js';
import type { Working } from '../../core/build/calendar.js';
import { work } from '../../core/build/kinds.js';
import type { DayLoad, DayTask, Load } from '../../core/build/loadout.js';
import type { Shift } from '../../core/build/shifts.js';
import type { Plan } from '../../core/plan/schema.js';
import { dayName } from './built.js';
import { DayMap } from './DayMap.js';

interface DaySheetProps {
  readonly load: DayLoad;
  readonly plan: Plan;
  readonly w: Working;
  /** What stands before each thing that is loaded: a box to tick, or one that ticks. */
  readonly tick: (row: Load) => ReactNode;
  /** What stands behind it. */
  readonly behind?: (row: Load) => ReactNode;
  /** Things that were forgotten before. */
  readonly before: ReactNode;
  readonly below?: ReactNode;
}

export function DaySheet({ load, plan, w, tick, behind, before, below }: DaySheetProps) {
  const { units } = plan;
  const name = (id: string) => w.crew.find((m) => m.id === id)?.name ?? id;
  const lines = [...new Set(load.tasks.flatMap((t) => t.task.line ?? []))];
  return (
    <div data-day={load.day}>
      {/* On paper the map floats: a long list of tasks would take a grid onto the next page as a whole. */}
      <div className="grid gap-x-6 @[46rem]:grid-cols-[1fr_20rem] print:block">
        <div className="order-last break-inside-avoid print:float-right print:ml-[5mm] print:w-[80mm]">
          <DayMap plan={plan} tasks={load.tasks} />
        </div>
        <section>
          <h2 className="heading mb-1">Tasks</h2>
          <ol className="mb-3">
            {load.tasks.map((t) => (
              <TaskRow key={t.task.id} of={t} number={t.task.line === null ? null : lines.indexOf(t.task.line) + 1} plan={plan} name={name} /> // prettier-ignore
            ))}
          </ol>
        </section>
      </div>
      <section className="clear-both mb-3 break-inside-avoid">
        <h2 className="heading mb-1">Mind</h2>
        <ul className="border-warn columns-1 gap-x-6 border-l-4 pl-2 @[46rem]:columns-2 print:columns-2">
          {load.safety.map((c) => (
            <li key={c} className="break-inside-avoid">
              {inUnits(work.cautions[c]!.name, units)}
            </li>
          ))}
        </ul>
        <p className="label mt-1">
          These are the usual cautions and not all there is to mind: local codes and the makers’ instructions go before
          them.
        </p>
      </section>
      <section>
        <h2 className="heading mb-1 break-after-avoid">On the trailer</h2>
        <p className="mb-1 break-after-avoid" data-weight>
          About {say(load.kg, 'mass', units)}; the trailer carries {say(load.carries_kg, 'mass', units)}.{' '}
          {load.trips > 1 && <strong>That is {load.trips} trips.</strong>} What is listed last is put down last: load it
          first, at the front.
        </p>
        {before}
        <table className="sheet-table w-full print:text-[0.86rem] [&_td]:print:py-[0.5mm]" aria-label="Load-out">
          <thead>
            <tr>
              <th scope="col">
                <span className="sr-only">loaded</span>
              </th>
              <th scope="col">what</th>
              <th scope="col" className="n">
                how many
              </th>
              <th scope="col" className="n">
                weighs
              </th>
              <th scope="col">for</th>
              {behind && (
                <th scope="col">
                  <span className="sr-only">was it missing</span>
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {load.loads.map((row) => (
              <tr key={row.item} data-load={row.item}>
                <td>{tick(row)}</td>
                <td>{row.name}</td>
                <td className="n figure">{amountOf(row, units)}</td>
                <td className="n figure">{row.kg === null || row.kg < 0.5 ? '' : say(row.kg, 'mass', units)}</td>
                <td className="label">{dropsOf(row, load.tasks, plan)}</td>
                {behind && <td>{behind(row)}</td>}
              </tr>
            ))}
          </tbody>
        </table>
        {below}
      </section>
    </div>
  );
} // prettier-ignore

function TaskRow({
  of: { task, shifts, part, parts },
  number,
  plan,
  name,
}: {
  of: DayTask;
  number: number | null;
  plan: Plan;
  name: (id: string) => string;
}) {
  const first = shifts[0]!;
  const line = task.line === null ? null : plan.lines[task.line];
  const whole = part[0] <= 0.001 && part[1] >= 0.999;
  const length = task.to_m - task.from_m;
  const posts = parts.filter(([item]) => item.startsWith('post.')).reduce((n, [, k]) => n + k, 0);
  return (
    <li className="border-rule flex break-inside-avoid gap-2 border-b py-1">
      <span className="figure shrink-0">
        {first.from}–{shifts.at(-1)!.to}
      </span>
      <span>
        {number !== null && <strong>{number} · </strong>}
        {line ? `${line.name}: ` : ''}
        {task.name}
        {posts > 0 && `, ${posts} ${posts === 1 ? 'post' : 'posts'}`}
        {!whole && length > 12 && `, from ${say(task.from_m + length * part[0], 'along', plan.units)} to ${say(task.from_m + length * part[1], 'along', plan.units)}`}
        {!whole && length <= 12 && `, ${Math.round(part[0] * 100)} to ${Math.round(part[1] * 100)} %`}
        <span className="label"> · {whoWords(shifts, name)}</span>
      </span>
    </li>
  );
} // prettier-ignore

/** Who is at it; where somebody is relieved, from when on. */
export function whoWords(shifts: readonly Shift[], name: (id: string) => string): string {
  const turns = shifts.filter((s, k) => k === 0 || s.who.join() !== shifts[k - 1]!.who.join());
  return turns
    .map((s, k) => `${k > 0 ? `from ${s.from} ` : ''}${s.who.map(name).join(', ')}`)
    .join('; ');
}

export function amountOf({ n, unit }: Load, units: Units): string {
  if (unit === 'm') return say(n, 'length', units);
  if (unit === 't') return say(n, 'tonne', units);
  const whole = unit === 'bag' ? Math.ceil(n * 10 - 1e-6) / 10 : Math.ceil(n - 1e-6);
  return `${whole}${unit === 'bag' ? ' bags' : ''}`;
}

/** Which lines it is for, and where along them. */
function dropsOf(row: Load, tasks: readonly DayTask[], plan: Plan): string {
  if (row.why === 'person') return 'everybody';
  const lines = [...new Set(row.drops.map((d) => d.line))];
  if (row.why === 'tool') {
    const kinds = row.drops.map((d) => tasks.find((t) => t.task.id === d.task)?.task.name ?? '');
    return kinds[0] ?? '';
  }
  return lines
    .map((id) => {
      const own = row.drops.filter((d) => d.line === id);
      const at = own.flatMap((d) => d.at_m).sort((a, b) => a - b);
      const name = id === null ? 'the unit' : (plan.lines[id]?.name ?? id);
      if (at.length === 0) return name;
      const spots = [...new Set(at.map((s) => say(s, 'along', plan.units)))];
      return spots.length <= 3 ? `${name}: ${spots.join(', ')}` : `${name}: ${spots[0]} to ${spots.at(-1)}`;
    })
    .join('; ');
} // prettier-ignore

/** A heading of a sheet. */
export const sheetTitle = (load: DayLoad, plan: Plan): string =>
  `${plan.name}, ${dayName(load.day)}`;
