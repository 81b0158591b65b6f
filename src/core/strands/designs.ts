/** Designs of a property: make-ups with a name, where they are used, and what differs on a line. */
import type { Line, Plan, Strand } from '../plan/schema.js';

/** What differs between the strands of a line and its design. */
export type Difference =
  | { readonly kind: 'fewer' | 'more'; readonly heights_m: readonly number[] }
  | {
      readonly kind: 'height';
      readonly strand: number;
      readonly from_m: number;
      readonly to_m: number;
    }
  | { readonly kind: 'make'; readonly strand: number; readonly height_m: number };

/** Heights closer than this are the same strand moved, m, where the counts agree. */
const SAME = 1e-4;

/** Differences of `own` from `design`; empty when they are alike. Strands are numbered from the ground. */
export function differences(own: readonly Strand[], design: readonly Strand[]): Difference[] {
  if (own.length !== design.length) {
    const lacks = (a: readonly Strand[], b: readonly Strand[]) =>
      a
        .filter((s) => !b.some((o) => Math.abs(o.height_m - s.height_m) < SAME))
        .map((s) => s.height_m);
    const more = lacks(own, design);
    const fewer = lacks(design, own);
    return [
      ...(more.length ? [{ kind: 'more' as const, heights_m: more }] : []),
      ...(fewer.length ? [{ kind: 'fewer' as const, heights_m: fewer }] : []),
    ];
  }
  return own.flatMap((s, i): Difference[] => {
    const d = design[i]!;
    const out: Difference[] = [];
    if (Math.abs(s.height_m - d.height_m) >= SAME)
      out.push({ kind: 'height', strand: i + 1, from_m: d.height_m, to_m: s.height_m });
    const make = (x: Strand) =>
      [x.duty, x.wire, x.insulated, !!x.switched, x.offset_m ?? 0, !!x.kept].join();
    if (make(s) !== make(d)) out.push({ kind: 'make', strand: i + 1, height_m: s.height_m });
    return out;
  });
}

/** Lines that follow a design. */
export const usersOf = (plan: Pick<Plan, 'lines'>, design: string): Line[] =>
  Object.values(plan.lines).filter((l) => l.design === design);
