/** Ways along the fence: how far every place of a network is from one of them. */
import type { Section } from '../power/circuitTypes.js';

/** A place on a section, m from its `from`. */
export interface OnSection {
  readonly section: string;
  readonly x_m: number;
}

/** Metres along the wires from a place to any other; Infinity where no wire leads there. */
export function metresFrom(sections: readonly Section[], start: OnSection): (to: OnSection) => number {
  const byId = new Map(sections.map((s) => [s.id, s]));
  const own = byId.get(start.section);
  if (!own) throw new RangeError(`no section "${start.section}"`);
  const at = new Map<string, Section[]>();
  for (const s of sections) for (const end of [s.from, s.to]) at.set(end, [...(at.get(end) ?? []), s]);
  const far = new Map<string, number>();
  const open = new Map([[own.from, start.x_m], [own.to, own.length_m - start.x_m]]);
  if (own.from === own.to) open.set(own.from, Math.min(start.x_m, own.length_m - start.x_m));
  while (open.size > 0) {
    const [here, d] = [...open].reduce((a, b) => (b[1] < a[1] ? b : a));
    open.delete(here);
    far.set(here, d);
    for (const s of at.get(here) ?? []) {
      const next = s.from === here ? s.to : s.from;
      if (!far.has(next)) open.set(next, Math.min(open.get(next) ?? Infinity, d + s.length_m));
    }
  }
  return ({ section, x_m }) => {
    const s = byId.get(section);
    if (!s) throw new RangeError(`no section "${section}"`);
    const round = Math.min((far.get(s.from) ?? Infinity) + x_m, (far.get(s.to) ?? Infinity) + s.length_m - x_m);
    return section === start.section ? Math.min(Math.abs(x_m - start.x_m), round) : round;
  };
} // prettier-ignore
