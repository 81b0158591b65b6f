/**
 * Independently computed cases. Source: the project's own reference set, made with numpy/scipy and,
 * for the networks, checked in a general circuit simulator to 1e-9 (docs/model.md, Checks).
 */
import { describe, expect, it } from 'vitest';
import { runCase } from '../../src/server/calc.js';
import coils from './cases/coils.json' with { type: 'json' };
import continuity from './cases/continuity.json' with { type: 'json' };
import ends from './cases/ends.json' with { type: 'json' };
import earthTest from './cases/earth_test.json' with { type: 'json' };
import plateFit from './cases/energiser_fit.json' with { type: 'json' };
import plateModel from './cases/energiser_model.json' with { type: 'json' };
import faults from './cases/fault_location.json' with { type: 'json' };
import fence from './cases/fence_resistive.json' with { type: 'json' };
import transient from './cases/fence_transient.json' with { type: 'json' };
import lineConstants from './cases/line_constants.json' with { type: 'json' };
import placement from './cases/placement.json' with { type: 'json' };
import posts from './cases/post_force.json' with { type: 'json' };
import rods from './cases/rod_group.json' with { type: 'json' };
import runs from './cases/run.json' with { type: 'json' };
import scheduled from './cases/schedule.json' with { type: 'json' };
import solar from './cases/solar_supply.json' with { type: 'json' };
import span from './cases/span.json' with { type: 'json' };
import wenner from './cases/wenner.json' with { type: 'json' };
import wire from './cases/wire.json' with { type: 'json' };
import wireImpedance from './cases/wire_impedance.json' with { type: 'json' };

interface Case {
  id: string;
  kind: string;
  inputs: object;
  expected: Record<string, unknown>;
  tolerance_rel: number;
  tolerance_abs?: number;
  /** Of some keys: `tolerance_abs_v` of what ends on _v, `tolerance_rel_energy` of energies, and so on. */
  [tolerance: `tolerance_${'abs' | 'rel'}_${string}`]: number | undefined;
  one_optimum?: { chi2: number };
}

/** Which keys a case's own tolerance is meant for. */
const MEANT: Readonly<Record<string, RegExp>> = {
  v: /_v$/,
  a: /_a$/,
  t_peak_us: /\/t_peak_us$/,
  energy: /\/energy_j$/,
  thyristor_off_us: /\/thyristor_off_us$/,
  load_line: /\/load_line\//,
  chi2: /\/chi2$/,
  probability: /\/p_section\/|\/p_broken$|\/best_cell\/p$/,
};

function tolerance(c: Case, kind: 'abs' | 'rel', path: string): number | undefined {
  const own = Object.entries(c).find(([key]) => {
    const name = key.startsWith(`tolerance_${kind}_`) ? key.slice(14) : '';
    return name !== '' && MEANT[name]!.test(path);
  });
  return (own?.[1] as number | undefined) ?? (kind === 'rel' ? c.tolerance_rel : c.tolerance_abs);
}

/** |got - want| <= max(absolute, relative x |want|), for every key of `expected`, lists included. */
function compare(got: unknown, want: unknown, c: Case, path: string): void {
  if (typeof want === 'number') {
    const relative = tolerance(c, 'rel', path)! * Math.abs(want);
    const limit = Math.max(tolerance(c, 'abs', path) ?? 0, relative);
    expect(typeof got, path).toBe('number');
    expect(
      Math.abs((got as number) - want),
      `${path}: ${String(got)} for ${want}`,
    ).toBeLessThanOrEqual(limit);
  } else if (Array.isArray(want)) {
    expect(Array.isArray(got) && got.length, path).toBe(want.length);
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

interface File {
  tolerance_rel?: number;
  tolerance_abs?: number;
  cases: unknown[];
}
const all = [coils, continuity, earthTest, ends, faults, fence, lineConstants, placement, plateFit, plateModel, posts, rods, runs, scheduled, solar, span, transient, wenner, wire, wireImpedance].flatMap(
  (file: File) => (file.cases as Case[]).map((c) => ({ ...(file.tolerance_abs === undefined ? {} : { tolerance_abs: file.tolerance_abs }), ...c, tolerance_rel: c.tolerance_rel ?? file.tolerance_rel! })),
); // prettier-ignore

describe('reference cases', () => {
  it.each(all.map((c) => [c.id, c] as const))('%s', (_id, c) => {
    const { kind, outputs } = runCase({ kind: c.kind, inputs: c.inputs });
    expect(kind).toBe(c.kind);
    compare(outputs, c.expected, c, c.id);
    // Several circuits may have one plate: then the fit is as good as the best that is known.
    if (c.one_optimum)
      expect((outputs as { chi2: number }).chi2).toBeLessThan(c.one_optimum.chi2 + 0.5);
  });

  it('has every kind that this version answers, but the one that is its own', () => {
    const kinds = new Set(all.map((c) => c.kind));
    expect([...kinds].sort()).toEqual(
      [
        'coils',
        'continuity',
        'diagonal_stay',
        'double_h',
        'earth_test',
        'energiser_fit',
        'energiser_model',
        'fault_location',
        'fence_resistive',
        'fence_transient',
        'gate_post',
        'h_brace',
        'h_brace_embedded',
        'lateral_pull',
        'lateral_pull_inverse',
        'line_constants',
        'n_brace',
        'placement',
        'pole_embedment',
        'post_force',
        'pullout',
        'rod_group',
        'ruling_span',
        'run',
        'sag_from_H',
        'sag_from_end_tension',
        'schedule',
        'schedule_cpm',
        'solar_supply',
        'state_change',
        'state_change_exact',
        'tie_back',
        'wave',
        'wenner',
        'wire',
        'wire_impedance',
      ].sort(),
    );
    expect(all.length).toBe(142);
  });
});
