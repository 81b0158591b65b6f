/**
 * The service worker: the application opens without the server. It has the built files, and one page for all addresses;
 * what is on it the tab knows (session/field.ts). Data never passes through here, photos aside.
 */
import { ExpirationPlugin } from 'workbox-expiration';
import {
  cleanupOutdatedCaches,
  matchPrecache,
  precacheAndRoute,
  type PrecacheEntry,
} from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { CacheFirst } from 'workbox-strategies';

/** What of a service worker's own world is used here: the types of pages and of workers do not stand side by side. */
interface Scope {
  readonly clients: { claim(): Promise<void> };
  skipWaiting(): Promise<void>;
  addEventListener(
    type: 'activate',
    run: (event: { waitUntil(work: Promise<unknown>): void }) => void,
  ): void;
  addEventListener(
    type: 'message',
    run: (event: { readonly data: unknown; waitUntil(work: Promise<unknown>): void }) => void,
  ): void;
}
const self = globalThis as unknown as Scope;
/** What the build has made, with the hash of each; and what of it is seldom wanted, by name alone (scripts/build.mjs). */
declare const BUILT: PrecacheEntry[];
declare const SELDOM: readonly string[];

/** The page that stands in for all others. */
const AWAY = '/away';
/** A server that has not begun to answer by then is not waited for, ms. */
const PATIENCE_MS = 4000;

precacheAndRoute(BUILT);
cleanupOutdatedCaches();

// What is seldom wanted comes when it is looked at, or after all else; its name holds the hash of its content.
const KEPT_SELDOM = 'seldom';
const seldom = new CacheFirst({ cacheName: KEPT_SELDOM });
registerRoute(({ url }) => SELDOM.includes(url.pathname), seldom);

/** Fetches what is not here yet, one after another, and lets go of what older programs had. */
async function fetchTheRest(): Promise<void> {
  const cache = await caches.open(KEPT_SELDOM);
  const here = new Set((await cache.keys()).map(({ url }) => new URL(url).pathname));
  for (const url of SELDOM) if (!here.has(url)) await cache.add(url);
  for (const url of here) if (!SELDOM.includes(url)) await cache.delete(url);
}

const standIn = async () => (await matchPrecache(AWAY)) ?? Response.error();

async function page(request: Request): Promise<Response> {
  try {
    const answer = await fetch(request, { signal: AbortSignal.timeout(PATIENCE_MS) });
    // A proxy answers so in place of a server that is away.
    return answer.status >= 502 && answer.status <= 504 ? await standIn() : answer;
  } catch {
    return standIn();
  }
}
registerRoute(new NavigationRoute(({ request }) => page(request), { denylist: [/^\/(api|s)\//] }));

// A photo is named by the hash of its content: the one that was looked at is the one that there is.
registerRoute(
  ({ url, request }) =>
    request.method === 'GET' && /^\/api\/properties\/[^/]+\/photos\//.test(url.pathname),
  new CacheFirst({
    cacheName: 'photos',
    plugins: [new ExpirationPlugin({ maxEntries: 300, purgeOnQuotaError: true })],
  }),
);

// The first one serves the tab that brought it at once; a later one waits until it is asked to (session/ready.ts).
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
self.addEventListener('message', (event) => {
  if (event.data === 'take over') void self.skipWaiting();
  // What does not come now comes the next time.
  if (event.data === 'the rest') event.waitUntil(fetchTheRest().catch(() => undefined));
});
