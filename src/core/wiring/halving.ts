/**
 * Openings that halve a search. A fence is a graph of stretches, each with the time that it takes to walk; some can be
 * parted at one of their ends by a switch. An opening parts what is searched into what is still fed and the rest; in a
 * ring it takes more than one switch.
 */
import { Groups } from '../base/groups.js';

export interface Stretch {
  readonly u: string;
  readonly v: string;
  /** Time to walk it. */
  readonly min: number;
  /** Whether a switch can stand at its end u, at its end v; 'in': one stands there already. */
  readonly ends: readonly [Switchable, Switchable];
}
export type Switchable = boolean | 'in';

/** A switch: number of the stretch, and which of its ends. */
export interface At {
  readonly stretch: number;
  readonly end: 0 | 1;
}

export interface Opening {
  readonly switches: readonly At[];
  /** Time to walk what goes off with it, and what of the part stays on. */
  readonly off_min: number;
  readonly on_min: number;
  /** Time that it saves in finding a fault in that part, on average. */
  readonly saves_min: number;
  /** It is for when an earlier one has said on which side of it the fault is; null: the first. */
  readonly after: { readonly opening: number; readonly side: 'on' | 'off' } | null;
}

export interface Halving {
  readonly whole_min: number;
  /** Longest part that is left to walk. */
  readonly part_min: number;
  /** The longest part first, each after the one that it follows. */
  readonly openings: readonly Opening[];
}

/** Less than this share on one side is hardly a halving. */
const LEAST_SHARE = 0.1;
/** Far places from which cuts are looked for. */
const SEEDS = 16;

/**
 * Parts a fence, and its parts again, until none takes longer than asked; each time by the opening that saves most time
 * for each new switch. Cuts are looked for between the unit and places far from it and made better one place at a time:
 * the best of all is not proved (tests compare small fences with all cuts).
 */
export function halve(given: readonly Stretch[], root: string, enough_min: number): Halving {
  // A switch that one opening wants is there for the next.
  const stretches = given.map((s) => ({ ...s, ends: [...s.ends] as [Switchable, Switchable] }));
  const openings: Opening[] = [];
  let longest = 0;
  const reach = fedFrom(stretches, root);
  const all = [...stretches.keys()].filter((k) => reach.has(stretches[k]!.u));
  const todo: { own: readonly number[]; good: ReadonlySet<string>; after: Opening['after'] }[] = [
    { own: all, good: new Set([root]), after: null },
  ];
  const sum = (own: readonly number[]) => own.reduce((t, k) => t + stretches[k]!.min, 0);
  for (let part = todo.pop(); part; part = todo.pop()) {
    const min = sum(part.own);
    const cut = min > enough_min ? cutOf(stretches, part.own, part.good) : null;
    if (!cut) {
      longest = Math.max(longest, min);
      continue;
    }
    const off_min = sum(cut.off);
    openings.push({
      switches: cut.switches,
      off_min,
      on_min: min - off_min,
      saves_min: cut.saves_min,
      after: part.after,
    });
    for (const { stretch, end } of cut.switches) stretches[stretch]!.ends[end] = 'in';
    const gone = new Set(cut.off);
    const on = part.own.filter((k) => !gone.has(k));
    const opening = openings.length - 1;
    todo.push({ own: on, good: part.good, after: { opening, side: 'on' } });
    // What stayed on is sound when the fault went off with the rest.
    const ends = on.flatMap((k) => [stretches[k]!.u, stretches[k]!.v]);
    todo.push({
      own: cut.off,
      good: new Set([...part.good, ...ends]),
      after: { opening, side: 'off' },
    });
    todo.sort((a, b) => sum(a.own) - sum(b.own));
  }
  return { whole_min: sum(all), part_min: longest, openings };
}

interface Cut {
  readonly switches: readonly At[];
  readonly off: readonly number[];
  readonly saves_min: number;
  readonly worth: number;
}

