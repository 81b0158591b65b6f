/** The round of the day: what is read next, what each place should read, and what the readings say together. */
import { useState } from 'react';
import { daysBetween } from '../../core/base/days.js';
import { pointAt } from '../../core/plan/geometry.js';
import type { SeasonId } from '../../core/plan/catalogue.js';
import { nextPoint, type TestPoint } from '../../core/rounds/points.js';
import { usePower } from '../../session/power.js';
import { useSession } from '../../session/session.js';
import { inHand, useShape } from '../../session/shape.js';
import { today } from '../../session/today.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useDraft } from '../../ui/parts/draft.js';
import { Caution, Choice, Part, Select } from '../../ui/parts/controls.js';
import { DataTable } from '../../ui/parts/DataTable.js';
import { useUnits, type Origin } from '../../ui/parts/Num.js';
import { Elsewhere } from './Elsewhere.js';
import { Pad } from './Pad.js';
import { SaidCard } from './SaidCard.js';
import {
  GROWTH_WORDS,
  newestRound,
  ONE_ROUND,
  setDay,
  useDay,
  useDaySeason,
  useExpected,
  useLog,
  usePointName,
  useRoundsTab,
  valueWords,
  WEATHER_WORDS,
  type Log,
} from './rounds.js';

export function RoundTab() {
  const log = useLog();
  const units = useSession((s) => s.plan.energisers);
  const chosen = useRoundsTab((t) => t.point);
  const lines = useSession((s) => s.plan.lines);
  const report = useSession((s) => s.report);
  const [elsewhere, setElsewhere] = useState<TestPoint | null>(null);
  const { points, at, known } = log;
  if (!known) return <p role="status">Asking for the log …</p>;
  if (points.length === 0)
    return (
      <p className="mt-4 max-w-[36em]">
        No unit feeds a line yet: there is nothing to read. Units are put in on Power.
      </p>
    );
  const place = (line: string, at_m: number) => {
    const unit = points.find((p) => p.line === line)?.unit ?? points[0]!.unit;
    const at = pointAt(lines[line]!.vertices, at_m);
    const key = `${line} ${at_m.toFixed(1)} asked`;
    setElsewhere({ key, kind: 'volts', unit, line, at_m, spot: null, at, proposed: true });
    useRoundsTab.setState({ point: key });
  };
  const since = Date.now() - ONE_ROUND;
  const next = nextPoint(points, at, since);
  const point = points.find((p) => p.key === chosen) ?? (elsewhere && chosen === elsewhere.key ? elsewhere : next);
  const left = points.filter((p) => !(Date.parse(at.get(p.key)?.at(-1)?.time ?? '') >= since)).length;
  return (
    <div className="grid gap-x-8 gap-y-4 @3xl:grid-cols-[22rem_minmax(0,1fr)]">
      <div>
        <DayPart />
        <Pad log={log} point={point} left={left} />
        <Elsewhere onChoose={place} />
      </div>
      <div className="min-w-0">
        {Object.values(units).map((u) => {
          const round = newestRound(log, u.id, report?.energisers[u.id]?.lines ?? []);
          return round ? <SaidCard key={u.id} unit={u} round={round} log={log} /> : null;
        })}
        <PointList log={log} point={point} />
        <Caution>
          Whoever wears a heart device keeps off a live fence. Touch it with the meter alone; never work on it while it is
          on, and never in a storm.
        </Caution>
      </div>
    </div>
  );
} // prettier-ignore

const METERS = [['keyed', 'keyed by hand'], ['simulated', 'simulated, to try it']] as const; // prettier-ignore

/** What the day is like: put down with every reading, and the season that it is compared with. */
function DayPart() {
  const { weather, growth, who, meter } = useDay();
  const hand = inHand(useShape());
  const season = useDaySeason();
  const cat = useCatalogue();
  const { input } = useDraft({ shown: who, read: (text) => ({ value: text.trim().slice(0, 80) }), take: (name) => setDay({ who: name }) });
  return (
    <details className="mb-2" open={!hand} key={String(hand)} data-day>
      <summary className="cursor-pointer">
        {weather}, {growth === 'some' ? 'some growth' : growth === 'cut' ? 'growth cut' : 'long growth'}: as “{cat.seasons[season]!.name}”
      </summary>
      <div className="flex flex-col items-start gap-2 pt-2">
        <span className="flex items-center gap-2">
          <span className="label w-14">Weather</span>
          <Choice label="Weather" value={weather} options={WEATHER_WORDS} onChange={(w) => setDay({ weather: w })} />
        </span>
        <span className="flex items-center gap-2">
          <span className="label w-14">Growth</span>
          <Choice label="Growth under the lowest strand" value={growth} options={GROWTH_WORDS} onChange={(g) => setDay({ growth: g })} />
        </span>
        <span className="flex items-center gap-2">
          <label htmlFor="round-who" className="label w-14">Read by</label>
          <input id="round-who" className="field w-40" {...input} />
        </span>
        <Select label="Meter" value={meter} options={METERS} onChange={(m) => setDay({ meter: m })} />
      </div>
    </details>
  );
} // prettier-ignore

