/** What strands hang on: what fits, how hard a bend bears on it, what is counted and said. */
import { describe, expect, it } from 'vitest';
import { often } from '../often.js';
import { checkPlan } from '../../src/core/check.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Line } from '../../src/core/plan/schema.js';
import { bendsOf, insulatorAt, unfit, usualInsulator } from '../../src/core/strands/insulators.js';
import { itemsOfCrossing, type Crossing } from '../../src/core/wiring/crossings.js';
import { energiser, line, plan, mended as report, strands } from './scene.js';

/** Two legs of 150 m with a bend between them, turned to the right by so many degrees. */
const bent = (deg: number, part: Partial<Line> = {}) => {
  const turn = (deg * Math.PI) / 180;
  const l = line('a', [[0, 0], [0, 150], [150 * Math.sin(turn), 150 + 150 * Math.cos(turn)]], part); // prettier-ignore
  l.vertices[1]!.kind = 'bend';
  return plan([l], { energisers: { unit: energiser('a', 0) } });
};
const bendOf = (deg: number) => {
  const p = bent(deg);
  const r = report(p).lines['a']!;
  return { bend: bendsOf(p.lines['a']!, r.runs, r.strain)[0]!, T: r.strain[0]!.cold_N };
};
const timber: Partial<Line> = { post: 'timber-180' };

describe('insulators', () => {
  it('each kind of post has one for stiff wire, and what is usual fits', () => {
    for (const { family } of Object.values(catalogue.posts))
      for (const wire of ['ht25', 'ht20', 'al25', 'rope', 'tape']) {
        const id = usualInsulator(family, wire, catalogue);
        if (['ht25', 'ht20', 'al25'].includes(wire)) expect(id, `${wire} on ${family}`).not.toBeNull(); // prettier-ignore
        if (id) expect(unfit(id, family, wire, catalogue)).toBeNull();
      }
    // Common practice: claws made for rope do not take stiff wire.
    expect(unfit('claw', 'timber', 'ht25', catalogue)).toBe('form');
    expect(unfit('claw', 'timber', 'rope', catalogue)).toBeNull();
    expect(unfit('steel', 'timber', 'ht25', catalogue)).toBe('post');
    expect(unfit('moulded', 'timber', 'ht25', catalogue)).toBe('place');
    expect(unfit('timber', null, 'ht25', catalogue)).toBe('place');
    const thick = { ...catalogue, wires: { ...catalogue.wires, ht25: { ...catalogue.wires['ht25']!, diameter_mm: 9 } } }; // prettier-ignore
    expect(unfit('timber', 'timber', 'ht25', thick)).toBe('hole');
  });

  it('a bend pulls towards its inside, and the wire runs on the other side of the post', () => {
    for (const deg of [-40, -12, -3, 3, 12, 40]) {
      const { bend, T } = bendOf(deg);
      const turn = (deg * Math.PI) / 180;
      // The two legs pull along themselves, away from the post: their sum by components, east and north.
      const pull = [T * Math.sin(turn), T * (Math.cos(turn) - 1)] as const;
      expect(bend.bearing_N).toBeCloseTo(Math.hypot(...pull), 6);
      expect(bend.turn_deg).toBeCloseTo(Math.abs(deg), 6);
      // The line runs north: the left side of the post is west of it. The pull leads from the wire to the post.
      const wire_e = bend.side === 'left' ? -1 : 1;
      expect(-wire_e * pull[0]).toBeGreaterThan(0);
    }
  });

  it('a sharper bend never hangs on something weaker', () => {
    let last = 0;
    for (let deg = 1; deg <= 60; deg += often(3, 1)) {
      const { bend } = bendOf(deg);
      const id = insulatorAt({}, 'bend', 'timber', 'ht25', catalogue, bend.bearing_N)!;
      const bears = catalogue.insulators[id]!.bearing_N;
      expect(bears).toBeGreaterThanOrEqual(Math.max(last, bend.bearing_N));
      last = bears;
    }
  });

  it('are bought by the post that they are for, the bend and the ends', () => {
    const bought = (p: ReturnType<typeof bent>) => Object.fromEntries(report(p).supplies.map((s) => [s.id, s])); // prettier-ignore
    const sharp = bought(bent(45, timber));
    const slight = bought(bent(2, timber));
    expect(sharp['insulator.bend']!.quantity).toBe(5);
    expect(slight['insulator.bend']).toBeUndefined();
    expect(sharp['insulator.line']!.quantity + 5).toBe(slight['insulator.line']!.quantity);
    expect(sharp['insulator.end']!.places).toEqual({ a: [[0, 5], [expect.closeTo(300, 6), 5]] }); // prettier-ignore
    const reels = bought(bent(2, { ...timber, insulators: { end: 'reel', timber: 'screw' } }));
    expect([reels['insulator.reel']!.quantity, reels['insulator.screw']!.quantity]).toEqual([10, slight['insulator.line']!.quantity]); // prettier-ignore
    const tape = bought(bent(2, { ...timber, strands: strands([0.5, 0.9], { wire: 'tape' }) }));
    expect(tape['insulator.tape']!.quantity).toBeGreaterThan(0);
    expect(tape['insulator.line']).toBeUndefined();
  });

  it('that a bend pulls off are found, with what bears it', () => {
    const p = bent(40, { ...timber, insulators: { bend: 'screw' } });
    const found = report(p).findings.filter((f) => f.rule === 'insulator-unsuited');
    expect(found.map((f) => f.cause)).toEqual(['Bend pulls its insulators off']);
    expect(found[0]!.mend).toMatchObject({ words: 'What bears it' });
    expect(report(bent(40, timber)).findings.filter((f) => f.rule === 'insulator-unsuited')).toEqual([]); // prettier-ignore
  });

  it('and what a line crosses or opens with is counted by its live strands, its wires, its width', () => {
    const five = { strands: [...strands([0.15, 0.3, 0.45, 0.65]), ...strands([0.9], { duty: 'cold' })] }; // prettier-ignore
    const of = (c: Crossing) => Object.fromEntries(itemsOfCrossing(five, c, catalogue));
    expect(of({ at_m: 5, kind: 'sleeve' })).toEqual({ 'sleeve.crossing': 4 });
    expect(of({ at_m: 5, kind: 'flood' })).toEqual({ floodgate: 1, 'switch.cutout': 1, 'clamp.jumper': 2 }); // prettier-ignore
    expect(of({ at_m: 5, kind: 'closure' })).toEqual({ 'joiner.wedge': 10, 'dropper.spacer': 1 });
    expect(of({ at_m: 5, kind: 'closure', width_m: 12, joiner: 'sleeve' })).toEqual({ 'joiner.sleeve': 10, 'dropper.spacer': 3 }); // prettier-ignore
  });

  it('that no catalogue has are refused at the door', () => {
    const p = bent(2, { insulators: { end: 'glass', moon: 'reel' } });
    expect(checkPlan(p, catalogue, new Set()).map((f) => [f.place, f.reason])).toEqual([
      ['/lines/a/insulators/end', 'no insulator is called "glass"'],
      ['/lines/a/insulators/moon', 'names no kind of post, `bend` or `end`'],
    ]);
  });
});
