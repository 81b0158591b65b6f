/** What the commands stand on: where the program lies, its store, what is read and said. */
import { readFileSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Option } from 'commander';
import type { Knex } from 'knex';
import { FormatError } from '../formats/error.js';
import { openDatabase } from '../server/database.js';

// dist/cli/anabatic.mjs stands two folders below the project.
export const root = resolve(dirname(fileURLToPath(import.meta.url)), '../..');

/** What a command reads and says; another than the terminal's in tests. */
export interface Io {
  out(text: string): void;
  err(text: string): void;
  /** Standard input, whole. */
  stdin(): string;
}

export const database = () =>
  new Option('--db <file>', 'the SQLite file').default(join(root, 'var', 'anabatic.sqlite'));

/** Lends the store to one piece of work. */
export async function withStore<T>(file: string, work: (db: Knex) => Promise<T>): Promise<T> {
  const db = await openDatabase(file);
  try {
    return await work(db);
  } finally {
    await db.destroy();
  }
}

/** The bytes of a file. @throws FormatError with its name when it cannot be read */
export const readBytes = (file: string): Uint8Array =>
  found(basename(file), () => readFileSync(file));

/** The text of a file, or of standard input for `-`. @throws FormatError when it cannot be read */
export const read = (io: Io, file: string): string =>
  file === '-'
    ? found('standard input', () => io.stdin())
    : found(basename(file), () => readFileSync(file, 'utf8'));

function found<T>(name: string, look: () => T): T {
  try {
    return look();
  } catch (error) {
    throw new FormatError(name, (error as Error).message);
  }
}
