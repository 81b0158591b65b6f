/**
 * Independently computed cases. Source: the project's own reference set, made with numpy/scipy and,
 * for the networks, checked in a general circuit simulator to 1e-9 (docs/model.md, Checks).
 */
import { describe, expect, it } from 'vitest';
import { runCase } from '../../src/server/calc.js';
import fence from './cases/fence_resistive.json' with { type: 'json' };
import placement from './cases/placement.json' with { type: 'json' };
import posts from './cases/post_force.json' with { type: 'json' };
import rods from './cases/rod_group.json' with { type: 'json' };
import span from './cases/span.json' with { type: 'json' };
import wenner from './cases/wenner.json' with { type: 'json' };
import wire from './cases/wire.json' with { type: 'json' };

interface Case {
  id: string;
  kind: string;
  inputs: object;
  expected: Record<string, unknown>;
  tolerance_rel: number;
  tolerance_abs?: number;
  tolerance_abs_v?: number;
  tolerance_abs_a?: number;
}

/** |got - want| <= max(absolute, relative x |want|), for every key of `expected`, lists included. */
function compare(got: unknown, want: unknown, c: Case, path: string): void {
  if (typeof want === 'number') {
    const absolute = path.endsWith('_v')
      ? c.tolerance_abs_v
      : path.endsWith('_a')
        ? c.tolerance_abs_a
        : undefined;
    const limit = Math.max(absolute ?? c.tolerance_abs ?? 0, c.tolerance_rel * Math.abs(want));
    expect(typeof got, path).toBe('number');
    expect(
      Math.abs((got as number) - want),
      `${path}: ${String(got)} for ${want}`,
    ).toBeLessThanOrEqual(limit);
  } else if (Array.isArray(want)) {
    expect(Array.isArray(got), path).toBe(true);
    want.forEach((item: unknown, i) =>
      compare(matching(got as unknown[], item, i), item, c, `${path}/${i}`),
    );
  } else if (typeof want === 'object' && want !== null) {
    for (const [key, value] of Object.entries(want)) {
      compare((got as Record<string, unknown>)[key], value, c, `${path}/${key}`);
    }
  } else {
    expect(got, path).toBe(want);
  }
}

/** Nodes and currents are found by their names, since their order is free. */
function matching(list: unknown[], want: unknown, index: number): unknown {
  const names = ['location', 'section', 'strand'] as const;
  const named = want as Partial<Record<(typeof names)[number], string>> | null;
  if (typeof named !== 'object' || named === null || !('strand' in named)) return list[index];
  return list.find((x) => names.every((n) => (x as typeof named)[n] === named[n]));
}

const all = [fence, placement, posts, rods, span, wenner, wire].flatMap(
  (file) => file.cases as unknown as Case[],
);

describe('reference cases', () => {
  it.each(all.map((c) => [c.id, c] as const))('%s', (_id, c) => {
    const { kind, outputs } = runCase({ kind: c.kind, inputs: c.inputs });
    expect(kind).toBe(c.kind);
    compare(outputs, c.expected, c, c.id);
  });

  it('has every kind that this version answers, but the one that is its own', () => {
    const kinds = new Set(all.map((c) => c.kind));
    expect([...kinds].sort()).toEqual(
      [
        'fence_resistive',
        'placement',
        'post_force',
        'pullout',
        'rod_group',
        'sag_from_H',
        'sag_from_end_tension',
        'state_change',
        'wenner',
        'wire',
      ].sort(),
    );
    expect(all.length).toBe(56);
  });
});
