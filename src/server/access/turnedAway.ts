/** Who knocks at which address, and what they are answered in place of it. */
import type { AstroCookies } from 'astro';
import { ANYBODY, type Visitor } from '../../formats/visitor.js';
import { fault, tooMany } from '../http.js';
import { admitted } from './doors.js';
import type { From } from './from.js';
import { tooOften, visitorOf } from './gate.js';
import type { PeopleStore } from './people.js';

/** What of a request it goes by. */
export interface Knock {
  readonly routePattern: string;
  readonly params: Readonly<Record<string, string | undefined>>;
  readonly request: Pick<Request, 'method'>;
  readonly cookies: AstroCookies;
  readonly url: URL;
  readonly locals: { from?: From; visitor: Visitor };
  redirect(to: string): Response;
}

/**
 * What is answered in place of the page, or null: come in. Who came in stands in `locals.visitor` then.
 * @param people is asked for only where it matters who it is: what is open to all needs no store
 */
export async function turnedAway(
  knock: Knock,
  people: () => Promise<PeopleStore>,
): Promise<Response | null> {
  const { routePattern, params, request, cookies, locals, url } = knock;
  const api = routePattern.startsWith('/api/');
  const property = params['id'];
  locals.visitor = ANYBODY;
  if (admitted(routePattern, request.method, property, null) === 'in') {
    const wait = locals.from?.remote ? tooOften(null, locals.from) : 0;
    return wait > 0 ? later(wait) : null;
  }
  const visitor = await visitorOf(await people(), cookies, locals.from);
  const wait = tooOften(visitor, locals.from);
  if (wait > 0) return later(wait);
  const verdict = admitted(routePattern, request.method, property, visitor);
  if (visitor) locals.visitor = visitor;
  if (verdict === 'in') return null;
  if (verdict === 'sign in') {
    if (api) return fault(401, 'sign in first');
    return knock.redirect(`/sign-in?to=${encodeURIComponent(url.pathname + url.search)}`);
  }
  if (api) return fault(403, 'your role here does not allow this');
  if (visitor?.only !== undefined) return knock.redirect(`/p/${visitor.only}/land`);
  return knock.redirect('/?not-you');
}

const later = (seconds: number): Response =>
  tooMany(`too many requests: again in ${seconds} s`, seconds);
