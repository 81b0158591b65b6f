/** What waits in the browser is let go of only when it is safe elsewhere: a change with the plan that has it, a record with the server. */
import 'fake-indexeddb/auto';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import type { Proposed } from '../../src/formats/change.js';
import { json, pageHere, Silent } from './pageHere.js';
import { line, plan } from './scene.js';

const start = plan([line('a', [[0, 0], [100, 0]])]); // prettier-ignore

// A tab of its own: in another one somebody may be leaving, and keeps nothing more.
async function tab() {
  vi.resetModules();
  const { keptProperty } = await import('../../src/session/field.js');
  const { openOutbox } = await import('../../src/session/outbox.js');
  const { record, useRecords } = await import('../../src/session/records.js');
  const { commit, openSession, useSession } = await import('../../src/session/session.js');
  await openSession('p');
  return { keptProperty, openOutbox, record, useRecords, commit, useSession };
}

beforeAll(() => {
  // Nothing is worked out and nobody else is heard here.
  vi.stubGlobal('Worker', Silent);
  pageHere(start, (address) => (address.includes('/records/') ? json({ reason: 'no such thing' }, 422) : undefined)); // prettier-ignore
});
afterAll(() => {
  vi.unstubAllGlobals();
  // Other files are not to go on in the last of these tabs.
  vi.resetModules();
});

it('a change leaves the outbox only when the plan that is kept has it', async () => {
  // The worker never answers: the property is open all the same.
  const { commit, keptProperty, openOutbox, useSession } = await tab();
  expect(useSession.getState().report).toBeNull();
  commit('called Upper', (d) => void (d.lines['a']!.name = 'Upper'));
  const box = openOutbox('p');
  await vi.waitFor(async () => expect(await box.left<Proposed>('changes')).toHaveLength(1), 5000);
  await vi.waitFor(async () => expect(await box.left<Proposed>('changes')).toEqual([]), 10_000);
  expect((await keptProperty('p'))!.plan.lines['a']!.name).toBe('Upper');
});

it('a record that the server does not take is said, and stays: it is the only copy', async () => {
  const { openOutbox, record, useRecords } = await tab();
  const out = { kind: 'stock', record: { id: 'refused-1' } };
  await record(out);
  await vi.waitFor(() => expect(useRecords.getState().refused).toMatchObject([{ record: { id: 'refused-1' } }]), 5000); // prettier-ignore
  // One more turn for whatever would let go of it.
  await new Promise((turn) => setTimeout(turn, 200));
  expect((await openOutbox('p').left('records')).map((w) => w.id)).toContain('refused-1');
});
