/** What the tabs of Build look at: the work as it is planned, with what was done, seen and forgotten so far. */
import { useMemo } from 'react';
import { create } from 'zustand';
import { workingOf, type Working } from '../../core/build/calendar.js';
import { changeTask, type TaskEdit } from '../../core/build/edits.js';
import { CHECKS, newest, type CheckId, type Seen } from '../../core/build/inspect.js';
import { kindOf } from '../../core/build/kinds.js';
import type { Planned } from '../../core/build/planned.js';
import type { Did } from '../../core/build/rates.js';
import type { Failed } from '../../core/build/shaped.js';
import type { PlannedTask } from '../../core/build/shifts.js';
import type { Plan } from '../../core/plan/schema.js';
import type { BuildAsked } from '../../core/building.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useStanding, type KeptRecord } from '../../session/kept.js';
import { usePower, type Answer } from '../../session/power.js';
import { commit, useSession } from '../../session/session.js';
import { today } from '../../session/today.js';

export const TABS = [
  ['chart', 'Plan of work'],
  ['tasks', 'Tasks'],
  ['days', 'Day by day'],
  ['who', 'Who and when'],
  ['rates', 'Rates'],
  ['inspect', 'Inspect'],
  ['prove', 'Prove'],
  ['cards', 'Bench cards'],
] as const;
export type BuildTab = (typeof TABS)[number][0];

interface Looked {
  readonly tab: BuildTab;
  /** The task that is looked at. */
  readonly task: string | null;
  /** The day that is looked at; null: the first with work. */
  readonly day: string | null;
  /** The bench card that is looked at. */
  readonly card: string | null;
}
export const useBuildTab = create<Looked>(() => ({
  tab: 'chart',
  task: null,
  day: null,
  card: null,
}));

type Waiting = { readonly waiting?: boolean };
export type WorkRecord = KeptRecord & Did & Waiting;
export type InspectionRecord = KeptRecord &
  Seen & {
    readonly line: string | null;
    readonly at_m: number | null;
    readonly spot: string | null;
    readonly photo: string | null;
  } & Waiting;
export type LoadRecord = KeptRecord & {
  readonly day: string;
  readonly item: string;
  readonly kind: string;
  readonly state: 'loaded' | 'forgotten';
} & Waiting;

/** What a failed check is called as work. */
export const checkWords = (check: string): string =>
  CHECKS[check.slice(0, check.indexOf(':')) as CheckId] ?? check;

/** Things that failed at their last inspection. */
export const failedOf = (seen: readonly InspectionRecord[]): Failed[] =>
  [...newest(seen).values()].flatMap((s) => {
    if (s.result !== 'fail') return [];
    const { id, check, line, at_m, note } = s as InspectionRecord;
    const words = `${checkWords(check)}${note ? ` (${note})` : ''}`;
    return [{ id, words: words.slice(0, 120), line, at_m }];
  });

/** What the records say of the work. */
export function useHappened() {
  const did = useStanding<WorkRecord>('work');
  const seen = useStanding<InspectionRecord>('inspections');
  return { did: did.records, seen: seen.records, known: did.known && seen.known };
}

/** What was planned last, and from what: the tabs share it. */
let last: { readonly plan: Plan; readonly key: string; readonly planned: Planned } | null = null;

/** The work, planned; what was planned before until it is planned anew. @param what is thought of beside it */
export function useWork(what?: BuildAsked['what']): Answer<Planned> {
  const plan = useSession((s) => s.plan);
  const { did, seen, known } = useHappened();
  const asked: BuildAsked = {
    did: did.map(({ id, task, kind, day, hours, share, planned_h, counts }) => ({ id, task, kind, day, hours, share, planned_h, counts })), // prettier-ignore
    failed: failedOf(seen),
    today: today(),
    ...(what ? { what } : {}),
  };
  const key = known ? JSON.stringify(asked) : null;
  const shared = !what && last?.plan === plan && last.key === key ? last.planned : null;
  const { value, waiting, share, fault } = usePower(
    shared ? null : key,
    (api) => api.work(asked),
    what ? key : 'work',
  );
  if (!what && value && !waiting && key) last = { plan, key, planned: value };
  if (shared) return { value: shared, waiting: false, share: null, fault: null };
  // Until the records are known nothing is asked yet.
  return {
    value: value ?? (what ? null : (last?.planned ?? null)),
    waiting: waiting || !known,
    share,
    fault,
  };
}

/** Days, hours and crew as they are planned. */
export function useWorking(): Working {
  const build = useSession((s) => s.plan.build);
  const cat = useCatalogue();
  return useMemo(() => workingOf(build, today(), cat), [build, cat]);
}

/** Changes a task by hand. */
export const editTask = (task: PlannedTask, words: string, change: Partial<TaskEdit>): void =>
  commit(`${words}: ${task.name}`, (d) => changeTask(d, task.id, change));

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const; // prettier-ignore
export const weekdayName = (n: number): string => DAYS[n - 1]!;

/** `Tue 1 Dec`; with a year where it is not this one. */
export function dayName(day: string): string {
  const at = new Date(`${day}T00:00:00Z`);
  const year = at.getUTCFullYear() === new Date().getFullYear() ? '' : ` ${at.getUTCFullYear()}`;
  return `${DAYS[(at.getUTCDay() + 6) % 7]} ${at.getUTCDate()} ${MONTHS[at.getUTCMonth()]}${year}`;
}
/** `Tue 1 Dec, 11:15`. */
export const timeName = (at: string): string => `${dayName(at.slice(0, 10))}, ${at.slice(11)}`;

/** What a task is, in few words, with the line that it is on. */
export const fullName = (task: PlannedTask, lines: Plan['lines']): string =>
  task.line === null ? task.name : `${lines[task.line]?.name ?? task.line}: ${task.name}`;

export const phaseOf = (task: Pick<PlannedTask, 'kind'>) => kindOf(task.kind).phase;
