/**
 * Which strands hang on the energiser, and from how many sides (docs/model.md, Joins). A graph of metal: its nodes are
 * the ends of strands, (location, strand), its edges the stretches of strand and the jumpers. Linear in both: one walk
 * finds what is fed and every bridge (Tarjan 1974).
 */

/** The metal of a fence, as kind `fence_resistive` names it; more keys may stand beside. */
export interface Metal {
  readonly strand_types: Readonly<Record<string, { readonly role: 'hot' | 'earth' }>>;
  readonly energiser: {
    readonly location: string;
    readonly hot_strands: readonly string[];
    readonly earth_strands: readonly string[];
  };
  readonly sections: readonly {
    readonly id: string;
    readonly from: string;
    readonly to: string;
    readonly length_m: number;
    /** Name of its type by strand. */
    readonly strands: Readonly<Record<string, string>>;
  }[];
}

/** What is tied, opened and broken in it. */
export interface Ties {
  readonly jumpers: readonly {
    readonly location: string;
    readonly strand_a: string;
    readonly strand_b: string;
  }[];
  /** Each stands at the `to` end of its section. */
  readonly switches: readonly {
    readonly section: string;
    readonly strand: string;
    readonly open: boolean;
  }[];
  readonly breaks: readonly {
    readonly section: string;
    readonly strand: string;
    /** From the `from` end, m. */
    readonly x_m: number;
  }[];
}

export interface Stretch {
  readonly section: string;
  readonly strand: string;
}

export interface Continuity {
  /** All live strand, m. */
  readonly live_m: number;
  /** What of it hangs on the hot terminal, m. */
  readonly fed_m: number;
  /** Live, and no end of it is fed. */
  readonly dead: readonly Stretch[];
  /** Whole and fed, but one of its ends only through itself. */
  readonly one_sided: readonly Stretch[];
  /** Live strand that is lost when one of those is taken out, itself with it, m. */
  readonly break_cost: readonly (Stretch & { readonly lost_m: number })[];
  /** Hot and earth terminal are joined by metal. */
  readonly live_touches_earth: boolean;
}

/** One strand of one section, between its nodes. */
interface Wire extends Stretch {
  readonly from: number;
  readonly to: number;
  readonly length_m: number;
  readonly live: boolean;
}

/** Judges ties of one fence, of which only they change. */
export interface Judge {
  (ties: Ties): Continuity;
}

/** The hot terminal. */
const ROOT = 0;

/**
 * Reads the metal once; each call of the answer then costs the walk alone.
 * @throws RangeError when a strand has no type
 */
