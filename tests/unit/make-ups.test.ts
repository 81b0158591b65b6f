/** Old fences made to hold, designs and what differs, and the marked stick. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { catalogue } from '../../src/core/plan/shipped.js';
import { checkPlan } from '../../src/core/check.js';
import type { Strand } from '../../src/core/plan/schema.js';
import { differences } from '../../src/core/strands/designs.js';
import { broken, judge } from '../../src/core/strands/judge.js';
import { requirementOf } from '../../src/core/strands/requirement.js';
import { oldFence, withOffsets } from '../../src/core/strands/retrofit.js';
import { onSheet, RULER_MM, SHEET, stickParts } from '../../src/core/strands/stick.js';
import { createPipeline } from '../../src/core/pipeline.js';
import { FLAT, line, plan, report, strands } from './scene.js';

const needOf = (left: string[]) =>
  requirementOf({ left, right: [], keepOut: [], boundary: false }, catalogue)!;
const isBarbed = (s: Strand) => s.wire === 'barbed';

describe('an old fence', () => {
  const stock = ['cattle-quiet', 'cattle-calves', 'sheep', 'goats', 'pigs'];

  it('keeps its strands cold, and gets live offsets that keep every rule of gaps and distance', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.keys(catalogue.oldFences)),
        fc.uniqueArray(fc.constantFrom(...stock), { minLength: 1, maxLength: 2 }),
        (kind, left) => {
          const old = oldFence(kind, catalogue);
          const need = needOf(left);
          const made = withOffsets(old, need, catalogue);
          if ('refused' in made) return;
          expect(made.filter((s) => s.kept)).toEqual(old);
          expect(made.filter(isBarbed).every((s) => s.duty === 'cold')).toBe(true);
          const fresh = made.filter((s) => !s.kept);
          expect(fresh.every((s) => s.duty === 'live' && s.offset_m! > 0)).toBe(true);
          const wrong = broken(judge(made, need, catalogue)).map((m) => m.about);
          expect(wrong.filter((a) => a !== 'topLive')).toEqual([]);
          // Nose and chest of each kind meet a live strand.
          for (const id of left) {
            const { shoulder_m } = catalogue.animals[catalogue.profiles[id]!.animal]!;
            const meets = fresh.some(
              (s) =>
                s.height_m >= 0.5 * shoulder_m - 0.02 && s.height_m <= 0.85 * shoulder_m + 0.01,
            );
            expect(meets, `${id} on ${kind}`).toBe(true);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('keeps every rule to the millimetre, whatever heights the old strands have', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 250, max: 1200 }), {
          minLength: 1,
          maxLength: 5,
          comparator: (a, b) => Math.abs(a - b) < 30,
        }),
        fc.constantFrom(...stock),
        (mm, left) => {
          const old = [...mm]
            .sort((a, b) => a - b)
            .map((h): Strand => ({ height_m: h / 1000, duty: 'cold', wire: 'barbed', insulated: false, kept: true })); // prettier-ignore
          const need = needOf([left]);
          const made = withOffsets(old, need, catalogue);
          if ('refused' in made) return;
          const wrong = broken(judge(made, need, catalogue)).map((m) => m.about);
          expect(wrong.filter((a) => a !== 'topLive')).toEqual([]);
          made.slice(1).forEach((s, i) => {
            expect(s.height_m - made[i]!.height_m).toBeGreaterThan(0.0099);
          });
        },
      ),
      { numRuns: 150 },
    );
  });

  it('with netting below wants one offset and no more for sheep', () => {
    const made = withOffsets(oldFence('netting', catalogue), needOf(['sheep']), catalogue);
    expect((made as Strand[]).filter((s) => !s.kept)).toHaveLength(1);
  });

  it('of barbed wire is not for horses', () => {
    const made = withOffsets(oldFence('barbed3', catalogue), needOf(['horses']), catalogue);
    expect(made).toMatchObject({ refused: expect.stringContaining('taken down') });
  });

  it('buys no post, brace or wire that stands, and sleeves where ties pass barbed wire', () => {
    const need = needOf(['cattle-calves']);
    const made = withOffsets(oldFence('barbed4', catalogue), need, catalogue) as Strand[];
    const l = line('a', [[0, 0], [120, 0]], { left: ['cattle-calves'], standing: true, strands: made, crossings: [30, 60, 90].map((at_m) => ({ at_m, kind: 'sleeve' })) }); // prettier-ignore
    const old = (at: number) => ({
      id: `o${at}`,
      name: 'Old',
      kind: 'oldFence' as const,
      points: [
        { e: at, n: -5 },
        { e: at, n: 5 },
      ],
    });
    const things = Object.fromEntries([30, 60, 90].map((at) => [`o${at}`, old(at)]));
    const { counted } = createPipeline()(plan([l], { things }), FLAT, catalogue);
    const items: Record<string, number> = {};
    for (const [item, n] of counted()['a']!) items[item] = (items[item] ?? 0) + n;
    const live = made.filter((s) => !s.kept);
    expect(items['wire.barbed']).toBeUndefined();
    expect(items['post.steel-180']).toBeUndefined();
    expect(items['post.brace-240']).toBeUndefined();
    // At each end a tie, and a piece with one more, round the post and out to the insulator and back; a coil left.
    const end = 0.5 + 0.5 + 0.53 + 2 * 0.24;
    expect(items['wire.ht25']).toBeCloseTo(live.length * (120 + 2 * end) + 15, 6);
    const between = made.filter(
      (s) => isBarbed(s) && s.height_m > live[0]!.height_m && s.height_m < live.at(-1)!.height_m,
    ).length;
    expect(items['sleeve.crossing']).toBe(2 * between + 3 * live.length);
  });

  it('below the top of a panel the ground clearance is the foot of the panel', () => {
    const l = line('a', [[0, 0], [60, 0]], { strands: oldFence('netting', catalogue) }); // prettier-ignore
    expect(report(plan([l])).lines['a']!.clearance!.high.gap_m).toBeLessThan(0.06);
  });
});

describe('designs', () => {
  const five = strands([0.15, 0.3, 0.45, 0.65, 0.9]);
  it('tell what differs on a line that has left them', () => {
    expect(differences(five, five)).toEqual([]);
    const moved = five.map((s, i) => (i === 3 ? { ...s, height_m: 0.62 } : s));
    expect(differences(moved, five)).toEqual([
      { kind: 'height', strand: 4, from_m: 0.65, to_m: 0.62 },
    ]);
    const earthed = five.map((s, i) => (i === 1 ? { ...s, duty: 'earth' as const } : s));
    expect(differences(earthed, five)).toEqual([{ kind: 'make', strand: 2, height_m: 0.3 }]);
    expect(differences([...five, ...strands([1.1])], five)).toEqual([
      { kind: 'more', heights_m: [1.1] },
    ]);
    expect(differences(five.slice(1), five)).toEqual([{ kind: 'fewer', heights_m: [0.15] }]);
  });

  it('are refused when a line names one that there is not', () => {
    const p = plan([line('a', [[0, 0], [60, 0]], { design: 'gone' })]); // prettier-ignore
    expect(checkPlan(p, catalogue, new Set())).toEqual([
      { place: '/lines/a/design', reason: 'no design is called "gone"' },
    ]);
  });
});

describe('the marked stick', () => {
  it('has every strand once, in parts that join and fit their sheet', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 5, max: 240 }), { minLength: 1, maxLength: 12 }),
        (cm) => {
          const own = strands([...cm].sort((a, b) => a - b).map((h) => h / 100));
          const parts = stickParts(own);
          const marks = parts.flatMap((p) => p.marks);
          expect(marks.map((m) => m.strand)).toEqual(own);
          parts.forEach((p, k) => {
            expect(p.from_mm).toBe(k === 0 ? 0 : parts[k - 1]!.to_mm);
            expect(onSheet(p, p.to_mm)).toBeGreaterThan(SHEET.margin);
            expect(onSheet(p, p.from_mm)).toBeLessThan(SHEET.height - SHEET.margin);
            for (const m of p.marks)
              expect(onSheet(p, p.from_mm) - onSheet(p, m.height_mm)).toBeCloseTo(
                m.height_mm - p.from_mm,
                9,
              );
          });
        },
      ),
    );
    expect(RULER_MM).toBe(100);
  });
});
