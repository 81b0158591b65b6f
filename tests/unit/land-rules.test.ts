/** What the findings of the land say and offer, for lines and things laid out by hand. */
import { describe, expect, it } from 'vitest';
import type { Finding } from '../../src/core/report/schema.js';
import type { Plan, Thing } from '../../src/core/plan/schema.js';
import { applyPatch } from '../../src/formats/patch.js';
import { energiser, line, plan, mended as report, strands } from './scene.js';
import { thing, things } from './wrong-land.js';

const straight = (part: Parameters<typeof line>[2] = {}) => line('a', [[0, 0], [300, 0]], part); // prettier-ignore
const fenced = (list: Thing[], part: Partial<Plan> = {}, own = straight()) =>
  plan([own], { energisers: { unit: energiser('a', 150) }, ...things(...list), ...part });
const found = (p: Plan, rule: string): Finding[] =>
  report(p).findings.filter((f) => f.rule === rule);
const said = (p: Plan, rule: string) => found(p, rule).map((f) => [f.kind, f.title, f.why]);
const gate = (at_m: number, width_m = 4) => ({ g: { id: 'g', name: 'G', line: 'a', at_m, width_m, cable: true } }); // prettier-ignore

describe('an old fence', () => {
  const old = (points: [number, number][], barbed = true) => thing('oldFence', points, { barbed });

  it('crossed: a sleeve for each live strand of each crossing, and no word of running beside', () => {
    const [one, ...more] = said(fenced([old([[100, -20], [100, 20]])]), 'old-fence'); // prettier-ignore
    expect(more).toEqual([]);
    expect(one![2]).toMatch(
      /^One crossing of 5 live strands without sleeves: 5 insulating sleeves on the old barbed wire/,
    );
    const twice = old([[100, -20], [100, 20], [140, 20], [140, -20]], false); // prettier-ignore
    const [both] = said(fenced([twice]), 'old-fence');
    expect(both![2]).toMatch(
      /^2 crossings of 5 live strands without sleeves: 10 insulating sleeves on the old wire, the first at 100.0.m \(past post 18\)/,
    );
  });

  it('beside: stopped where it is barbed, mended where it is netting', () => {
    const along: [number, number][] = [[100, 0.1], [140, 0.1]]; // prettier-ignore
    expect(said(fenced([old(along)]), 'old-fence')).toEqual([['stop', 'a runs against oldFence', expect.stringMatching(/^From 99.9.m .*within 150.mm.*barbed wire must never be/)]]); // prettier-ignore
    expect(said(fenced([old(along, false)]), 'old-fence')[0]![0]).toBe('mend');
    const off: [number, number][] = [[100, 0.16], [140, 0.16]]; // prettier-ignore
    expect(said(fenced([old(off)]), 'old-fence')).toEqual([]);
    // Crossed and run along: both are told.
    const both: [number, number][] = [[100, -20], [100, 20], [200, 20], [200, 0.1], [250, 0.1]]; // prettier-ignore
    expect(said(fenced([old(both)]), 'old-fence').map(([kind]) => kind).sort()).toEqual(['mend', 'stop']); // prettier-ignore
  });

  it('is nothing to a line without live strands', () => {
    const cold = straight({ strands: strands([0.9], { duty: 'cold' }) });
    expect(said(fenced([old([[100, -20], [100, 20]])], {}, cold), 'old-fence')).toEqual([]); // prettier-ignore
  });
});

