/** What is fed: one walk against every edge cut in turn, and against the volts of the network. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { continuity, judgeOf, type Metal, type Ties } from '../../src/core/joins/continuity.js';
import { checkPlan } from '../../src/core/check.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { circuitOf } from '../../src/core/power/circuit.js';
import { solveUnit } from '../../src/core/power/network.js';
import { joinLines, reverseLine, splitLine } from '../../src/core/edit/reshape.js';
import { networkOf, mended as report } from './scene.js';
import { acrossCorner, cornered, ladder, tie } from './wrong.js';

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

describe('joins set by hand', () => {
  const untied = cornered({ 150: acrossCorner([2]), 300: ladder('before', [2]) });
  const volts = (p: Plan) => report(p).energisers['unit']!.seasons.weedy!;

  it('tied by hand as is proposed, everything is as before', () => {
    const [own, hand] = [report(cornered({})), report(cornered({ 150: acrossCorner(), 300: ladder('before') }))]; // prettier-ignore
    expect(hand.fed).toEqual(own.fed);
    expect(own.fed['unit']).toMatchObject({ live_m: 1500, fed_m: 1500, dead: [], single: [], touches: false }); // prettier-ignore
    expect(hand.energisers['unit']!.seasons).toEqual(own.energisers['unit']!.seasons);
  });

  it('a strand that is left out at both ends of a run is dead, leaks nothing, and is mended from the list', () => {
    const { fed, findings, dead } = report(untied);
    expect(fed['unit']).toMatchObject({ fed_m: 1350, dead: [{ line: 'a', from_m: 150, to_m: 300, strands: [2] }] }); // prettier-ignore
    // The run itself is fed: no fence is dead, and with less wire on it the volts beyond rise.
    expect(dead).toEqual([]);
    const beyond = (p: Plan) => volts(p).lines['a']!.v_V.at(-1)!;
    expect(beyond(untied)).toBeGreaterThan(beyond(cornered({})));
    const found = findings.find((f) => f.rule === 'strand-dead')!;
    expect(found.why).toContain('450');
    // At one end alone it would hang on that end: both are put back.
    const away = { op: 'remove', path: '/lines/a/joins/0' };
    expect(found.mend?.patch).toEqual([away, away]);
  });

  it('left out at one end only it is fed, from one side: a break takes what lies beyond', () => {
    const { fed } = report(cornered({ 150: acrossCorner([2]) }));
    expect(fed['unit']).toMatchObject({ dead: [], single: [{ strands: [2], from_m: 0, lost_m: 130 }, { strands: [2], from_m: 150, lost_m: 150 }] }); // prettier-ignore
  });

  it('with nothing led across a corner the fence beyond it is dead, in the graph and in the volts', () => {
    const cut = cornered({ 150: [...ladder('before'), ...ladder('after')] });
    const { fed, dead, findings } = report(cut);
    expect(fed['unit']).toMatchObject({ fed_m: 750, dead: [{ from_m: 150, strands: [0, 1, 2, 3, 4] }] }); // prettier-ignore
    expect(dead).toEqual([{ line: 'a', from_m: 150, to_m: 300 }]);
    expect(findings.map((f) => f.rule)).toContain('dead');
    // Not twice over.
    expect(findings.map((f) => f.rule)).not.toContain('strand-dead');
  });

  it('dead in the graph of a plan is no volts in its network, whichever ties are left out', () => {
    const all = [...acrossCorner(), ...ladder('after')];
    fc.assert(
      fc.property(fc.subarray(all), fc.subarray(ladder('before')), (corner, end) => {
        const circuit = circuitOf(networkOf(cornered({ 150: corner, 300: end })), 'today');
        const { dead } = judgeOf(circuit)({ jumpers: circuit.jumpers, switches: [], breaks: [] });
        const { nodes } = solveUnit(circuit);
        for (const s of circuit.sections)
          for (const strand of Object.keys(s.strands)) {
            const there = nodes.filter((n) => n.strand === strand && (n.location === s.from || n.location === s.to)); // prettier-ignore
            const is = dead.some((d) => d.section === s.id && d.strand === strand);
            expect(
              there.every((n) => (n.v_v ?? 0) === 0),
              strand,
            ).toBe(is);
          }
      }),
      { numRuns: 40 },
    );
  });

  it('live tied to earth is told, and seen in the graph', () => {
    const own = [...acrossCorner([4]), tie('before', 4, 'after', 4)];
    const short = cornered({ 150: [...own, tie('before', 0, 'before', 4)] }, 'earth');
    expect(report(short).fed['unit']!.touches).toBe(true);
    expect(report(short).findings.find((f) => f.rule === 'live-to-earth')?.mend?.patch).toEqual([{ op: 'remove', path: `/lines/a/joins/0/ties/${own.length}` }]); // prettier-ignore
    expect(report(cornered({}, 'earth')).fed['unit']!.touches).toBe(false);
  });

  it('follows its line when that is turned, cut and joined again', () => {
    const p = structuredClone(untied);
    // A copy each time: what is changed in place is not seen to have changed.
    const now = () => report(structuredClone(p)).fed['unit']!;
    const before = now();
    reverseLine(p, 'a');
    expect(p.lines['a']!.joins!.map((j) => [j.at_m, j.ties[0]!.a.side])).toEqual([[0, 'after'], [150, 'after']]); // prettier-ignore
    const turned = now();
    expect(turned).toMatchObject({ fed_m: before.fed_m, dead: [{ from_m: 0, to_m: 150, strands: [2] }] }); // prettier-ignore
    const part = splitLine(p, 'a', 60)!;
    // A cut is a new place, tied as is proposed.
    expect(now().fed_m).toBeCloseTo(1500, 6);
    joinLines(p, 'a', part);
    expect(now().fed_m).toBeCloseTo(turned.fed_m, 6);
  });

  it('what names a line or a strand that is gone ties nothing; no strand is tied to itself', () => {
    const wrong = (ties: ReturnType<typeof ladder>) =>
      checkPlan(cornered({ 150: ties }), catalogue, new Set());
    const gone = { ...tie('before', 1, 'before', 2), b: { line: 'gone', side: 'through', strand: 0 } as const }; // prettier-ignore
    expect(wrong([...acrossCorner(), gone, tie('before', 0, 'after', 19)])).toEqual([]);
    expect(report(cornered({ 150: [...acrossCorner(), gone, tie('before', 0, 'after', 19)] })).fed).toEqual(report(cornered({})).fed); // prettier-ignore
    expect(wrong(acrossCorner())).toEqual([]);
    expect(wrong([tie('before', 1, 'before', 1)])).toHaveLength(1);
  });
});
