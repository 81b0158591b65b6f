/** What a schema cannot say of a plan: names that must point at something, order, room. */
import { withWires } from './plan/ownFigures.js';
import { withBook } from './plan/book.js';
import { knowsFigure, mayBeNone, type Catalogue } from './plan/catalogue.js';
import type { Line, Plan } from './plan/schema.js';
import { ownKeys } from './parts/door.js';
import { PARTS } from './parts/index.js';
import type { Door, Part } from './parts/part.js';

export interface Fault {
  /** JSON Pointer to the place. */
  readonly place: string;
  readonly reason: string;
}

/**
 * Faults of a plan that fits its schema; empty when it is sound.
 * @param gridIds ids of the grids that are at hand
 */
export function checkPlan(
  plan: Plan,
  cat: Catalogue,
  gridIds: ReadonlySet<string>,
  parts: readonly Part[] = PARTS,
): Fault[] {
  const out: Fault[] = [];
  const door: Door = {
    plan,
    // Wires and items of its own are such; what it broke, and what things cost, changes figures alone.
    cat: withBook(withWires(cat, plan.ownWires ?? {}), {}, plan.ownItems ?? {}),
    shipped: cat,
    say: (place, reason) => out.push({ place, reason }),
    named: (table, key, place, what) => {
      if (!Object.hasOwn(table, key)) door.say(place, `no ${what} is called "${key}"`);
    },
  };
  if (plan.ground.kind === 'grid' && !gridIds.has(plan.ground.id)) {
    door.say('/ground/id', `the ground grid "${plan.ground.id}" is missing`);
  }
  door.named(cat.soils, plan.soil, '/soil', 'soil');
  ownKeys(door, 'lines', plan.lines);
  for (const [key, line] of Object.entries(plan.lines)) checkVertices(key, line, door);
  for (const part of parts) part.check?.(door);
  for (const [path, { value }] of Object.entries(plan.overrides)) {
    const place = `/overrides/${path.replaceAll('~', '~0').replaceAll('/', '~1')}`;
    if (!knowsFigure(door.cat, path)) door.say(place, 'no figure of the catalogue has this path');
    else if (!(value >= 0) || (value === 0 && !mayBeNone(path))) {
      door.say(place, 'must be a number above 0');
    }
  }
  return out;
}

function checkVertices(key: string, line: Line, { say }: Door): void {
  const seen = new Set<string>();
  line.vertices.forEach((v, i) => {
    if (seen.has(v.id)) say(`/lines/${key}/vertices/${i}/id`, 'two vertices share this id');
    seen.add(v.id);
    const before = line.vertices[i - 1];
    if (before && Math.hypot(v.e - before.e, v.n - before.n) < 0.01) {
      say(`/lines/${key}/vertices/${i}`, 'lies on the vertex before it');
    }
  });
}
