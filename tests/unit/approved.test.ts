/**
 * What the program says of whole properties, as it was last read over and approved. It proves nothing right
 * by itself (the other tests do); it shows every consequence of a change, beside that change.
 * After reading: npm run unit -- approved -u
 */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { createChoices } from '../../src/core/choices.js';
import { createPipeline } from '../../src/core/pipeline.js';
import { evaluate } from '../../src/core/evaluate.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { ownCatalogue } from '../../src/core/plan/ownCatalogue.js';
import { groundOf } from '../../src/core/terrain/ground.js';
import { orderCsv } from '../../src/formats/orderCsv.js';
import { setOutCsv } from '../../src/formats/setOut.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { FLAT } from './scene.js';
import { exportAs, FORMATS } from '../../src/server/exports.js';
import { GROUND_OF, wrong } from './wrong.js';
import { paddock, thing, things } from './wrong-land.js';

const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const ground = groundOf(demo.plan, demo.grids);

/** Lines of the demo that differ most: rough ground, water, horses, a lane. */
const LINES = ['ridge', 'burn', 'pony', 'lane-e'];

/** To six figures, so that no machine differs. */
const rounded = (_: string, value: unknown): unknown =>
  typeof value === 'number' && !Number.isInteger(value) ? Number(value.toPrecision(6)) : value;

/** One line a leaf of this depth. */
function printed(value: unknown, depth: number, path = ''): string {
  const leaf = typeof value !== 'object' || value === null || depth === 0;
  if (leaf) return `${path}: ${JSON.stringify(value, rounded)}\n`;
  return Object.entries(value)
    .map(([key, inner]) => printed(inner, depth - 1, path ? `${path} ${key}` : key))
    .join('');
}

const file = (name: string) => `../fixtures/approved/${name}.txt`;

describe('approved', () => {
  const report = evaluate(demo.plan, ground, catalogue);

  it('the report of the demo', async () => {
    const { lines, findings, ...whole } = report;
    for (const id of LINES)
      await expect(printed(lines[id], 2)).toMatchFileSnapshot(file(`line-${id}`));
    await expect(printed(whole, 4)).toMatchFileSnapshot(file('property'));
    await expect(printed(findings, 1)).toMatchFileSnapshot(file('findings'));
  });

  it('the sheets of the demo', async () => {
    const cat = ownCatalogue(catalogue, demo.plan);
    const few = { ...report, lines: { burn: report.lines['burn']! } };
    await expect(setOutCsv(demo.plan, few, cat)).toMatchFileSnapshot(file('set-out'));
    await expect(orderCsv(report, demo.plan, catalogue)).toMatchFileSnapshot(file('order'));
  });

  it('a small paddock with all that can lie on it, in every format', async () => {
    const lying = things(
      thing('water', [[50, 50]]),
      thing('burn', [[-20, 30], [120, 40]], { width_m: 2 }), // prettier-ignore
      thing('building', [[5, 60], [15, 60], [15, 70]], { earthed: true }), // prettier-ignore
      thing('overhead', [[-50, 90], [150, 95]], { volts_kV: 11, height_m: 9 }), // prettier-ignore
    );
    const gates = { g: { id: 'g', name: 'Gate & "yard" <1>', line: 'a', at_m: 50, width_m: 4, cable: true } }; // prettier-ignore
    const small = { plan: paddock({ ...lying, gates, name: 'Äcker & Söhne' }), grids: {} };
    for (const format of Object.keys(FORMATS)) {
      const { text, type, file: name } = exportAs(format, small);
      await expect(`${name} ${type}\n${text}\n`).toMatchFileSnapshot(file(`small-${format}`));
    }
    expect(() => exportAs('docx', small)).toThrow('there are plan, geojson');
    expect(exportAs('plan', { ...small, plan: { ...small.plan, name: '::' } }).file).toBe('plan.plan.json'); // prettier-ignore
  });

  it('the choices of the demo', async () => {
    const worked = createPipeline()(demo.plan, ground, catalogue);
    const choices = LINES.map((id) => createChoices()(id, demo.plan, ground, worked));
    await expect(printed(choices, 4)).toMatchFileSnapshot(file('choices'));
  });

  it('what every rule says, and what the plan then comes to, in either system of units', async () => {
    const all = wrong.map(([rule, plan], i) => {
      const units = i % 2 === 0 ? ('metric' as const) : ('imperial' as const);
      const said = evaluate({ ...plan, units }, GROUND_OF[rule] ?? FLAT, catalogue);
      const { findings, totals, supplies } = said;
      const bought = Object.fromEntries(supplies.map((s) => [s.id, s.quantity]));
      return `== ${rule}, ${units}\n${printed({ totals, bought }, 1)}${printed(findings, 1)}`;
    });
    await expect(all.join('\n')).toMatchFileSnapshot(file('rules'));
  });
});
