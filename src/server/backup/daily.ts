/** A copy of the whole store each day, beside it, while the server goes on; the oldest go. */
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { basename, join } from 'node:path';
import Database from 'better-sqlite3';

/** Days that are kept; of older ones, the first of each month, so many. */
const KEEP = { days: 14, months: 12 } as const;
const DAY = /^(\d{4}-\d{2}-\d{2})\.sqlite$/;

/** The folder of a store's copies. */
export const copiesOf = (file: string): string => `${file}.backups`;

/** Which of some days go, by name: neither among the newest nor the first of one of the newest months. */
export function pruned(days: readonly string[], { days: keep, months } = KEEP as { days: number; months: number }): string[] {
  const sorted = [...days].sort();
  const stay = new Set(sorted.slice(-keep));
  const firsts = new Map<string, string>();
  for (const day of sorted) if (!firsts.has(day.slice(0, 7))) firsts.set(day.slice(0, 7), day);
  for (const day of [...firsts.values()].slice(-months)) stay.add(day);
  return sorted.filter((day) => !stay.has(day));
} // prettier-ignore

/**
 * Makes the copy of a day where there is none, and lets the oldest go. A copy that was broken off is no copy: it gets its
 * name when it is whole.
 * @param today YYYY-MM-DD
 * @returns the file that was made; null: it is there already
 */
export async function copied(file: string, today: string): Promise<string | null> {
  const folder = copiesOf(file);
  mkdirSync(folder, { recursive: true });
  const to = join(folder, `${today}.sqlite`);
  if (existsSync(to)) return null;
  const half = join(folder, `${today}.part`);
  rmSync(half, { force: true });
  const db = new Database(file, { readonly: true, fileMustExist: true });
  try {
    await db.backup(half);
  } finally {
    db.close();
  }
  renameSync(half, to);
  const days = readdirSync(folder).flatMap((f) => DAY.exec(basename(f))?.[1] ?? []);
  for (const day of pruned(days)) rmSync(join(folder, `${day}.sqlite`), { force: true });
  return to;
}
