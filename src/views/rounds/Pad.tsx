/** One reading in three presses: the place, which is chosen already, the figure, done. */
import { Check as Tick, Delete, LocateFixed, StepBack, StepForward } from 'lucide-react';
import { useEffect, useState } from 'react';
import { deviceNote } from '../../core/rounds/logged.js';
import { nearestPoint, type TestPoint } from '../../core/rounds/points.js';
import { batteryWords } from '../../core/rounds/verdict.js';
import { happened, takeBack, useRecords } from '../../session/records.js';
import { Button } from '../../ui/parts/Button.js';
import { Choice } from '../../ui/parts/controls.js';
import { simulatedVolts } from '../../ui/devices/voltmeter.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useHere } from './here.js';
import {
  useDay,
  useDaySeason,
  useExpected,
  usePointName,
  useRoundsTab,
  valueWords,
  type Log,
} from './rounds.js';

type Kind = TestPoint['kind'];
/** Figures behind the point that the pad gives by itself; how the unit is called; the most that is believed. */
const ENTRY: Readonly<Record<Kind, { decimals: number; unit: string; most: number; si: number }>> =
  {
    volts: { decimals: 1, unit: 'kV', most: 20, si: 1000 },
    earth_volts: { decimals: 0, unit: 'V', most: 9000, si: 1 },
    battery_volts: { decimals: 1, unit: 'V', most: 60, si: 1 },
    amps: { decimals: 1, unit: 'A', most: 200, si: 1 },
  };
const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3'] as const;
/** Of a battery that is well. */
const CHARGED_V = 12.7;
const AMPS = [
  ['end', 'to its end'],
  ['start', 'to its start'],
] as const;

interface PadProps {
  readonly log: Log;
  readonly point: TestPoint | null;
  /** Places of the round that are still to be read; without it no round is walked, and nothing leads along it. */
  readonly left?: number;
  /** Something was put down. */
  readonly onDone?: (kind: Kind) => void;
  /** At a wire volts and amps are read, one after the other. */
  readonly both?: boolean;
}

export function Pad({ log, point, left, onDone, both = false }: PadProps) {
  const [text, setText] = useState('');
  const [what, setWhat] = useState<'volts' | 'amps'>('volts');
  const [towards, setTowards] = useState<'end' | 'start'>('end');
  const [fault, setFault] = useState<string | null>(null);
  /** What stands in the field came from the simulated meter. */
  const [sim, setSim] = useState(false);
  const [last, setLast] = useState<{ id: string; words: string; fields: object } | null>(null);
  const day = useDay();
  const name = usePointName();
  const units = useUnits();
  const expected = useExpected(useDaySeason());
  useEffect(() => {
    setText('');
    setFault(null);
  }, [point?.key]);
  if (!point)
    return (
      <div data-pad>
        <p role="status">
          <strong>✓ The round is done.</strong> Every place of it was read within a day and a half. Press a place in the
          list to read it again.
        </p>
        {last && <Kept last={last} onBack={() => setLast(null)} />}
        <Steps log={log} point={null} />
      </div>
    );
  const kind: Kind = point.kind === 'volts' && point.line !== null ? what : point.kind;
  const { decimals, unit, most, si } = ENTRY[kind];
  const press = (digit: string) => {
    const digits = (text.replace(/\D/g, '') + digit).replace(/^0+(?=\d)/, '').slice(0, 5);
    setText((Number(digits) / 10 ** decimals).toFixed(decimals));
    setSim(false);
    setFault(null);
  };
  const done = () => {
    const value = Number(text.replace(',', '.'));
    if (text.trim() === '' || !Number.isFinite(value) || value < 0) return setFault('A figure is wanted: what the meter shows.');
    if (value > most) return setFault(`No meter shows more than ${most} ${unit} here.`);
    const fields = {
      kind,
      value: Math.round(value * si * 1000) / 1000,
      line: point.line,
      at_m: point.at_m,
      spot: point.spot,
      unit: point.line === null ? point.unit : null,
      towards: kind === 'amps' ? towards : null,
      weather: day.weather,
      growth: day.growth,
      who: day.who,
      note: sim ? deviceNote('meter', true) : '',
    };
    const id = happened('readings', fields);
    setLast({ id, words: `${valueWords(kind, fields.value, units)} at ${name(point)}${kind === 'battery_volts' ? `: ${batteryWords(fields.value).words}` : ''}`, fields });
    setText('');
    setSim(false);
    setFault(null);
    if (onDone) {
      if (point.line !== null) setWhat(both && kind === 'volts' ? 'amps' : 'volts');
      onDone(kind);
    } else useRoundsTab.setState({ point: null });
  };
  const should = kind === 'amps' ? null : expected(point);
  const before = log.at.get(point.key)?.at(-1);
  return (
    <form
      data-pad
      onSubmit={(e) => {
        e.preventDefault();
        done();
      }}
    >
      {left !== undefined && <Steps log={log} point={point} />}
      <p className="mt-2 text-[1.3rem] leading-tight font-semibold" data-now>{name(point)}</p>
      <p className="label mb-2">
        {should !== null && log.open.length === 0 && <>expected {valueWords(kind, should, units)}</>}
        {before && <> · last {valueWords(before.kind, before.value, units)}</>}
        {left !== undefined && ` · ${left} still to be read`}
      </p>
      {log.open.length > 0 && (
        <p className="text-warn mb-2" data-parted>
          △ Read with the fence parted at {log.open.map((p) => name({ kind: 'volts', unit: '', ...p })).join('; ')}.
        </p>
      )}
      {point.kind === 'volts' && point.line !== null && (
        <div className="mb-2 flex flex-wrap gap-2">
          <Choice label="What was read" value={what} options={[['volts', 'volts'], ['amps', 'amps']]} onChange={(w) => { setWhat(w); setText(''); }} />
          {what === 'amps' && <Choice label="Which way they flow" value={towards} options={AMPS} onChange={setTowards} />}
        </div>
      )}
      <span className="mb-2 flex items-center gap-2">
        <input
          className="read-out figure"
          inputMode="none"
          autoComplete="off"
          aria-label={`Read at ${name(point)}, ${unit}`}
          value={text}
          onChange={(e) => {
            setText(e.target.value.slice(0, 8));
            setSim(false);
          }}
        />
        <span className="w-8 text-[1.3rem]">{unit}</span>
      </span>
      {day.meter === 'simulated' && (should !== null || kind === 'battery_volts') && (
        <p className="mb-2 flex flex-wrap items-center gap-2" data-simulated>
          <Button onClick={() => {
            setText((simulatedVolts(should ?? CHARGED_V) / si).toFixed(decimals));
            setSim(true);
          }}>
            Read the simulated meter
          </Button>
          {sim && <strong className="text-warn">simulated, and put down as such</strong>}
        </p>
      )}
      {fault && <FieldFault>{fault}</FieldFault>}
      <div className="pad" role="group" aria-label="Figures">
        {KEYS.map((k) => (
          <Button key={k} onClick={() => press(k)}>{k}</Button>
        ))}
        <Button aria-label="Take the last figure away" onClick={() => {
          const digits = text.replace(/\D/g, '').slice(0, -1);
          setText(Number(digits) > 0 ? (Number(digits) / 10 ** decimals).toFixed(decimals) : '');
        }}>
          <Delete size={22} aria-hidden />
        </Button>
        <Button onClick={() => press('0')}>0</Button>
        <button type="submit" className="button done">
          <Tick size={20} aria-hidden /> Done
        </button>
      </div>
      {last && <Kept last={last} onBack={() => setLast(null)} />}
    </form>
  );
} // prettier-ignore

