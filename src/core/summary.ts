/** A property in a few figures, for a list of properties. */
import type { Grid, Plan } from './plan/schema.js';
import { catalogue } from './plan/shipped.js';
import { evaluate } from './evaluate.js';
import { simplify } from './plan/simplify.js';
import { isOpen } from './report/open.js';
import { groundOf } from './terrain/ground.js';

export interface Summary {
  /** Lines as east and north, thinned to what a small map shows. */
  readonly lines: readonly (readonly [e: number, n: number])[][];
  readonly ground_m: number;
  readonly cost: number;
  readonly currency: string;
  readonly units: Plan['units'];
  /** Open findings of each kind. */
  readonly open: Readonly<Record<'stop' | 'mend' | 'confirm', number>>;
}

/** A small map tells nothing apart that is nearer than this share of the property. */
const FINE = 1 / 150;

/** Sums a property up. */
export function summaryOf(plan: Plan, grids: Readonly<Record<string, Grid>>): Summary {
  const report = evaluate(plan, groundOf(plan, grids), catalogue, { mends: 0 });
  const all = Object.values(plan.lines).flatMap((l) => l.vertices);
  const span = (of: (v: (typeof all)[number]) => number) =>
    all.reduce((m, v) => Math.max(m, of(v)), -Infinity) -
    all.reduce((m, v) => Math.min(m, of(v)), Infinity);
  const fine = all.length
    ? Math.max(
        span((v) => v.e),
        span((v) => v.n),
      ) * FINE
    : 0;
  const open = { stop: 0, mend: 0, confirm: 0 };
  for (const f of report.findings) if (isOpen(f)) open[f.kind]++;
  return {
    lines: Object.values(plan.lines).map((l) =>
      simplify(l.vertices, fine).map((p) => [Math.round(p.e), Math.round(p.n)] as const),
    ),
    ground_m: report.totals.ground_m,
    cost: report.totals.cost,
    currency: plan.currency,
    units: plan.units,
    open,
  };
}
