/**
 * Records of what happened on their way to the server: kept first, then sent in order until the server
 * has answered. They never wait for the plan, and the plan never waits for them.
 */
import { create } from 'zustand';
import type { Outbox } from './outbox.js';
import { keepTaken } from './field.js';
import { again, postRecord, type KeptRecord } from './server.js';
import { useSession } from './state.js';
import { mayNot } from './visitor.js';

export interface RecordOut {
  readonly kind: string;
  readonly record: { readonly id: string };
}

interface Outgoing {
  readonly pending: readonly RecordOut[];
  /** Taken by the server since this tab was opened. */
  readonly sent: readonly RecordOut[];
  /** Not taken by the server, with its word; kept until the user has seen it. */
  readonly refused: readonly (RecordOut & { readonly reason: string })[];
  /** This browser could not keep one: it lives in this tab alone until it is sent. */
  readonly full: boolean;
}

export const useRecords = create<Outgoing>(() => ({
  pending: [],
  sent: [],
  refused: [],
  full: false,
}));
const { getState: get, setState: set } = useRecords;

let box: Outbox | null = null;

/** Sends what an earlier tab left, and whatever comes from now on. */
export async function sendLeft(outbox: Outbox): Promise<void> {
  box = outbox;
  set({ pending: [], sent: [], refused: [], full: false });
  const left = await outbox.left<RecordOut>('records');
  // What was recorded meanwhile comes behind what an earlier tab left.
  set(({ pending }) => {
    const now = new Set(pending.map((p) => p.record.id));
    return {
      pending: [...left.map((w) => w.body).filter((b) => !now.has(b.record.id)), ...pending],
    };
  });
  void flush();
}

/** Records that something happened. @param out its id is the client's own: sent twice, kept once */
export async function record(out: RecordOut): Promise<void> {
  set((s) => ({ pending: [...s.pending, out] }));
  const kept = (await box?.keep('records', out.record.id, out)) ?? false;
  if (!kept) set({ full: true });
  void flush();
}

/**
 * Keeps a record of something that happened now.
 * @param fields of its kind; what it says of `time`, `who` and `note` stands
 * @returns its id
 */
export function happened(kind: string, fields: object): string {
  const why = mayNot();
  if (why) {
    useSession.setState({ refused: why });
    return '';
  }
  const time = new Date().toISOString();
  const made = { id: crypto.randomUUID() as string, time, who: '', note: '', ...fields };
  void record({ kind, record: made });
  return made.id;
}

/** What a record has beside the fields of its kind, `who` aside. */
const OWN = ['id', 'time', 'note', 'seq', 'saved_at', 'waiting', 'corrects', 'void'];

/** Takes a record back by a further one. */
export function takeBack(kind: string, of: { readonly id: string }): void {
  const fields = Object.fromEntries(Object.entries(of).filter(([key]) => !OWN.includes(key)));
  happened(kind, { ...fields, note: 'taken back', corrects: of.id, void: true });
}

let flushing = false;
async function flush(): Promise<void> {
  if (flushing) return;
  flushing = true;
  for (let next = get().pending[0]; next; next = get().pending[0]) {
    const out = next;
    const answer = await again(() => postRecord(out.kind, out.record));
    set((s) => ({
      pending: s.pending.filter((p) => p !== out),
      sent: answer.taken ? [...s.sent, out] : s.sent,
      refused: answer.taken ? s.refused : [...s.refused, { ...out, reason: answer.reason }],
    }));
    // What was refused stays in the browser: it is the only copy.
    if (!answer.taken) continue;
    await keepTaken(useSession.getState().id, out.kind, out.record as KeptRecord);
    await box?.forget('records', out.record.id);
  }
  flushing = false;
}
