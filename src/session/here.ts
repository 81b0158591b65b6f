/**
 * Small things that this browser keeps for itself: how one looked at a property, a start that is half
 * answered, a walk. A browser without room is no reason to stop: it is told by the answer.
 */

/** Keeps a value; false when this browser could not. */
export function keepHere(key: string, value: unknown): boolean {
  try {
    localStorage.setItem(key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

/** What was kept under a key, or `otherwise`. */
export function keptHere<T>(key: string, otherwise: T): T {
  try {
    const text = localStorage.getItem(key);
    return text === null ? otherwise : (JSON.parse(text) as T);
  } catch {
    return otherwise;
  }
}

/** Forgets what was kept under a key. */
export function forgetHere(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // Without storage there is nothing to forget.
  }
}
