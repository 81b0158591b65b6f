/** The one SQLite file: opened once, checked, brought up to date, safe against a killed process. */
import { existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname } from 'node:path';
import knex, { type Knex } from 'knex';
import * as plans from './migrations/001-plans.js';
import * as ofAndLift from './migrations/002-of-and-lift.js';
import * as readings from './migrations/003-readings.js';
import * as tensionChecks from './migrations/004-tension-checks.js';
import * as supplies from './migrations/005-supplies.js';
import * as building from './migrations/006-building.js';
import * as rounds from './migrations/007-rounds.js';
import * as monitors from './migrations/008-monitors.js';
import * as people from './migrations/009-people.js';

interface NamedMigration {
  readonly name: string;
  up(k: Knex): Promise<void>;
  down(k: Knex): Promise<void>;
}

/** Every migration in order; an explicit list, since bundlers cannot look into folders. */
export const migrations: readonly NamedMigration[] = [
  { name: '001-plans', ...plans },
  { name: '002-of-and-lift', ...ofAndLift },
  { name: '003-readings', ...readings },
  { name: '004-tension-checks', ...tensionChecks },
  { name: '005-supplies', ...supplies },
  { name: '006-building', ...building },
  { name: '007-rounds', ...rounds },
  { name: '008-monitors', ...monitors },
  { name: '009-people', ...people },
];

/** A store that cannot be used as it is, in one plain line. */
export class StoreError extends Error {
  override readonly name = 'StoreError';
}

const PLAIN: readonly (readonly [code: RegExp, words: string])[] = [
  [/^SQLITE_(CORRUPT|NOTADB)/, 'is damaged, or is no store of this program'],
  [/^SQLITE_(READONLY|PERM)/, 'cannot be written: it, or its folder, is read-only'],
  [/^SQLITE_CANTOPEN|^EACCES|^ENOTDIR|^EISDIR|^EROFS/, 'cannot be opened'],
  [/^SQLITE_(BUSY|LOCKED)/, 'is held by another program'],
  [/^SQLITE_(FULL|IOERR)|^ENOSPC/, 'has no room left: the disk is full'],
];

/** A fault of the store in plain words; any other fault comes back as it is. */
export function plainly(error: unknown, file = ''): unknown {
  const code = String((error as { code?: unknown } | null)?.code ?? '');
  const found = PLAIN.find(([pattern]) => pattern.test(code));
  return found ? new StoreError(`the store ${file ? `${file} ` : ''}${found[1]}`) : error;
}

interface RawConnection {
  pragma(text: string): unknown;
  prepare(sql: string): unknown;
}

/**
 * Opens the store, checks it and runs what migrations are missing, after a copy of the file.
 * WAL with synchronous=FULL: what has been answered as saved survives a killed server.
 * @throws StoreError when it is damaged, read-only, held, full or of a later version
 */
export async function openDatabase(
  file: string,
  list: readonly NamedMigration[] = migrations,
): Promise<Knex> {
  let db: Knex | null = null;
  try {
    mkdirSync(dirname(file), { recursive: true });
    db = connect(file);
    const [check] = (await db.raw('pragma quick_check(1)')) as { quick_check: string }[];
    if (check?.quick_check !== 'ok') throw new StoreError(`the store ${file} is damaged`);
    await migrate(db, file, list);
    return db;
  } catch (error) {
    await db?.destroy();
    throw plainly(error, file);
  }
}

/** Joins a store that another process has opened and brought up to date: for work beside the server. */
export const joinDatabase = (file: string): Knex => connect(file);

const quiet = (): void => undefined;

function connect(file: string): Knex {
  return knex({
    client: 'better-sqlite3',
    connection: { filename: file },
    useNullAsDefault: true,
    // What goes wrong is thrown and said once, in plain words; no second word with a stack beside it.
    log: { warn: quiet, error: quiet, debug: quiet, deprecate: quiet },
    pool: {
      min: 1,
      max: 1,
      afterCreate(
        connection: RawConnection,
        done: (error: Error | null, c: RawConnection) => void,
      ) {
        try {
          connection.pragma('busy_timeout = 5000');
          connection.pragma('journal_mode = WAL');
          connection.pragma('synchronous = FULL');
          connection.pragma('foreign_keys = ON');
          // A transaction here always writes: it takes its turn at once, instead of reading first and
          // then finding that another process wrote in between. Knex knows no way to say so.
          const prepare = connection.prepare.bind(connection);
          connection.prepare = (sql) => prepare(sql === 'BEGIN;' ? 'BEGIN IMMEDIATE;' : sql);
          done(null, connection);
        } catch (error) {
          done(error as Error, connection);
        }
      },
    },
  });
}

async function migrate(db: Knex, file: string, list: readonly NamedMigration[]): Promise<void> {
  const known = await db.schema.hasTable('knex_migrations');
  const done = known
    ? ((await db('knex_migrations').select('name')) as { name: string }[]).map((row) => row.name)
    : [];
  const newer = done.filter((name) => !list.some((m) => m.name === name));
  if (newer.length > 0)
    throw new StoreError(
      `the store ${file} was written by a later version of the program (${newer.join(', ')})`,
    );
  const missing = list.filter((m) => !done.includes(m.name));
  if (missing.length === 0) return;
  if (done.length > 0)
    await db.raw('vacuum into ?', [freeName(`${file}.before-${missing[0]!.name}`)]);
  await db.migrate.latest({
    migrationSource: {
      getMigrations: () => Promise.resolve([...list]),
      getMigrationName: (m: NamedMigration) => m.name,
      getMigration: (m: NamedMigration) => Promise.resolve(m),
    },
  });
}

/** A file name that is not taken: a copy never overwrites another. */
function freeName(base: string): string {
  for (let k = 1; ; k++) {
    const name = k === 1 ? base : `${base}-${k}`;
    if (!existsSync(name) || statSync(name).size === 0) return name;
  }
}
