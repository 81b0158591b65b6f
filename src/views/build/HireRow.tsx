/** A hired machine over the days: where it works, and where it stands and is paid for. */
import { MACHINES } from '../../core/build/kinds.js';
import type { PlannedTask } from '../../core/build/shifts.js';
import type { Hire } from '../../core/build/weighed.js';
import type { Frame } from './chartFrame.js';

interface HireRowProps {
  readonly hire: Hire;
  readonly tasks: readonly PlannedTask[];
  readonly frame: Frame;
  readonly names: number;
}

export function HireRow({ hire, tasks, frame, names }: HireRowProps) {
  const used = new Set(tasks.flatMap((t) => (t.machine === hire.item ? t.shifts.map((s) => s.day) : []))); // prettier-ignore
  const name = MACHINES[hire.item] ?? hire.item;
  return (
    <div className={`border-rule border-b py-1 ${names ? 'flex' : ''}`} data-hire={hire.item}>
      <span className="shrink-0 truncate" style={names ? { width: names } : {}}>
        Hired {name}
      </span>
      <div
        className="relative h-5 grow"
        role="img"
        aria-label={`${name}: ${hire.days} days hired, ${hire.idle} of them idle`}
      >
        {frame.days.map((day, k) =>
          day >= hire.from && day <= hire.to ? (
            <span
              key={day}
              className={`absolute inset-y-1 ${used.has(day) ? 'bar-hired' : 'bar-idle'}`}
              style={{ left: k * frame.dayWidth + 0.5, width: Math.max(1, frame.dayWidth - 1) }}
            />
          ) : null,
        )}
      </div>
    </div>
  );
}
