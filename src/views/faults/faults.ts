/** What both sides of Faults look at: the unit whose fence is searched, what was read since, and what that says. */
import { useMemo } from 'react';
import { create } from 'zustand';
import type { TestPoint } from '../../core/rounds/points.js';
import type { Place } from '../../core/power/pulseNet.js';
import { keepHere, keptHere } from '../../session/here.js';
import { usePower, type Answer } from '../../session/power.js';
import { useSession } from '../../session/session.js';
import type { NextPlace, Search } from '../../core/rounds/search.js';
import { newestRound, useAsked, useLog, type Log, type Round } from '../rounds/rounds.js';

interface Looked {
  readonly unit: string | null;
  /** Where it is read next, as somebody chose it; null: as is proposed. */
  readonly asked: TestPoint | null;
  /** The meter shows amps and their direction too. */
  readonly both: boolean;
}
const BOTH = 'anabatic.search.amps';
export const useFaults = create<Looked>(() => ({
  unit: null,
  asked: null,
  both: keptHere(BOTH, false),
}));
export function keepBoth(on: boolean): boolean {
  keepHere(BOTH, on);
  return on;
}

const sinceKey = (id: string) => `anabatic.search.${id}`;

/** When the search began, ISO 8601; what was read before belongs to no search. Empty: with the newest round. */
const useSince = create<{ readonly at: Readonly<Record<string, string>> }>(() => ({ at: {} }));
export function beginSearch(id: string): void {
  const now = new Date().toISOString();
  useSince.setState(({ at }) => ({ at: { ...at, [id]: now } }));
  keepHere(sinceKey(id), now);
}

export interface Searched {
  readonly unit: { readonly id: string; readonly name: string } | null;
  readonly log: Log;
  readonly round: Round | null;
  readonly answer: Answer<Search>;
  /** Where to go and read next: it takes longer to be known than what was read says. */
  readonly next: Answer<readonly NextPlace[]>;
  /** Where the last reading was taken, on a line; null: at the unit. */
  readonly here: Place | null;
}

/** The search as it stands. */
export function useSearch(): Searched {
  const id = useSession((s) => s.id);
  const units = useSession((s) => s.plan.energisers);
  const reports = useSession((s) => s.report?.energisers);
  const chosen = useFaults((f) => f.unit);
  const log = useLog();
  const begun = useSince((s) => s.at[id]);
  const since = begun ?? keptHere<string>(sinceKey(id), '');
  const fed = Object.values(units).filter((u) => (reports?.[u.id]?.lines.length ?? 0) > 0);
  const unit = fed.find((u) => u.id === chosen) ?? fed[0] ?? null;
  const report = unit ? reports?.[unit.id] : undefined;
  const round = useMemo(() => {
    if (!unit || !report) return null;
    const records = log.records.filter((r) => r.time >= since);
    return newestRound({ ...log, records }, unit.id, report.lines);
  }, [log, unit, report, since]);
  const { asked, key: own } = useAsked(unit?.id, round, log, true, log.open);
  const last = round?.readings
    .filter((r) => r.line !== null && r.at_m !== null)
    .reduce<Round['readings'][number] | null>(
      (a, r) => (a === null || r.time >= a.time ? r : a),
      null,
    );
  const here: Place | null = last ? { line: last.line!, at_m: last.at_m! } : null;
  // One reading more: what was said before stays until it is weighed.
  const answer = usePower(own && `search ${own}`, (api) => api.search(asked!), own && `search ${unit?.id}`); // prettier-ignore
  const next = usePower<readonly NextPlace[]>(own && `next ${own} ${JSON.stringify(here)}`, (api) => api.next(asked!, here), own && `next ${unit?.id}`); // prettier-ignore
  return { unit, log, round, answer, next, here };
}
