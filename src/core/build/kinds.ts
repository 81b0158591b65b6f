/**
 * Kinds of work, what is carried to it, and the cautions that go with it. Apart from the catalogue, since only who plans
 * the building needs them.
 */
import type { Static } from '@sinclair/typebox';
import { Type } from '../base/type.js';
import carried from '../../../data/build/carried.json' with { type: 'json' };
import cautions from '../../../data/build/cautions.json' with { type: 'json' };
import tasks from '../../../data/build/tasks.json' with { type: 'json' };
import { recordOf, type Catalogue } from '../plan/catalogue.js';
import { A_BOX } from '../supplies/takeoff.js';
import { wireOf } from '../wire/wires.js';

const closed = { additionalProperties: false } as const;
const origin = {
  name: Type.String({ minLength: 1 }),
  mark: Type.Union(['practice', 'memory', 'assumed'].map((m) => Type.Literal(m))),
  why: Type.String({ minLength: 8 }),
};

/** Stages of the work, in its order. */
export const PHASES = ['ready', 'ends', 'posts', 'wire', 'live'] as const;
export type Phase = (typeof PHASES)[number];

const TaskKindSchema = Type.Object(
  {
    ...origin,
    phase: Type.Union(PHASES.map((p) => Type.Literal(p))),
    people: Type.Integer({ minimum: 0, description: 'at it together' }),
    least: Type.Integer({ minimum: 0, description: 'fewer are not safe at it' }),
    tools: Type.Array(Type.Tuple([Type.String(), Type.Number({ exclusiveMinimum: 0 })]), {
      description: 'carried or bought, and how many',
    }),
    safety: Type.Array(Type.String(), { description: 'cautions' }),
    cards: Type.Array(Type.String(), { description: 'ways of the hand that it wants' }),
  },
  closed,
);

/** What `data/build` holds; a test reads it by this. */
export const WorkSchema = Type.Object(
  {
    tasks: Type.Record(Type.String(), TaskKindSchema),
    cautions: Type.Record(Type.String(), Type.Object(origin, closed)),
    carried: Type.Record(
      Type.String(),
      Type.Object({ ...origin, kg: Type.Number({ exclusiveMinimum: 0 }) }, closed),
    ),
  },
  closed,
);

export const work = { tasks, cautions, carried } as unknown as Static<typeof WorkSchema>;
export type TaskKind = keyof typeof tasks;
export type Caution = keyof typeof cautions;

/** What a kind of work is. */
export const kindOf = (id: TaskKind): Static<typeof TaskKindSchema> => recordOf(work.tasks, id);

/**
 * What one of an item weighs, kg: posts and wire by the catalogue, the rest as it is said; null where nobody knows.
 * Wire, cable and conduit by the metre, staples by the piece.
 */
export function massOf(item: string, cat: Catalogue): number | null {
  if (item.startsWith('wire.')) {
    const id = item.slice('wire.'.length);
    return cat.wires[id] ? wireOf(id, cat).mass_kg_per_m : null;
  }
  const post = Object.values(cat.posts).find((p) => p.price === item);
  if (post) return post.mass_kg;
  const one = work.carried[item]?.kg ?? null;
  return item === 'staple' && one !== null ? one / A_BOX : one;
}

/** What a carried thing is called: by the price book, else by its own name. */
export const nameOf = (item: string, cat: Catalogue): string =>
  cat.prices[item]?.name ?? work.carried[item]?.name ?? item;

/** What is hired to set posts, as one calls it. */
export const MACHINES: Readonly<Record<string, string>> = {
  'hire.driver': 'post driver',
  'hire.auger': 'auger',
};
