/** The practice hunt: hide a fault, walk and read, look; and how well one did. */
import { useEffect, useState } from 'react';
import { Eye, Footprints } from 'lucide-react';
import { say } from '../../core/base/units.js';
import { LEVELS, type Level } from '../../core/faults/practice.js';
import { Asked } from '../../ui/parts/Asked.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Check, Part, Select } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import { PlaceOnLine } from '../rounds/Elsewhere.js';
import { SaidWords } from '../rounds/SaidCard.js';
import { usePointName, valueWords } from '../rounds/rounds.js';
import { beep } from './beep.js';
import { useFaults } from './faults.js';
import {
  begin,
  clueOf,
  goTo,
  look,
  over,
  resume,
  showIt,
  usePractice,
  usePracticeSearch,
  type Practice,
} from './practice.js';

const LEVEL_WORDS: Readonly<Record<Level, string>> = {
  1: '1: a heavy leak, a good meter',
  2: '2: leaks and breaks, a usual meter',
  3: '3: light ones too, more or less growth than the plan says',
};

export function PracticeSide() {
  const { of, busy, said } = usePractice();
  const id = useSession((s) => s.id);
  useEffect(() => resume(), [id]);
  return (
    <div data-practice>
      <p className="label mb-3">Everything here is simulated: a fault that is not there, a meter that is none. Nothing of it goes into the log.</p>
      {!of && <Begin busy={busy} />}
      {of && !of.end && <Hunting of={of} busy={busy} />}
      {of?.end && <Ended of={of} end={of.end} />}
      <p role="status" className="mt-2">{busy ? 'One moment …' : said}</p>
      {of && <ReadSoFar of={of} />}
    </div>
  );
} // prettier-ignore

function Begin({ busy }: { busy: boolean }) {
  const units = useSession((s) => s.plan.energisers);
  const [level, setLevel] = useState<`${Level}`>('1');
  const [unit, setUnit] = useState('');
  const own = units[unit] ? unit : Object.keys(units)[0];
  if (!own) return <p>No unit feeds a line yet.</p>;
  return (
    <div className="flex flex-col items-start gap-2">
      <Select label="Fence of" value={own} options={Object.values(units).map((u) => [u.id, u.name] as const)} onChange={setUnit} />
      <Select label="Level" value={level} width="max-w-[17rem]" options={LEVELS.map((l) => [`${l}` as const, LEVEL_WORDS[l]] as const)} onChange={setLevel} />
      <Button strong disabled={busy} onClick={() => void begin(own, Number(level) as Level)}>Hide a fault</Button>
    </div>
  );
} // prettier-ignore

function Hunting({ of, busy }: { of: Practice; busy: boolean }) {
  const units = useUnits();
  const lines = useSession((s) => s.plan.lines);
  const asked = useFaults((f) => f.asked);
  const { answer, next: led } = usePracticeSearch();
  const { value: search } = answer;
  const [place, setPlace] = useState({ line: '', at_m: 0 });
  const [loud, setLoud] = useState(false);
  const to = asked?.line ? { line: asked.line, at_m: asked.at_m! } : place.line ? place : null;
  const go = (at: { line: string; at_m: number }) => {
    useFaults.setState({ asked: null });
    setPlace({ line: '', at_m: 0 });
    void goTo({ line: at.line, at_m: at.at_m }).then(() => {
      const last = usePractice.getState().of?.readings.findLast((r) => r.kind === 'volts');
      if (loud && last) beep(last.value);
    });
  };
  const next = of.shown ? led.value?.[0] : undefined;
  return (
    <>
      <p className="mb-2 text-[1.15rem]" data-minutes>
        <strong>{say(of.minutes, 'minutes', units)}</strong> so far. You stand {of.here ? `on ${lines[of.here.line]?.name}, ${say(of.here.at_m, 'along', units)}` : 'at the unit'}.
      </p>
      <Part title="Where next?">
        <p className="label mb-1">Press a place on the map, or choose it here.</p>
        <PlaceOnLine line={to?.line ?? ''} at_m={to?.at_m ?? 0} onChange={(line, at_m) => { useFaults.setState({ asked: null }); setPlace({ line, at_m }); }} />
        <div className="mt-2 flex flex-wrap gap-2">
          <Button strong disabled={busy || !to} onClick={() => to && go(to)}><Footprints size={16} aria-hidden /> Go and read</Button>
          <Button disabled={busy || !of.here} onClick={() => void look(false)}><Eye size={16} aria-hidden /> It is here: look</Button>
          <Button disabled={busy} onClick={() => void look(true)}>Give up</Button>
        </div>
      </Part>
      <div className="mb-2 flex flex-wrap gap-x-4">
        <Check label="show what the readings say" checked={of.shown} onChange={showIt} />
        <Check label="beeps" checked={loud} onChange={setLoud} />
      </div>
      {of.shown && <Asked of={answer} doing="Weighing what was read" />}
      {of.shown && search && (
        <div data-next>
          <SaidWords said={search} round={{ season: 'today' }} />
          {next && (
            <Button className="mt-1" disabled={busy || led.waiting} onClick={() => go(next)}>
              Tells most: {lines[next.line]?.name}, {say(next.at_m, 'along', units)}
            </Button>
          )}
        </div>
      )}
    </>
  );
} // prettier-ignore

