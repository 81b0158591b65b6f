/**
 * What of a property this browser keeps to go on without the server: the plan as the server last had it, its ground, its
 * records. What this browser made and the server has not stands in the outbox.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Grid } from '../core/plan/schema.js';
import type { Opened } from '../formats/change.js';
import type { Role } from '../formats/visitor.js';
import type { KeptRecord } from './server.js';

/** A property as it was opened or last heard of. */
export interface KeptProperty extends Opened {
  readonly id: string;
  /** When this was how the server had it, ISO. */
  readonly asOf: string;
  readonly visitor: { readonly name: string; readonly role: Role };
}

/** Records of a kind as far as they were fetched. */
export interface KeptKind {
  readonly records: readonly KeptRecord[];
  /** Counter of the newest that was fetched. */
  readonly since: number;
  readonly older?: boolean;
}

interface Schema extends DBSchema {
  properties: { key: string; value: KeptProperty };
  grids: { key: string; value: Grid };
  records: { key: [property: string, kind: string]; value: KeptKind };
}

const NAME = 'anabatic.field';
let opened: Promise<IDBPDatabase<Schema> | null> | null = null;

/** The database; null where this browser has none, which is then the same as having kept nothing. */
const field = () =>
  (opened ??= (async () =>
    openDB<Schema>(NAME, 1, {
      upgrade(db) {
        db.createObjectStore('properties', { keyPath: 'id' });
        db.createObjectStore('grids');
        db.createObjectStore('records');
      },
      terminated: () => (opened = null),
    }))().catch(() => null));

/** Runs on the database; what cannot be kept or read is as if it had not been. */
async function on<T>(run: (db: IDBPDatabase<Schema>) => Promise<T>): Promise<T | undefined> {
  try {
    const db = await field();
    return db ? await run(db) : undefined;
  } catch {
    return undefined;
  }
}

/** Somebody is leaving: what is still on its way to be kept is kept no more. */
let leaving = false;
const keep = <T>(run: (db: IDBPDatabase<Schema>) => Promise<T>) =>
  leaving ? Promise.resolve(undefined) : on(run);

export const keepProperty = (kept: KeptProperty) => keep((db) => db.put('properties', kept));
export const keptProperty = (id: string) => on((db) => db.get('properties', id));
export const keptProperties = async (): Promise<readonly KeptProperty[]> =>
  (await on((db) => db.getAll('properties'))) ?? [];

export const keepGrid = (id: string, grid: Grid) => keep((db) => db.put('grids', grid, id));
export const keptGrid = (id: string) => on((db) => db.get('grids', id));

export const keepKind = (property: string, kind: string, known: KeptKind) =>
  keep((db) => db.put('records', known, [property, kind]));
export const keptKind = (property: string, kind: string) =>
  on((db) => db.get('records', [property, kind]));

/** Adds one that the server has taken and that has not come back from it yet. */
export const keepTaken = (property: string, kind: string, record: KeptRecord) =>
  keep(async (db) => {
    const tx = db.transaction('records', 'readwrite');
    const known = (await tx.store.get([property, kind])) ?? { records: [], since: 0 };
    if (!known.records.some((r) => r.id === record.id))
      await tx.store.put({ ...known, records: [...known.records, record] }, [property, kind]);
    await tx.done;
  });

/** Keeps nothing more in this page, which is left next: an answer that comes late would put back what is forgotten. */
export const keepNoMore = (): void => void (leaving = true);

/** Forgets all properties, and the photos that were looked at. What waits to be sent stays. */
export async function forgetAll(): Promise<void> {
  await on(async (db) => {
    const tx = db.transaction(['properties', 'grids', 'records'], 'readwrite');
    await Promise.all([
      tx.objectStore('properties').clear(),
      tx.objectStore('grids').clear(),
      tx.objectStore('records').clear(),
    ]);
    await tx.done;
  });
  await globalThis.caches?.delete('photos').catch(() => false);
}
