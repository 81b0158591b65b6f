/** What the tabs of Rounds look at: the log by places, the day's conditions, and what a round says. */
import { useMemo } from 'react';
import { create } from 'zustand';
import type { SeasonId } from '../../core/plan/catalogue.js';
import type { Place } from '../../core/power/pulseNet.js';
import { plateOfUnit } from '../../core/power/unit.js';
import {
  isSimulated,
  seasonOf,
  type EventKind,
  type Growth,
  type Logged,
  type Weather,
} from '../../core/rounds/logged.js';
import {
  byPoint,
  earthShare,
  expectedAt,
  testPoints,
  type TestPoint,
} from '../../core/rounds/points.js';
import { openAt, switchedOf } from '../../core/rounds/switches.js';
import { say, type Units } from '../../core/base/units.js';
import { useCatalogue } from '../../session/catalogue.js';
import { keepHere, keptHere } from '../../session/here.js';
import { useStanding, type KeptRecord } from '../../session/kept.js';
import { usePower, type Answer } from '../../session/power.js';
import { useSession } from '../../session/session.js';
import type { Asked, Said } from '../../core/rounds/said.js';

export const TABS = [
  ['round', 'Round'],
  ['trends', 'Trends'],
  ['fit', 'Fit'],
  ['care', 'Care'],
  ['repairs', 'Repairs'],
  ['monitors', 'Monitors'],
  ['log', 'Log'],
] as const;
export type RoundsTab = (typeof TABS)[number][0];

interface Looked {
  readonly tab: RoundsTab;
  /** The point that is read next, by key; null: the next on the round. */
  readonly point: string | null;
}
export const useRoundsTab = create<Looked>(() => ({ tab: 'round', point: null }));

export type ReadingRecord = KeptRecord & Logged & { readonly waiting?: boolean };
export type EventRecord = KeptRecord & {
  readonly what: EventKind;
  readonly line: string | null;
  readonly at_m: number | null;
  readonly spot: string | null;
  readonly photo: string | null;
  readonly waiting?: boolean;
};

/** What the day is like: said once, and put down with every reading until it is said anew. */
interface Day {
  readonly weather: Weather;
  readonly growth: Growth;
  readonly who: string;
  /** Readings are keyed, or come from a simulated meter. */
  readonly meter: 'keyed' | 'simulated';
}
const DAY = 'anabatic.rounds.day';
export const useDay = create<Day>(() => ({
  weather: 'damp',
  growth: 'some',
  who: '',
  meter: 'keyed',
  ...keptHere<Partial<Day>>(DAY, {}),
}));
export function setDay(part: Partial<Day>): void {
  useDay.setState(part);
  keepHere(DAY, useDay.getState());
}

export const WEATHER_WORDS: readonly (readonly [Weather, string])[] = [
  ['dry', 'dry'],
  ['damp', 'damp'],
  ['wet', 'wet'],
  ['frost', 'frost'],
];
export const GROWTH_WORDS: readonly (readonly [Growth, string])[] = [
  ['cut', 'cut'],
  ['some', 'some'],
  ['long', 'long'],
];

/** What is one round: readings no older than this against its newest, ms. */
export const ONE_ROUND = 36 * 3600_000;

