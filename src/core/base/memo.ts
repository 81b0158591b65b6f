/**
 * Remembers the last answer for the same arguments, compared by identity.
 * The plan is immutable and edits share what they did not touch, so identity is
 * all that "nothing here has changed" needs.
 */
export function memoLast<A extends readonly unknown[], R>(
  fn: (...args: A) => R,
): (...args: A) => R {
  let last: { args: A; result: R } | null = null;
  return (...args) => {
    if (last && last.args.length === args.length && last.args.every((a, i) => a === args[i])) {
      return last.result;
    }
    last = { args, result: fn(...args) };
    return last.result;
  };
}

/** One memory per key, for stages that run once for each line. Forgets keys that `keep` drops. */
export function memoByKey<A extends readonly unknown[], R>(fn: (...args: A) => R) {
  const memory = new Map<string, (...args: A) => R>();
  return {
    call(key: string, ...args: A): R {
      let one = memory.get(key);
      if (!one) memory.set(key, (one = memoLast(fn)));
      return one(...args);
    },
    keep(keys: ReadonlySet<string>): void {
      for (const key of memory.keys()) if (!keys.has(key)) memory.delete(key);
    },
  };
}
