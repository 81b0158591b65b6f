/** A property in a few figures, and how long they are remembered. */
import { describe, expect, it } from 'vitest';
import { summaryOf } from '../../src/core/summary.js';
import { remembered } from '../../src/server/summaries.js';
import { line, plan, report } from './scene.js';

describe('a summary', () => {
  it('has the lines thinned, the length and the cost of the report, and what is open', () => {
    const wavy = Array.from({ length: 200 }, (_, i): [number, number] => [i * 5, Math.sin(i) * 2]);
    const p = plan([line('a', wavy), line('b', [[0, 0], [0, 600]])]); // prettier-ignore
    const s = summaryOf(p, {});
    const r = report(p);
    expect(s.lines.map((l) => l.length)).toEqual([2, 2]);
    expect(s.lines[1]).toEqual([[0, 0], [0, 600]]); // prettier-ignore
    expect(s).toMatchObject({ ground_m: r.totals.ground_m, cost: r.totals.cost, currency: 'EUR' });
    const count = (kind: string) => r.findings.filter((f) => f.kind === kind).length;
    expect(s.open).toEqual({ stop: count('stop'), mend: count('mend'), confirm: count('confirm') });
    // What somebody lets be is not open.
    const let_be = r.findings.find((f) => f.kind !== 'stop')!;
    const accepted = { [let_be.id]: { note: 'so', who: 'me', at: 'now', kind: let_be.kind, badness: let_be.badness } }; // prettier-ignore
    expect(summaryOf({ ...p, accepted }, {}).open[let_be.kind]).toBe(count(let_be.kind) - 1);
  });
  it('of an empty property has no line', () => {
    expect(summaryOf(plan([]), {})).toMatchObject({ lines: [], ground_m: 0, cost: 0 });
  });
  it('is made once for each revision, and again after a fault', async () => {
    const asked: string[] = [];
    let fail = true;
    const of = remembered((id) => {
      asked.push(id);
      return fail ? Promise.reject(new Error('busy')) : Promise.resolve(id);
    });
    await expect(of('a', 1)).rejects.toThrow('busy');
    fail = false;
    await of('a', 1);
    await of('a', 1);
    await of('b', 1);
    await of('a', 2);
    expect(asked).toEqual(['a', 'a', 'b', 'a']);
  });
});
