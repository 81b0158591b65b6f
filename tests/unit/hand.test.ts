/**
 * Bench cards as geometry: no wire passes through itself, another or what it is tied to; turns are as many as the words
 * say (handbook of the trade, ties: common practice); what is nearer is drawn over what is farther.
 */
import { describe, expect, it } from 'vitest';
import { work } from '../../src/core/build/kinds.js';
import type { HandCard, Rod, Solid } from '../../src/core/hand/card.js';
import { CARDS, cardOf } from '../../src/core/hand/cards/index.js';
import { add, apart, arc, dot, gapBetween, length, selfGap, spline, turnsAbout, unit, winding, type Curve, type Vec } from '../../src/core/hand/curve.js'; // prettier-ignore
import { drawStep } from '../../src/core/hand/render.js';
import { roundOf } from '../../src/views/build/Trainer.js';

const isRod = (s: Solid): s is Rod => 'radius' in s;
const touches = (card: HandCard, a: string, b: string) => (card.touch ?? []).some(([x, y]) => (x === a && y === b) || (x === b && y === a)); // prettier-ignore

/** Whether some picture shows both wires: states of one wire do not meet. */
const together = ({ steps }: HandCard, a: string, b: string) =>
  steps.some((s) => [a, b].every((n) => (s.upTo?.[n] ?? 1) > 0));

/** How deep a wire lies in a rod, mm; below 0: it is clear of it. */
function depthIn({ points }: Curve, thick: number, { from, to, radius }: Rod): number {
  const axis = unit(add(to, from, -1));
  const long = apart(from, to);
  return Math.max(
    ...points.map((p) => {
      const q = add(p, from, -1);
      const s = dot(q, axis);
      const out = Math.max(-s, s - long, 0) - thick / 2;
      return Math.min(radius + thick / 2 - length(add(q, axis, -s)), -out);
    }),
  );
}

describe.each(CARDS.map((c) => [c.id, c] as const))('the card %s', (_, card) => {
  it('has wires that pass through nothing', () => {
    const wires = Object.entries(card.wires);
    for (const [name, { curve, thick, sheath }] of wires) {
      expect(selfGap(curve, 3.2 * thick), `${name} and itself`).toBeGreaterThan(0.98 * thick);
      for (const [other, w] of wires) {
        if (other <= name || !together(card, name, other)) continue;
        const clear = gapBetween(curve, w.curve) - (thick + w.thick) / 2;
        // What lies against one another is drawn a hair into it at most; stays of woven wire are knotted to its lines.
        const least = !touches(card, name, other) ? 0 : card.id === 'woven' ? -12 : -0.15;
        expect(clear, `${name} and ${other}`).toBeGreaterThan(least);
      }
      for (const [solid, of] of Object.entries(card.solids))
        if (isRod(of) && !of.hollow && !touches(card, name, solid))
          expect(depthIn(curve, sheath?.thick ?? thick, of), `${name} in ${solid}`).toBeLessThan(0.05); // prettier-ignore
    }
  });

  it('has as many turns as its words say', () => {
    for (const { wire, about, between, said } of card.turns) {
      expect(turnsAbout(card.wires[wire]!.curve, ...about, ...between)).toBeCloseTo(said, 0);
      expect(Math.abs(turnsAbout(card.wires[wire]!.curve, ...about, ...between) - said)).toBeLessThan(0.06); // prettier-ignore
      const numbers: Record<number, string> = { 2: 'twice' };
      const words = card.steps.map((s) => s.words).join(' ');
      if (card.id !== 'jenny') expect(words).toMatch(new RegExp(`\\b(${said}|${numbers[said] ?? said})\\b`)); // prettier-ignore
    }
  });

  it('is drawn whole at each step, and no step is the same picture as the one before', () => {
    const drawn = card.steps.map((_, k) => drawStep(card, k));
    for (const { paths, box } of drawn) {
      expect(paths.length).toBeGreaterThan(3);
      for (const p of paths) expect(p.d).not.toMatch(/NaN|Infinity/);
      expect(box.every(Number.isFinite)).toBe(true);
    }
    const seen = drawn.map((d) => JSON.stringify(d));
    expect(new Set(seen).size).toBe(seen.length);
    expect(drawStep(card, 0, 30)).not.toEqual(drawn[0]);
  });

  it('says what to look at, what goes wrong and what can hurt', () => {
    for (const list of [card.inspect, card.wrong, card.care])
      expect(list.length).toBeGreaterThan(0);
  });
});

describe('bench cards', () => {
  it('are all reached from the work that wants them', () => {
    const named = new Set(Object.values(work.tasks).flatMap((t) => t.cards));
    for (const id of named) expect(cardOf(id), id).toBeDefined();
    expect(CARDS.map((c) => c.id).filter((id) => !named.has(id))).toEqual([]);
    expect(CARDS.length).toBeGreaterThanOrEqual(16);
  });

  it('draw what is nearer over what is farther, from whichever side one looks', () => {
    const wire = (y: number) => ({ curve: spline([[-20, y, 0], [20, y, 0.5]]), thick: 2 }); // prettier-ignore
    const card = { ...CARDS[0]!, wires: { front: wire(-5), behind: wire(5) }, solids: {}, steps: [{ words: '', moves: 'front', upTo: {} }], view: { round: 0, up: 10 } }; // prettier-ignore
    const last = (turn: number) => drawStep(card, 0, turn).paths.at(-1)!.kind;
    // In front at first; from behind it is the farther one.
    expect([last(0), last(180)]).toEqual(['moving', 'wire']);
  });

  it('shuffle their steps, and hide one stranger', () => {
    for (const card of CARDS)
      for (let seed = 0; seed < 20; seed++) {
        const { game, shown } = roundOf(card, seed);
        const order = shown.map((s) => s.k);
        if (game === 'order') {
          expect(order.toSorted((a, b) => a - b)).toEqual(card.steps.map((_, k) => k));
          expect(order).not.toEqual(card.steps.map((_, k) => k));
        } else expect(shown.filter((s) => s.card !== card).length).toBe(1);
      }
  });
});

describe('a space curve', () => {
  it('goes through its points, evenly sampled, as long as it is', () => {
    const through: Vec[] = [[0, 0, 0], [10, 5, 0], [20, 0, 8], [30, -4, 2]]; // prettier-ignore
    const c = spline(through, 0.5);
    for (const p of through)
      expect(Math.min(...c.points.map((q) => apart(p, q)))).toBeLessThan(0.3);
    for (let k = 1; k < c.points.length - 1; k++)
      expect(apart(c.points[k]!, c.points[k - 1]!)).toBeCloseTo(0.5, 1);
    // A circle of radius 10 is 2 pi 10 long.
    const ring = spline(arc([0, 0, 0], [1, 0, 0], [0, 1, 0], 10, 0, 2 * Math.PI), 0.2);
    expect(ring.length).toBeCloseTo(20 * Math.PI, 0);
    expect(() => spline([[0, 0, 0]])).toThrow(RangeError);
  });

  it('has its turns counted either way round', () => {
    for (const turns of [3, -2.5]) {
      const c = spline(winding([0, 0, 0], [20, 0, 0], 4, turns));
      expect(turnsAbout(c, [0, 0, 0], [20, 0, 0])).toBeCloseTo(Math.abs(turns), 1);
    }
  });
});
