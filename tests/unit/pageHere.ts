/** What a page that opens a property stands on: a document, nobody else to be heard, and a server that has one plan. */
import { vi } from 'vitest';
import type { Plan } from '../../src/core/plan/schema.js';

export const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
const visitor = { id: 'p', name: 'P', role: 'owner' };

/** Somebody who is never heard of. */
export const Silent = class extends EventTarget {
  terminate() {}
  close() {}
  postMessage() {}
};

/** @param first answers before the server does; undefined: it does not */
export function pageHere(
  plan: Plan,
  first: (address: string) => Response | undefined = () => undefined,
): void {
  vi.stubGlobal('document', Object.assign(new EventTarget(), { visibilityState: 'visible' }));
  vi.stubGlobal('addEventListener', () => undefined);
  vi.stubGlobal('removeEventListener', () => undefined);
  vi.stubGlobal('EventSource', Silent);
  vi.stubGlobal('fetch', (address: string, sent?: RequestInit) => {
    const own = first(address);
    if (own) return Promise.resolve(own);
    if (address.includes('/changes') && sent?.method === 'POST') return Promise.resolve(json({ status: 'saved', revision: 1, at: '2026-05-01T10:00:00Z', others: [] })); // prettier-ignore
    if (address.includes('/changes')) return Promise.resolve(json({ changes: [], more: false }));
    return Promise.resolve(json({ plan, revision: 0, at: null, stacks: { undo: [], redo: [] }, landed: [], visitor })); // prettier-ignore
  });
}