const EXPECTED: Origin = {
  kind: 'formula',
  title: 'Expected on such a day',
  formula:
    'the pulse of the unit on the whole network at that place, in the season that the day is like',
  source:
    'docs/model.md, Pulse; the band is leakage by a quarter and wire by a twelfth up and down',
  inputs: [
    {
      name: 'A meter and the weather make',
      path: 'defaults.build.proveShare.value',
      quantity: 'percent',
    },
  ],
};

function PointList({ log, point }: { log: Log; point: TestPoint | null }) {
  const season = useDaySeason();
  const expected = useExpected(season);
  const name = usePointName();
  const units = useUnits();
  const share = useCatalogue().defaults['build.proveShare']!.value;
  const bands = useBands(log, season);
  return (
    <Part title="The round">
      <DataTable<TestPoint>
        label="Places of the round"
        rows={log.points}
        keyOf={(p) => p.key}
        chosen={(p) => p.key === point?.key}
        rowProps={(p) => ({ 'data-point': p.key })}
        columns={[
          {
            name: 'place',
            head: 'plain',
            cell: (p) => (
              <button type="button" className="cursor-pointer text-left underline" onClick={() => useRoundsTab.setState({ point: p.key })}>
                {name(p)}
              </button>
            ),
          },
          {
            name: 'expected',
            n: true,
            from: EXPECTED,
            cell: (p) => {
              const v = expected(p);
              const band = bands[p.key];
              return v === null ? '–' : (
                <>
                  {valueWords(p.kind, v, units)}
                  {band && <span className="label block">{(band.low_V / 1000).toFixed(1)} to {valueWords('volts', band.high_V, units)}</span>}
                </>
              );
            },
          },
          {
            name: 'read last',
            n: true,
            cell: (p) => {
              const r = log.at.get(p.key)?.at(-1);
              return r ? (
                <>
                  {valueWords(r.kind, r.value, units)}
                  <span className="label block">{ago(r.time)}{r.waiting ? ', not sent yet' : ''}</span>
                </>
              ) : 'not yet';
            },
          },
          {
            name: 'of expected',
            cell: (p) => {
              const r = log.at.get(p.key)?.at(-1);
              const v = expected(p);
              if (!r || v === null || v <= 0) return '';
              return <Share of={r.value / v} kind={p.kind} slack={share} />;
            },
          },
        ]}
      />
    </Part>
  );
} // prettier-ignore

/** What is read as a length of what is expected, and whether that is well. */
function Share({ of, kind, slack }: { of: number; kind: TestPoint['kind']; slack: number }) {
  const earth = kind === 'earth_volts';
  const low = earth ? of > 1 + 2 * slack : of < 1 - slack;
  return (
    <span className="inline-flex items-center gap-2 whitespace-nowrap">
      <span className="share" data-low={low || undefined} aria-hidden>
        <i style={{ width: `${Math.min(6, 4.6 * of)}rem` }} />
        <b />
      </span>
      <span className="figure">{Math.round(100 * of)} %</span>
      <span>{low ? (earth ? '△ high' : '△ low') : '✓'}</span>
    </span>
  );
}

function ago(time: string): string {
  const days = daysBetween(time.slice(0, 10), today());
  return days <= 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`;
}

function useBands(log: Log, season: SeasonId) {
  const units = useSession((s) => s.plan.energisers);
  const ids = Object.keys(units);
  const key = log.points.length ? JSON.stringify(['bands', season, log.points.map((p) => p.key)]) : null;
  const { value } = usePower(key, async (api) => {
    const all = await Promise.all(ids.map((id) => api.bands(id, season, log.points)));
    return Object.assign({}, ...all) as Awaited<ReturnType<typeof api.bands>>;
  });
  return value ?? {};
} // prettier-ignore
