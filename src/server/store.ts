/** Plans as an append-only history: every change a patch, snapshots now and then. */
import { createHash, randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import type { Grid, PatchStep, Plan } from '../core/plan/schema.js';
import type { CommitResult, Proposed, Saved } from '../formats/change.js';
import { FormatError } from '../formats/error.js';
import { openPlan, type OpenedPlan } from '../formats/planFile.js';
import { applyPatch, patchesTouch } from '../formats/patch.js';

export interface PropertyRow {
  readonly id: string;
  readonly name: string;
  readonly created_at: string;
  readonly revision: number;
}

interface ChangeRow {
  property_id: string;
  revision: number;
  change_id: string;
  tab: string;
  base: number;
  kind: Proposed['kind'];
  words: string;
  patch: string;
  inverse: string;
  at: string;
}

const SNAPSHOT_EVERY = 50;

const fromRow = (r: ChangeRow): Saved => ({
  revision: r.revision,
  changeId: r.change_id,
  tab: r.tab,
  base: r.base,
  kind: r.kind,
  words: r.words,
  patch: JSON.parse(r.patch) as PatchStep[],
  inverse: JSON.parse(r.inverse) as PatchStep[],
  at: r.at,
});

/** Id of a grid by its content. */
export const gridId = (body: string): string =>
  `g${createHash('sha256').update(body).digest('hex').slice(0, 20)}`;

/** The plan store over one database. */
export function planStore(db: Knex) {
  // The newest plan of each property, so that a change needs no replay. Another process may have
  // written since, hence the revision beside it.
  const heads = new Map<string, { revision: number; plan: Plan }>();

  async function head(
    id: string,
    trx: Knex = db,
  ): Promise<{ revision: number; plan: Plan } | null> {
    const newest = await trx<ChangeRow>('change')
      .where({ property_id: id })
      .max({ r: 'revision' })
      .first();
    const cached = heads.get(id);
    const snap = await trx('snapshot')
      .where({ property_id: id })
      .orderBy('revision', 'desc')
      .first();
    if (!snap) return null;
    const revision = Math.max(Number(newest?.r ?? 0), Number(snap.revision));
    if (cached?.revision === revision) return cached;
    let plan = JSON.parse(snap.plan as string) as Plan;
    const later = await trx<ChangeRow>('change')
      .where({ property_id: id })
      .andWhere('revision', '>', snap.revision)
      .orderBy('revision');
    for (const row of later) plan = applyPatch(plan, JSON.parse(row.patch) as PatchStep[]);
    const found = { revision, plan };
    heads.set(id, found);
    return found;
  }

  return {
    head: (id: string) => head(id),

    async list(): Promise<PropertyRow[]> {
      const rows = await db('property')
        .leftJoin('change', 'change.property_id', 'property.id')
        .groupBy('property.id')
        .orderBy('property.created_at')
        .select('property.id', 'property.name', 'property.created_at')
        .max({ revision: 'change.revision' });
      return rows.map((r) => ({ ...r, revision: Number(r.revision ?? 0) })) as PropertyRow[];
    },

    /** Stores grids by content; gives each its id. */
    async putGrid(grid: Grid): Promise<string> {
      const body = JSON.stringify(grid);
      const id = gridId(body);
      await db('grid').insert({ id, body }).onConflict('id').ignore();
      return id;
    },

    /** The JSON text of a grid, or null. */
    async gridBody(id: string): Promise<string | null> {
      const row = await db('grid').where({ id }).first();
      return (row?.body as string | undefined) ?? null;
    },

    /** Creates a property from a plan that has passed its door; grids get content ids. */
    async create(
      { plan, grids }: OpenedPlan,
      id = `p${randomBytes(6).toString('hex')}`,
    ): Promise<string> {
      let kept = plan;
      if (plan.ground.kind === 'grid' && grids[plan.ground.id]) {
        kept = {
          ...plan,
          ground: { kind: 'grid', id: await this.putGrid(grids[plan.ground.id]!) },
        };
      }
      await db.transaction(async (trx) => {
        await trx('property').insert({ id, name: kept.name, created_at: new Date().toISOString() });
        await trx('snapshot').insert({ property_id: id, revision: 0, plan: JSON.stringify(kept) });
      });
      return id;
    },

    /** Saved changes after a revision, oldest first; the newest `limit` of them. */
    async changesSince(id: string, revision: number, limit = 400): Promise<Saved[]> {
      const rows = await db<ChangeRow>('change')
        .where({ property_id: id })
        .andWhere('revision', '>', revision)
        .orderBy('revision', 'desc')
        .limit(limit);
      return rows.reverse().map(fromRow);
    },

    /**
     * Saves a change. One on an old base is merged when it touches nothing that others changed since.
     * @throws FormatError when the patch does not fit, or the plan would no longer be sound
     */
    async commit(id: string, change: Proposed): Promise<CommitResult | null> {
      return db
        .transaction(async (trx): Promise<CommitResult | null> => {
          const now = await head(id, trx);
          if (!now) return null;
          const since = await trx<ChangeRow>('change')
            .where({ property_id: id })
            .andWhere('revision', '>', change.base)
            .orderBy('revision');
          const others = since.map(fromRow).filter((c) => c.tab !== change.tab);
          const again = await trx<ChangeRow>('change')
            .where({ change_id: change.changeId })
            .first();
          if (again) return { status: 'saved', revision: again.revision, at: again.at, others };
          const theirs = others.filter((c) => patchesTouch(c.patch, change.patch));
          if (theirs.length > 0) return { status: 'conflict', revision: now.revision, theirs };

          const patched = applyPatch(now.plan, change.patch);
          const grids = new Set<string>();
          if (patched.ground.kind === 'grid') {
            const row = await trx('grid').where({ id: patched.ground.id }).first('id');
            if (row) grids.add(patched.ground.id);
          }
          const { plan } = openPlan(patched, grids);
          const revision = now.revision + 1;
          const at = new Date().toISOString();
          await trx('change').insert({
            property_id: id,
            revision,
            change_id: change.changeId,
            tab: change.tab,
            base: change.base,
            kind: change.kind,
            words: change.words,
            patch: JSON.stringify(change.patch),
            inverse: JSON.stringify(change.inverse),
            at,
          });
          if (plan.name !== now.plan.name)
            await trx('property').where({ id }).update({ name: plan.name });
          if (revision % SNAPSHOT_EVERY === 0) {
            await trx('snapshot').insert({ property_id: id, revision, plan: JSON.stringify(plan) });
          }
          heads.set(id, { revision, plan });
          return { status: 'saved', revision, at, others };
        })
        .catch((error: unknown) => {
          // The transaction may have failed after the head was remembered.
          heads.delete(id);
          throw error;
        });
    },

    /** The plan with the ground that it stands on. */
    async withGround(id: string): Promise<(OpenedPlan & { revision: number }) | null> {
      const now = await head(id);
      if (!now) return null;
      const grids: Record<string, Grid> = {};
      if (now.plan.ground.kind === 'grid') {
        const body = await this.gridBody(now.plan.ground.id);
        if (body === null)
          throw new FormatError('/ground/id', 'the ground grid is missing from the store');
        grids[now.plan.ground.id] = JSON.parse(body) as Grid;
      }
      return { ...now, grids };
    },
  };
}

export type PlanStore = ReturnType<typeof planStore>;
