/**
 * The resistive network with each line reduced to its terminals: a line that did not change is not factored again.
 * Reduced and not updated, since a line's own matrix is small and its terminals few, while a changed line touches so
 * many rows of the whole factor that updating it would cost more than reducing the line (docs/model.md, Power).
 */
import { linePiece } from './assembly.js';
import type { Circuit, Section } from './circuitTypes.js';
import { factorise, SymmetricBuilder, type Factor } from './sparse.js';

/** A line seen from its terminals: conductances between them and to the soil, and the way back inside. */
interface Reduction {
  readonly terminals: readonly string[];
  readonly inner: readonly string[];
  /** Conductance between terminals i and j at [i * m + j]; to the soil on the diagonal. */
  readonly between: Float64Array;
  /** Volts of the inner nodes from those of the terminals. */
  inside(volts: ArrayLike<number>): Float64Array;
}

type Part = {
  readonly links: readonly (readonly [a: string, b: string | null, siemens: number])[];
};

const SEP = '\u0001';
const nameOf = (location: string, strand: string): string => `${location}${SEP}${strand}`;
const locationOf = (node: string): string => node.slice(0, node.indexOf(SEP));

/** Everything of a circuit by the line that it belongs to; what joins lines belongs to none. */
function partsOf(c: Circuit, lineOf: (section: Section) => string | null) {
  const home = new Map<string, string | null>();
  for (const s of c.sections)
    for (const at of [s.from, s.to]) {
      const line = lineOf(s);
      if (!home.has(at)) home.set(at, line);
      else if (home.get(at) !== line) home.set(at, null);
    }
  const parts = new Map<string | null, [string, string | null, number][]>();
  const put = (line: string | null, a: string, b: string | null, g: number) => {
    const list = parts.get(line);
    if (list) list.push([a, b, g]);
    else parts.set(line, [[a, b, g]]);
  };
  for (const s of c.sections)
    for (const [strand, type] of Object.entries(s.strands)) {
      const t = c.strand_types[type]!;
      const [series, shunt] = linePiece(t.r_ohm_per_km / 1000, t.g_s_per_km / 1000, s.length_m);
      const [a, b] = [nameOf(s.from, strand), nameOf(s.to, strand)];
      const line = lineOf(s);
      put(line, a, b, series);
      put(line, a, null, shunt);
      put(line, b, null, shunt);
    }
  for (const j of c.jumpers)
    put(home.get(j.location) ?? null, nameOf(j.location, j.strand_a), nameOf(j.location, j.strand_b), 1 / j.r_ohm); // prettier-ignore
  for (const s of c.shunts)
    put(home.get(s.location!) ?? null, nameOf(s.location!, s.strand), s.to === 'soil' ? null : nameOf(s.location!, s.to), 1 / s.r_ohm); // prettier-ignore
  return { parts, home };
}

/** Reduces a part to those of its nodes that others know. */
function reduce({ links }: Part, isTerminal: (node: string) => boolean): Reduction {
  const terminals: string[] = [];
  const inner: string[] = [];
  const rank = new Map<string, number>();
  for (const [a, b] of links)
    for (const node of b === null ? [a] : [a, b]) {
      if (rank.has(node)) continue;
      const list = isTerminal(node) ? terminals : inner;
      rank.set(node, list.length);
      list.push(node);
    }
  const m = terminals.length;
  const between = new Float64Array(m * m);
  const own = new SymmetricBuilder(inner.length);
  /** Conductances from each terminal into the inside. */
  const into: (readonly [inner: number, siemens: number])[][] = terminals.map(() => []);
  for (const [a, b, g] of links) {
    const [ta, tb] = [isTerminal(a), b !== null && isTerminal(b)];
    const [i, j] = [rank.get(a)!, b === null ? -1 : rank.get(b)!];
    if (b === null) {
      if (ta) between[i * m + i]! += g;
      else own.toReference(i, g);
    } else if (ta && tb) {
      between[i * m + j]! += g;
      between[j * m + i]! += g;
    } else if (!ta && !tb) own.between(i, j, g);
    else {
      const [t, n] = ta ? [i, j] : [j, i];
      into[t]!.push([n, g]);
      own.toReference(n, g);
    }
  }
  const factor: Factor | null = inner.length ? factorise(own) : null;
  // With one terminal at a volt and the others at nothing, what flows into each of them.
  const columns = into.map((list) => {
    const rhs = new Float64Array(inner.length);
    for (const [n, g] of list) rhs[n]! += g;
    return factor ? factor.solve(rhs) : rhs;
  });
  into.forEach((list, t) => {
    const sum = list.reduce((s, [, g]) => s + g, 0);
    let flows = sum;
    columns.forEach((v, other) => {
      const through = list.reduce((s, [n, g]) => s + g * v[n]!, 0);
      flows -= through;
      if (other !== t) between[t * m + other]! += through;
    });
    between[t * m + t]! += flows;
  });
  return {
    terminals,
    inner,
    between,
    inside(volts) {
      const out = new Float64Array(inner.length);
      columns.forEach((v, t) => v.forEach((x, n) => (out[n]! += x * volts[t]!)));
      return out;
    },
  };
}

