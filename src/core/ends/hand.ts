/** Ends set by hand, in the list that a line keeps of them. */
import type { Assembly, EndPlace, Line } from '../plan/schema.js';
import type { EndReport } from '../report/schema.js';

/** Places closer than this are one, m. */
const SAME = 0.05;

/** What of a place is set by hand. */
export const handAt = (line: Pick<Line, 'ends'>, at_m: number): EndPlace | undefined =>
  line.ends?.find((e) => Math.abs(e.at_m - at_m) <= SAME);

/**
 * The list with a place changed; a place of which nothing is left goes from it. Undefined: nothing is set by hand any
 * more.
 * @param change what is set anew; undefined takes it back
 */
export function withEnd(
  line: Pick<Line, 'ends'>,
  at_m: number,
  change: { readonly [K in keyof EndPlace]?: EndPlace[K] | undefined },
): EndPlace[] | undefined {
  const own = handAt(line, at_m);
  const next = Object.fromEntries(
    Object.entries({ ...own, ...change, at_m: own?.at_m ?? at_m }).filter(
      ([, v]) => v !== undefined,
    ),
  ) as EndPlace;
  const rest = (line.ends ?? []).filter((e) => e !== own);
  const all = Object.keys(next).length > 1 ? [...rest, next] : rest;
  return all.length > 0 ? all.sort((a, b) => a.at_m - b.at_m) : undefined;
}

/** The assembly of an end as it stands, to be set by hand with something else in it. */
export function assemblyOf(e: Pick<EndReport, 'kind' | 'rail_m' | 'wire' | 'foot'>): Assembly {
  const horizontal = e.kind === 'h' || e.kind === 'double-h';
  return {
    kind: e.kind,
    ...(horizontal || e.kind === 'n' ? { rail_m: Math.round(e.rail_m * 100) / 100 } : {}),
    ...(horizontal ? { wire: e.wire } : {}),
    ...(e.kind === 'stay' ? { foot: e.foot } : {}),
  };
}
