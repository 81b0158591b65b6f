/**
 * What the temperature makes of a pulled run: each span alone where the supports hold the wire fast, and together
 * where it slides over them as far as friction lets it. The truth lies between.
 */
import { passes, type Shape, type Supports } from './run.js';

export interface WarmthInputs {
  readonly delta_theta_K: number;
  readonly weight_N_per_m: number;
  readonly EA_N: number;
  readonly alpha_per_K: number;
  /** An in-line spring, and the span that it stands in. */
  readonly spring?: { readonly k_N_per_m: number; readonly at: number };
}

/** How each span's wire stretches: its unstressed length is a constant less T x give - hang/T^2, m. */
interface Stretch {
  readonly give: Float64Array;
  readonly hang: Float64Array;
  /** What that is to be after the change, its length kept but for the warmth. */
  readonly kept: Float64Array;
}

function stretchOf(shape: Shape, T0: Float64Array, i: WarmthInputs): Stretch {
  const n = T0.length;
  const [give, hang, kept] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  const warmer = i.alpha_per_K * i.delta_theta_K;
  for (let k = 0; k < n; k++) {
    const c = shape.chord_m[k]!;
    const wide = i.weight_N_per_m * shape.across_m[k]!;
    give[k] = c / i.EA_N + (i.spring && i.spring.at === k ? 1 / i.spring.k_N_per_m : 0);
    hang[k] = (c * wide * wide) / 24;
    const t = T0[k]!;
    kept[k] = t * give[k]! - hang[k]! / (t * t) - warmer * c;
  }
  return { give, hang, kept };
}

/** Tension of every span, N, after a change of temperature with the wire held fast at all supports. */
export const lockedAfter = (shape: Shape, T0: Float64Array, i: WarmthInputs): Float64Array =>
  lockedBy(stretchOf(shape, T0, i), T0);

/** Each span alone: T give - hang/T^2 = kept, by Newton's method kept between limits. */
function lockedBy({ give, hang, kept }: Stretch, T0: Float64Array): Float64Array {
  const T = new Float64Array(T0.length);
  for (let k = 0; k < T.length; k++) {
    const [g, h, want] = [give[k]!, hang[k]!, kept[k]!];
    let [x, low, high] = [T0[k]!, 0, Infinity];
    for (let turn = 0; turn < 200; turn++) {
      const v = x * g - h / (x * x) - want;
      if (v > 0) high = x;
      else low = x;
      let next = x - v / (g + (2 * h) / (x * x * x));
      if (!(next > low && next < high)) next = high < Infinity ? (low + high) / 2 : 2 * x;
      const done = Math.abs(next - x) <= 1e-14 * x;
      x = next;
      if (done) break;
    }
    T[k] = x;
  }
  return T;
}

/**
 * Tension of every span, N, after a change of temperature where the wire slides: a support lets it pass only while
 * T_hi exp(-mu theta) - drag > T_lo.
 *
 * Wire that has come over a support tells which of its spans pulls harder; so from the tension of one span, all after
 * it follow, and so does the wire that would be left over at the end. That falls as the first tension rises, which
 * makes the answer the only one there is. Where it falls past nothing with a leap, a support sticks: what lies beyond
 * it is begun anew.
 */
