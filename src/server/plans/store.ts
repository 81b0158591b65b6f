/** Plans as an append-only history: every change a patch, snapshots now and then. */
import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import { PARTS } from '../../core/parts/index.js';
import type { Part } from '../../core/parts/part.js';
import type { Grid, Plan } from '../../core/plan/schema.js';
import type { Light, News, Opened, Saved } from '../../formats/change.js';
import { FormatError } from '../../formats/error.js';
import type { OpenedPlan } from '../../formats/planFile.js';
import { stacksOf } from '../../formats/stacks.js';
import { sha256 } from '../hash.js';
import { createCommit } from './commit.js';
import { createHeads, lifted, type Head } from './heads.js';
import { fromRow, laterThan, led, snapshotOf, type ChangeRow } from './rows.js';

export interface PropertyRow {
  readonly id: string;
  readonly name: string;
  readonly created_at: string;
  readonly revision: number;
}

/** Changes that are given at once, and bodies that come along for undo and redo. */
const PAGE = 500;
const BODIES = 40;

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
  const heads = createHeads(db, parts);
  const head = heads.of;

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
      const snap = await snapshotOf(db, id, revision);
      if (!snap) return null;
      const rows = await laterThan(db, id, snap.revision).andWhere('revision', '<=', revision);
      return { revision, plan: lifted(led(JSON.parse(snap.text) as Plan, rows), parts) };
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
      const rows = await laterThan(db, id, revision).limit(limit + 1);
      return { changes: rows.slice(0, limit).map(fromRow), more: rows.length > limit };
    },

    /** One change of a property, or null. */
    async changeNamed(id: string, changeId: string): Promise<Saved | null> {
      const row = await db<ChangeRow>('change')
        .where({ property_id: id, change_id: changeId })
        .first();
      return row ? fromRow(row) : null;
    },

    commit: createCommit(db, heads, parts, saved),

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