/** What was put down last, whether the server has it, and a way back. */
function Kept({ last, onBack }: { last: { id: string; words: string; fields: object }; onBack: () => void }) {
  const waiting = useRecords((r) => r.pending.some((p) => p.record.id === last.id));
  const refused = useRecords((r) => r.refused.find((p) => p.record.id === last.id)?.reason);
  const full = useRecords((r) => r.full);
  return (
    <p className="mt-2" role="status" data-kept={refused ? 'refused' : waiting ? 'waiting' : 'saved'}>
      {refused ? '✗' : '✓'} {last.words}:{' '}
      {refused ? `the server does not take it: ${refused}` : waiting ? (full ? 'in this tab alone until the server has it' : 'kept here, on its way to the server') : 'saved'}{' '}
      <Button className="small" onClick={() => { takeBack('readings', { ...last.fields, id: last.id }); onBack(); }}>take back</Button>
    </p>
  );
} // prettier-ignore

/** To the place before, the next one, or the one that is nearest to where one stands. */
function Steps({ log, point }: { log: Log; point: TestPoint | null }) {
  const here = useHere();
  const k = point ? log.points.indexOf(point) : -1;
  const go = (by: number) => {
    const n = log.points.length;
    useRoundsTab.setState({ point: log.points[(((k < 0 && by < 0 ? 0 : k) + by) % n + n) % n]!.key });
  };
  const nearest = () =>
    void here.ask().then((at) => {
      const found = at && nearestPoint(log.points.filter((p) => p.line !== null), at);
      if (found) useRoundsTab.setState({ point: found.point.key });
    });
  return (
    <div className="flex flex-wrap gap-1">
      <Button aria-label="The place before" onClick={() => go(-1)}><StepBack size={18} aria-hidden /></Button>
      <Button aria-label="The next place" onClick={() => go(1)}><StepForward size={18} aria-hidden /></Button>
      <Button onClick={nearest} disabled={here.asking}><LocateFixed size={18} aria-hidden /> Nearest</Button>
      {here.fault && <FieldFault>{here.fault}</FieldFault>}
    </div>
  );
} // prettier-ignore
