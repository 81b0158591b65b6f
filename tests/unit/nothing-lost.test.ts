/** What waits in the browser is let go of only when it is safe elsewhere: a change with the plan that has it, a record with the server. */
import 'fake-indexeddb/auto';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import type { Proposed } from '../../src/formats/change.js';
import { keptProperty } from '../../src/session/field.js';
import { openOutbox } from '../../src/session/outbox.js';
import { record, useRecords } from '../../src/session/records.js';
import { commit, openSession, useSession } from '../../src/session/session.js';
import { line, plan } from './scene.js';

const start = plan([line('a', [[0, 0], [100, 0]])]); // prettier-ignore
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
const visitor = { id: 'p', name: 'P', role: 'owner' };

beforeAll(() => {
  // Nothing is worked out and nobody else is heard here.
  const Silent = class extends EventTarget {
    terminate() {}
    close() {}
    postMessage() {}
  };
  vi.stubGlobal('Worker', Silent);
  vi.stubGlobal('document', Object.assign(new EventTarget(), { visibilityState: 'visible' }));
  vi.stubGlobal('addEventListener', () => undefined);
  vi.stubGlobal('removeEventListener', () => undefined);
  vi.stubGlobal('EventSource', Silent);
  vi.stubGlobal('fetch', (address: string, sent?: RequestInit) => {
    if (address.includes('/records/'))
      return Promise.resolve(json({ reason: 'no such thing' }, 422));
    if (address.includes('/changes') && sent?.method === 'POST') return Promise.resolve(json({ status: 'saved', revision: 1, at: '2026-05-01T10:00:00Z', others: [] })); // prettier-ignore
    if (address.includes('/changes')) return Promise.resolve(json({ changes: [], more: false }));
    return Promise.resolve(json({ plan: start, revision: 0, at: null, stacks: { undo: [], redo: [] }, landed: [], visitor })); // prettier-ignore
  });
});
afterAll(() => vi.unstubAllGlobals());

it('a change leaves the outbox only when the plan that is kept has it', async () => {
  // The worker never answers: the property is open all the same.
  await openSession('p');
  expect(useSession.getState().report).toBeNull();
  commit('called Upper', (d) => void (d.lines['a']!.name = 'Upper'));
  const box = openOutbox('p');
  await vi.waitFor(async () => expect(await box.left<Proposed>('changes')).toHaveLength(1), 5000);
  await vi.waitFor(async () => expect(await box.left<Proposed>('changes')).toEqual([]), 10_000);
  expect((await keptProperty('p'))!.plan.lines['a']!.name).toBe('Upper');
});

it('a record that the server does not take is said, and stays: it is the only copy', async () => {
  const out = { kind: 'stock', record: { id: 'refused-1' } };
  await record(out);
  await vi.waitFor(() => expect(useRecords.getState().refused).toMatchObject([{ record: { id: 'refused-1' } }]), 5000); // prettier-ignore
  // One more turn for whatever would let go of it.
  await new Promise((turn) => setTimeout(turn, 200));
  expect((await openOutbox('p').left('records')).map((w) => w.id)).toContain('refused-1');
});
