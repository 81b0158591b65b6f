/** The store and the helpers of this server process. */
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { PARTS } from '../core/parts/index.js';
import { PlanSchema } from '../core/plan/schema.js';
import { ProposedSchema } from '../formats/changeSchema.js';
import { prepare } from '../formats/validate.js';
import { peopleStore, type PeopleStore } from './access/people.js';
import { restored, type Restored } from './backup/restore.js';
import { openDatabase } from './database.js';
import { createPool, type Pool } from './jobs/pool.js';
import { createLive } from './live.js';
import { monitorStore, type MonitorStore } from './monitors.js';
import { photoStore, type PhotoStore } from './photos.js';
import { recordStore, type RecordStore } from './records/store.js';
import { planStore, type PlanStore } from './plans/store.js';
import { remembered } from './summaries.js';

export interface Store extends PlanStore {
  readonly records: RecordStore;
  readonly photos: PhotoStore;
  readonly monitors: MonitorStore;
  readonly people: PeopleStore;
  /** Passes when the store can be read and written to. @throws what stands in the way */
  ready(): Promise<void>;
  /** Brings a backup's properties in. */
  restore(zip: Uint8Array): Promise<Restored[]>;
}

/** The file that ANABATIC_DB names. */
export const storeFile = (): string => resolve(process.env['ANABATIC_DB'] ?? 'var/anabatic.sqlite');

/** Who listens to what happens in this process. */
export const live = createLive();

let opened: Promise<Store> | null = null;
/** The store, opened once; one that failed is tried again the next time. */
export function store(): Promise<Store> {
  opened ??= openDatabase(storeFile())
    .then((db) => {
      prepare(PlanSchema, ProposedSchema);
      const records = recordStore(db, live.recorded);
      return {
        ...planStore(db, PARTS, live.changed),
        records,
        photos: photoStore(db),
        monitors: monitorStore(db, records),
        people: peopleStore(db),
        // A change of nothing asks for the right to write all the same.
        ready: async () => void (await db.raw('update property set name = name where 0')),
        restore: (zip: Uint8Array) => restored(db, storeFile(), zip),
      };
    })
    .catch((error: unknown) => {
      opened = null;
      throw error;
    });
  return opened;
}

const summaries = remembered(
  async (id) => (await jobs().run('summary', { file: storeFile(), id }))['text']!,
);
/** A property in a few figures, as JSON; null when there is none. */
export async function summary(id: string): Promise<string | null> {
  const revision = await (await store()).revisionOf(id);
  return revision === null ? null : summaries(id, revision);
}

let pool: Pool | null = null;
/** The helper processes for long work. */
export function jobs(): Pool {
  if (!pool) {
    const file = resolve(process.env['ANABATIC_JOBS'] ?? 'dist/jobs/worker.mjs');
    if (!existsSync(file)) throw new Error('not built yet: run "npm run build" first');
    pool = createPool({ file });
  }
  return pool;
}
