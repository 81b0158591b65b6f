/** The earth side of a network: rods of the unit, and earth strands with rods of their own. */
import type { SeasonId } from '../plan/catalogue.js';
import { assemble, drive, factorOf } from './assembly.js';
import { circuitOf } from './circuit.js';
import type { Circuit } from './circuitTypes.js';
import { rodsOf } from './earthing.js';
import type { Network } from './wired.js';

/**
 * Resistance from the energiser's earth terminal to far soil, ohm: its rods, and what earth strands add with
 * rods of their own.
 */
export function earthOf(net: Network, season: SeasonId): number {
  const own = rodsOf(net, season);
  if (!net.ids.some((id) => net.wired[id]!.line.strands.some((s) => s.duty === 'earth')))
    return own;
  const whole = circuitOf(net, season);
  if (whole.energiser.earth_strands.length === 0) return own;
  const c = earthPart(whole);
  const a = assemble(c);
  return drive(a, factorOf(a), -1, a.earth)[a.earth]!;
}

/** The earth side of a circuit alone: live strands touch it nowhere but through the soil. */
export function earthPart(c: Circuit): Circuit {
  const names = new Set<string>();
  for (const { strands } of c.sections)
    for (const [name, type] of Object.entries(strands))
      if (c.strand_types[type]?.role === 'earth') names.add(name);
  const isEarth = (strand: string) => names.has(strand) || strand.endsWith('!earth');
  return {
    ...c,
    energiser: { ...c.energiser, hot_strands: [] },
    sections: c.sections.flatMap((s) => {
      const strands = Object.fromEntries(Object.entries(s.strands).filter(([n]) => isEarth(n)));
      return Object.keys(strands).length ? [{ ...s, strands }] : [];
    }),
    jumpers: c.jumpers.filter((j) => isEarth(j.strand_a) && isEarth(j.strand_b)),
    shunts: c.shunts.filter((s) => isEarth(s.strand)),
  };
}
