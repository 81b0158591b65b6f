/** The plan of work as a calendar file, for the phone. */
import { CalendarDays } from 'lucide-react';
import type { Planned } from '../../core/build/planned.js';
import { refuse, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { saveText } from '../../ui/parts/saveText.js';
import { calendarEntries } from './entries.js';
import { useWorking } from './built.js';

export function CalendarButton({ planned }: { planned: Planned }) {
  const plan = useSession((s) => s.plan);
  const w = useWorking();
  return (
    <Button
      onClick={() =>
        void import('../../formats/calendarFile.js')
          .then(
            ({ calendarFile }) =>
            saveText(calendarFile(plan.name, calendarEntries(planned.tasks, w, plan)), `${plan.name} work.ics`, 'text/calendar'), // prettier-ignore
          )
          .catch(() => refuse('The calendar file could not be made.'))
      }
    >
      <CalendarDays size={14} aria-hidden /> Calendar file
    </Button>
  );
}
