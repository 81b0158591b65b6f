/** A plain new plan: flat, 1.5 km, all by default. Nothing is found in it that only its defaults caused. */
import { describe, expect, it } from 'vitest';
import { catalogue } from '../../src/core/plan/shipped.js';
import { newPlan, sized, type Answers } from '../../src/core/edit/firstPlan.js';
import { report } from './scene.js';

const stock = Object.entries(catalogue.profiles).filter(([, p]) => p.role === 'stock').map(([id]) => id); // prettier-ignore
const predators = Object.entries(catalogue.profiles).filter(([, p]) => p.role !== 'stock').map(([id]) => id); // prettier-ignore
const plain = (part: Partial<Answers>) =>
  newPlan({
    name: 'Plain',
    units: 'metric',
    currency: 'EUR',
    ground: { kind: 'flat', z_m: 0 },
    origin: { proj: '+proj=utm +zone=30 +datum=WGS84 +units=m +no_defs', x: 500000, y: 6000000 },
    lines: [{ name: 'a', points: [{ e: 0, n: 0 }, { e: 1500, n: 0 }] }], // prettier-ignore
    left: [],
    right: [],
    keepOut: [],
    boundary: false,
    soil: 'loam',
    supply: 'mains',
    ...part,
  });
/** Ten strands and more in the wettest season are beyond every unit that is allowed: no default's fault. */
const BEYOND = 'below-aim';
const wrong = (part: Partial<Answers>) =>
  report(sized(plain(part), report)).findings.filter((f) => f.kind !== 'confirm').map((f) => `${f.id}: ${f.why}`); // prettier-ignore

describe('a plain new plan', () => {
  it.each(stock)('for %s', (id) => {
    expect(wrong({ left: [id] })).toEqual([]);
    expect(wrong({ left: [id], right: [id], boundary: true })).toEqual([]);
  });
  it.each(predators)('that keeps %s out', (id) => {
    for (const left of [[], ['sheep']])
      expect(wrong({ left, keepOut: [id], boundary: true }).filter((w) => id !== 'deer-out' || !w.startsWith(BEYOND))).toEqual([]); // prettier-ignore
  });
  it('for nothing in particular', () => expect(wrong({})).toEqual([]));
});
