/**
 * What is on its way to the server, in this browser's own database: one for each property, so that a
 * reload, a closed tab or a dead server loses nothing. Ordered by the database's own counter and never
 * by a clock.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** Something that waits to be sent. */
export interface Waiting<T> {
  /** Its client id. */
  readonly id: string;
  readonly body: T;
}

/** What waits: changes of the plan, and records of what happened. */
export type Lane = 'changes' | 'records';

interface Schema extends DBSchema {
  changes: { key: number; value: Waiting<unknown>; indexes: { id: string } };
  records: { key: number; value: Waiting<unknown>; indexes: { id: string } };
}

export interface Outbox {
  /** Keeps a thing until it is forgotten; false when this browser could not. */
  keep(lane: Lane, id: string, body: unknown): Promise<boolean>;
  /** Another body in the place of the one that is kept under that id; where none is, or it cannot be written, what is there stays. */
  replace(lane: Lane, id: string, body: unknown): Promise<void>;
  forget(lane: Lane, id: string): Promise<void>;
  /** All that is left of earlier tabs, oldest first. */
  left<T>(lane: Lane): Promise<Waiting<T>[]>;
}

/** Opens the outbox of a property; one that cannot be opened keeps nothing, and says so each time. */
export function openOutbox(property: string): Outbox {
  // Async, since some browsers throw where others reject.
  const open = async (): Promise<IDBPDatabase<Schema>> =>
    openDB<Schema>(`anabatic.${property}`, 1, {
      upgrade(db) {
        for (const lane of ['changes', 'records'] as const)
          db.createObjectStore(lane, { autoIncrement: true }).createIndex('id', 'id');
      },
    });
  const opened = open().catch(() => null);
  // One after another: a thing is never forgotten before it was kept.
  let last: Promise<unknown> = opened;
  const inTurn = <T>(run: () => Promise<T>): Promise<T> => {
    const next = last.then(run, run);
    last = next.catch(() => undefined);
    return next;
  };
  return {
    keep: (lane, id, body) =>
      inTurn(async () => {
        const db = await opened;
        if (!db) return false;
        try {
          const tx = db.transaction(lane, 'readwrite', { durability: 'strict' });
          void tx.store.add({ id, body }).catch(() => undefined);
          // Without waiting for the next turn: a page that closes now has it kept all the same.
          tx.commit();
          await tx.done;
          return true;
        } catch {
          return false;
        }
      }),
    replace: (lane, id, body) =>
      inTurn(async () => {
        const db = await opened;
        if (!db) return;
        const tx = db.transaction(lane, 'readwrite', { durability: 'strict' });
        const key = await tx.store.index('id').getKey(id);
        if (key !== undefined) await tx.store.put({ id, body }, key);
        await tx.done;
      }).catch(() => undefined),
    forget: (lane, id) =>
      inTurn(async () => {
        const db = await opened;
        if (!db) return;
        const tx = db.transaction(lane, 'readwrite');
        for (const key of await tx.store.index('id').getAllKeys(id)) await tx.store.delete(key);
        await tx.done;
      }).catch(() => undefined),
    left: <T>(lane: Lane) =>
      inTurn(async () => {
        const db = await opened;
        return ((await db?.getAll(lane)) ?? []) as Waiting<T>[];
      }).catch(() => [] as Waiting<T>[]),
  };
}
