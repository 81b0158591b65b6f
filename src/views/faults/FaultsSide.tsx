/** The search for a fault: what is known, where to go next, what is read there. */
import { useMemo } from 'react';
import { Flag, RotateCcw } from 'lucide-react';
import { say } from '../../core/base/units.js';
import { pointAt } from '../../core/plan/geometry.js';
import type { TestPoint } from '../../core/rounds/points.js';
import { KIND_WHY, KIND_WORDS } from '../../core/rounds/verdict.js';
import { Asked } from '../../ui/parts/Asked.js';
import { takeBack } from '../../session/records.js';
import type { Answer } from '../../session/power.js';
import { useSession } from '../../session/session.js';
import { Button } from '../../ui/parts/Button.js';
import { Caution, Check, Choice, Part, Select } from '../../ui/parts/controls.js';
import { useUnits } from '../../ui/parts/Num.js';
import type { NextPlace, Search } from '../../core/rounds/search.js';
import { dayName } from '../build/built.js';
import { Pad } from '../rounds/Pad.js';
import { percent, SaidWords } from '../rounds/SaidCard.js';
import { usePointName, valueWords, type Round } from '../rounds/rounds.js';
import '../rounds/rounds.css';
import { placeAsked } from './asked.js';
import { Lead } from './Lead.js';
import { Switches } from './Switches.js';
import { PracticeSide } from './PracticeSide.js';
import { usePractice } from './practice.js';
import { beginSearch, keepBoth, useFaults, useSearch } from './faults.js';

/** So sure of the place one goes and looks. */
const SURE = 0.9;

export function FaultsSide() {
  const practising = usePractice((p) => p.on);
  return (
    <div className="p-4 pt-3" data-faults>
      <div className="mb-3">
        <Choice
          label="A fault of the fence, or one for practice"
          value={practising ? 'practice' : 'search'}
          options={MODES}
          onChange={(mode) => {
            usePractice.setState({ on: mode === 'practice' });
            useFaults.setState({ asked: null });
          }}
        />
      </div>
      {practising ? <PracticeSide /> : <SearchSide />}
    </div>
  );
}
const MODES = [['search', 'Search'], ['practice', 'Practice hunt']] as const; // prettier-ignore

function SearchSide() {
  const id = useSession((s) => s.id);
  const units = useSession((s) => s.plan.energisers);
  const { unit, log, round, answer, next } = useSearch();
  const { value: search, waiting, fault } = answer;
  const asked = useFaults((f) => f.asked);
  const both = useFaults((f) => f.both);
  if (!log.known) return <p role="status">Asking for the log …</p>;
  if (!unit) return <p>No unit feeds a line yet: there is nothing to search. Units are put in on Power.</p>;
  const first = firstAt(round, unit.id, log.points);
  const proposed = next.value?.[0];
  const point = asked ?? first ?? (proposed ? pointOf(unit.id, proposed) : (log.points.find((p) => p.unit === unit.id) ?? null));
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-center justify-between gap-2">
        {Object.keys(units).length > 1 ? (
          <Select label="Fence of" value={unit.id} options={Object.values(units).map((u) => [u.id, u.name] as const)} onChange={(u) => useFaults.setState({ unit: u, asked: null })} />
        ) : (
          <strong>{unit.name}</strong>
        )}
        <Button onClick={() => { beginSearch(id, log.records); useFaults.setState({ asked: null }); }}>
          <RotateCcw size={14} aria-hidden /> Begin anew
        </Button>
      </div>
      {round && search && <Summary search={search} waiting={waiting} />}
      {round && !search && (
        waiting ? <Asked of={answer} doing="Weighing what was read" /> : <p role="status">Nothing of it can be compared with the plan.</p>
      )}
      {search && fault !== null && <Asked of={answer} doing="Weighing what was read" />}
      {!round && (
        <p className="mb-2">
          Nothing was read for this search yet. Begin at the unit: its terminal, then its earth.
        </p>
      )}
      <Next next={next} first={first} unit={unit.id} />
      {point && <Lead to={point.at} />}
      <div className="mb-2">
        <Check label="my meter shows amps and their direction too" checked={both} onChange={(on) => useFaults.setState({ both: keepBoth(on) })} />
      </div>
      <Pad
        log={log}
        point={point}
        both={both}
        onDone={(kind) => useFaults.setState({ asked: both && kind === 'volts' && point?.line ? point : null })}
      />
      <Switches open={log.open} unit={unit.id} />
      {round && search && <Why search={search} round={round} />}
      {round && <Read round={round} />}
      <Caution>Off, locked and proved dead before you touch or mend. A broken wire may whip; a fallen one may be live.</Caution>
    </div>
  );
} // prettier-ignore

/** The terminal and the earth come first: they tell unit and earth from everything else. */
function firstAt(round: Round | null, unit: string, points: readonly TestPoint[]): TestPoint | null {
  const own = points.filter((p) => p.unit === unit && p.line === null && p.kind !== 'battery_volts');
  return own.find((p) => !round?.readings.some((r) => r.line === null && r.kind === p.kind)) ?? null;
} // prettier-ignore