export function slippedAfter(
  shape: Shape,
  T0: Float64Array,
  supports: Supports,
  i: WarmthInputs,
): Float64Array {
  const n = T0.length;
  const stretch = stretchOf(shape, T0, i);
  const { give, hang, kept } = stretch;
  const share = passes(shape, supports);
  const { drag_N } = supports;
  const T = lockedBy(stretch, T0);
  const slides = (k: number) =>
    Math.max(T[k]!, T[k + 1]!) * share[k]! - drag_N[k]! > Math.min(T[k]!, T[k + 1]!) * (1 + 1e-10);

  /** A try: the tension of the first span, what follows from it, and the wire that came over each support, m. */
  interface Try {
    x: number;
    /** Left over at the end, m: none is the answer; it falls as x rises. */
    rest: number;
    readonly T: Float64Array;
    readonly over: Float64Array;
  }
  const fresh = (): Try => ({ x: 0, rest: 0, T: new Float64Array(n), over: new Float64Array(n) });
  const march = (from: number, to: number, x: number, into: Try): Try => {
    into.x = x;
    let t = x;
    let over = 0;
    for (let k = from; k <= to; k++) {
      // So slack that it hangs without end: more than enough wire came over.
      if (!(t > 1e-3)) {
        into.T.fill(0, k, to + 1);
        into.over.fill(Infinity, k, to + 1);
        over = Infinity;
        break;
      }
      into.T[k] = t;
      over += kept[k]! - t * give[k]! + hang[k]! / (t * t);
      into.over[k] = over;
      t = over > 0 ? t * share[k]! - drag_N[k]! : (t + drag_N[k]!) / share[k]!;
    }
    into.rest = over;
    return into;
  };

  let [low, high, mid] = [fresh(), fresh(), fresh()];
  /** Finds the tensions of the spans from `from` to `to`, whose outer supports stick. */
  const settle = (from: number, to: number) => {
    let begin = from;
    // It slides to somewhere near what the held spans pull: begun there, few tries are needed.
    let [a, b] = [held[from]! / 1.1, held[from]! * 1.1];
    while (begin <= to) {
      march(begin, to, a, low);
      march(begin, to, b, high);
      for (let k = 0, by = 1.2; low.rest < 0 && k < 60; k++, by *= by < 1e3 ? by : 1) {
        [low, high] = [high, low];
        march(begin, to, high.x / by, low);
      }
      for (let k = 0, by = 1.2; high.rest > 0 && k < 60; k++, by *= by < 1e3 ? by : 1) {
        [low, high] = [high, low];
        march(begin, to, low.x * by, high);
      }
      // The first support at which the two differ in the side from which wire came, and how often one end has stayed.
      let [first, stayed] = [-1, 0];
      let [heavier, lighter] = [1, 1];
      for (let turn = 0; turn < 200 && high.x - low.x > 1e-12 * high.x; turn++) {
        let k = begin;
        while (k < to && low.over[k]! > 0 === high.over[k]! > 0) k++;
        if (k !== first) [first, stayed, heavier, lighter] = [k, 0, 1, 1];
        const [fa, fb] = [heavier * low.over[k]!, lighter * high.over[k]!];
        const cut = low.x + ((high.x - low.x) * fa) / (fa - fb);
        // A straight line between the two; the middle where there is none, or it gets nowhere.
        const x = cut > low.x && cut < high.x && turn % 8 !== 7 ? cut : (low.x + high.x) / 2;
        if (!(x > low.x && x < high.x)) break;
        march(begin, to, x, mid);
        if (mid.rest > 0) {
          [low, mid] = [mid, low];
          stayed = stayed > 0 ? stayed + 1 : 1;
          [heavier, lighter] = [1, stayed > 1 ? lighter / 2 : 1];
        } else {
          [high, mid] = [mid, high];
          stayed = stayed < 0 ? stayed - 1 : -1;
          [heavier, lighter] = [stayed < -1 ? heavier / 2 : 1, 1];
        }
        if (high.rest === 0) {
          march(begin, to, high.x, low);
          break;
        }
      }
      // As far as both agree the answer is found; there a support sticks, or it is the end.
      let k = begin;
      T[k] = (low.T[k]! + high.T[k]!) / 2;
      while (k < to && high.T[k + 1]! - low.T[k + 1]! <= 1e-8 * high.T[k + 1]!) {
        k++;
        T[k] = (low.T[k]! + high.T[k]!) / 2;
      }
      if (k === to) return;
      begin = k + 1;
      [a, b] = [Math.max(1e-2, low.T[begin]!), high.T[begin]!];
    }
  };

  /** Stretches of spans that slide into one another, from what the held ones say; each grows while its ends slide. */
  const held = T.slice();
  const windows: [from: number, to: number][] = [];
  for (let k = 0; k + 1 < n; k++) {
    if (!slides(k)) continue;
    const last = windows.at(-1);
    if (last && last[1] === k) last[1] = k + 1;
    else windows.push([k, k + 1]);
  }
  for (const [from, to] of windows) settle(from, to);
  for (let w = 0; w < windows.length; w++) {
    const [from, to] = windows[w]!;
    const more = Math.ceil((to - from) / 2);
    const left = from > 0 && slides(from - 1);
    const right = to < n - 1 && slides(to);
    if (!left && !right) continue;
    const grown: [number, number] = [
      left ? Math.max(0, from - more) : from,
      right ? Math.min(n - 1, to + more) : to,
    ];
    // What it reaches of its neighbours belongs to it now.
    let [first, last] = [w, w];
    while (first > 0 && windows[first - 1]![1] >= grown[0]) first--;
    while (last + 1 < windows.length && windows[last + 1]![0] <= grown[1]) last++;
    grown[0] = Math.min(grown[0], windows[first]![0]);
    grown[1] = Math.max(grown[1], windows[last]![1]);
    windows.splice(first, last - first + 1, grown);
    settle(...grown);
    // Its neighbours' ends are looked at again.
    w = Math.max(-1, first - 2);
  }
  return T;
}
