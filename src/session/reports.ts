/**
 * Reports of plans at rest, kept to be shown the next time at once: a property that was opened yesterday has its figures
 * before the worker has worked anything out. In a database of their own: what another program kept is no loss.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Report } from '../core/report/schema.js';

export interface Kept {
  readonly id: string;
  /** Address of the part of the program that asks the heart: built anew, each change of the heart gives it another name. */
  readonly program: string;
  /** The plan that it was worked out for, as text. */
  readonly plan: string;
  readonly report: Report;
}
interface Schema extends DBSchema {
  reports: { key: string; value: Kept };
}

/** Runs on the database; null where there is none, which is the same as having kept nothing. */
async function on<T>(run: (db: IDBPDatabase<Schema>) => Promise<T>): Promise<T | null> {
  try {
    const db = await openDB<Schema>('anabatic.reports', 1, {
      upgrade: (made) => void made.createObjectStore('reports', { keyPath: 'id' }),
    });
    return await run(db).finally(() => db.close());
  } catch {
    return null;
  }
}

/** The report of a property, where it is this program's; whose plan it is says `plan`. Null: none was kept. */
export async function keptReport(id: string, program: string): Promise<Kept | null> {
  const kept = await on((db) => db.get('reports', id));
  return kept?.program === program ? kept : null;
}

let leaving = false;
let writing: Promise<unknown> = Promise.resolve();

/** Keeps the report of a property in the place of the one before; without room there is none the next time. */
export function keepReport(kept: Kept): void {
  if (!leaving) writing = on((db) => db.put('reports', kept));
}

/** Forgets all reports, and keeps none more in this page. */
export async function forgetReports(): Promise<void> {
  leaving = true;
  await writing;
  await on((db) => db.clear('reports'));
}
