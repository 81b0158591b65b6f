/** Who may come in where, and what a page may load and run: nothing from elsewhere, of scripts within it only its own. */
import { createHash } from 'node:crypto';
import { defineMiddleware } from 'astro:middleware';
import { turnedAway } from './server/access/turnedAway.js';
import { answer } from './server/http.js';
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

export const onRequest = defineMiddleware(async (context, next) => {
  const away = await answer(async () => (await turnedAway(context, people)) ?? NOTHING);
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

const people = async () => (await store()).people;
/** Nobody was turned away. */
const NOTHING = new Response();
