/** Records that the server keeps, as this tab knows them: fetched once, then only what is new. */
import { useEffect } from 'react';
import { create } from 'zustand';
import { keepKind, keptKind, type KeptKind } from './field.js';
import { useReach } from './reach.js';
import { useRecords } from './records.js';
import { newestRecords, recordsSince, type KeptRecord } from './server.js';
import { useSession } from './state.js';

export type { KeptRecord } from './server.js';

/** `older`: there are older ones on the server that were not asked for. */
type Known = KeptKind;

/**
 * Kinds that grow for years, of which a tab asks for the newest alone: a log of a hundred thousand is as quick to open
 * as one of a hundred.
 */
const NEWEST: Readonly<Record<string, number>> = { readings: 1500, events: 1000 };

/** Every kind: all are fetched ahead, so that each can be looked at without the server. */
export const KINDS = ['readings', 'tension', 'stock', 'orders', 'deliveries', 'states', 'work', 'inspections', 'loads', 'events', 'repairs'] as const; // prettier-ignore

const useKept = create<Readonly<Record<string, Known>>>(() => ({}));
/** Kinds that are being fetched now, and whether somebody asked again meanwhile. */
const asking = new Map<string, boolean>();

async function follow(kind: string): Promise<void> {
  if (asking.has(kind)) {
    asking.set(kind, true);
    return;
  }
  asking.set(kind, false);
  try {
    for (;;) {
      const { id } = useSession.getState();
      const known = useKept.getState()[kind] ?? (await fromHere(id, kind));
      const newest = NEWEST[kind];
      if (!known && newest !== undefined) {
        const page = await newestRecords(kind, newest);
        if (!page) return;
        const older = page.records.length === newest;
        put(id, kind, { records: page.records, since: page.records.at(-1)?.seq ?? 0, older });
        return;
      }
      const { records, since } = known ?? { records: [], since: 0 };
      const page = await recordsSince(kind, since);
      if (!page) return;
      const last = page.records.at(-1)?.seq ?? since;
      if (page.records.length > 0 || !useKept.getState()[kind])
        put(id, kind, { ...known, records: fresh(records, page.records, newest), since: last });
      if (!page.more) return;
    }
  } finally {
    const again = asking.get(kind);
    asking.delete(kind);
    if (again) void follow(kind);
  }
}

/** What this browser kept of a kind, shown at once; what came meanwhile follows. */
async function fromHere(id: string, kind: string): Promise<Known | undefined> {
  const known = await keptKind(id, kind);
  // A kind of which only what was sent from here is known is not known yet.
  if (!known || (known.since === 0 && useReach.getState().away === null)) return undefined;
  useKept.setState({ [kind]: known });
  return known;
}

function put(id: string, kind: string, known: Known): void {
  useKept.setState({ [kind]: known });
  void keepKind(id, kind, known);
}

/** Those that are known with those that came, each once, and of a kind that grows for years no more than twice what is asked for. */
function fresh(known: readonly KeptRecord[], came: readonly KeptRecord[], newest = Infinity) {
  const ids = new Set(came.map((r) => r.id));
  const all = [...known.filter((r) => !ids.has(r.id)), ...came];
  return all.length > 2 * newest ? all.slice(-newest) : all;
}

/** Asks for what is new of a kind that somebody has written to. */
export const followKind = (kind: string): void => void follow(kind);
/** Fetches every kind, one after another, to be there without the server. */
export async function followAll(): Promise<void> {
  for (const kind of KINDS) await follow(kind);
}

export interface Standing<T> {
  readonly records: readonly (T & { readonly waiting?: boolean })[];
  readonly known: boolean;
  /** The server has older ones that this tab has not. */
  readonly older: boolean;
}

/**
 * The records of a kind that stand, oldest first: corrections in the place of what they correct, and what this tab has
 * not sent yet behind them; null until the server has answered once and nothing waits.
 */
export function useStanding<T extends KeptRecord>(kind: string): Standing<T> {
  const known = useKept((k) => k[kind]);
  const pending = useRecords((r) => r.pending);
  const sent = useRecords((r) => r.sent);
  const of = (list: typeof pending) =>
    list.flatMap((p) => (p.kind === kind ? [p.record as T] : []));
  const waiting = of(pending).map((r) => ({ ...r, waiting: true }));
  useEffect(() => {
    void follow(kind);
    // What was sent has come back from the server; what others wrote is asked for now and then.
    const timer = setInterval(() => void follow(kind), 20_000);
    return () => clearInterval(timer);
  }, [kind, pending.length]);
  // What was sent stands until it has come back.
  const all = [...((known?.records ?? []) as readonly T[]), ...of(sent), ...waiting];
  return { records: standing(all), known: known !== undefined, older: known?.older ?? false };
}

/** Records without what was corrected or taken back; one that is sent and kept stands once. */
export function standing<T extends KeptRecord>(all: readonly T[]): T[] {
  const gone = new Set(all.flatMap((r) => r.corrects ?? []));
  const seen = new Set<string>();
  return all.filter((r) => {
    if (gone.has(r.id) || r.void || seen.has(r.id)) return false;
    seen.add(r.id);
    return true;
  });
}
