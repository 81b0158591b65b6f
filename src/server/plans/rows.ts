/** How the history of a plan stands in the store. */
import type { Knex } from 'knex';
import type { PatchStep, Plan } from '../../core/plan/schema.js';
import type { Proposed, Saved } from '../../formats/change.js';
import { applyPatch } from '../../formats/patch.js';

/** A change as the table has it. */
export interface ChangeRow {
  property_id: string;
  revision: number;
  change_id: string;
  tab: string;
  base: number;
  kind: Proposed['kind'];
  of: string | null;
  words: string;
  patch: string;
  inverse: string;
  at: string;
  who: string | null;
}

const stepsOf = (text: string) => JSON.parse(text) as PatchStep[];

/** The change that a row holds. */
export const fromRow = (r: ChangeRow): Saved => ({
  revision: r.revision,
  changeId: r.change_id,
  tab: r.tab,
  base: r.base,
  kind: r.kind,
  ...(r.of === null ? {} : { of: r.of }),
  words: r.words,
  patch: stepsOf(r.patch),
  inverse: stepsOf(r.inverse),
  at: r.at,
  ...(r.who ? { who: r.who } : {}),
});

/** The row of a change. */
export const toRow = (property_id: string, c: Saved): ChangeRow => ({
  property_id,
  revision: c.revision,
  change_id: c.changeId,
  tab: c.tab,
  base: c.base,
  kind: c.kind,
  of: c.of ?? null,
  words: c.words,
  patch: JSON.stringify(c.patch),
  inverse: JSON.stringify(c.inverse),
  at: c.at,
  who: c.who || null,
});

/** Changes of a property after a revision, oldest first. */
export const laterThan = (from: Knex, id: string, revision: number) =>
  from<ChangeRow>('change')
    .where({ property_id: id })
    .andWhere('revision', '>', revision)
    .orderBy('revision');

/** The plan that changes lead to. */
export const led = (plan: Plan, rows: readonly ChangeRow[]): Plan =>
  rows.reduce((p, row) => applyPatch(p, stepsOf(row.patch)), plan);

/** The last plan that was kept whole, up to a revision where one is given. */
export async function snapshotOf(
  from: Knex,
  id: string,
  upTo?: number,
): Promise<{ revision: number; text: string } | null> {
  const kept = from('snapshot').where({ property_id: id }).orderBy('revision', 'desc');
  if (upTo !== undefined) void kept.andWhere('revision', '<=', upTo);
  const row = (await kept.first()) as { revision: number; plan: string } | undefined;
  return row ? { revision: Number(row.revision), text: row.plan } : null;
}
