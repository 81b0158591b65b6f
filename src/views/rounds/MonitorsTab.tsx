/** Devices that report by themselves: what each said last, one more with its token, and a simulated one to try it with. */
import { Copy } from 'lucide-react';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { plateOfUnit } from '../../core/power/unit.js';
import type { Monitor } from '../../core/rounds/monitored.js';
import { useCatalogue } from '../../session/catalogue.js';
import { forgetHere, keepHere, keptHere } from '../../session/here.js';
import { refuse, tell, useSession } from '../../session/session.js';
import { makeMonitor, monitors, revokeMonitor } from '../../session/server.js';
import { startMonitor, stopMonitor, useRunning } from '../../ui/devices/monitor.js';
import { simulatedVolts } from '../../ui/devices/voltmeter.js';
import { WordsField } from '../../ui/parts/bookFields.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, Part, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { useUnits } from '../../ui/parts/Num.js';
import { PlaceOnLine } from './Elsewhere.js';
import { useDaySeason, useExpected, usePointName, valueWords, type Spot } from './rounds.js';

/** Silent for longer than this, a monitor is asked about, ms: the rarest report once a day. */
const SILENT_MS = 26 * 3600_000;
/** How often the list is asked for anew, ms. */
const ASK_MS = 10_000;
/** What a charged battery shows, for the stand-in, V. */
const CHARGED_V = 12.7;

const tokenKey = (id: string): string => `anabatic.monitor.${id}`;

/** The place of a monitor: at its unit, or on a line that hangs on one. */
function usePlace(): (m: Monitor) => Spot {
  const units = useSession((s) => s.report?.energisers);
  const season = useDaySeason();
  return ({ kind, unit, line, at_m }) => {
    const feeds = Object.entries(units ?? {}).find(([, u]) => line !== null && u.seasons[season]?.lines[line]);
    return { kind, unit: unit ?? feeds?.[0] ?? '', line, at_m };
  };
} // prettier-ignore

/** A token that nobody has put away yet: it is told once, and a turned phone must not lose it. */
const useMade = create<{ readonly made: { monitor: Monitor; token: string } | null }>(() => ({
  made: null,
}));

export function MonitorsTab() {
  const [list, setList] = useState<readonly Monitor[] | null>(null);
  const made = useMade((m) => m.made);
  const [asked, setAsked] = useState(0);
  useEffect(() => {
    let here = true;
    const ask = () => void monitors().then((found) => here && found && setList(found));
    ask();
    const timer = setInterval(ask, ASK_MS);
    return () => {
      here = false;
      clearInterval(timer);
    };
  }, [asked]);
  const again = () => setAsked((n) => n + 1);
  if (!list) return <p role="status">Asking for the monitors …</p>;
  return (
    <div className="max-w-[64em]">
      <Part title="Monitors">
        {list.length === 0 ? (
          <p className="max-w-[38em]">
            None yet. A monitor is a device on the fence that sends what it reads by itself: a step in the volts is
            known at the hour it came, before anybody walks.
          </p>
        ) : (
          <MonitorTable list={list} onChanged={again} />
        )}
      </Part>
      {made && <Told made={made} onDone={() => useMade.setState({ made: null })} />}
      <NewMonitor
        onMade={(m) => {
          if (m.monitor.simulated) keepHere(tokenKey(m.monitor.id), m.token);
          useMade.setState({ made: m });
          again();
        }}
      />
    </div>
  );
} // prettier-ignore

function MonitorTable({ list, onChanged }: { list: readonly Monitor[]; onChanged: () => void }) {
  const name = usePointName();
  const placeOf = usePlace();
  const units = useUnits();
  const expected = useExpected(useDaySeason());
  const now = Date.now();
  const silent = (m: Monitor) => !m.revoked_at && m.heard_at !== null && now - Date.parse(m.heard_at) > SILENT_MS;
  return (
    <DataTable<Monitor>
      label="Monitors"
      rows={list}
      keyOf={(m) => m.id}
      rowProps={(m) => ({ 'data-monitor': m.id })}
      columns={[
        { name: 'monitor', head: 'plain', by: (m) => m.name, cell: (m) => <><strong>{m.name}</strong>{m.simulated && <span className="text-warn block">simulated</span>}</> },
        { name: 'where', by: (m) => name(placeOf(m)), cell: (m) => name(placeOf(m)) },
        { name: 'reported', n: true, cell: (m) => (m.heard === null ? 'nothing yet' : valueWords(m.kind, m.heard, units)) },
        { name: 'expected', n: true, cell: (m) => { const v = m.kind === 'battery_volts' ? null : expected(placeOf(m)); return v === null ? '–' : valueWords(m.kind, v, units); } },
        { name: 'when', cell: (m) => (
          <>
            {m.heard_at ? agoWords(now - Date.parse(m.heard_at)) : '–'}
            {silent(m) && <span className="text-warn block">▲ silent: look at its battery, its coverage, and the fence</span>}
            {m.revoked_at && <span className="label block">token taken back</span>}
          </>
        ) },
        { name: 'do', quiet: true, cell: (m) => (m.revoked_at ? '' : <Does of={m} onChanged={onChanged} />) },
      ]}
    />
  );
} // prettier-ignore

