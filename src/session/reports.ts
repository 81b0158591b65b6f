/**
 * Reports of plans at rest, kept to be shown the next time at once: a property that was opened yesterday has its figures
 * before the worker has worked anything out. In a database of their own: what another program kept is no loss.
 */
import { openDB, type DBSchema } from 'idb';
import type { Report } from '../core/report/schema.js';

interface Kept {
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

const NAME = 'anabatic.reports';
const open = async () =>
  openDB<Schema>(NAME, 1, {
    upgrade: (db) => void db.createObjectStore('reports', { keyPath: 'id' }),
  });

/** The report of a property, where it is this program's; whose plan it is says `plan`. Null: none was kept. */
export async function keptReport(id: string, program: string): Promise<Kept | null> {
  try {
    const db = await open();
    const kept = await db.get('reports', id);
    db.close();
    return kept?.program === program ? kept : null;
  } catch {
    return null;
  }
}

let leaving = false;
let writing: Promise<unknown> = Promise.resolve();

/** Keeps the report of a property in the place of the one before; without room there is none the next time. */
export function keepReport(kept: Kept): void {
  if (leaving) return;
  writing = (async () => {
    const db = await open();
    await db.put('reports', kept).finally(() => db.close());
  })().catch(() => undefined);
}

/** Forgets all reports, and keeps none more in this page. */
export async function forgetReports(): Promise<void> {
  leaving = true;
  await writing;
  try {
    const db = await open();
    await db.clear('reports');
    db.close();
  } catch {
    // Nothing was kept.
  }
}
