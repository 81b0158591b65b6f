/** How often something may be done: a bucket each, that fills again with time. */

export interface Limit {
  /** How many may come at once. */
  readonly burst: number;
  /** One more after so long, ms. */
  readonly every_ms: number;
}

/** Most that are counted at a time: those unseen for longest are forgotten. */
const MOST = 10_000;

/**
 * Counts by name.
 * @param now ms, for tests
 * @returns takes one from a name's bucket: 0, or when it is empty the seconds until there is one again
 */
export function limiter({ burst, every_ms }: Limit, now: () => number = Date.now) {
  const buckets = new Map<string, { left: number; at: number }>();
  return (name: string): number => {
    const at = now();
    const own = buckets.get(name) ?? { left: burst, at };
    // A clock put back takes nothing away.
    const left = Math.min(burst, own.left + Math.max(0, at - own.at) / every_ms);
    buckets.delete(name);
    buckets.set(name, { left: left >= 1 ? left - 1 : left, at });
    if (buckets.size > MOST) buckets.delete(buckets.keys().next().value!);
    return left >= 1 ? 0 : Math.ceil(((1 - left) * every_ms) / 1000);
  };
}
