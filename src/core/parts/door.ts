/** Checks that several parts make at the door. */
import type { Strand } from '../plan/schema.js';
import type { Door } from './part.js';

/** Places along every line rise from its start. @param key a list of `{ at_m }` on a line */
export function rising(
  { plan, say }: Door,
  key: 'pins' | 'placed' | 'levels' | 'ends' | 'tensioners',
): void {
  for (const [id, line] of Object.entries(plan.lines)) {
    (line[key] ?? []).forEach((place, i) => {
      const before = line[key]![i - 1];
      if (before && !(place.at_m > before.at_m))
        say(`/lines/${id}/${key}/${i}/at_m`, 'places along a line rise from its start');
    });
  }
}

/** The items of a table carry the key that they stand under. */
export function ownKeys(
  { say }: Pick<Door, 'say'>,
  name: string,
  table: Readonly<Record<string, { readonly id: string }>> = {},
): void {
  for (const [key, item] of Object.entries(table))
    if (item.id !== key) say(`/${name}/${key}/id`, 'differs from its key');
}

/** Strands run from the ground up, of wires that there are. @param at JSON Pointer of what holds them */
export function soundStrands(
  { cat, say, named }: Door,
  strands: readonly Strand[],
  at: string,
): void {
  strands.forEach((s, i) => {
    named(cat.wires, s.wire, `${at}/strands/${i}/wire`, 'wire');
    const below = strands[i - 1];
    if (below && s.height_m - below.height_m < 0.01 - 1e-9) {
      say(`${at}/strands/${i}/height_m`, 'strands run from the ground up, 10 mm apart or more');
    }
  });
}
