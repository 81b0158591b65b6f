/** Who listens to a property, and what they are told: that something of it has moved, never what. */

/** What has moved: the plan, or records of a kind. */
export type Moved = 'plan' | (string & {});

export type Live = ReturnType<typeof createLive>;

/** @param most that listen at a time */
export function createLive(most = 500) {
  const listeners = new Map<string, Set<(what: Moved) => void>>();
  let count = 0;
  return {
    announce(property: string, what: Moved): void {
      for (const tell of listeners.get(property) ?? []) tell(what);
    },

    /** Listens to a property until the returned function is called; null: too many listen already. */
    listen(property: string, tell: (what: Moved) => void): (() => void) | null {
      if (count >= most) return null;
      const own = listeners.get(property) ?? new Set();
      listeners.set(property, own.add(tell));
      count++;
      return () => {
        if (!own.delete(tell)) return;
        count--;
        if (own.size === 0 && listeners.get(property) === own) listeners.delete(property);
      };
    },
  };
}
