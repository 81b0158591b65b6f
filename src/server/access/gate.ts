/** Who asks, by the cookie that came along, and what they are answered when they may not come in. */
import type { AstroCookies } from 'astro';
import type { From } from './from.js';
import { limiter } from './limits.js';
import type { PeopleStore } from './people.js';
import { OWN, type Visitor } from '../../formats/visitor.js';

/** A browser keeps it no longer than the server does, s. */
const KEPT_S = 180 * 86_400;

/** Over HTTPS only this host may have set it; browsers hold to that by its name. */
const nameOf = (from: From | undefined) => (from?.secure ? '__Host-anabatic' : 'anabatic');

/** The token that a browser brought. */
export const tokenOf = (cookies: AstroCookies, from: From | undefined): string | undefined =>
  cookies.get(nameOf(from))?.value;

/** Gives a browser its token to keep, where no script reads it and no other site sends it. */
export const giveToken = (cookies: AstroCookies, from: From | undefined, token: string): void =>
  cookies.set(nameOf(from), token, {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: from?.secure ?? false,
    maxAge: KEPT_S,
  });

/** Takes it away again. */
export const takeToken = (cookies: AstroCookies, from: From | undefined): void =>
  cookies.delete(nameOf(from), { path: '/', secure: from?.secure ?? false });

/** Who asks; null: nobody known. Without any people it is this machine's own user, and nobody from elsewhere. */
export async function visitorOf(
  people: PeopleStore,
  cookies: AstroCookies,
  from: From | undefined,
): Promise<Visitor | null> {
  const token = tokenOf(cookies, from);
  const found = token === undefined ? null : await people.visitor(token);
  if (found) return found;
  return !from?.remote && !(await people.any()) ? OWN : null;
}

/** Requests of one person, or of one address where nobody is known: a phone that sends a day's work in one go, and more. */
const asked = limiter({ burst: 600, every_ms: 40 });
/** Tries at a pass phrase from one address, and for one name. */
const fromHere = limiter({ burst: 10, every_ms: 60_000 });
const asThis = limiter({ burst: 30, every_ms: 60_000 });

/** Seconds that somebody has to wait who asks too often; 0: none. This machine's own user never. */
export const tooOften = (visitor: Visitor | null, from: From | undefined): number =>
  visitor === OWN ? 0 : asked(visitor?.id ?? from?.address ?? '');

/** Seconds until a pass phrase may be tried again; 0: now. */
export const triesLeft = (name: string, from: From | undefined): number =>
  Math.max(fromHere(from?.address ?? ''), asThis(name.slice(0, 80).toLowerCase()));
