/** What was repaired, with what and by whom: it draws down the shed, and the strand is as strong as its new joint. */
import { useState } from 'react';
import { round } from '../../core/base/numbers.js';
import { say } from '../../core/base/units.js';
import { figure, recordOf } from '../../core/plan/catalogue.js';
import { REPAIRED, type Repaired } from '../../core/rounds/logged.js';
import {
  costByYear,
  costOf,
  partsOf,
  weakerJoint,
  type Repair,
  type YearCost,
} from '../../core/rounds/repairs.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useStanding, type KeptRecord } from '../../session/kept.js';
import { happened, takeBack } from '../../session/records.js';
import { commit, useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { WordsField } from '../../ui/parts/bookFields.js';
import { Caution, Part, QuantityField, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { useUnits, type Origin } from '../../ui/parts/Num.js';
import { useMoney } from '../../ui/parts/money.js';
import { dayName } from '../build/built.js';
import { Photo, PhotoField } from '../build/PhotoField.js';
import { PlaceOnLine } from './Elsewhere.js';
import { useDay } from './rounds.js';

type RepairRecord = KeptRecord &
  Repair & { readonly photo: string | null; readonly waiting?: boolean };

const WHAT: Readonly<Record<Repaired, string>> = {
  strand: 'Broken strand', joint: 'Joint or jumper', insulator: 'Insulator', post: 'Post', end: 'End or brace', growth: 'Growth off the wire',
  branch: 'Branch or tree off the wire', earth: 'Earth', unit: 'Unit or lead', gate: 'Gate or its cable', other: 'Something else',
}; // prettier-ignore
const STRANDS = [
  ['', 'all or none'],
  ...Array.from({ length: 20 }, (_, k) => [String(k + 1), `strand ${k + 1}`] as const),
] as const;
const COST: Origin = {
  kind: 'formula',
  title: 'What repairs cost',
  formula: 'parts at the prices of that day + hours × what an hour counts',
  source: 'the prices of Supplies',
  inputs: [{ name: 'An hour of repair', path: 'defaults.care.hourly.value' }],
};

export function RepairsTab() {
  const { records, known } = useStanding<RepairRecord>('repairs');
  return (
    <div className="max-w-[64em]">
      <PutRepair />
      {records.length > 0 ? (
        <>
          <Years repairs={records} />
          <Repairs repairs={records} />
        </>
      ) : (
        <p>{known ? 'No repair was put down yet.' : 'Asking for the repairs …'}</p>
      )}
    </div>
  );
}

function PutRepair() {
  const cat = useCatalogue();
  const money = useMoney();
  const { who } = useDay();
  const [place, setPlace] = useState({ line: '', at_m: 0 });
  const [what, setWhat] = useState<Repaired>('strand');
  const [strand, setStrand] = useState('');
  const [joint, setJoint] = useState('');
  const [parts, setParts] = useState<Readonly<Record<string, number>>>({});
  const [hours, setHours] = useState(0.5);
  const [note, setNote] = useState('');
  const [photo, setPhoto] = useState<string | null>(null);
  const [said, setSaid] = useState<{ words: string; line: string; joint: string | null } | null>(null);
  const cost = costOf(parts, hours, figure(cat, 'care.hourly'), cat);
  const put = () => {
    const line = place.line || null;
    const id = happened('repairs', {
      line, at_m: line ? place.at_m : null, spot: null, what, strand: strand ? Number(strand) : null, joint: joint || null,
      parts: JSON.stringify(parts), hours, cost: round(cost, 2), photo, note, who,
    });
    for (const [item, n] of Object.entries(parts)) happened('stock', { item, quantity: -n, length_m: null, why: 'repair', note: `repair ${id}`, who });
    setSaid({ words: `${WHAT[what]} put down: ${money(cost)}.`, line: place.line, joint: joint || null });
    setParts({});
    setNote('');
    setPhoto(null);
  };
  return (
    <Part title="Put a repair down">
      <Caution>Switch off, lock the switch and prove it dead before you touch the wire; ease the tension before you cut.</Caution>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Select label="What" value={what} width="max-w-[14rem]" options={REPAIRED.map((r) => [r, WHAT[r]] as const)} onChange={setWhat} />
        <PlaceOnLine line={place.line} at_m={place.at_m} none="not on a line" onChange={(line, at_m) => setPlace({ line, at_m })} />
        <Select label="Strand" value={strand} options={STRANDS} onChange={setStrand} />
        <Select label="Joined with" value={joint} width="max-w-[14rem]" options={[['', 'no joint'], ...Object.entries(cat.joints).map(([id, j]) => [id, `${j.name}, ${Math.round(100 * j.efficiency)} %`] as const)]} onChange={setJoint} />
        <QuantityField label="took" q="hours" min={0} max={1000} width="w-16" value={hours} onCommit={setHours} />
      </div>
      <Used parts={parts} onChange={setParts} />
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <WordsField label="note" spoken="Note on the repair" value={note} onCommit={setNote} />
        <PhotoField label="Photo of the repair" onTaken={setPhoto} />
        {photo && <Photo hash={photo} words="Photo that will be put down" />}
        <span>{money(cost)}</span>
        <Button strong onClick={put}>Put down</Button>
      </div>
      {said && (
        <p className="mt-2" role="status" data-repaired>
          {said.words} <Weaker line={said.line} joint={said.joint} />
        </p>
      )}
    </Part>
  );
} // prettier-ignore

/** What a repair used of the price book: taken out of the shed. */
function Used({ parts, onChange }: { parts: Readonly<Record<string, number>>; onChange: (parts: Record<string, number>) => void }) {
  const cat = useCatalogue();
  const items = Object.entries(cat.prices).sort(([, a], [, b]) => a.name.localeCompare(b.name));
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      <Select
        label="Used"
        value=""
        width="max-w-[16rem]"
        options={[['', 'add a part …'], ...items.filter(([id]) => !(id in parts)).map(([id, p]) => [id, p.name] as const)]}
        onChange={(id) => id && onChange({ ...parts, [id]: 1 })}
      />
      {Object.entries(parts).map(([id, n]) => (
        <span key={id} className="inline-flex items-center gap-1">
          <QuantityField
            label={cat.prices[id]?.name ?? id}
            q="count"
            min={0}
            max={10_000}
            width="w-14"
            value={n}
            onCommit={(v) => onChange(v > 0 ? { ...parts, [id]: v } : Object.fromEntries(Object.entries(parts).filter(([other]) => other !== id)))}
          />
          <span className="label">{cat.prices[id]?.per ?? ''}</span>
        </span>
      ))}
    </div>
  );
} // prettier-ignore

/** A joint that is weaker than what the line has: the plan is told by a press. */
function Weaker({ line, joint }: { line: string; joint: string | null }) {
  const own = useSession((s) => s.plan.lines[line]);
  const cat = useCatalogue();
  const weaker = own ? weakerJoint(own, joint, cat) : null;
  if (!own || !weaker) return null;
  const name = recordOf(cat.joints, weaker.joint).name;
  return (
    <>
      △ {name} holds {Math.round(100 * weaker.efficiency)} % of the wire, less than the {Math.round(100 * weaker.was)} % that {own.name} is
      reckoned with.{' '}
      <Button className="small whitespace-nowrap" onClick={() => commit(`weakest joint of ${own.name}: ${name}`, (d) => void (d.lines[line]!.join = weaker.joint))}>
        Reckon with it
      </Button>
    </>
  );
} // prettier-ignore

function Years({ repairs }: { repairs: readonly Repair[] }) {
  const lines = useSession((s) => s.plan.lines);
  const money = useMoney();
  const units = useUnits();
  return (
    <Part title="What repairs cost">
      <DataTable<YearCost>
        label="Cost of repairs by year and line"
        rows={costByYear(repairs)}
        keyOf={(r) => `${r.year} ${r.line}`}
        columns={[
          { name: 'year', head: 'plain', by: (r) => r.year, cell: (r) => r.year },
          { name: 'line', by: (r) => r.line ?? '', cell: (r) => (r.line === null ? 'not on a line' : (lines[r.line]?.name ?? r.line)) },
          { name: 'repairs', n: true, by: (r) => r.count, cell: (r) => r.count },
          { name: 'time', n: true, by: (r) => r.hours, cell: (r) => say(r.hours, 'hours', units) },
          { name: 'cost', n: true, from: COST, by: (r) => r.cost, cell: (r) => money(r.cost) },
        ]}
      />
    </Part>
  );
} // prettier-ignore

function Repairs({ repairs }: { repairs: readonly RepairRecord[] }) {
  const lines = useSession((s) => s.plan.lines);
  const money = useMoney();
  const cat = useCatalogue();
  const units = useUnits();
  const back = (r: RepairRecord) => {
    takeBack('repairs', r);
    // What it drew out of the shed lies there again.
    for (const [item, n] of Object.entries(partsOf(r))) happened('stock', { item, quantity: n, length_m: null, why: 'counted', note: `repair ${r.id} taken back`, who: r.who });
  };
  return (
    <Part title="Repairs">
      <DataTable<RepairRecord>
        label="Repairs"
        rows={[...repairs].sort((a, b) => b.time.localeCompare(a.time))}
        keyOf={(r) => r.id}
        rowProps={(r) => ({ 'data-repair': r.id })}
        columns={[
          { name: 'day', head: 'plain', by: (r) => r.time, cell: (r) => dayName(r.time.slice(0, 10)) },
          { name: 'where', cell: (r) => (r.line === null ? '–' : `${lines[r.line]?.name ?? r.line}, ${say(r.at_m ?? 0, 'along', units)}`) },
          { name: 'what', by: (r) => r.what, cell: (r) => [WHAT[r.what], r.strand && `strand ${r.strand}`, r.joint && (cat.joints[r.joint]?.name ?? r.joint)].filter(Boolean).join(', ') },
          { name: 'used', cell: (r) => Object.entries(partsOf(r)).map(([id, n]) => `${n} × ${cat.prices[id]?.name ?? id}`).join(', ') || '–' },
          { name: 'who', cell: (r) => r.who || '–' },
          { name: 'cost', n: true, by: (r) => r.cost, cell: (r) => money(r.cost) },
          { name: 'note', cell: (r) => <>{r.note} {r.photo && <Photo hash={r.photo} words="Photo of the repair" />}</> },
          { name: 'take back', quiet: true, cell: (r) => <><Button className="small whitespace-nowrap" onClick={() => back(r)}>take back</Button>{r.waiting && <span className="label"> not sent yet</span>}</> },
        ]}
      />
    </Part>
  );
} // prettier-ignore
