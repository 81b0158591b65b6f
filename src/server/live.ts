/**
 * Who listens to a property, and what they hear: changes as they are saved, gathered for a moment and written out once for
 * all, and that records of a kind have come in.
 */
import type { Saved } from '../formats/change.js';

/** So long what happens is gathered, ms: fifty who work at once make a few words a second, and not fifty. */
const GATHER_MS = 150;
/** Longer news are fetched by who wants them, characters. */
const ROOM = 64 * 1024;

export type Live = ReturnType<typeof createLive>;

/** @param most that listen at a time @param gather_ms for tests */
export function createLive(most = 500, gather_ms = GATHER_MS) {
  const listeners = new Map<string, Set<(text: Uint8Array) => void>>();
  const gathered = new Map<string, { changes: Saved[]; newest: number; kinds: Set<string> }>();
  let count = 0;

  /** What is gathered of a property from now on; null: nobody listens. */
  function gathering(property: string) {
    if (!listeners.has(property)) return null;
    let own = gathered.get(property);
    if (!own) {
      gathered.set(property, (own = { changes: [], newest: 0, kinds: new Set() }));
      setTimeout(() => say(property), gather_ms);
    }
    return own;
  }

  function say(property: string): void {
    const { changes, newest, kinds } = gathered.get(property)!;
    gathered.delete(property);
    const news = JSON.stringify({ changes, more: false });
    // A change that a helper saved is not known here.
    const whole = changes.length > 0 && changes.at(-1)!.revision === newest && news.length <= ROOM;
    const plan = newest === 0 ? '' : whole ? `event: changes\ndata: ${news}\n\n` : `event: moved\ndata: plan ${newest}\n\n`; // prettier-ignore
    const text = plan + [...kinds].map((kind) => `event: moved\ndata: ${kind}\n\n`).join('');
    const bytes = new TextEncoder().encode(text);
    for (const tell of listeners.get(property) ?? []) tell(bytes);
  }

  return {
    /** A change was saved; `revision` alone where it is not at hand. */
    changed(property: string, change: Saved | { readonly revision: number }): void {
      const own = gathering(property);
      if (!own) return;
      if ('patch' in change) own.changes.push(change);
      own.newest = Math.max(own.newest, change.revision);
    },

    /** Records of a kind came in. */
    recorded(property: string, kind: string): void {
      gathering(property)?.kinds.add(kind);
    },

    /** Listens to a property until the returned function is called; null: too many listen already. */
    listen(property: string, tell: (text: Uint8Array) => void): (() => void) | null {
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
