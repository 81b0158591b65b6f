/** The calendar of care: what is late, due and coming, what it risks to leave it, and a mark when it is done. */
import { CalendarDays } from 'lucide-react';
import { dayNumber, dayText } from '../../core/base/days.js';
import { say } from '../../core/base/units.js';
import { careOf, type Due } from '../../core/rounds/care.js';
import { isSimulated, type EventKind } from '../../core/rounds/logged.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useStanding } from '../../session/kept.js';
import { happened } from '../../session/records.js';
import { refuse, useSession } from '../../session/session.js';
import { today } from '../../session/today.js';
import { Button } from '../../ui/parts/Button.js';
import { Caution, Part } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { useUnits } from '../../ui/parts/Num.js';
import { saveText } from '../../ui/parts/saveText.js';
import { dayName } from '../build/built.js';
import type { TensionCheck } from '../strain/PastChecks.js';
import { useDay, useLog, useRoundsTab, type EventRecord } from './rounds.js';

/** What is put down when somebody says that it was done; null: a reading says it. */
const DONE: Readonly<Record<Due['care'], EventKind | null>> = {
  volts: null,
  growth: 'cut',
  braces: 'braces',
  creep: null,
  rods: 'rods',
  insulators: 'insulators',
  battery: null,
  storm: 'seen',
  trained: 'trained',
};

const STATE = { late: '▲ late', due: '● due', coming: '○ coming' } as const;

export function useCare(): { readonly care: Due[]; readonly known: boolean } {
  const plan = useSession((s) => s.plan);
  const report = useSession((s) => s.report);
  const cat = useCatalogue();
  const log = useLog();
  const events = useStanding<EventRecord>('events');
  const tension = useStanding<TensionCheck>('tension');
  const care = careOf(plan, report, cat, { read: log.records.filter((r) => !isSimulated(r)), events: events.records, tension: tension.records.filter((t) => !isSimulated(t)) }, today());
  return { care, known: log.known && events.known && tension.known };
} // prettier-ignore

export function CareTab() {
  const { care, known } = useCare();
  const id = useSession((s) => s.id);
  const { who } = useDay();
  const risk = useRisk();
  if (!known) return <p role="status">Asking for the log …</p>;
  if (care.length === 0)
    return (
      <p className="mt-4 max-w-[38em]">
        Nothing is due: no line has a day on which it was strung (Strain, Tight today), and nothing was read yet. From then
        on its care stands here.
      </p>
    );
  const done = (d: Due) => {
    const what = DONE[d.care];
    if (what) happened('events', { what, line: d.line, at_m: null, spot: null, photo: null, note: '', who });
    else useRoundsTab.setState({ tab: 'round', point: d.care === 'battery' ? `${d.unit} battery_volts` : null });
  };
  return (
    <div className="max-w-[64em]">
      <Part title="Calendar of care" aside={<CareCalendar care={care} />}>
        <DataTable<Due>
          label="Calendar of care"
          rows={care}
          keyOf={(d) => d.id}
          rowProps={(d) => ({ 'data-care': d.id, 'data-state': d.state })}
          columns={[
            { name: 'due', head: 'plain', by: (d) => d.due, className: 'whitespace-nowrap', cell: (d) => <><span className={d.state === 'late' ? 'text-stop font-semibold' : ''}>{STATE[d.state]}</span><span className="label block">{dayName(d.due)}</span></> },
            { name: 'what', by: (d) => d.title, cell: (d) => <><strong>{d.title}</strong><span className="label block">{d.why}</span></> },
            { name: 'last', by: (d) => d.last ?? '', className: 'whitespace-nowrap', cell: (d) => (d.last ? dayName(d.last) : 'never') },
            { name: 'what it risks', cell: (d) => risk(d) },
            {
              name: 'done',
              quiet: true,
              cell: (d) =>
                d.care === 'creep' ? <a className="button small whitespace-nowrap" href={`/p/${id}/strain?line=${d.line}`}>to Strain</a>
                : <Button className="small whitespace-nowrap" aria-label={`${DONE[d.care] ? 'Done' : 'Read now'}: ${d.title}`} onClick={() => done(d)}>{DONE[d.care] ? 'done' : 'read now'}</Button>,
            },
          ]}
        />
      </Part>
      <Caution>Switch off, lock the switch and prove the fence dead before you cut, clean or tighten at it. Sprays by their label and the local code.</Caution>
    </div>
  );
} // prettier-ignore

/** What it risks to leave it, in words with their figure. */
function useRisk(): (d: Due) => string {
  const units = useUnits();
  const lines = useSession((s) => s.plan.lines);
  return ({ risk, state }) => {
    if (!risk) return '';
    if (risk.kind === 'volts') {
      const name = lines[risk.line]?.name ?? risk.line;
      return `left uncut and wet, ${say(risk.v_V / 1000, 'kilovolt', units)} on ${name}; the stock asks for ${say(risk.aim_V / 1000, 'kilovolt', units)}`;
    }
    if (risk.kind === 'earth') return `foretold for the driest month: ${say(risk.reading_V, 'smallVolt', units)}; at most ${say(risk.limit_V, 'smallVolt', units)}`;
    if (risk.kind === 'tension') return `about ${Math.round(100 * risk.share)} % of its tension is gone by then`;
    return `a dead fence goes unseen ${Math.max(1, Math.round(risk.days))} days on the average${state === 'late' ? ', and no one looks' : ''}`;
  };
} // prettier-ignore

function CareCalendar({ care }: { care: readonly Due[] }) {
  const name = useSession((s) => s.plan.name);
  return (
    <Button
      onClick={() =>
        void import('../../formats/calendarFile.js')
          .then(({ calendarFile }) =>
            saveText(
              calendarFile(name, care.map((d) => ({ id: `care ${name} ${d.id}`, title: d.title, words: d.why, start: d.due, end: dayText(dayNumber(d.due) + 1) }))),
              `${name} care.ics`,
              'text/calendar',
            ),
          )
          .catch(() => refuse('The calendar file could not be made.'))
      }
    >
      <CalendarDays size={14} aria-hidden /> Calendar file
    </Button>
  );
} // prettier-ignore
