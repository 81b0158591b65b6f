/** The calendar of care: what is done to a standing fence and how often, when it is due, and what it risks to leave it. */
import { dayNumber, dayText } from '../base/days.js';
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Plan } from '../plan/schema.js';
import { plateOfUnit } from '../power/unit.js';
import type { Report } from '../report/schema.js';
import type { EventKind, Growth, Logged } from './logged.js';

export const CARES = [
  'volts',
  'growth',
  'braces',
  'creep',
  'rods',
  'insulators',
  'battery',
  'storm',
  'trained',
] as const;
export type Care = (typeof CARES)[number];

/** What happened, as far as care asks. Days YYYY-MM-DD. */
export interface Happened {
  readonly read: readonly Logged[];
  readonly events: readonly {
    readonly what: EventKind;
    readonly line: string | null;
    readonly time: string;
  }[];
  readonly tension: readonly { readonly line: string | null; readonly time: string }[];
}

export interface Due {
  readonly id: string;
  readonly care: Care;
  /** Null: the whole property. */
  readonly line: string | null;
  readonly unit: string | null;
  readonly title: string;
  readonly why: string;
  /** Last time, and when it is due again, YYYY-MM-DD; never done: null. */
  readonly last: string | null;
  readonly due: string;
  readonly state: 'late' | 'due' | 'coming';
  /** What it risks to leave it, where there is a figure. */
  readonly risk: Risk | null;
}

export type Risk =
  /** Volts at the worst place if nobody cuts, and what the stock asks there. */
  | { readonly kind: 'volts'; readonly v_V: number; readonly aim_V: number; readonly line: string }
  /** What the earth test reads in the driest month, V, and what is allowed. */
  | { readonly kind: 'earth'; readonly reading_V: number; readonly limit_V: number }
  /** Share of its tension that wire loses in its first year. */
  | { readonly kind: 'tension'; readonly share: number }
  /** Days for which a dead fence goes unseen on the average: half of what lies between two readings. */
  | { readonly kind: 'unseen'; readonly days: number };

const dayOf = (time: string): string => time.slice(0, 10);
const later = (day: string, days: number): string => dayText(dayNumber(day) + days);
const newest = (times: readonly string[]): string | null =>
  times.length ? dayOf(times.reduce((a, b) => (a > b ? a : b))) : null;

/** Days after stringing at which braces and tension are looked at in the first year [practice]. */
export const FIRST_YEAR = [1, 7, 75] as const;
const YEAR = 365;

/**
 * Everything that is due by and by, what is late first.
 * @param today YYYY-MM-DD
 */
export function careOf(plan: Plan, report: Report | null, cat: Catalogue, was: Happened, today: string): Due[] {
  const out: Omit<Due, 'state'>[] = [];
  const event = (what: EventKind, line: string | null = null) => newest(was.events.filter((e) => e.what === what && (line === null || e.line === null || e.line === line)).map((e) => e.time));
  const put = (due: Omit<Due, 'state' | 'line' | 'unit'> & Partial<Pick<Due, 'line' | 'unit'>>) => out.push({ line: null, unit: null, ...due });
  const strung = Object.values(plan.lines).flatMap((l) => (l.strung_on ? [{ line: l, on: l.strung_on }] : []));
  const standing = strung.length > 0 || was.read.length > 0;
  const volts = newest(was.read.filter((r) => r.kind === 'volts').map((r) => r.time));

  if (standing && Object.keys(plan.energisers).length > 0) {
    const every = figure(cat, 'care.voltsDays');
    put({
      id: 'volts', care: 'volts', title: 'Read the round', last: volts, due: volts ? later(volts, every) : today,
      why: 'Volts weekly: a fence that is dead is found before the stock finds it.',
      risk: { kind: 'unseen', days: (volts ? Math.max(every, dayNumber(today) - dayNumber(volts)) : every) / 2 },
    });
    const cut = event('cut');
    const seen = [...was.read].reverse().find((r) => r.growth)?.growth ?? null;
    put({
      id: 'growth', care: 'growth', title: 'Cut or spray under the lowest strand', last: cut, due: growthDue(cut, seen, was.read, cat, today),
      why: 'By growth, not by the calendar: when it reaches the lowest strand it leaks, the more the wetter it is.',
      risk: uncut(report),
    });
    const rods = event('rods') ?? newest(was.read.filter((r) => r.kind === 'earth_volts').map((r) => r.time));
    const driest = figure(cat, 'care.driestMonth');
    put({
      id: 'rods', care: 'rods', title: 'Test the earth', last: rods, due: rodsDue(rods, driest, today),
      why: 'Yearly in the driest month: an earth that does then does all the year.',
      risk: earthRisk(report, cat),
    });
    const insulators = event('insulators');
    const first = newest(strung.map((s) => s.on)) ?? volts ?? today;
    put({ id: 'insulators', care: 'insulators', title: 'Look over the insulators', last: insulators, due: later(insulators ?? first, YEAR), why: 'Yearly: cracked, tracked or pulled ones leak when it is wet.', risk: null });
    for (const u of Object.values(plan.energisers)) {
      if (plateOfUnit(u, cat).supply === 'mains') continue;
      const own = newest(was.read.filter((r) => r.kind === 'battery_volts' && (r.unit ?? u.id) === u.id).map((r) => r.time));
      put({ id: `battery ${u.id}`, care: 'battery', unit: u.id, title: `Read the battery of ${u.name}`, last: own, due: own ? later(own, figure(cat, 'care.batteryDays')) : today, why: 'A battery that is emptied too far is spoilt; a panel in shade or dirt shows here first.', risk: null });
    }
  }
  for (const { line, on } of strung) {
    const seen = newest([...was.tension.filter((t) => t.line === line.id).map((t) => t.time), ...was.events.filter((e) => e.what === 'braces' && (e.line === line.id || e.line === null)).map((e) => e.time)]);
    put({
      id: `braces ${line.id}`, care: 'braces', line: line.id, title: `Braces and tension of ${line.name}`, last: seen, due: bracesDue(on, seen),
      why: 'A day, a week and two to three months after stringing, then yearly: ends settle and knots bed in.',
      risk: null,
    });
    const creeping = line.strands.map((s) => recordOf(cat.wires, s.wire)).find((w) => (w.creep ?? 0) > 0);
    if (creeping && !line.takenUp_on)
      put({ id: `creep ${line.id}`, care: 'creep', line: line.id, title: `Take up the wire of ${line.name}`, last: null, due: later(on, YEAR), why: 'Medium-tensile and soft wire stretches for good in its first year.', risk: { kind: 'tension', share: creeping.creep! } });
  }
  // Each storm asks for a walk of its own: the newest that nobody has walked after.
  const storm = event('storm');
  if (storm) {
    const after = newest([...was.read.map((r) => r.time), ...was.events.filter((e) => e.what === 'seen').map((e) => e.time)].filter((t) => dayOf(t) >= storm && t > stormTime(was, storm)));
    if (!after) put({ id: `storm ${storm}`, care: 'storm', title: 'Walk the fence after the storm', last: null, due: later(storm, 1), why: 'Branches, fallen trees, flood litter and lightning: look and read before the stock is trusted to it.', risk: null });
  }
  const stock = [...new Set(Object.values(plan.lines).flatMap((l) => [...l.left, ...l.right]))];
  if (standing && stock.length > 0) {
    const trained = event('trained');
    const moved = event('stock_in');
    const again = trained === null || (moved !== null && moved > trained);
    if (again) put({ id: 'trained', care: 'trained', title: 'Train the stock', last: trained, due: trained === null ? today : moved!, why: 'New animals learn in a small strong paddock before they meet the fence: one that has pushed through a dead fence tests it again.', risk: null });
  }
  return out
    .map((d): Due => ({ ...d, state: d.due < later(today, -LATE_DAYS) ? 'late' : d.due <= today ? 'due' : 'coming' }))
    .sort((a, b) => a.due.localeCompare(b.due) || a.title.localeCompare(b.title));
} // prettier-ignore