/** A simulated one runs here; any one's token can be taken back. */
function Does({ of, onChanged }: { of: Monitor; onChanged: () => void }) {
  const said = useRunning((r) => r.said[of.id]);
  const placeOf = usePlace();
  const expected = useExpected(useDaySeason());
  const token = of.simulated ? keptHere<string | null>(tokenKey(of.id), null) : null;
  const read = () => {
    const should = of.kind === 'battery_volts' ? CHARGED_V : expected(placeOf(of));
    return should === null ? null : simulatedVolts(should);
  };
  const revoke = async () => {
    stopMonitor(of.id);
    if (!(await revokeMonitor(of.id))) return refuse('The server does not answer: its token still stands.');
    forgetHere(tokenKey(of.id));
    tell(`${of.name} is heard no more. What it reported stays in the log.`);
    onChanged();
  };
  return (
    <span className="flex flex-wrap items-center gap-1">
      {token && (
        <Button className="small" aria-label={said ? `Stop ${of.name}` : `Run ${of.name} here`} onClick={() => {
          if (said) return stopMonitor(of.id);
          startMonitor(of.id, token, read);
          // It reports at once: the list shows it when that has come.
          setTimeout(onChanged, 800);
        }}>
          {said ? 'Stop' : 'Run here'}
        </Button>
      )}
      <Button className="small" aria-label={`Take back the token of ${of.name}`} onClick={() => void revoke()}>Take back</Button>
      {said && <span className="label" role="status">{said}</span>}
    </span>
  );
} // prettier-ignore

/** The token, this once, with what the device is to send. */
function Told({ made, onDone }: { made: { monitor: Monitor; token: string }; onDone: () => void }) {
  const { monitor, token } = made;
  const request = `POST ${location.origin}/api/monitor
Authorization: Bearer ${token}
Content-Type: application/json

{"value": ${monitor.kind === 'battery_volts' ? '12.6' : '6200'}}`;
  const copy = () =>
    void navigator.clipboard.writeText(token).then(
      () => tell('The token is copied.'),
      () => refuse('The browser does not copy: mark the token and copy it by hand.'),
    );
  return (
    <Part title={`The token of ${monitor.name}`} aside={<Button className="small" onClick={onDone}>I have it</Button>}>
      <p className="max-w-[44em]">
        <strong>It is shown this once.</strong> Whoever has it can put readings into this log at{' '}
        {monitor.name}’s place, and nothing else; it can be taken back at any time. The device sends:
      </p>
      <pre className="border-rule bg-panel my-2 overflow-x-auto border p-2 whitespace-pre-wrap break-all" data-token={token} tabIndex={0} aria-label="What the device sends">{request}</pre>
      <Button onClick={copy}><Copy size={14} aria-hidden /> Copy the token</Button>
      <p className="label mt-2 max-w-[44em]">
        The value is in V. “time” (with its offset) may be sent of a reading that was kept while there was no coverage, and
        “id” so that one sent twice counts once. One report in 10 s at most. Of a value that stands still, one a day goes into the
        log; one that moved by a tenth, at once.
      </p>
    </Part>
  );
} // prettier-ignore

const KINDS = [
  ['volts', 'volts of the live wire'],
  ['earth_volts', 'volts on the earth'],
  ['battery_volts', 'volts of the battery'],
] as const;

function NewMonitor({ onMade }: { onMade: (made: { monitor: Monitor; token: string }) => void }) {
  const units = useSession((s) => s.plan.energisers);
  const cat = useCatalogue();
  const [name, setName] = useState('');
  const [unit, setUnit] = useState('');
  const [kind, setKind] = useState<Monitor['kind']>('volts');
  const [place, setPlace] = useState({ line: '', at_m: 0 });
  const [simulated, setSimulated] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const at = units[unit];
  const kinds = at && plateOfUnit(at, cat).supply === 'mains' ? KINDS.slice(0, 2) : KINDS;
  const make = async () => {
    setFault(null);
    if (name === '') return setFault('It wants a name: what is written on it, or where it hangs.');
    if (!at && place.line === '') return setFault('It wants a place: a unit, or a line and a distance along it.');
    const made = await makeMonitor({
      name,
      kind: at ? kind : 'volts',
      line: at ? null : place.line,
      at_m: at ? null : place.at_m,
      unit: at ? unit : null,
      simulated,
    });
    if (typeof made === 'string') return setFault(made);
    setName('');
    onMade(made);
  };
  return (
    <Part title="One more monitor">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <WordsField label="name" spoken="Name of the monitor" value={name} max={60} width="w-44" onCommit={setName} />
        <Select label="At a unit" value={at ? unit : ''} width="max-w-[14rem]" options={[['', 'no: on a line'], ...Object.values(units).map((u) => [u.id, u.name] as const)]} onChange={(u) => { setUnit(u); setKind('volts'); }} />
        {at ? (
          <Select label="It reads" value={kind} width="max-w-[14rem]" options={kinds} onChange={setKind} />
        ) : (
          <PlaceOnLine line={place.line} at_m={place.at_m} onChange={(line, at_m) => setPlace({ line, at_m })} />
        )}
        <Check label="simulated: no device, reports run in this browser" checked={simulated} onChange={setSimulated} />
        <Button strong onClick={() => void make()}>Make its token</Button>
      </div>
      {fault && <FieldFault>{fault}</FieldFault>}
    </Part>
  );
} // prettier-ignore

/** How long ago, in words. */
function agoWords(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  if (minutes < 1) return 'just now';
  if (minutes < 120) return `${minutes} min ago`;
  const hours = Math.round(minutes / 60);
  return hours < 48 ? `${hours} h ago` : `${Math.round(hours / 24)} days ago`;
}