/** Readings, places and what was read at each. */
export function useLog() {
  const plan = useSession((s) => s.plan);
  const report = useSession((s) => s.report);
  const cat = useCatalogue();
  const { records, known, older } = useStanding<ReadingRecord>('readings');
  const events = useStanding<EventRecord>('events');
  const switched = switchedOf(events.records);
  const key = `${records.length} ${records.at(-1)?.id ?? ''} ${records.at(-1)?.waiting ?? false} ${switched.map((e) => e.id).join()}`;
  return useMemo(() => {
    const battery = (id: string) => plateOfUnit(plan.energisers[id]!, cat).supply !== 'mains';
    const points = report ? testPoints(plan, report, records, battery) : [];
    const read: readonly ReadingRecord[] =
      switched.length === 0
        ? records
        : records.map((r) => {
            const open = openAt(switched, r.time);
            return open.length > 0 ? { ...r, open } : r;
          });
    // What a place read while something was cut off says nothing of what it reads as a rule.
    const open = openAt(switched, new Date().toISOString());
    return {
      records: read,
      known,
      older,
      points,
      open,
      at: byPoint(
        points,
        read.filter((r) => !r.open),
      ),
    };
    // The list is made anew at every look; what is in it is told by its length and its last.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [plan, report, cat, key, known, older]);
}
export type Log = ReturnType<typeof useLog>;

/** The season that the day is like. */
export const useDaySeason = (): SeasonId => useDay(seasonOf);

/** Where something is read. */
export type Spot = Pick<TestPoint, 'kind' | 'unit' | 'line' | 'at_m'>;
/** What the plan expects at a place on a day like that, V. */
export function useExpected(season: SeasonId): (p: Spot) => number | null {
  const report = useSession((s) => s.report);
  return (p) => (report ? expectedAt(report, p, season) : null);
}

export interface Round {
  readonly season: SeasonId;
  readonly readings: readonly ReadingRecord[];
  /** When its newest was taken, ISO 8601. */
  readonly time: string;
}

/** The newest round of a unit: what was read within a day and a half. Null: nothing was read. */
export function newestRound(
  { records }: Log,
  unit: string,
  lines: readonly string[],
): Round | null {
  const all = records.filter((r) => isOfUnit(r, unit, lines));
  // What a stand-in read is a round of its own for trying: beside real readings it says nothing.
  const real = all.filter((r) => !isSimulated(r));
  const last = (list: typeof all) => list.reduce((a, r) => (r.time > a ? r.time : a), '');
  const fresh = real.length > 0 && Date.parse(last(all)) - Date.parse(last(real)) <= ONE_ROUND;
  const own = fresh ? real : all;
  if (own.length === 0) return null;
  const time = last(own);
  const newest = own.filter((r) => Date.parse(time) - Date.parse(r.time) <= ONE_ROUND);
  // Of each place the newest; the day as the last reading says it.
  const each = new Map(
    newest.map((r) => [
      `${r.kind} ${r.line} ${r.at_m} ${r.unit} ${JSON.stringify(r.open ?? [])}`,
      r,
    ]),
  );
  const said = newest.findLast((r) => r.weather) ?? newest.at(-1)!;
  return { season: seasonOf(said), readings: [...each.values()], time };
}

/** Whether a reading was taken on a unit's fence, or at the unit. @param lines that hang on it */
const isOfUnit = (r: Logged, unit: string, lines: readonly string[]): boolean =>
  r.line === null ? r.unit === unit : lines.includes(r.line);

/** What goes to the worker of a reading: no more than it asks for. */
const plain = ({ id, time, kind, value, line, at_m, spot, unit, towards, weather, growth, open }: ReadingRecord): Logged =>
  ({ id, time, kind, value, line, at_m, spot, unit, towards, weather, growth, ...(open ? { open } : {}) }); // prettier-ignore

/** A round as the worker is asked about it: with what its fence read before. The same until one of these changes. */
export function useAsked(unit: string | undefined, round: Round | null, log: Log, searching: boolean, open: readonly Place[] = []): { readonly asked: Asked | null; readonly key: string | null } {
  const test = useSession((s) => (unit ? s.report?.energisers[unit]?.earth.test : undefined));
  const asked = useMemo((): Asked | null => {
    if (!unit || !round || !test || round.readings.length === 0) return null;
    const now = new Set(round.readings.map((r) => r.id));
    const before = log.points
      .filter((p) => p.unit === unit && (p.kind === 'volts' || p.kind === 'earth_volts'))
      .flatMap((p) => log.at.get(p.key) ?? [])
      .filter((r) => !now.has(r.id) && !isSimulated(r) && Date.parse(round.time) - Date.parse(r.time) > ONE_ROUND)
      .sort((a, b) => a.time.localeCompare(b.time))
      .map((r) => ({ reading: plain(r), season: seasonOf(r) }));
    return { unit, season: round.season, readings: round.readings.map(plain), before, share: earthShare(test), searching, open };
    // Which switches stand open is told by their places.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [unit, round, log, test, searching, JSON.stringify(open)]);
  const key = asked && JSON.stringify([unit, asked.season, asked.readings.map((r) => [r.id, r.value, r.open]), open, asked.before.length, asked.before.at(-1)?.reading.id, searching]);
  return { asked, key };
} // prettier-ignore

/** What the newest round of a unit says, against its plan and what it read before on days like that. */
export function useSaid(unit: string, round: Round | null, log: Log): Answer<Said> {
  const { asked, key } = useAsked(unit, round, log, false);
  return usePower(key && `said ${key}`, (api) => api.said(asked!), key && `said ${unit}`);
} // prettier-ignore

/** A point in words. */
export function usePointName(): (p: Spot) => string {
  const plan = useSession((s) => s.plan);
  return (p) => {
    const unit = plan.energisers[p.unit]?.name ?? p.unit;
    if (p.line !== null)
      return `${plan.lines[p.line]?.name ?? p.line}, ${say(p.at_m ?? 0, 'along', plan.units)}`;
    if (p.kind === 'earth_volts') return `${unit}, earth`;
    return p.kind === 'battery_volts' ? `${unit}, battery` : `${unit}, terminal`;
  };
}

/** A value of a kind with its unit. */
export function valueWords(kind: Logged['kind'], value: number, units: Units): string {
  if (kind === 'volts') return say(value / 1000, 'kilovolt', units);
  if (kind === 'amps') return say(value, 'ampere', units);
  return kind === 'battery_volts' ? `${value.toFixed(1)} V` : say(value, 'smallVolt', units);
}

export const EVENT_WORDS: Readonly<Record<EventKind, string>> = {
  storm: 'Storm',
  cut: 'Cut or sprayed',
  braces: 'Braces and tension looked at',
  rods: 'Earth tested',
  insulators: 'Insulators looked over',
  trained: 'Stock trained',
  stock_in: 'Stock moved in',
  stock_out: 'Stock moved out',
  switch_open: 'Switch opened',
  switch_closed: 'Switch closed',
  unit_off: 'Unit switched off',
  unit_on: 'Unit switched on',
  seen: 'Seen',
};