function pointOf(unit: string, { line, at_m }: NextPlace): TestPoint {
  const { vertices } = useSession.getState().plan.lines[line]!;
  return { key: `${line} ${at_m.toFixed(1)} next`, kind: 'volts', unit, line, at_m, spot: null, at: pointAt(vertices, at_m), proposed: true }; // prettier-ignore
}

/** In two lines: what it is likely, and where. */
function Summary({ search, waiting }: { search: Search; waiting: boolean }) {
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  const { best } = search;
  const sure = best !== null && best.near >= SURE;
  const placed = search.likeliest === 'leak' || search.likeliest === 'joint' || search.likeliest === 'break';
  return (
    <div className="mb-3" role="status" aria-busy={waiting} data-likeliest={search.likeliest}>
      <p className="text-[1.15rem]">
        {search.likeliest === 'none' ? '✓' : '△'} <strong>Likely {KIND_WORDS[search.likeliest]}</strong>, {percent(search.kinds[search.likeliest])}
      </p>
      {placed && best && (
        <p data-best={sure || undefined}>
          {sure && <Flag size={14} className="mr-1 inline" aria-hidden />}
          {sure ? <strong>Go and look: </strong> : 'About '}
          {lines[best.line]?.name ?? best.line}, {say(best.at_m, 'along', units)}: {Math.round(100 * best.near)} % that it is within{' '}
          {say(best.near_m, 'length', units)} of there.
        </p>
      )}
      {!placed && search.likeliest !== 'none' && <p>{KIND_WHY[search.likeliest]}</p>}
    </div>
  );
} // prettier-ignore

/** All that the readings say, and why. */
function Why({ search, round }: { search: Search; round: Round }) {
  return (
    <details className="mt-4">
      <summary className="cursor-pointer">Why, and what else it may be</summary>
      <div className="pt-1">
        <SaidWords said={search} round={round} />
      </div>
    </details>
  );
}

function Next({ next, first, unit }: { next: Answer<readonly NextPlace[]>; first: TestPoint | null; unit: string }) {
  const lines = useSession((s) => s.plan.lines);
  const units = useUnits();
  const name = usePointName();
  const asked = useFaults((f) => f.asked);
  const gates = useSession((s) => s.plan.gates);
  const gateBy = ({ line, at_m }: NextPlace) => Object.values(gates).find((g) => g.line === line && Math.abs(g.at_m - at_m) < BY_A_GATE_M);
  if (first) return <Part title="Read next"><p data-next><strong>{name(first)}</strong>: it tells unit and earth from everything else.</p></Part>;
  if (!next.value) return <Asked of={next} doing="Weighing where to read next" />;
  if (next.value.length === 0) return null;
  return (
    <Part title="Read next">
      <ol data-next aria-busy={next.waiting} className={next.waiting ? 'opacity-60' : ''}>
        {next.value.map((n, k) => {
          const chosen = asked?.line === n.line && asked.at_m === n.at_m;
          return (
            <li key={`${n.line} ${n.at_m}`} className="mb-1">
              <Button aria-pressed={chosen} className="h-auto w-full !justify-start py-1 text-left" onClick={() => placeAsked(unit, n.line, n.at_m)}>
                <span>
                  <span className={k === 0 ? 'font-semibold' : ''}>{lines[n.line]?.name}, {say(n.at_m, 'along', units)}</span>{gateBy(n) && <> by {gateBy(n)!.name}</>}
                  <span className="label block">{say(n.minutes, 'minutes', units)} to go and read; tells {Math.round(100 * n.tells)} % of what is unsure</span>
                </span>
              </Button>
            </li>
          );
        })}
      </ol>
      <p className="label">What tells most for each minute on foot, straight across where no fence is in the way. Or press any place on the map.</p>
    </Part>
  );
} // prettier-ignore

/** So near a gate one goes to the gate, m. */
const BY_A_GATE_M = 20;

/** What the search goes by; each can be taken back. */
function Read({ round }: { round: Round }) {
  const name = usePointName();
  const units = useUnits();
  const unit = useFaults((f) => f.unit) ?? '';
  const list = useMemo(() => [...round.readings].sort((a, b) => b.time.localeCompare(a.time)), [round]);
  return (
    <details className="mt-4">
      <summary className="cursor-pointer">{list.length} readings, {dayName(round.time.slice(0, 10))}</summary>
      <ul>
        {list.map((r) => (
          <li key={r.id} className="border-rule flex items-center justify-between gap-2 border-b py-1">
            <span>
              {name({ kind: r.kind, unit: r.unit ?? unit, line: r.line, at_m: r.at_m })}: {valueWords(r.kind, r.value, units)}
              {r.kind === 'amps' && ` to its ${r.towards ?? 'end'}`}
              {r.open && ', a switch open'}
            </span>
            <Button className="small whitespace-nowrap" aria-label={`Take back ${valueWords(r.kind, r.value, units)}, ${name({ kind: r.kind, unit: r.unit ?? unit, line: r.line, at_m: r.at_m })}`} onClick={() => takeBack('readings', r)}>take back</Button>
          </li>
        ))}
      </ul>
    </details>
  );
} // prettier-ignore