describe('a public way', () => {
  const way = (points: [number, number][], part: Partial<Thing> = {}) =>
    thing('publicWay', points, part);

  it('along the line wants a sign at each end and one every 100 m', () => {
    const [signs, ...more] = said(fenced([way([[50, 8], [250, 8]])]), 'public-way'); // prettier-ignore
    expect(more).toEqual([]);
    // 200 m and what lies within 10 m beyond its ends: 6 m at either end.
    expect(signs).toMatchObject(['confirm', 'Signs along publicWay', expect.stringMatching(/for 212(\.0)?.m: 4 signs, one every 100(\.0)?.m/)]); // prettier-ignore
    expect(said(fenced([way([[50, 10.5], [250, 10.5]])]), 'public-way')).toEqual([]); // prettier-ignore
    // One live strand among cold ones wants them; a fence without any does not.
    const mixed = [...strands([0.3], { duty: 'cold' }), ...strands([0.9])];
    const beside = [way([[50, 8], [250, 8]])]; // prettier-ignore
    expect(said(fenced(beside, {}, straight({ strands: mixed })), 'public-way')).toHaveLength(1);
    expect(said(fenced(beside, {}, straight({ strands: mixed.slice(0, 1) })), 'public-way')).toEqual([]); // prettier-ignore
  });

  it('across the line wants a gate as wide as the way; one that is near serves', () => {
    const across: [number, number][] = [[100, -50], [100, 50]]; // prettier-ignore
    const p = fenced([way(across, { width_m: 3 })]);
    const shut = found(p, 'public-way').find((f) => f.kind === 'mend')!;
    expect(shut.mend!.patch).toEqual([{ op: 'add', path: '/gates/g1', value: { id: 'g1', name: 'Gate on publicWay', line: 'a', at_m: 100, width_m: 3, cable: true } }]); // prettier-ignore
    const mended = applyPatch(p, shut.mend!.patch);
    expect(found(mended, 'public-way').map((f) => f.kind)).toEqual(['confirm']);
    const served = (at_m: number) =>
      found(fenced([way(across)], { gates: gate(at_m) }), 'public-way').every((f) => f.kind !== 'mend'); // prettier-ignore
    // Half the gate and 4 m beside it.
    expect([served(94.1), served(93.9), served(105.9), served(106.1)]).toEqual([true, false, true, false]); // prettier-ignore
  });

  it('the gate that is offered is 1.2 to 4 m wide and stands on its line', () => {
    const widths = [0.5, 1.2, 2, 9].map((width_m) => {
      const p = fenced([way([[1, -50], [1, 50]], { width_m })]); // prettier-ignore
      const { value } = found(p, 'public-way').find((f) => f.mend)!.mend!.patch[0]!;
      return value as { at_m: number; width_m: number };
    });
    expect(widths.map((g) => g.width_m)).toEqual([1.2, 1.2, 2, 4]);
    expect(widths.map((g) => g.at_m)).toEqual([1, 1, 1, 2]);
  });
});

describe('a burn', () => {
  const burn = (width_m: number) => thing('burn', [[120, -50], [120, 50]], { width_m }); // prettier-ignore

  it('is spanned from bank to bank: a pin half a metre from either side of the water', () => {
    const p = fenced([burn(4)]);
    const [f] = found(p, 'burn-crossing');
    expect(f!.why).toMatch(/^It spans water from 118.0.m \(past post \d+\) to 122.0.m/);
    const pins = f!.mend!.patch[0]!.value as { at_m: number }[];
    expect(pins.map((x) => x.at_m)).toEqual([expect.closeTo(117.5, 1), expect.closeTo(122.5, 1)]);
    expect(found(applyPatch(p, f!.mend!.patch), 'burn-crossing')).toEqual([]);
  });

  it('a pin within 1.5 m of a bank serves; only the missing one is put, in order with the others', () => {
    const own = (pins: number[]) => straight({ pins: pins.map((at_m) => ({ at_m, kind: null })) });
    const put = (pins: number[]) => {
      const [f] = found(fenced([burn(4)], {}, own(pins)), 'burn-crossing');
      return f && (f.mend!.patch[0]!.value as { at_m: number }[]).map((x) => Math.round(x.at_m * 10) / 10); // prettier-ignore
    };
    // From 116.1 to 122.5 sheep want another post, which would stand in the water: both banks are pinned.
    expect(put([116.1, 200])).toEqual([116.1, 117.5, 122.5, 200]);
    expect(put([117, 200])).toEqual([117, 122.5, 200]);
    expect(put([115.9, 200])).toEqual([115.9, 117.5, 122.5, 200]);
    expect(put([117, 123.9])).toBeUndefined();
  });

  it('at the end of a line its end is the bank', () => {
    const at = (e: number) => fenced([thing('burn', [[e, -50], [e, 50]], { width_m: 1 })]); // prettier-ignore
    expect((found(at(1), 'burn-crossing')[0]!.mend!.patch[0]!.value as object[]).length).toBe(1);
  });
});

describe('the air under an overhead line', () => {
  const over = (part: Partial<Thing>) => thing('overhead', [[150, -50], [150, 50]], part); // prettier-ignore

  it('counts from the top of the fence to the lowest wire', () => {
    // Strands up to 0.9 m: at 11 kV 4 m of air are wanted.
    const near = (height_m: number) => said(fenced([over({ volts_kV: 11, height_m })]), 'overhead');
    expect(near(4.8)[0]![2]).toMatch(/there are 3\.\d.m of air/);
    expect(near(6)).toEqual([]);
    expect(said(fenced([over({ volts_kV: 11 })]), 'overhead')[0]![2]).toMatch(
      /^Its height is not given/,
    );
    expect(said(fenced([over({ height_m: 6 })]), 'overhead')[0]![2]).toContain(
      'of unknown voltage',
    );
  });
});
