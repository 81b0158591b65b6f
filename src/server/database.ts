/** The one SQLite file: opened once, brought up to date, safe against a killed process. */
import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import knex, { type Knex } from 'knex';
import * as plans from './migrations/001-plans.js';

/** Every migration in order; an explicit list, since bundlers cannot look into folders. */
export const migrations: readonly {
  name: string;
  up(k: Knex): Promise<void>;
  down(k: Knex): Promise<void>;
}[] = [{ name: '001-plans', ...plans }];

interface RawConnection {
  pragma(text: string): unknown;
}

/**
 * Opens the store and runs what migrations are missing.
 * WAL with synchronous=FULL: what has been answered as saved survives a killed server.
 */
export async function openDatabase(file: string): Promise<Knex> {
  mkdirSync(dirname(file), { recursive: true });
  const db = knex({
    client: 'better-sqlite3',
    connection: { filename: file },
    useNullAsDefault: true,
    pool: {
      min: 1,
      max: 1,
      afterCreate(
        connection: RawConnection,
        done: (error: Error | null, c: RawConnection) => void,
      ) {
        connection.pragma('busy_timeout = 5000');
        connection.pragma('journal_mode = WAL');
        connection.pragma('synchronous = FULL');
        connection.pragma('foreign_keys = ON');
        done(null, connection);
      },
    },
  });
  await db.migrate.latest({
    migrationSource: {
      getMigrations: () => Promise.resolve([...migrations]),
      getMigrationName: (m: (typeof migrations)[number]) => m.name,
      getMigration: (m: (typeof migrations)[number]) => Promise.resolve(m),
    },
  });
  return db;
}