export interface ReducedAnswer {
  readonly r_in_ohm: number;
  /** Volts of a strand at a place for 1 A; undefined where there is none. */
  volts(location: string, strand: string): number | undefined;
}

/**
 * A solver with a memory of lines: asked again, only lines whose parts are other ones are reduced anew.
 * @throws RangeError when some part hangs on nothing: only what leaks or is fed can be solved
 */
export function createReducedSolver() {
  const known = new Map<string, { on: readonly unknown[]; reduction: Reduction }>();
  let reduced = 0;
  return {
    /** How many lines have been reduced so far. */
    get count(): number {
      return reduced;
    },
    /**
     * Solves for 1 A from the earth terminal to the hot one. Breaks and shunts inside a section are not for it: name
     * their places.
     * @param lineOf the line of a section; null for what belongs to none, such as the lead-out
     * @param restsOn of each line, the things that its part rests on, by identity
     */
    solve(
      c: Circuit,
      lineOf: (section: Section) => string | null,
      restsOn: (line: string) => readonly unknown[],
    ): ReducedAnswer {
      const { parts, home } = partsOf(c, lineOf);
      const joint = (node: string): boolean => home.get(locationOf(node)) === null;
      const lines = [...parts.keys()].filter((k): k is string => k !== null);
      // Which places are shared is a matter of all lines.
      const shared = [...home].filter(([, line]) => line === null).map(([place]) => place).join(); // prettier-ignore
      const reductions = lines.map((line) => {
        const on = [...restsOn(line), shared];
        const before = known.get(line);
        if (before && before.on.length === on.length && before.on.every((x, i) => x === on[i]))
          return before.reduction;
        reduced++;
        const reduction = reduce({ links: parts.get(line)! }, joint);
        known.set(line, { on, reduction });
        return reduction;
      });
      for (const line of known.keys()) if (!parts.has(line)) known.delete(line);

      const rank = new Map<string, number>();
      const at = (node: string): number => {
        let k = rank.get(node);
        if (k === undefined) rank.set(node, (k = rank.size));
        return k;
      };
      const hot = at('hot');
      const earth = at('earth');
      const links: [number, number, number][] = [];
      const add = (a: string, b: string | null, g: number) => links.push([at(a), b === null ? -1 : at(b), g]); // prettier-ignore
      for (const [a, b, g] of parts.get(null) ?? []) add(a, b, g);
      for (const { terminals, between } of reductions) {
        const m = terminals.length;
        terminals.forEach((t, i) => {
          add(t, null, between[i * m + i]!);
          for (let j = i + 1; j < m; j++) add(t, terminals[j]!, between[i * m + j]!);
        });
      }
      const { location, hot_strands, earth_strands, lead_ohm } = c.energiser;
      for (const s of hot_strands) links.push([hot, at(nameOf(location, s)), 1 / lead_ohm]);
      for (const s of earth_strands) links.push([earth, at(nameOf(location, s)), 1 / lead_ohm]);
      links.push([earth, -1, 1 / c.r_earth_ohm]);
      const whole = new SymmetricBuilder(rank.size);
      for (const [a, b, g] of links) {
        if (b < 0) whole.toReference(a, g);
        else whole.between(a, b, g);
      }
      const rhs = new Float64Array(rank.size);
      rhs[hot] = 1;
      rhs[earth] = -1;
      const x = factorise(whole).solve(rhs);
      const inner = new Map<string, number>();
      for (const r of reductions) {
        const inside = r.inside(r.terminals.map((t) => x[at(t)]!));
        r.inner.forEach((node, k) => inner.set(node, inside[k]!));
      }
      return {
        r_in_ohm: x[hot]! - x[earth]!,
        volts: (place, strand) => {
          const node = nameOf(place, strand);
          const k = rank.get(node);
          return k === undefined ? inner.get(node) : x[k];
        },
      };
    },
  };
}
