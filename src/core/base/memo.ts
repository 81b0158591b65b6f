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

/** Remembers an answer by key for as long as everything that it rests on is the same by identity. */
export function memoOn<R>() {
  const memory = new Map<string, { on: readonly unknown[]; result: R }>();
  return {
    get(key: string, on: readonly unknown[], make: () => R): R {
      const known = memory.get(key);
      if (known && sameItems(known.on, on)) return known.result;
      const result = make();
      memory.set(key, { on, result });
      return result;
    },
    /** The last answer, whatever it rested on. */
    last: (key: string): R | undefined => memory.get(key)?.result,
    keep(keys: ReadonlySet<string>): void {
      for (const key of memory.keys()) if (!keys.has(key)) memory.delete(key);
    },
  };
}

/**
 * As `memoOn`, with a few answers for each key: what is tried and taken back is known again.
 * @param most answers kept for a key, the latest asked for first
 */
export function memoFew<R>(most: number) {
  const memory = new Map<string, { on: readonly unknown[]; result: R }[]>();
  return {
    get(key: string, on: readonly unknown[], make: () => R): R {
      let known = memory.get(key);
      if (!known) memory.set(key, (known = []));
      const k = known.findIndex((one) => sameItems(one.on, on));
      const one = k < 0 ? { on, result: make() } : known.splice(k, 1)[0]!;
      known.unshift(one);
      known.length = Math.min(known.length, most);
      return one.result;
    },
  };
}

/**
 * One identity for all that says the same: what was changed and changed back is again what it was.
 * @param keyOf all that a thing says, as text
 * @param most things remembered; the oldest is forgotten
 */
export function intern<T extends object>(keyOf: (thing: T) => string, most: number) {
  const byKey = new Map<string, T>();
  const seen = new WeakMap<T, T>();
  return (thing: T): T => {
    const before = seen.get(thing);
    if (before) return before;
    const key = keyOf(thing);
    const first = byKey.get(key) ?? thing;
    if (first === thing) {
      if (byKey.size >= most) byKey.delete(byKey.keys().next().value!);
      byKey.set(key, thing);
    }
    seen.set(thing, first);
    return first;
  };
}

/** Two lists of the same things by identity. */
export const sameItems = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);

/**
 * Keeps the identity of rows that say what they said before: a table that was made anew then only
 * looks new where it is.
 */
export function steady<T>(same: (a: T, b: T) => boolean) {
  let last: Readonly<Record<string, T>> = {};
  return (table: Readonly<Record<string, T>>): Readonly<Record<string, T>> => {
    const out: Record<string, T> = {};
    for (const [key, row] of Object.entries(table)) {
      const was = last[key];
      out[key] = was !== undefined && same(was, row) ? was : row;
    }
    return (last = out);
  };
}
