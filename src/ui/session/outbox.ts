/**
 * Changes on their way to the server. Each stays in the browser's own storage until the server has
 * answered, so that a reload or a dead server loses nothing.
 */
import type { Proposed } from '../../formats/change.js';

const prefix = (property: string): string => `anabatic.pending.${property}.`;

interface Kept {
  readonly order: number;
  readonly change: Proposed;
}

/** Keeps a change until it is acknowledged. */
export function keep(property: string, change: Proposed): void {
  const kept: Kept = { order: Date.now() + performance.now() / 1e7, change };
  localStorage.setItem(prefix(property) + change.changeId, JSON.stringify(kept));
}

/** Forgets a change that the server has, or that the user gave up. */
export function forget(property: string, changeId: string): void {
  localStorage.removeItem(prefix(property) + changeId);
}

/** Every change of a property that was never acknowledged, oldest first. */
export function left(property: string): Proposed[] {
  const found: Kept[] = [];
  for (let i = 0; i < localStorage.length; i++) {
    const key = localStorage.key(i);
    if (!key?.startsWith(prefix(property))) continue;
    try {
      found.push(JSON.parse(localStorage.getItem(key)!) as Kept);
    } catch {
      localStorage.removeItem(key);
    }
  }
  return found.sort((a, b) => a.order - b.order).map((k) => k.change);
}
