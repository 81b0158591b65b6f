/** A practice hunt of this tab: hidden by the worker, kept in this browser until it is over; nothing of it goes into the log. */
import { create } from 'zustand';
import { IN_VAIN_MIN, type Level } from '../../core/faults/practice.js';
import type { Place } from '../../core/power/pulseNet.js';
import type { Logged } from '../../core/rounds/logged.js';
import { earthShare } from '../../core/rounds/points.js';
import { keepHere, keptHere } from '../../session/here.js';
import { askPower, usePower, type Answer } from '../../session/power.js';
import { useSession } from '../../session/session.js';
import type { Revealed } from '../../core/rounds/reckoning.js';
import type { Asked } from '../../core/rounds/said.js';
import type { NextPlace, Search } from '../../core/rounds/search.js';

const SEASON = 'today';

export interface Practice {
  readonly unit: string;
  readonly level: Level;
  readonly seed: number;
  readonly readings: readonly Logged[];
  readonly here: Place | null;
  readonly minutes: number;
  /** What the readings say is shown. */
  readonly shown: boolean;
  /** How often somebody looked and it was not there. */
  readonly vain: number;
  readonly end: (Revealed & { readonly found: boolean }) | null;
}

interface Held {
  readonly on: boolean;
  readonly of: Practice | null;
  readonly busy: boolean;
  /** What the last step did, in words. */
  readonly said: string;
}
export const usePractice = create<Held>(() => ({ on: false, of: null, busy: false, said: '' }));
const { getState: get, setState: set } = usePractice;

const keyNow = () => `anabatic.practice.${useSession.getState().id}`;
function keep(of: Practice | null): void {
  set({ of });
  keepHere(keyNow(), of);
}
/** The hunt that was begun in this browser, if one was. */
export const resume = (): void => set({ of: keptHere<Practice | null>(keyNow(), null) });

const shareOf = (unit: string): number => {
  const test = useSession.getState().report?.energisers[unit]?.earth.test;
  return test ? earthShare(test) : 1;
};
const hidden = ({ unit, level, seed }: Pick<Practice, 'unit' | 'level' | 'seed'>) =>
  askPower((api) => api.hide(unit, SEASON, level, seed, shareOf(unit)));

/** Runs a step; while it runs, nothing else is begun. */
async function step(run: () => Promise<string>): Promise<void> {
  if (get().busy) return;
  set({ busy: true });
  const said = await run().catch(() => 'That could not be done now.');
  set({ busy: false, said });
}

let n = 0;
const put = (part: Pick<Logged, 'kind' | 'value'> & Partial<Logged>): Logged => ({ id: `p${n++}${Math.random()}`, time: new Date().toISOString(), line: null, at_m: null, spot: null, ...part }); // prettier-ignore

/** Hides a fault, and reads the unit. */
export const begin = (unit: string, level: Level): Promise<void> =>
  step(async () => {
    const seed = Math.floor(Math.random() * 1e9);
    if (!(await hidden({ unit, level, seed }))) return 'There is no fence to hide it in.';
    const first = await askPower((api) => api.probe(null, null, shareOf(unit)));
    if (!first) return 'There is no fence to hide it in.';
    const readings = [
      put({ kind: 'volts', value: first.volts, spot: 'terminal', unit }),
      put({ kind: 'earth_volts', value: first.earth ?? 0, spot: 'last rod', unit }),
    ];
    keep({ unit, level, seed, readings, here: null, minutes: first.minutes, shown: level === 1, vain: 0, end: null }); // prettier-ignore
    return 'A fault is hidden. You stand at the unit, and have read its terminal and its earth.';
  });

/** Walks to a place and reads there. */
export const goTo = (to: Place): Promise<void> =>
  step(async () => {
    const of = get().of;
    if (!of || of.end) return '';
    // A worker of another tab, or one begun anew, knows of no hunt.
    if (!(await hidden(of))) return 'That fence is no more.';
    const read = await askPower((api) => api.probe(of.here, to, shareOf(of.unit)));
    if (!read) return 'Nothing of that unit is there.';
    const amps = read.amps === null ? [] : [put({ kind: 'amps', value: Math.abs(read.amps), towards: read.amps > 0 ? 'end' : 'start', ...to })]; // prettier-ignore
    keep({ ...of, here: to, minutes: of.minutes + read.minutes, readings: [...of.readings, put({ kind: 'volts', value: read.volts, ...to }), ...amps] }); // prettier-ignore
    return `${Math.round(read.minutes)} min to go and read.`;
  });

/** Looks for it where one stands, or gives it up. */
export const look = (given: boolean): Promise<void> =>
  step(async () => {
    const of = get().of;
    if (!of || of.end || !(await hidden(of))) return '';
    const found = !given && of.here !== null && ((await askPower((api) => api.seen(of.here!))) ?? false); // prettier-ignore
    if (!found && !given) {
      keep({ ...of, minutes: of.minutes + IN_VAIN_MIN, vain: of.vain + 1 });
      return `It is not in sight from here: ${IN_VAIN_MIN} min lost looking.`;
    }
    const end = await askPower((api) => api.reveal(shareOf(of.unit)));
    if (!end) return 'That fence is no more.';
    keep({ ...of, end: { ...end, found } });
    return found ? 'There it is.' : 'Given up.';
  });

export const showIt = (shown: boolean): void => {
  const { of } = get();
  if (of) keep({ ...of, shown });
};
export const over = (): void => keep(null);

/** What the readings of the hunt say, where it is shown; and where to go next. */
export function usePracticeSearch(): { readonly answer: Answer<Search>; readonly next: Answer<readonly NextPlace[]> } {
  const of = usePractice((p) => (p.on ? p.of : null));
  const key = of && (of.shown || of.end) ? JSON.stringify(['practice', of.unit, of.seed, of.readings.length]) : null;
  const subject = key && `practice ${of!.unit} ${of!.seed}`;
  const asked = (): Asked => ({ unit: of!.unit, season: SEASON, readings: of!.readings, before: [], share: shareOf(of!.unit), searching: true });
  return {
    answer: usePower(key, (api) => api.search(asked()), subject),
    next: usePower<readonly NextPlace[]>(key && `next ${key}`, (api) => api.next(asked(), of!.here), subject),
  };
} // prettier-ignore

/** What told the most: the largest current, and where the current turned round on one line. */
export function clueOf({ readings }: Pick<Practice, 'readings'>): { readonly largest: Logged | null; readonly turned: readonly [Logged, Logged] | null } {
  const amps = readings.filter((r) => r.kind === 'amps' && r.line !== null);
  const largest = amps.reduce<Logged | null>((a, r) => (a === null || r.value > a.value ? r : a), null);
  const sorted = [...amps].sort((a, b) => a.line!.localeCompare(b.line!) || a.at_m! - b.at_m!);
  const k = sorted.findIndex((r, i) => sorted[i + 1]?.line === r.line && r.towards === 'end' && sorted[i + 1]!.towards === 'start');
  return { largest, turned: k < 0 ? null : [sorted[k]!, sorted[k + 1]!] };
} // prettier-ignore
