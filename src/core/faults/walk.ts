/** Ways along the fence: how far every place of a network is from one of them. */
import type { Section } from '../power/circuitTypes.js';

/** A place on a section, m from its `from`. */
export interface OnSection {
  readonly section: string;
  readonly x_m: number;
}

/** Metres along the wires from one place to another; Infinity where no wire leads there. */
export type Ways = (start: OnSection) => (to: OnSection) => number;

/** @throws RangeError, when asked, where there is no such section */
export function waysOf(sections: readonly Section[]): Ways {
  const byId = new Map(sections.map((s) => [s.id, s]));
  const at = new Map<string, Section[]>();
  for (const s of sections)
    for (const end of [s.from, s.to]) {
      const there = at.get(end);
      if (there) there.push(s);
      else at.set(end, [s]);
    }
  const of = (id: string): Section => {
    const s = byId.get(id);
    if (!s) throw new RangeError(`no section "${id}"`);
    return s;
  };
  return (start) => {
    const own = of(start.section);
    const far = new Map<string, number>();
    const open = new Map([[own.from, start.x_m], [own.to, own.length_m - start.x_m]]);
    if (own.from === own.to) open.set(own.from, Math.min(start.x_m, own.length_m - start.x_m));
    while (open.size > 0) {
      let [here, d] = ['', Infinity];
      for (const [place, m] of open) if (m < d) [here, d] = [place, m];
      open.delete(here);
      far.set(here, d);
      for (const s of at.get(here) ?? []) {
        const next = s.from === here ? s.to : s.from;
        if (!far.has(next)) open.set(next, Math.min(open.get(next) ?? Infinity, d + s.length_m));
      }
    }
    return ({ section, x_m }) => {
      const s = of(section);
      const round = Math.min((far.get(s.from) ?? Infinity) + x_m, (far.get(s.to) ?? Infinity) + s.length_m - x_m);
      return section === start.section ? Math.min(Math.abs(x_m - start.x_m), round) : round;
    };
  };
} // prettier-ignore

/** As `waysOf`, for one start alone. */
export const metresFrom = (sections: readonly Section[], start: OnSection): ((to: OnSection) => number) =>
  waysOf(sections)(start); // prettier-ignore