function Ended({ of, end }: { of: Practice; end: NonNullable<Practice['end']> }) {
  const units = useUnits();
  const lines = useSession((s) => s.plan.lines);
  const name = usePointName();
  const { largest, turned } = clueOf(of);
  const { hidden } = end;
  const min = (m: number | null) => (m === null ? 'not within 25 to 40 places' : say(m, 'minutes', units));
  return (
    <div data-ended={end.found ? 'found' : 'given'}>
      <p className="text-[1.15rem]">
        {end.found ? '✓' : '✗'} <strong>{end.found ? 'Found' : 'Not found'}</strong> after {say(of.minutes, 'minutes', units)}
        {of.vain > 0 && `, ${of.vain} times looked in vain`}.
      </p>
      <p>
        It was {hidden.r_ohm === null ? 'a break of all strands' : `a leak of ${say(hidden.r_ohm, 'ohm', units)}`} on {lines[hidden.at.line]?.name ?? hidden.at.line},{' '}
        {say(hidden.at.at_m, 'along', units)}.
      </p>
      <table className="my-2">
        <tbody>
          <tr><th scope="row" className="pr-3 text-left font-normal">you</th><td className="figure">{end.found ? say(of.minutes, 'minutes', units) : '–'}</td></tr>
          <tr><th scope="row" className="pr-3 text-left font-normal">going where it tells most</th><td className="figure">{min(end.search_min)}</td></tr>
          <tr><th scope="row" className="pr-3 text-left font-normal">following the lowest volts</th><td className="figure">{min(end.lowest_min)}</td></tr>
        </tbody>
      </table>
      <p>
        <strong>The clue: </strong>
        {turned
          ? `current turned round between ${name({ ...turned[0], unit: of.unit })} and ${name({ ...turned[1], unit: of.unit })}: what flows towards each other from both sides goes out in between.`
          : largest
            ? `the largest current that you read, ${valueWords('amps', largest.value, units)} at ${name({ ...largest, unit: of.unit })}, flowed towards its ${largest.towards}: current grows towards a leak, volts hardly fall.`
            : 'current: it grows towards a leak and turns round beyond it, while volts hardly fall. Read amps too.'}
      </p>
      <Button strong className="mt-2" onClick={over}>Another</Button>
    </div>
  );
} // prettier-ignore

function ReadSoFar({ of }: { of: Practice }) {
  const name = usePointName();
  const units = useUnits();
  return (
    <details className="mt-3" open>
      <summary className="cursor-pointer">What the simulated meter showed</summary>
      <ul data-shown>
        {[...of.readings].reverse().map((r) => (
          <li key={r.id} className="border-rule border-b py-0.5">
            {name({ kind: r.kind, unit: of.unit, line: r.line, at_m: r.at_m })}: <span className="figure">{valueWords(r.kind, r.value, units)}</span>
            {r.kind === 'amps' && ` towards its ${r.towards}`}
          </li>
        ))}
      </ul>
    </details>
  );
} // prettier-ignore