/** The opening of a part that saves most for each new switch; null where none halves it. */
function cutOf(
  stretches: readonly Stretch[],
  own: readonly number[],
  good: ReadonlySet<string>,
): Cut | null {
  // Places between which no switch can stand are one.
  const sets = new Groups();
  const ROOT = '\0';
  for (const g of good) sets.join(ROOT, g);
  const fixed = (k: number) => !stretches[k]!.ends[0] && !stretches[k]!.ends[1];
  for (const k of own) if (fixed(k)) sets.join(stretches[k]!.u, stretches[k]!.v);
  const number = new Map<string, number>();
  const id = (name: string) => {
    const top = sets.of(name);
    let n = number.get(top);
    if (n === undefined) number.set(top, (n = number.size));
    return n;
  };
  const root = id(ROOT);
  const ends = own.map((k) => [id(stretches[k]!.u), id(stretches[k]!.v)] as const);
  const count = number.size;
  const around: number[][] = Array.from({ length: count }, () => []);
  ends.forEach(([a, b], i) => {
    around[a]!.push(i);
    if (a !== b) around[b]!.push(i);
  });
  const min = (i: number) => stretches[own[i]!]!.min;
  const whole = own.reduce((t, k) => t + stretches[k]!.min, 0);

  /** @param inside places that are to stay on */
  const judged = (inside: Uint8Array): Cut | null => {
    const on = new Uint8Array(count);
    const todo = [root];
    on[root] = 1;
    for (let n = todo.pop(); n !== undefined; n = todo.pop())
      for (const i of around[n]!)
        for (const m of ends[i]!)
          if (!on[m] && inside[m]) {
            on[m] = 1;
            todo.push(m);
          }
    const switches: At[] = [];
    const off: number[] = [];
    let [fresh, off_min] = [0, 0];
    ends.forEach(([a, b], i) => {
      const k = own[i]!;
      if (on[a] && on[b]) return;
      if (on[a] || on[b]) {
        const near: 0 | 1 = on[a] ? 0 : 1;
        const [here, there] = [stretches[k]!.ends[near], stretches[k]!.ends[1 - near as 0 | 1]]; // prettier-ignore
        // The stretch goes off with the rest where its switch can stand on the fed side.
        const end = here === 'in' || (here && there !== 'in') ? near : ((1 - near) as 0 | 1);
        switches.push({ stretch: k, end });
        if (stretches[k]!.ends[end] !== 'in') fresh++;
        if (end !== near) return;
      }
      off.push(k);
      off_min += min(i);
    });
    const share = off_min / whole;
    if (switches.length === 0 || share < LEAST_SHARE || share > 1 - LEAST_SHARE) return null;
    // A fault lies anywhere alike, and what is left is walked to its half on average.
    const saves_min = (whole / 2) * (1 - share ** 2 - (1 - share) ** 2);
    return { switches, off, saves_min, worth: saves_min / Math.max(fresh, 0.5) };
  };

  const far = (from: number): Float64Array => {
    const d = new Float64Array(count).fill(Infinity);
    const open = new Set([from]);
    d[from] = 0;
    while (open.size > 0) {
      let n = -1;
      for (const k of open) if (n < 0 || d[k]! < d[n]!) n = k;
      open.delete(n);
      for (const i of around[n]!) {
        const m = ends[i]![0] === n ? ends[i]![1] : ends[i]![0];
        if (d[n]! + min(i) < d[m]!) {
          d[m] = d[n]! + min(i);
          open.add(m);
        }
      }
    }
    return d;
  };
  const fromRoot = far(root);
  let best: { cut: Cut; inside: Uint8Array } | null = null;
  const tryOne = (inside: Uint8Array): boolean => {
    const cut = judged(inside);
    if (!cut || (best && cut.worth <= best.cut.worth + 1e-9)) return false;
    best = { cut, inside: inside.slice() };
    return true;
  };
  // What switches that are in part already: each piece between them.
  const pieces = new Groups();
  ends.forEach(([a, b], i) => {
    if (!stretches[own[i]!]!.ends.includes('in')) pieces.join(String(a), String(b));
  });
  const pieceOf = (n: number) => pieces.of(String(n));
  for (const piece of new Set([...Array(count).keys()].map(pieceOf)))
    tryOne(
      Uint8Array.from({ length: count }, (_, n) => Number(n === root || pieceOf(n) !== piece)),
    );
  // Seeds far from the unit and from one another.
  const apart = fromRoot.slice();
  for (let s = 0; s < Math.min(SEEDS, count - 1); s++) {
    let seed = -1;
    for (let n = 0; n < count; n++)
      if (n !== root && apart[n]! < Infinity && (seed < 0 || apart[n]! > apart[seed]!)) seed = n;
    if (seed < 0) break;
    const fromSeed = far(seed);
    for (let n = 0; n < count; n++) apart[n] = Math.min(apart[n]!, fromSeed[n]!);
    const order = [...Array(count).keys()].sort(
      (a, b) => fromRoot[a]! - fromSeed[a]! - (fromRoot[b]! - fromSeed[b]!),
    );
    const inside = new Uint8Array(count);
    inside[root] = 1;
    for (const n of order) {
      inside[n] = 1;
      tryOne(inside);
    }
  }
  for (let better = best !== null; better;) {
    better = false;
    const { inside } = best!;
    for (let n = 0; n < count; n++) {
      if (n === root) continue;
      const other = inside.slice();
      other[n] = 1 - other[n]!;
      if (tryOne(other)) {
        better = true;
        break;
      }
    }
  }
  return (best as { cut: Cut } | null)?.cut ?? null;
}

/** Places that hang on the root. */
function fedFrom(stretches: readonly Stretch[], root: string): Set<string> {
  const sets = new Groups();
  for (const { u, v } of stretches) sets.join(u, v);
  const own = sets.of(root);
  return new Set(stretches.flatMap(({ u, v }) => [u, v]).filter((n) => sets.of(n) === own));
}
