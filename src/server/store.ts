/** Plans as an append-only history: every change a patch, snapshots now and then. */
import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import { PARTS } from '../core/parts/index.js';
import type { Part } from '../core/parts/part.js';
import type { Grid, PatchStep, Plan } from '../core/plan/schema.js';
import { liftPlan, versionOf } from '../core/versions.js';
import type { CommitResult, Light, News, Opened, Proposed, Saved } from '../formats/change.js';
import { FormatError } from '../formats/error.js';
import { openPlan, type OpenedPlan } from '../formats/planFile.js';
import { applyPatch, difference, patchesTouch } from '../formats/patch.js';
import { stacksOf } from '../formats/stacks.js';
import { sha256 } from './hash.js';
import { breath, inTurn } from './turns.js';

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
  of: string | null;
  words: string;
  patch: string;
  inverse: string;
  at: string;
  who: string | null;
}

/** The newest plan of a property. */
interface Head {
  readonly revision: number;
  readonly plan: Plan;
}

const SNAPSHOT_EVERY = 50;
/** Plans that are kept in memory, those asked for last. */
const HEADS = 24;
/** Changes that are given at once, and bodies that come along for undo and redo. */
const PAGE = 500;
const BODIES = 40;

const fromRow = (r: ChangeRow): Saved => ({
  revision: r.revision,
  changeId: r.change_id,
  tab: r.tab,
  base: r.base,
  kind: r.kind,
  ...(r.of === null ? {} : { of: r.of }),
  words: r.words,
  patch: JSON.parse(r.patch) as PatchStep[],
  inverse: JSON.parse(r.inverse) as PatchStep[],
  at: r.at,
  ...(r.who ? { who: r.who } : {}),
});

/** Id of a grid by its content. */
export const gridId = (body: string): string => `g${sha256(body).slice(0, 20)}`;

/**
 * The plan store over one database.
 * @param saved is told of each change that was saved, once it is
 */
