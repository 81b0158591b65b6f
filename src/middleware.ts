/** Who may come in where, and what a page may load and run: nothing from elsewhere, of scripts within it only its own. */
import { createHash } from 'node:crypto';
import type { APIContext } from 'astro';
import { defineMiddleware } from 'astro:middleware';
import { admitted } from './server/access/doors.js';
import { tooOften, visitorOf } from './server/access/gate.js';
import { ANYBODY } from './formats/visitor.js';
import { answer, fault, tooMany } from './server/http.js';
import { store } from './server/index.js';

const policy = (scripts: readonly string[]): string =>
  [
    "default-src 'self'",
    `script-src 'self' ${scripts.map((s) => `'sha256-${s}'`).join(' ')}`,
    // The drawings place their marks by style attributes.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "worker-src 'self' blob:",
    "manifest-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');

/** What is answered in place of the page, or null: come in. */
async function turnedAway(context: APIContext): Promise<Response | null> {
  const { routePattern, params, request, cookies, locals, url } = context;
  const api = routePattern.startsWith('/api/');
  const property = params['id'];
  locals.visitor = ANYBODY;
  // What is open to all needs no store, and says itself how it fares.
  if (admitted(routePattern, request.method, property, null) === 'in') {
    const wait = locals.from?.remote ? tooOften(null, locals.from) : 0;
    return wait > 0 ? later(wait) : null;
  }
  const visitor = await visitorOf((await store()).people, cookies, locals.from);
  const wait = tooOften(visitor, locals.from);
  if (wait > 0) return later(wait);
  const verdict = admitted(routePattern, request.method, property, visitor);
  if (visitor) locals.visitor = visitor;
  if (verdict === 'in') return null;
  if (verdict === 'sign in') {
    if (api) return fault(401, 'sign in first');
    return context.redirect(`/sign-in?to=${encodeURIComponent(url.pathname + url.search)}`);
  }
  if (api) return fault(403, 'your role here does not allow this');
  if (visitor?.only !== undefined) return context.redirect(`/p/${visitor.only}/land`);
  return context.redirect('/?not-you');
}

const later = (seconds: number): Response =>
  tooMany(`too many requests: again in ${seconds} s`, seconds);

export const onRequest = defineMiddleware(async (context, next) => {
  const away = await answer(async () => (await turnedAway(context)) ?? NOTHING);
  const response = away === NOTHING ? await next() : away;
  if (!response.headers.get('content-type')?.startsWith('text/html')) return response;
  const html = await response.text();
  const inline = [...html.matchAll(/<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g)];
  const hashes = inline.map((m) => createHash('sha256').update(m[1]!).digest('base64'));
  const headers = new Headers(response.headers);
  headers.set('content-security-policy', policy([...new Set(hashes)]));
  headers.set('cache-control', 'no-store');
  return new Response(html, { status: response.status, headers });
});

/** Nobody was turned away. */
const NOTHING = new Response();
