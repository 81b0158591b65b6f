/** What both sides of Faults look at: the unit whose fence is searched, what was read since, and what that says. */
import { useMemo } from 'react';
import { create } from 'zustand';
import { beginAfter, readSince, type Begun } from '../../core/rounds/begun.js';
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

const FROM_NEWEST: Begun = { at: '', left: [] };
/** Where the searches of the properties begin. */
const useBegun = create<Readonly<Record<string, Begun>>>(() => ({}));
/** @param read all that is known: none of it belongs to the search */
export function beginSearch(id: string, read: Log['records']): void {
  const begun = beginAfter(read, new Date().toISOString());
  useBegun.setState({ [id]: begun });
  keepHere(sinceKey(id), begun);
}
/** What an earlier program kept was the time alone. */
function keptBegun(id: string): Begun {
  const kept = keptHere<Begun | string>(sinceKey(id), FROM_NEWEST);
  return typeof kept === 'string' ? { at: kept, left: [] } : kept;
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
  const now = useBegun((s) => s[id]);
  const begun = useMemo(() => now ?? keptBegun(id), [now, id]);
  const fed = Object.values(units).filter((u) => (reports?.[u.id]?.lines.length ?? 0) > 0);
  const unit = fed.find((u) => u.id === chosen) ?? fed[0] ?? null;
  const report = unit ? reports?.[unit.id] : undefined;
  const round = useMemo(() => {
    if (!unit || !report) return null;
    const records = readSince(log.records, begun);
    return newestRound({ ...log, records }, unit.id, report.lines);
  }, [log, unit, report, begun]);
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
