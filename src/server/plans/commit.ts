/** How a change is saved: once, in turn, on the plan that stands, merged or met where it was made on an older one. */
import type { Knex } from 'knex';
import type { Part } from '../../core/parts/part.js';
import type { Plan } from '../../core/plan/schema.js';
import type { CommitResult, Proposed, Saved } from '../../formats/change.js';
import { FormatError } from '../../formats/error.js';
import { inTheWay } from '../../formats/merge.js';
import { applyPatch } from '../../formats/patch.js';
import { openPlan } from '../../formats/planFile.js';
import { breath, inTurn } from '../turns.js';
import type { Heads } from './heads.js';
import { fromRow, laterThan, toRow, type ChangeRow } from './rows.js';

const SNAPSHOT_EVERY = 50;

/** @param saved is told of each change that was saved, once it is */
export function createCommit(
  db: Knex,
  heads: Heads,
  parts: readonly Part[],
  saved: (property: string, change: Saved) => void,
) {
  /**
   * The plan with a change in it, sound. Between its steps others may be answered.
   * @throws FormatError when the patch does not fit, or the plan would no longer be sound
   */
  async function changed(plan: Plan, { patch }: Proposed, from: Knex): Promise<Plan> {
    const next = applyPatch(plan, patch);
    await breath();
    if ('grids' in next) throw new FormatError('/grids', 'a ground is sent by itself');
    const grids = new Set<string>();
    if (next.ground?.kind === 'grid') {
      const row = await from('grid').where({ id: next.ground.id }).first('id');
      if (row) grids.add(next.ground.id);
    }
    return openPlan(next, grids, parts).plan;
  }

  /** What `changed` will most likely give inside the transaction, worked out while none is open. */
  async function ahead(id: string, change: Proposed): Promise<{ was: Plan; plan: Plan } | null> {
    const now = await heads.of(id);
    if (!now) return null;
    try {
      return { was: now.plan, plan: await changed(now.plan, change, db) };
    } catch (error) {
      // Whether it is refused, or meets what others did, is told from within.
      if (error instanceof FormatError) return null;
      throw error;
    } finally {
      await breath();
    }
  }

  /** What others changed between the plan that a change was made on and the one that it comes upon. */
  const othersSince = async (trx: Knex, id: string, { base, tab }: Proposed, before: number) =>
    (await laterThan(trx, id, base).andWhere('revision', '<', before).andWhereNot({ tab })).map(
      fromRow,
    );

  /** All of a commit that stands or falls together: what is answered, and the change where it is a new one. */
  async function within(
    trx: Knex,
    id: string,
    change: Proposed,
    who: string,
    likely: Awaited<ReturnType<typeof ahead>>,
  ): Promise<{ result: CommitResult | null; made?: Saved }> {
    const now = await heads.lift(id, trx);
    if (!now) return { result: null };
    const again = await trx<ChangeRow>('change').where({ change_id: change.changeId }).first();
    if (again && again.property_id !== id)
      throw new FormatError('/changeId', 'belongs to a change of another property');
    const revision = now.revision + 1;
    const others = await othersSince(trx, id, change, again?.revision ?? revision);
    if (again)
      return { result: { status: 'saved', revision: again.revision, at: again.at, others } };
    const theirs = inTheWay(change, others);
    if (theirs.length > 0)
      return { result: { status: 'conflict', revision: now.revision, theirs, others } };

    const plan = likely?.was === now.plan ? likely.plan : await changed(now.plan, change, trx);
    const at = new Date().toISOString();
    await trx('change').insert(toRow(id, { ...change, revision, at, who }));
    if (plan.name !== now.plan.name)
      await trx('property').where({ id }).update({ name: plan.name });
    if (revision % SNAPSHOT_EVERY === 0)
      await trx('snapshot').insert({ property_id: id, revision, plan: JSON.stringify(plan) });
    heads.remember(id, { revision, plan });
    const made = { ...change, revision, at, ...(who === '' ? {} : { who }) };
    return { result: { status: 'saved', revision, at, others }, made };
  }

  const commits = inTurn();

  /**
   * Saves a change. One on an old base is merged when it touches nothing that others changed since.
   * @param who made it, where people sign in
   * @returns null where there is no such property
   * @throws FormatError when the patch does not fit, or the plan would no longer be sound
   */
  return (id: string, change: Proposed, who = ''): Promise<CommitResult | null> =>
    commits(id, async () => {
      // All others wait while a transaction is open: what is long is done before it.
      const likely = await ahead(id, change);
      try {
        const { result, made } = await db.transaction((trx) => within(trx, id, change, who, likely)); // prettier-ignore
        // One that was sent again was told when it was saved.
        if (made) saved(id, made);
        return result;
      } catch (error) {
        // The transaction may have failed after the head was remembered.
        heads.forget(id);
        throw error;
      }
    });
}