export function planStore(
  db: Knex,
  parts: readonly Part[] = PARTS,
  saved: (property: string, change: Saved) => void = () => undefined,
) {
  // The newest plans, so that a change needs no replay. Another process may have written since:
  // each look reads what came after.
  const heads = new Map<string, Head>();
  const remember = (id: string, head: Head): Head => {
    heads.delete(id);
    heads.set(id, head);
    for (const old of heads.keys()) {
      if (heads.size <= HEADS) break;
      heads.delete(old);
    }
    return head;
  };

  async function newest(id: string, from: Knex): Promise<Head | null> {
    const snap = await from('snapshot')
      .where({ property_id: id })
      .orderBy('revision', 'desc')
      .first();
    if (!snap) return null;
    const cached = heads.get(id);
    let { revision, plan }: Head =
      cached && cached.revision >= snap.revision
        ? cached
        : { revision: Number(snap.revision), plan: JSON.parse(snap.plan as string) as Plan };
    // One query gives both how far the history goes and what it says.
    const later = await from<ChangeRow>('change')
      .where({ property_id: id })
      .andWhere('revision', '>', revision)
      .orderBy('revision');
    for (const row of later) {
      plan = applyPatch(plan, JSON.parse(row.patch) as PatchStep[]);
      revision = row.revision;
    }
    return revision === cached?.revision ? cached : remember(id, { revision, plan });
  }

  /** The newest plan in the version that this program writes. */
  async function head(id: string): Promise<Head | null> {
    const found = await newest(id, db);
    if (!found || found.plan.version === versionOf(parts)) return found;
    return db.transaction((trx) => lift(id, trx));
  }

  /** Brings the document up to this version, as a change of its own. */
  async function lift(id: string, trx: Knex): Promise<Head | null> {
    const now = await newest(id, trx);
    if (!now || now.plan.version === versionOf(parts)) return now;
    const was = now.plan as unknown as Record<string, unknown>;
    const next = liftPlan(was, parts) as Record<string, unknown>;
    const change: Proposed = {
      changeId: `lift-${randomBytes(8).toString('hex')}`,
      tab: 'store',
      base: now.revision,
      kind: 'lift',
      words: `brought up to version ${versionOf(parts)}`,
      patch: difference(was, next),
      inverse: difference(next, was),
    };
    await write(id, change, now.revision + 1, new Date().toISOString(), trx);
    return remember(id, { revision: now.revision + 1, plan: applyPatch(now.plan, change.patch) });
  }

  const write = (id: string, c: Proposed, revision: number, at: string, trx: Knex, who = '') =>
    trx('change').insert({
      property_id: id,
      revision,
      change_id: c.changeId,
      tab: c.tab,
      base: c.base,
      kind: c.kind,
      of: c.of ?? null,
      words: c.words,
      patch: JSON.stringify(c.patch),
      inverse: JSON.stringify(c.inverse),
      at,
      who: who || null,
    });

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
    const now = await head(id);
    if (!now) return null;
    try {
      const plan = await changed(now.plan, change, db);
      return { was: now.plan, plan };
    } catch (error) {
      // Whether it is refused, or meets what others did, is told from within.
      if (error instanceof FormatError) return null;
      throw error;
    } finally {
      await breath();
    }
  }

  const commits = inTurn();

  return {
    head,

    /**
     * A property as a tab opens it: what can be undone and redone comes from the whole history.
     * @param mine changes that the tab still holds: those that are saved already are named
     */
    async open(
      id: string,
      mine: readonly string[] = [],
    ): Promise<(Opened & { landed: string[] }) | null> {
      const now = await head(id);
      if (!now) return null;
      const rows = await db<ChangeRow>('change')
        .where({ property_id: id })
        .andWhere('revision', '<=', now.revision)
        .orderBy('revision')
        .select('change_id', 'kind', 'of', 'words', 'at');
      const { undo, redo } = stacksOf(
        rows.map((r) => ({
          changeId: r.change_id,
          kind: r.kind,
          words: r.words,
          ...(r.of === null ? {} : { of: r.of }),
        })),
      );
      const wanted = [...undo.slice(-BODIES), ...redo.slice(-BODIES)].map((c) => c.changeId);
      const bodies = new Map(
        (await db<ChangeRow>('change').whereIn('change_id', wanted)).map((r) => [
          r.change_id,
          fromRow(r),
        ]),
      );
      const filled = (list: readonly Light[]) =>
        list.map((c) => {
          const body = bodies.get(c.changeId);
          return body ? { ...c, body: { patch: body.patch, inverse: body.inverse } } : c;
        });
      const known = new Set(rows.map((r) => r.change_id));
      return {
        ...now,
        at: rows.at(-1)?.at ?? null,
        stacks: { undo: filled(undo), redo: filled(redo) },
        landed: mine.filter((changeId) => known.has(changeId)),
      };
    },

    /** The plan as it stood at a revision, in the version that this program writes; null where there is none. */
    async at(id: string, revision: number): Promise<Head | null> {
      const now = await head(id);
      if (!now || revision > now.revision) return null;
      const snap = await db('snapshot')
        .where({ property_id: id })
        .andWhere('revision', '<=', revision)
        .orderBy('revision', 'desc')
        .first();
      if (!snap) return null;
      const rows = await db<ChangeRow>('change')
        .where({ property_id: id })
        .andWhere('revision', '>', snap.revision)
        .andWhere('revision', '<=', revision)
        .orderBy('revision');
      const plan = rows.reduce(
        (p, row) => applyPatch(p, JSON.parse(row.patch) as PatchStep[]),
        JSON.parse(snap.plan as string) as Plan,
      );
      return { revision, plan: plan.version === versionOf(parts) ? plan : (liftPlan(plan as unknown as Record<string, unknown>, parts) as Plan) }; // prettier-ignore
    },

    async list(): Promise<PropertyRow[]> {
      const rows = await db('property')
        .leftJoin('change', 'change.property_id', 'property.id')
        .groupBy('property.id')
        .orderBy('property.created_at')
        .select('property.id', 'property.name', 'property.created_at')
        .max({ revision: 'change.revision' });
      return rows.map((r) => ({ ...r, revision: Number(r.revision ?? 0) })) as PropertyRow[];
    },

    /** How many changes a property has seen; null when there is none of this id. */
    async revisionOf(id: string): Promise<number | null> {
      const row = await db('property').where({ id }).first('id');
      if (!row) return null;
      const last = await db('change')
        .where({ property_id: id })
        .max({ revision: 'revision' })
        .first();
      return Number(last?.['revision'] ?? 0);
    },

    /** Stores a grid by its content; gives its id. */
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

    /** Creates a property from a plan that has passed its door; its grid gets a content id. */
    async create(
      { plan, grids }: OpenedPlan,
      id = `p${randomBytes(6).toString('hex')}`,
    ): Promise<string> {
      const own = plan.ground.kind === 'grid' ? grids[plan.ground.id] : undefined;
      const kept: Plan = own
        ? { ...plan, ground: { kind: 'grid', id: await this.putGrid(own) } }
        : plan;
      await db.transaction(async (trx) => {
        await trx('property').insert({ id, name: kept.name, created_at: new Date().toISOString() });
        await trx('snapshot').insert({ property_id: id, revision: 0, plan: JSON.stringify(kept) });
      });
      return id;
    },

    /** Saved changes after a revision, oldest first. */
    async changesSince(id: string, revision: number, limit = PAGE): Promise<News> {
      const rows = await db<ChangeRow>('change')
        .where({ property_id: id })
        .andWhere('revision', '>', revision)
        .orderBy('revision')
        .limit(limit + 1);
      return { changes: rows.slice(0, limit).map(fromRow), more: rows.length > limit };
    },

    /** One change of a property, or null. */
    async changeNamed(id: string, changeId: string): Promise<Saved | null> {
      const row = await db<ChangeRow>('change')
        .where({ property_id: id, change_id: changeId })
        .first();
      return row ? fromRow(row) : null;
    },

    /**
     * Saves a change. One on an old base is merged when it touches nothing that others changed since.
     * @param who made it, where people sign in
     * @throws FormatError when the patch does not fit, or the plan would no longer be sound
     */
    commit: (id: string, change: Proposed, who = ''): Promise<CommitResult | null> =>
      commits(id, async () => {
        // All others wait while a transaction is open: what is long is done before it.
        const likely = await ahead(id, change);
        return db
          .transaction(async (trx): Promise<CommitResult | null> => {
            const now = await lift(id, trx);
            if (!now) return null;
            const again = await trx<ChangeRow>('change')
              .where({ change_id: change.changeId })
              .first();
            if (again && again.property_id !== id)
              throw new FormatError('/changeId', 'belongs to a change of another property');
            const since = await trx<ChangeRow>('change')
              .where({ property_id: id })
              .andWhere('revision', '>', change.base)
              .andWhere('revision', '<', again?.revision ?? now.revision + 1)
              .andWhereNot({ tab: change.tab })
              .orderBy('revision');
            const others = since.map(fromRow);
            if (again) return { status: 'saved', revision: again.revision, at: again.at, others };
            const known = new Set(change.after);
            const theirs = others.filter(
              (c) =>
                !known.has(c.changeId) &&
                (c.kind === 'lift' || patchesTouch(c.patch, change.patch)),
            );
            if (theirs.length > 0)
              return { status: 'conflict', revision: now.revision, theirs, others };

            const plan =
              likely && likely.was === now.plan
                ? likely.plan
                : await changed(now.plan, change, trx);
            const revision = now.revision + 1;
            const at = new Date().toISOString();
            await write(id, change, revision, at, trx, who);
            if (plan.name !== now.plan.name)
              await trx('property').where({ id }).update({ name: plan.name });
            if (revision % SNAPSHOT_EVERY === 0) {
              await trx('snapshot').insert({
                property_id: id,
                revision,
                plan: JSON.stringify(plan),
              });
            }
            remember(id, { revision, plan });
            return { status: 'saved', revision, at, others };
          })
          .then((result) => {
            if (result?.status === 'saved') {
              const { revision, at } = result;
              saved(id, { ...change, revision, at, ...(who === '' ? {} : { who }) });
            }
            return result;
          })
          .catch((error: unknown) => {
            // The transaction may have failed after the head was remembered.
            heads.delete(id);
            throw error;
          });
      }),

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