export function judgeOf({ strand_types, energiser, sections }: Metal): Judge {
  const index = new Map<string, Map<string, number>>();
  let count = 1;
  const node = (location: string, strand: string): number => {
    let here = index.get(location);
    if (!here) index.set(location, (here = new Map()));
    let k = here.get(strand);
    if (k === undefined) here.set(strand, (k = count++));
    return k;
  };
  const wires: Wire[] = [];
  const wireAt = new Map<string, Map<string, number>>();
  for (const s of sections) {
    const own = new Map<string, number>();
    wireAt.set(s.id, own);
    for (const [strand, type] of Object.entries(s.strands)) {
      const role = strand_types[type]?.role;
      if (!role) throw new RangeError(`Strand ${strand} of ${s.id} is of no known type: ${type}.`);
      own.set(strand, wires.length);
      wires.push({
        section: s.id,
        strand,
        from: node(s.from, strand),
        to: node(s.to, strand),
        length_m: s.length_m,
        live: role === 'hot',
      });
    }
  }
  const hot = energiser.hot_strands.map((s) => node(energiser.location, s));
  const earth = energiser.earth_strands.map((s) => node(energiser.location, s));
  const live_m = wires.reduce((sum, w) => sum + (w.live ? w.length_m : 0), 0);

  return ({ jumpers, switches, breaks }) => {
    const wireOf = ({ section, strand }: Stretch): number => {
      const k = wireAt.get(section)?.get(strand);
      if (k === undefined) throw new RangeError(`Section ${section} has no strand ${strand}.`);
      return k;
    };
    const opened = new Set(switches.filter((s) => s.open).map(wireOf));
    const broken = new Map<number, [first: number, last: number]>();
    for (const b of breaks) {
      const k = wireOf(b);
      if (b.x_m > wires[k]!.length_m)
        throw new RangeError(`A break lies beyond the end of ${b.section}.`);
      const [first, last] = broken.get(k) ?? [Infinity, -Infinity];
      broken.set(k, [Math.min(first, b.x_m), Math.max(last, b.x_m)]);
    }
    const whole = (k: number) => !opened.has(k) && !broken.has(k);

    // Edges: the wires that are whole by their own numbers, then jumpers, then what ties the terminal.
    const ends: [number, number][] = wires.map((w) => [w.from, w.to]);
    for (const j of jumpers)
      ends.push([node(j.location, j.strand_a), node(j.location, j.strand_b)]);
    for (const h of hot) ends.push([ROOT, h]);
    const alive = (e: number) => e >= wires.length || whole(e);
    const { around, offset } = neighbours(count, ends, alive);

    /** Live strand that hangs on a node and leads nowhere, m. */
    const hanging = new Float64Array(count);
    for (const k of new Set([...opened, ...broken.keys()])) {
      const w = wires[k]!;
      if (!w.live) continue;
      const [first, last] = broken.get(k) ?? [w.length_m, w.length_m];
      hanging[w.from]! += first;
      if (!opened.has(k)) hanging[w.to]! += w.length_m - last;
    }

    // One walk from the terminal, deep first, without calling itself: a fence may be thousands of stretches deep.
    const seen = new Int32Array(count);
    const low = new Int32Array(count);
    const below = Float64Array.from(hanging);
    const by = new Int32Array(count).fill(-1);
    const next = Int32Array.from(offset.subarray(0, count));
    const bridges: { k: number; lost_m: number }[] = [];
    const length = (e: number) => (e < wires.length && wires[e]!.live ? wires[e]!.length_m : 0);
    let time = 1;
    seen[ROOT] = low[ROOT] = time++;
    const path = [ROOT];
    while (path.length > 0) {
      const u = path.at(-1)!;
      if (next[u]! < offset[u + 1]!) {
        const e = around[next[u]!++]!;
        if (e === by[u]) continue;
        const [a, b] = ends[e]!;
        const v = a === u ? b : a;
        if (seen[v] === 0) {
          seen[v] = low[v] = time++;
          by[v] = e;
          path.push(v);
        } else {
          low[u] = Math.min(low[u]!, seen[v]!);
          // Counted once, at its deeper end; a loop on one node stands in its list twice.
          if (seen[v]! < seen[u]!) below[u]! += length(e);
          else if (v === u) below[u]! += length(e) / 2;
        }
        continue;
      }
      path.pop();
      const up = path.at(-1);
      if (up === undefined) break;
      const e = by[u]!;
      const lost_m = below[u]! + length(e);
      if (low[u]! > seen[up]! && length(e) > 0) bridges.push({ k: e, lost_m });
      low[up] = Math.min(low[up]!, low[u]!);
      below[up]! += lost_m;
    }

    const fed = (n: number) => seen[n]! > 0;
    const named = ({ section, strand }: Stretch) => ({ section, strand });
    bridges.sort((p, q) => p.k - q.k);
    return {
      live_m,
      fed_m: below[ROOT]!,
      dead: wires
        .filter((w, k) => w.live && !fed(w.from) && (opened.has(k) || !fed(w.to)))
        .map(named),
      one_sided: bridges.map(({ k }) => named(wires[k]!)),
      break_cost: bridges.map(({ k, lost_m }) => ({ ...named(wires[k]!), lost_m })),
      live_touches_earth: earth.some(fed),
    };
  };
}

/** The edges at each node, one list after another: those of node n from `offset[n]` to `offset[n + 1]`. */
function neighbours(
  count: number,
  ends: readonly (readonly [number, number])[],
  alive: (e: number) => boolean,
): { around: Int32Array; offset: Int32Array } {
  const offset = new Int32Array(count + 1);
  ends.forEach(([a, b], e) => {
    if (!alive(e)) return;
    offset[a + 1]!++;
    offset[b + 1]!++;
  });
  for (let n = 0; n < count; n++) offset[n + 1]! += offset[n]!;
  const at = Int32Array.from(offset);
  const around = new Int32Array(offset[count]!);
  ends.forEach(([a, b], e) => {
    if (!alive(e)) return;
    around[at[a]!++] = e;
    around[at[b]!++] = e;
  });
  return { around, offset };
}

/** The whole answer (kind `continuity`). @throws RangeError when it names what is not there */
export const continuity = (i: Metal & Ties): Continuity => judgeOf(i)(i);
