/** Whatever strands, soils and units come together: figures that can be, and no question of Power that falls over. */
import * as fc from 'fast-check';
import { expect, it } from 'vitest';
import { splitFence } from '../../src/core/edit/split.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Strand } from '../../src/core/plan/schema.js';
import { feedPlaces } from '../../src/core/sizing/places.js';
import { remediesOf } from '../../src/core/sizing/remedies.js';
import { sampler } from '../../src/core/sizing/sure.js';
import { resistiveDeck, transientDeck } from '../../src/formats/netlist.js';
import { edit } from '../../src/formats/patch.js';
import { often } from '../often.js';
import { energiser, line, networkOf, plan, report } from './scene.js';

const strand = fc.record<Strand>({
  height_m: fc.double({ min: 0.01, max: 2, noNaN: true }),
  duty: fc.constantFrom('live', 'earth', 'cold'),
  wire: fc.constantFrom(...Object.keys(catalogue.wires)),
  insulated: fc.boolean(),
  switched: fc.boolean(),
});
const spot = fc.tuple(fc.integer({ min: -500, max: 500 }), fc.integer({ min: -500, max: 500 }));

it('any make-ups on any soil with any unit', () => {
  const lines = fc.array(fc.tuple(fc.array(strand, { minLength: 1, maxLength: 7 }), spot, spot), {
    minLength: 1,
    maxLength: 3,
  });
  const model = fc.constantFrom(...Object.keys(catalogue.energisers));
  const soil = fc.constantFrom(...Object.keys(catalogue.soils));
  fc.assert(
    fc.property(lines, model, soil, fc.integer({ min: 1, max: 40 }), (made, unit, ground, rods) => {
      const own = made.map(([strands, a, [e, n]], k) =>
        line(k === 0 ? 'a' : `a${k}`, [a, a[0] === e && a[1] === n ? [e + 3, n] : [e, n]], {
          strands: strands.toSorted((p, q) => p.height_m - q.height_m),
          ...(k % 2 ? { growth: 'rank' as const } : {}),
        }),
      );
      const at = made[0]![1];
      const p = plan(own, {
        soil: ground,
        climate: { cold_C: -20, today_C: 5, hot_C: 30 },
        energisers: { unit: energiser('a', 10, { model: unit, rods, e: at[0], n: at[1] + 1 }) },
      });
      const e = report(p).energisers['unit']!;
      const most = catalogue.energisers[unit]!.open_V;
      for (const s of Object.values(e.seasons))
        for (const { v_V } of Object.values(s.lines))
          for (const v of v_V) expect(v >= 0 && v <= most).toBe(true);
      if (e.felt) expect(e.felt.volts_V >= 0 && e.felt.volts_V <= most).toBe(true);
      const net = networkOf(p);
      remediesOf(net, feedPlaces(net, p));
      const lot = sampler(net, { line: 'a', other: null, seed: 3 });
      if (lot.next()) expect(lot.sum()!.worst_V[1]).toBeGreaterThan(0);
      edit(p, (d) => void splitFence(d, 'unit', catalogue));
      for (const deck of [resistiveDeck, transientDeck]) {
        try {
          deck(net, 'wet', {});
        } catch (error) {
          expect(String(error)).toMatch(/feeds no live|comes back/);
        }
      }
    }),
    { numRuns: Number(process.env['NETWORKS'] ?? often(2, 60)) },
  );
}, 300_000);
