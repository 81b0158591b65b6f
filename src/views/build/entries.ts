/** The work as entries of a calendar: each stretch of a day at a task, and when braces are taken up later on. */
import type { Working } from '../../core/build/calendar.js';
import { dayNumber, dayText } from '../../core/base/days.js';
import { kindOf } from '../../core/build/kinds.js';
import { work } from '../../core/build/kinds.js';
import type { PlannedTask } from '../../core/build/shifts.js';
import type { Plan } from '../../core/plan/schema.js';
import type { CalendarEntry } from '../../formats/calendarFile.js';

/** Months after the wire was tensioned at which braces and wires are taken up in the first year, then yearly. */
const TAKE_UP = [2.5, 5, 7.5, 10, 12, 24];

export function calendarEntries(
  tasks: readonly PlannedTask[],
  w: Pick<Working, 'crew'>,
  plan: Pick<Plan, 'lines'>,
): CalendarEntry[] {
  const name = (id: string) => w.crew.find((m) => m.id === id)?.name ?? id;
  const where = (t: PlannedTask) =>
    t.line === null ? '' : `${plan.lines[t.line]?.name ?? t.line}: `;
  const stretches = tasks.flatMap((t) =>
    t.shifts.map((s, k): CalendarEntry => ({
      id: `${t.id}.${k}`,
      title: `${where(t)}${t.name}`,
      words: [
        s.who.map(name).join(', '),
        ...kindOf(t.kind).safety.map((c) => work.cautions[c]?.name ?? ''),
      ].join('\n'),
      start: `${s.day}T${s.from}`,
      end: `${s.day}T${s.to}`,
    })),
  );
  const later = tasks
    .filter((t) => t.kind === 'again' && (t.end ?? t.doneOn) !== null)
    .flatMap((t) =>
      TAKE_UP.map((months): CalendarEntry => {
        const day = dayNumber((t.end ?? t.doneOn)!.slice(0, 10)) + Math.round(months * 30.4);
        return {
          id: `${t.id}.month${months}`,
          title: `${where(t)}braces and tension taken up again`,
          words: 'Every two to three months in the first year, then yearly.',
          start: dayText(day),
          end: dayText(day + 1),
        };
      }),
    );
  return [...stretches, ...later];
}
