/** Wires of a property's own, and what it broke on a bench, as figures of the catalogue. */
import type { Catalogue } from './catalogue.js';
import type { BreakTest, OwnWire, Plan } from './schema.js';

/** Wire of the catalogue by whose figures one of one's own carries the pulse, by its coating. */
const LIKE: Readonly<Record<OwnWire['coating'], string>> = { zinc: 'ht25', aluminium: 'al25' };

/** The catalogue with a property's own wires: direct current by section, the pulse by circumference (skin effect). */
export function withWires(base: Catalogue, own: NonNullable<Plan['ownWires']>): Catalogue {
  const entries = Object.entries(own);
  if (entries.length === 0) return base;
  const wires = { ...base.wires };
  const prices = { ...base.prices };
  for (const [id, wire] of entries) {
    const like = base.wires[LIKE[wire.coating]]!;
    const thinner = like.diameter_mm / wire.diameter_mm;
    wires[id] = {
      ...like,
      name: wire.name,
      metal: wire.coating,
      diameter_mm: wire.diameter_mm,
      tensile_MPa: wire.tensile_MPa,
      coil_m: wire.coil_m,
      dc_ohm_per_km: like.dc_ohm_per_km * thinner ** 2,
      planning_ohm_per_km: like.planning_ohm_per_km * thinner,
      best_ohm_per_km: like.best_ohm_per_km * thinner,
      guaranteed_ohm_per_km: like.guaranteed_ohm_per_km * thinner,
      pulse_ohm_per_km: like.pulse_ohm_per_km * thinner,
      pulse_uH_per_m: like.pulse_uH_per_m * thinner,
      ...(wire.creep ? { creep: wire.creep } : {}),
      mark: 'assumed',
      why: 'A wire of this property: strength as typed, volts by its diameter and coating.',
    };
    prices[`wire.${id}`] = {
      ...base.prices[`wire.${LIKE[wire.coating]}`]!,
      name: `Coil of ${wire.name}`,
      price: wire.price ?? 0,
    };
  }
  return { ...base, wires, prices };
}

/** Mean and spread of what was broken; the spread of one is not known. */
export interface Broken {
  readonly mean: number;
  /** Standard deviation of single tests; null with fewer than two. */
  readonly spread: number | null;
  readonly tests: number;
}

/** @param values one for each test, at least one */
export function brokenOf(values: readonly number[]): Broken {
  const n = values.length;
  const mean = values.reduce((a, b) => a + b, 0) / n;
  const square = values.reduce((sum, v) => sum + (v - mean) ** 2, 0);
  return { mean, spread: n > 1 ? Math.sqrt(square / (n - 1)) : null, tests: n };
}

/** What the wire alone was broken at, N, by the tests of a property; null without one. */
export const brokenWire = (tests: readonly BreakTest[], wire: string): Broken | null => {
  const own = tests.filter((t) => t.joint === null && t.wire === wire);
  return own.length ? brokenOf(own.map((t) => t.break_N)) : null;
};

/**
 * Share of the wire's strength that a joint kept, by the tests of a property; null without one.
 * @param strength_N of a wire that was not broken alone
 */
export function brokenJoint(
  tests: readonly BreakTest[],
  joint: string,
  strength_N: (wire: string) => number,
): Broken | null {
  const own = tests.filter((t) => t.joint === joint);
  if (own.length === 0) return null;
  return brokenOf(
    own.map((t) => t.break_N / (brokenWire(tests, t.wire)?.mean ?? strength_N(t.wire))),
  );
}

/** Strength of a round wire by its section, N. */
export const strengthOf = (wire: {
  readonly diameter_mm: number;
  readonly tensile_MPa: number;
}): number => (Math.PI / 4) * wire.diameter_mm ** 2 * wire.tensile_MPa;

/** The catalogue with what was broken in place of its defaults. */
export function withBroken(base: Catalogue, tests: readonly BreakTest[]): Catalogue {
  if (tests.length === 0) return base;
  const wires = { ...base.wires };
  const joints = { ...base.joints };
  for (const id of new Set(tests.map((t) => t.wire))) {
    const alone = brokenWire(tests, id);
    if (alone && wires[id]) wires[id] = { ...wires[id], break_N: alone.mean };
  }
  for (const id of new Set(tests.map((t) => t.joint))) {
    if (id === null || !joints[id]) continue;
    const kept = brokenJoint(tests, id, (wire) => strengthOf(base.wires[wire]!))!;
    // No joint is stronger than its wire: what says so is the spread of the tests.
    joints[id] = { ...joints[id], efficiency: Math.min(1, kept.mean) };
  }
  return { ...base, wires, joints };
}
