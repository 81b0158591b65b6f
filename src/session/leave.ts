/** Leaving a browser that others use too: nothing of the properties stays in it. */
import { forgetAll, keepNoMore } from './field.js';
import { forgetReports } from './reports.js';

/** Signs out and goes to the first page; what was kept to go on without the server is forgotten. */
export async function signedOut(): Promise<void> {
  keepNoMore();
  await fetch('/api/session', {
    method: 'DELETE',
    headers: { 'content-type': 'application/json' },
    body: '{}',
  }).catch(() => null);
  await forgetAll();
  await forgetReports();
  location.assign('/');
}
