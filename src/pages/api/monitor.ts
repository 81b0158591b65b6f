import type { APIRoute } from 'astro';
import { store } from '../../server/index.js';
import { answer, bodyJson, fault, json, tooMany } from '../../server/http.js';

/** A report is a few figures. */
const ROOM = 1024;

/**
 * A report of a monitor, which says with "Authorization: Bearer TOKEN" who it is: 201 when it is in the log now, 200
 * when it was heard and nothing had moved, 401 for a token that is not known or was taken back, 429 too often.
 */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const token = /^Bearer ([A-Za-z0-9_-]{20,100})$/.exec(request.headers.get('authorization') ?? '')?.[1];
    if (!token) return unknown();
    const heard = await (await store()).monitors.hear(token, await bodyJson(request, ROOM));
    if (heard === 'unknown') return unknown();
    if (heard === 'too often') return tooMany('a monitor reports at most every 10 seconds', 10);
    return json({ heard: true, kept: heard === 'kept' }, heard === 'kept' ? 201 : 200);
  }); // prettier-ignore

function unknown(): Response {
  const refused = fault(401, 'this token is not known, or was taken back');
  refused.headers.set('www-authenticate', 'Bearer');
  return refused;
}