/** Due a day or two ago is not late yet. */
const LATE_DAYS = 2;

const stormTime = (was: Happened, day: string): string =>
  was.events.filter((e) => e.what === 'storm' && dayOf(e.time) === day).reduce((a, e) => (e.time > a ? e.time : a), ''); // prettier-ignore

/** Long growth that was put down after the last cut is due now; else so many days after it. */
function growthDue(cut: string | null, seen: Growth | null, read: readonly Logged[], cat: Catalogue, today: string): string {
  const long = read.filter((r) => r.growth === 'long' && (cut === null || dayOf(r.time) > cut)).map((r) => dayOf(r.time)).sort()[0];
  if (seen === 'long' && long) return long;
  return growing(cut ? later(cut, figure(cat, 'care.growthDays')) : today, figure(cat, 'care.driestMonth'));
} // prettier-ignore

/** Months before and after the driest one in which things grow [assumed]. */
const GROWS = 3;

/** A day, or the first after it on which things grow. */
function growing(day: string, driest: number): string {
  for (let d = day; ; d = later(`${d.slice(0, 7)}-28`, 4).slice(0, 7) + '-01') {
    const off = Math.abs(Number(d.slice(5, 7)) - driest);
    if (Math.min(off, 12 - off) <= GROWS) return d;
  }
}

/** In the driest month of the year: this one's, or the next one's where it was tested since. */
function rodsDue(last: string | null, month: number, today: string): string {
  const inYear = (year: number) => `${year}-${String(month).padStart(2, '0')}-15`;
  const year = Number(today.slice(0, 4));
  const tested = last !== null && Math.abs(dayNumber(last) - dayNumber(inYear(Number(last.slice(0, 4))))) <= 60 ? Number(last.slice(0, 4)) : null;
  if (tested === year) return inYear(year + 1);
  // Not this year yet. Before it was ever tested, a month that is long over is not held against anybody.
  if (last === null && today > later(inYear(year), 60)) return inYear(year + 1);
  return inYear(year);
} // prettier-ignore

/** The next of the looks of the first year that nobody has done, then yearly. */
function bracesDue(strung: string, seen: string | null): string {
  if (seen === null || seen < strung) return later(strung, FIRST_YEAR[0]);
  const next = FIRST_YEAR.map((d) => later(strung, d)).find((d) => seen < d);
  return next ?? later(seen, YEAR);
}

function uncut(report: Report | null): Risk | null {
  const worst = Object.values(report?.energisers ?? {}).flatMap((e) => e.seasons['weedy']?.worst ?? []);
  const least = worst.reduce<(typeof worst)[number] | null>((a, b) => (!a || b.v_V / b.aim_V < a.v_V / a.aim_V ? b : a), null);
  return least && { kind: 'volts', v_V: least.v_V, aim_V: least.aim_V, line: least.line };
} // prettier-ignore

function earthRisk(report: Report | null, cat: Catalogue): Risk | null {
  const tests = Object.values(report?.energisers ?? {}).map((e) => e.earth.test.reading_V);
  return tests.length ? { kind: 'earth', reading_V: Math.max(...tests), limit_V: figure(cat, 'earth.testLimit') } : null; // prettier-ignore
}
