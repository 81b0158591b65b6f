/** What is fed: one walk against every edge cut in turn, and against the volts of the network. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { continuity, judgeOf, type Metal, type Ties } from '../../src/core/joins/continuity.js';
import { solveUnit } from '../../src/core/power/network.js';

const STRANDS = ['s1', 's2', 's3', 'e1'];
const at = (most: number) => fc.integer({ min: 0, max: most });

/** A small fence with loops, strands that end part way, and whatever is tied, opened and broken in it. */
const fences = fc
  .record({
    places: fc.integer({ min: 2, max: 6 }),
    sections: fc.array(
      fc.record({ from: at(5), to: at(5), length_m: fc.integer({ min: 20, max: 500 }), strands: fc.subarray(STRANDS, { minLength: 1 }) }), // prettier-ignore
      { minLength: 1, maxLength: 9 },
    ),
    jumpers: fc.array(fc.record({ at: at(5), a: at(3), b: at(3) }), { maxLength: 10 }),
    switches: fc.array(fc.record({ k: at(40), open: fc.boolean() }), { maxLength: 2 }),
    breaks: fc.array(fc.record({ k: at(40), share: fc.double({ min: 0.1, max: 0.9, noNaN: true }) }), { maxLength: 3 }), // prettier-ignore
  })
  .map(({ places, sections: drawn, jumpers, switches, breaks }) => {
    const sections = drawn
      .map((s) => ({ ...s, from: s.from % places, to: s.to % places }))
      // The network has no stretch from a place to itself.
      .filter((s) => s.from !== s.to)
      .map((s, k) => ({
        id: `S${k}`,
        from: `P${s.from}`,
        to: `P${s.to}`,
        length_m: s.length_m,
        strands: Object.fromEntries(s.strands.map((x) => [x, x === 'e1' ? 'earth' : 'live'])),
      }));
    const stretches = sections.flatMap((s) => Object.keys(s.strands).map((strand) => ({ section: s.id, strand, length_m: s.length_m }))); // prettier-ignore
    const there = (location: string) => [...new Set(sections.filter((s) => [s.from, s.to].includes(location)).flatMap((s) => Object.keys(s.strands)))]; // prettier-ignore
    const some = stretches.length > 0;
    const metal: Metal = {
      strand_types: { live: { role: 'hot' }, earth: { role: 'earth' } },
      energiser: { location: 'P0', hot_strands: there('P0').filter((s) => s !== 'e1').slice(0, 1), earth_strands: there('P0').filter((s) => s === 'e1') }, // prettier-ignore
      sections,
    };
    const ties: Ties = {
      jumpers: jumpers.flatMap((j) => {
        const here = there(`P${j.at % places}`);
        if (here.length < 2) return [];
        const [strand_a, strand_b] = [here[j.a % here.length]!, here[j.b % here.length]!];
        return strand_a === strand_b ? [] : [{ location: `P${j.at % places}`, strand_a, strand_b }];
      }),
      switches: some ? switches.map((s) => ({ ...stretches[s.k % stretches.length]!, open: s.open })) : [], // prettier-ignore
      breaks: some ? breaks.map((b) => { const own = stretches[b.k % stretches.length]!; return { ...own, x_m: own.length_m * b.share }; }) : [], // prettier-ignore
    };
    return { metal, ties };
  })
  .filter(({ metal }) => metal.energiser.hot_strands.length > 0 && metal.sections.length > 0);

/** The same by spreading from the terminal, without any cleverness; `without`: a stretch that is taken out. */
function plainly({ metal, ties }: { metal: Metal; ties: Ties }, without = '') {
  const key = (location: string, strand: string) => `${location} ${strand}`;
  const open = new Set(ties.switches.filter((s) => s.open).map((s) => key(s.section, s.strand)));
  const links: [string, string][] = ties.jumpers.map((j) => [key(j.location, j.strand_a), key(j.location, j.strand_b)]); // prettier-ignore
  const stretches = metal.sections.flatMap((s) =>
    Object.entries(s.strands).map(([strand, type]) => {
      const id = key(s.id, strand);
      const cuts = ties.breaks.filter((b) => key(b.section, b.strand) === id).map((b) => b.x_m);
      return { id, section: s.id, strand, from: key(s.from, strand), to: key(s.to, strand), live: type === 'live', length_m: s.length_m, cuts, open: open.has(id) }; // prettier-ignore
    }),
  );
  const left = stretches.filter((s) => s.id !== without);
  for (const s of left) if (s.cuts.length === 0 && !s.open) links.push([s.from, s.to]);
  const fed = new Set(metal.energiser.hot_strands.map((s) => key(metal.energiser.location, s)));
  for (let grown = true; grown;) {
    grown = false;
    for (const [a, b] of links)
      if (fed.has(a) !== fed.has(b)) {
        fed.add(a).add(b);
        grown = true;
      }
  }
  const length = left
    .filter((s) => s.live)
    .reduce((sum, s) => {
      const [first, last] = s.cuts.length > 0 ? [Math.min(...s.cuts), Math.max(...s.cuts)] : [s.length_m, s.length_m]; // prettier-ignore
      if (s.cuts.length === 0 && !s.open) return sum + (fed.has(s.from) ? s.length_m : 0);
      return sum + (fed.has(s.from) ? first : 0) + (fed.has(s.to) && !s.open ? s.length_m - last : 0); // prettier-ignore
    }, 0);
  return { stretches, fed, length };
}

