/** A made-up farm of any size for tests and benchmarks: sections in a branching tree with some loops. */
import type { Circuit, Jumper, Section } from '../../src/core/power/network.js';

/** The same numbers each time: a small linear congruential generator. */
export function sequence(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 1103515245 + 12345) % 2147483648) / 2147483648;
}

/** `count` sections of `strands` strands; all strands tied at every place. */
export function farmCircuit(count: number, strands: number, seed = 7): Circuit {
  const random = sequence(seed);
  const names = Array.from({ length: strands }, (_, i) => `s${i + 1}`);
  const types = Object.fromEntries(names.map((s) => [s, 'wire']));
  const sections: Section[] = [];
  let places = 1;
  for (let k = 0; k < count; k++) {
    // Most sections lead on from one of the last dozen places; every fiftieth closes a loop.
    const from = Math.max(0, places - 1 - Math.floor(12 * random()));
    const loop = k % 50 === 49;
    const to = loop ? Math.max(0, from - 20) : places++;
    sections.push({
      id: `S${k}`,
      from: `N${from}`,
      to: `N${to}`,
      length_m: 40 + 400 * random(),
      strands: types,
    });
  }
  const jumpers: Jumper[] = [];
  for (let place = 0; place < places; place++) {
    const location = `N${place}`;
    for (let i = 0; i + 1 < strands; i++) {
      jumpers.push({ location, strand_a: names[i]!, strand_b: names[i + 1]!, r_ohm: 0.1 });
    }
  }
  return {
    strand_types: { wire: { role: 'hot', r_ohm_per_km: 37, g_s_per_km: 1e-4 } },
    energiser: { location: 'N0', hot_strands: ['s1'], earth_strands: [], lead_ohm: 0.05 },
    r_earth_ohm: 8,
    sections,
    jumpers,
    shunts: [],
    breaks: [],
    probes: [],
  };
}
