/** The newest plan of each property, in the version that this program writes. */
import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import type { Part } from '../../core/parts/part.js';
import type { Plan } from '../../core/plan/schema.js';
import { liftPlan, versionOf } from '../../core/versions.js';
import { applyPatch, difference } from '../../formats/patch.js';
import { laterThan, led, snapshotOf, toRow } from './rows.js';

/** The newest plan of a property. */
export interface Head {
  readonly revision: number;
  readonly plan: Plan;
}

/** Plans that are kept in memory, those asked for last. */
const HEADS = 24;

type Document = Record<string, unknown>;

/** A plan of an earlier version as this program has it; one of this version is given back as it is. */
export const lifted = (plan: Plan, parts: readonly Part[]): Plan =>
  plan.version === versionOf(parts) ? plan : (liftPlan(plan as unknown as Document, parts) as Plan);

/**
 * Keeps the newest plans, so that a change needs no replay. Another process may have written since: each look reads what
 * came after.
 */
export function createHeads(db: Knex, parts: readonly Part[]) {
  const heads = new Map<string, Head>();

  function remember(id: string, head: Head): Head {
    heads.delete(id);
    heads.set(id, head);
    for (const old of heads.keys()) {
      if (heads.size <= HEADS) break;
      heads.delete(old);
    }
    return head;
  }

  async function newest(id: string, from: Knex): Promise<Head | null> {
    const snap = await snapshotOf(from, id);
    if (!snap) return null;
    const cached = heads.get(id);
    const start: Head =
      cached && cached.revision >= snap.revision
        ? cached
        : { revision: snap.revision, plan: JSON.parse(snap.text) as Plan };
    // One query gives both how far the history goes and what it says.
    const later = await laterThan(from, id, start.revision);
    const revision = later.at(-1)?.revision ?? start.revision;
    return revision === cached?.revision
      ? cached
      : remember(id, { revision, plan: led(start.plan, later) });
  }

  /** Brings the document up to this version, as a change of its own. */
  async function lift(id: string, trx: Knex): Promise<Head | null> {
    const now = await newest(id, trx);
    if (!now) return null;
    const next = lifted(now.plan, parts);
    if (next === now.plan) return now;
    const [was, will] = [now.plan as unknown as Document, next as unknown as Document];
    const revision = now.revision + 1;
    const patch = difference(was, will);
    await trx('change').insert(
      toRow(id, {
        revision,
        changeId: `lift-${randomBytes(8).toString('hex')}`,
        tab: 'store',
        base: now.revision,
        kind: 'lift',
        words: `brought up to version ${versionOf(parts)}`,
        patch,
        inverse: difference(will, was),
        at: new Date().toISOString(),
      }),
    );
    return remember(id, { revision, plan: applyPatch(now.plan, patch) });
  }

  return {
    remember,
    forget: (id: string) => heads.delete(id),
    /** The newest plan inside a transaction, lifted there where it is of an earlier version. */
    lift,
    /** The newest plan; null where there is no such property. */
    async of(id: string): Promise<Head | null> {
      const found = await newest(id, db);
      if (!found || found.plan.version === versionOf(parts)) return found;
      return db.transaction((trx) => lift(id, trx));
    },
  };
}

export type Heads = ReturnType<typeof createHeads>;