describe('continuity', () => {
  it('is what cutting every stretch in turn shows', () => {
    fc.assert(
      fc.property(fences, (fence) => {
        const got = continuity({ ...fence.metal, ...fence.ties });
        const { stretches, fed, length } = plainly(fence);
        expect(got.fed_m).toBeCloseTo(length, 6);
        const live = stretches.filter((s) => s.live);
        expect(got.live_m).toBeCloseTo(
          live.reduce((sum, s) => sum + s.length_m, 0),
          6,
        );
        const dead = live.filter((s) => !fed.has(s.from) && (s.open || !fed.has(s.to)));
        expect(got.dead.map((d) => `${d.section} ${d.strand}`).sort()).toEqual(dead.map((d) => d.id).sort()); // prettier-ignore
        const single = live
          .filter((s) => s.cuts.length === 0 && !s.open && fed.has(s.from))
          .flatMap((s) => {
            const rest = plainly(fence, s.id);
            const both = rest.fed.has(s.from) && rest.fed.has(s.to);
            return both ? [] : [[s.id, length - rest.length] as const];
          });
        expect(got.break_cost.map((b) => `${b.section} ${b.strand}`).sort()).toEqual(single.map(([id]) => id).sort()); // prettier-ignore
        for (const b of got.break_cost)
          expect(b.lost_m).toBeCloseTo(single.find(([id]) => id === `${b.section} ${b.strand}`)![1], 6); // prettier-ignore
        expect(got.one_sided).toEqual(got.break_cost.map(({ section, strand }) => ({ section, strand }))); // prettier-ignore
        expect(got.live_touches_earth).toBe(
          fence.metal.energiser.earth_strands.some((s) =>
            fed.has(`${fence.metal.energiser.location} ${s}`),
          ),
        );
      }),
      { numRuns: 400 },
    );
  });

  it('dead in the graph is no volts in the network, and back', () => {
    const type = (role: 'hot' | 'earth') => ({ role, r_ohm_per_km: 35, g_s_per_km: 0 });
    fc.assert(
      fc.property(fences, ({ metal, ties }) => {
        // The network knows no switches; live that touches earth is a short, where every volt is next to none.
        const own = { ...ties, switches: [] };
        const got = continuity({ ...metal, ...own });
        fc.pre(!got.live_touches_earth && metal.sections.every((s) => !('e1' in s.strands)));
        const { nodes } = solveUnit({
          strand_types: { live: type('hot'), earth: type('earth') },
          energiser: { ...metal.energiser, lead_ohm: 0.1 },
          r_earth_ohm: 10,
          sections: metal.sections,
          jumpers: own.jumpers.map((j) => ({ ...j, r_ohm: 0.05 })),
          // What leaks at the terminal alone drives a current: everything metal on it has its volts.
          shunts: [{ location: metal.energiser.location, strand: metal.energiser.hot_strands[0]!, to: 'soil', r_ohm: 1000 }], // prettier-ignore
          breaks: own.breaks,
          probes: [],
        });
        const volts = (location: string, strand: string) =>
          nodes.find((n) => n.location === location && n.strand === strand)?.v_v ?? 0;
        const dead = new Set(got.dead.map((d) => `${d.section} ${d.strand}`));
        for (const s of metal.sections)
          for (const strand of Object.keys(s.strands)) {
            const most = Math.max(volts(s.from, strand), volts(s.to, strand));
            expect(most > 1e-6, `${s.id} ${strand}`).toBe(!dead.has(`${s.id} ${strand}`));
          }
      }),
      { numRuns: 200 },
    );
  });

  it('reads the metal once and judges other ties anew', () => {
    const metal: Metal = {
      strand_types: { live: { role: 'hot' } },
      energiser: { location: 'A', hot_strands: ['t'], earth_strands: [] },
      sections: [
        { id: '1', from: 'A', to: 'B', length_m: 100, strands: { t: 'live', u: 'live' } },
        { id: '2', from: 'B', to: 'C', length_m: 60, strands: { t: 'live', u: 'live' } },
      ],
    };
    const judge = judgeOf(metal);
    const tie = (location: string) => ({ location, strand_a: 't', strand_b: 'u' });
    const none = { switches: [], breaks: [] };
    expect(judge({ jumpers: [], ...none })).toMatchObject({ fed_m: 160, dead: [{ section: '1', strand: 'u' }, { section: '2', strand: 'u' }] }); // prettier-ignore
    expect(judge({ jumpers: [tie('C')], ...none })).toMatchObject({ fed_m: 320, dead: [] });
    // The first stretch of t carries all; the last of u, which hangs on it by the far end, only itself.
    expect(judge({ jumpers: [tie('C')], ...none }).break_cost.map((b) => b.lost_m)).toEqual([320, 100, 220, 160]); // prettier-ignore
    expect(judge({ jumpers: [tie('A'), tie('C')], ...none }).one_sided).toEqual([]);
    expect(() => judge({ jumpers: [], switches: [], breaks: [{ section: '9', strand: 't', x_m: 1 }] })).toThrow(/no strand/); // prettier-ignore
    expect(() => judge({ jumpers: [], switches: [], breaks: [{ section: '1', strand: 't', x_m: 101 }] })).toThrow(/beyond/); // prettier-ignore
    expect(() => judgeOf({ ...metal, strand_types: {} })).toThrow(/no known type/);
  });
});
