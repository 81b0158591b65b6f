/** Everything that was put down: readings and what happened, newest first; in and out as CSV. */
import { FileDown, FileUp } from 'lucide-react';
import { useId, useState } from 'react';
import { EVENTS, type EventKind } from '../../core/rounds/logged.js';
import { useStanding } from '../../session/kept.js';
import { happened, takeBack } from '../../session/records.js';
import { refuse, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { WordsField } from '../../ui/parts/bookFields.js';
import { Part, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { useUnits } from '../../ui/parts/Num.js';
import { saveText } from '../../ui/parts/saveText.js';
import { dayName } from '../build/built.js';
import { Photo, PhotoField } from '../build/PhotoField.js';
import { PlaceOnLine } from './Elsewhere.js';
import {
  EVENT_WORDS,
  useDay,
  useLog,
  usePointName,
  valueWords,
  type EventRecord,
  type ReadingRecord,
} from './rounds.js';

type Row = { readonly id: string; readonly time: string } & (
  { readonly reading: ReadingRecord } | { readonly event: EventRecord }
);

export function LogTab() {
  const log = useLog();
  const events = useStanding<EventRecord>('events');
  const rows: Row[] = [
    ...log.records.map((reading) => ({ id: reading.id, time: reading.time, reading })),
    ...events.records.map((event) => ({ id: event.id, time: event.time, event })),
  ].sort((a, b) => b.time.localeCompare(a.time));
  return (
    <div className="max-w-[64em]">
      <PutDown />
      <Part title="The log" aside={<InAndOut />}>
        {rows.length === 0 && <p>{log.known ? 'Nothing was put down yet.' : 'Asking for the log …'}</p>}
        {log.older && <p className="label">The newest 1,500 readings: older ones stay in the store.</p>}
        {rows.length > 0 && <LogTable rows={rows} />}
      </Part>
    </div>
  );
} // prettier-ignore

function LogTable({ rows }: { rows: readonly Row[] }) {
  const name = usePointName();
  const units = useUnits();
  const lines = useSession((s) => s.plan.lines);
  const where = (r: Row): string => {
    if ('reading' in r) {
      const { kind, line, at_m, unit, spot } = r.reading;
      return line !== null || unit ? name({ kind, line, at_m, unit: unit ?? '' }) : (spot ?? '');
    }
    return r.event.line !== null ? (lines[r.event.line]?.name ?? r.event.line) : '';
  };
  const what = (r: Row): string =>
    'reading' in r
      ? `${valueWords(r.reading.kind, r.reading.value, units)}${r.reading.kind === 'amps' ? ` towards its ${r.reading.towards ?? 'end'}` : ''}`
      : EVENT_WORDS[r.event.what];
  return (
    <DataTable<Row>
      label="The log"
      rows={rows}
      keyOf={(r) => r.id}
      scroll="max-h-[60vh]"
      finds={(r) => `${where(r)} ${what(r)} ${r.time}`}
      rowProps={(r) => ({ 'data-logged': r.id })}
      columns={[
        { name: 'when', head: 'plain', by: (r) => r.time, cell: (r) => `${dayName(r.time.slice(0, 10))}, ${clock(r.time)}` },
        { name: 'where', by: where, cell: where },
        { name: 'what', n: true, by: what, cell: what },
        { name: 'day', cell: (r) => ('reading' in r ? [r.reading.weather, r.reading.growth && `growth ${r.reading.growth}`].filter(Boolean).join(', ') : '') },
        { name: 'who', cell: (r) => ('reading' in r ? r.reading.who : r.event.who) || '–' },
        {
          name: 'note',
          cell: (r) => (
            <>
              {'reading' in r ? r.reading.note : r.event.note}
              {'event' in r && r.event.photo && <Photo hash={r.event.photo} words={`Photo: ${EVENT_WORDS[r.event.what]}`} />}
            </>
          ),
        },
        {
          name: 'take back',
          quiet: true,
          cell: (r) => (
            <>
              <Button className="small" aria-label={`Take back ${what(r)}, ${where(r)}`} onClick={() => takeBack('reading' in r ? 'readings' : 'events', 'reading' in r ? r.reading : r.event)}>
                take back
              </Button>
              {('reading' in r ? r.reading : r.event).waiting && <span className="label"> not sent yet</span>}
            </>
          ),
        },
      ]}
    />
  );
} // prettier-ignore

/** As the clock on the wall had it. */
function clock(time: string): string {
  const at = new Date(time);
  return `${String(at.getHours()).padStart(2, '0')}:${String(at.getMinutes()).padStart(2, '0')}`;
}

/** Something that happened: a storm, grass cut, stock moved, what was seen. */
function PutDown() {
  const [what, setWhat] = useState<EventKind>('storm');
  const [place, setPlace] = useState({ line: '', at_m: 0 });
  const [note, setNote] = useState('');
  const [photo, setPhoto] = useState<string | null>(null);
  const [said, setSaid] = useState('');
  const { who } = useDay();
  return (
    <Part title="Put something down">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Select label="What" value={what} width="max-w-[15rem]" options={EVENTS.map((e) => [e, EVENT_WORDS[e]] as const)} onChange={setWhat} />
        <PlaceOnLine line={place.line} at_m={place.at_m} none="the whole fence" onChange={(line, at_m) => setPlace({ line, at_m })} />
        <WordsField label="note" spoken="Note on what happened" value={note} onCommit={setNote} />
        <PhotoField label="Photo of what happened" onTaken={setPhoto} />
        {photo && <Photo hash={photo} words="Photo that will be put down" />}
        <Button
          strong
          onClick={() => {
            happened('events', { what, line: place.line || null, at_m: place.line ? place.at_m : null, spot: null, photo, note, who });
            setSaid(`${EVENT_WORDS[what]} put down.`);
            setNote('');
            setPhoto(null);
          }}
        >
          Put down
        </Button>
        <span role="status">{said}</span>
      </div>
    </Part>
  );
} // prettier-ignore

function InAndOut() {
  const id = useId();
  const plan = useSession((s) => s.plan);
  const { records } = useLog();
  const [said, setSaid] = useState<{ fault?: string; words?: string }>({});
  const take = async (file: File) => {
    setSaid({});
    try {
      const { parseReadings } = await import('../../formats/readingCsv.js');
      const rows = parseReadings(await file.text(), plan);
      const known = new Set(records.map((r) => `${r.time} ${r.line} ${r.at_m} ${r.unit ?? null} ${r.kind} ${r.value}`));
      const fresh = rows.filter((r) => !known.has(`${r.time} ${r.line} ${r.at_m} ${r.unit} ${r.kind} ${r.value}`));
      for (const r of fresh) happened('readings', r);
      const were = rows.length - fresh.length;
      setSaid({ words: `${fresh.length} readings put down${were ? `; ${were} were there already` : ''}.` });
    } catch (error) {
      setSaid({ fault: `${file.name}: ${(error as Error).message}. Nothing of it was taken.` });
    }
  };
  return (
    <span className="flex flex-wrap items-center gap-2">
      <label htmlFor={id} className="button small focus-within:outline-2">
        <FileUp size={14} aria-hidden /> Readings from CSV
        <input id={id} type="file" className="sr-only" accept=".csv,text/csv" onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) void take(file);
        }} />
      </label>
      <Button
        className="small"
        onClick={() =>
          void import('../../formats/readingCsv.js')
            .then(({ readingsCsv }) => saveText(readingsCsv(records, plan), `${plan.name} readings.csv`, 'text/csv'))
            .catch(() => refuse('The file could not be made.'))
        }
      >
        <FileDown size={14} aria-hidden /> CSV
      </Button>
      {said.words && <span role="status">{said.words}</span>}
      {said.fault && <FieldFault>{said.fault}</FieldFault>}
    </span>
  );
} // prettier-ignore
