/** A sequence of numbers that looks drawn by lot and is the same for the same seed. */

/** Uniform between 0 and 1 [published: Mulberry32, public domain]. */
export function uniform(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Standard normal numbers [published: Box and Muller, 1958]. */
export function normal(seed: number): () => number {
  const next = uniform(seed);
  return () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
}

/** Puts a list into an order by lot, in place [published: Fisher and Yates]. */
export function shuffle<T>(list: T[], random: () => number): void {
  for (let k = list.length - 1; k > 0; k--) {
    const j = Math.floor(random() * (k + 1));
    [list[k], list[j]] = [list[j]!, list[k]!];
  }
}
