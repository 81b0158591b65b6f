/**
 * The HTTP server around the pages: which hosts it answers to, what every answer carries, compression,
 * static files, one line of log a request.
 */
import { readFileSync } from 'node:fs';
import { createServer as createSecure } from 'node:https';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { basename, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { constants } from 'node:zlib';
import compression from 'compression';
import pino from 'pino';
import sirv, { type Options } from 'sirv';
import { addressOf, type From } from './access/from.js';
import { copied } from './backup/daily.js';
import { openDatabase, plainly, StoreError } from './database.js';
import { storeFile } from './index.js';

export interface ServeOptions {
  readonly port: number;
  readonly host: string;
  /** The built application. */
  readonly dist: string;
  /** Names beside this machine's own under which it may be asked for. */
  readonly names?: readonly string[];
  /** Files of a certificate and its key: it speaks HTTPS then, and nothing else. */
  readonly tls?: { readonly cert: string; readonly key: string };
  /** The address by which others reach it through a proxy, as "https://farm.example". */
  readonly behind?: string;
  /** A file for the log, kept by day and size; without it, standard output. */
  readonly logFile?: string;
}

type Next = (error?: unknown) => void;
type Step = (request: IncomingMessage, response: ServerResponse, next: Next) => void;

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];
export const isLoopback = (host: string): boolean =>
  host === '::1' || LOOPBACK.includes(host) || /^127\.\d+\.\d+\.\d+$/.test(host);

/** What every answer carries; pages put their own content policy in its place (middleware.ts). */
const HEADERS = {
  'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
} as const;

/** Of these, what means something for a page or a worker alone. */
const FOR_PAGES = ['content-security-policy', 'x-frame-options', 'referrer-policy', 'cross-origin-opener-policy']; // prettier-ignore

/**
 * Opens the store and serves the built application.
 * @throws StoreError when store or port cannot be had; nothing is served then
 */
export async function serve(options: ServeOptions): Promise<Server> {
  // A store that cannot be used is said before anything is served. The pages are a bundle of their own
  // and open it for themselves.
  await (await openDatabase(storeFile())).destroy();
  const entry = pathToFileURL(join(options.dist, 'server', 'entry.mjs')).href;
  type Handler = (...of: [...Parameters<Step>, { from: From }]) => void;
  const { handler } = (await import(entry)) as { handler: Handler };
  const log = logger(options.logFile);
  const behind = options.behind === undefined ? null : new URL(options.behind);
  const remote = behind !== null || !isLoopback(options.host);
  const page: Step = (request, response, next) => {
    const forwarded = behind ? request.headers['x-forwarded-for'] : undefined;
    const from: From = {
      address: addressOf(request.socket.remoteAddress, forwarded && String(forwarded)),
      remote,
      secure: options.tls !== undefined || behind?.protocol === 'https:',
    };
    handler(request, response, next, { from });
  };
  const client = join(options.dist, 'client');
  const sent: Options = {
    gzip: true,
    brotli: true,
    setHeaders(response, path) {
      // Names of built files hold their content's hash.
      const forever = path.startsWith('/_astro/');
      response.setHeader(
        'cache-control',
        forever ? 'public, max-age=31536000, immutable' : 'no-cache',
      );
      // A worker lives by its own policy: it loads the part of its role, and speaks with the page alone.
      if (path.startsWith('/_astro/worker-'))
        response.setHeader('content-security-policy', "default-src 'none'; script-src 'self'");
      // What only pages and workers obey is not sent with each of sixty small files.
      else if (forever) for (const name of FOR_PAGES) response.removeHeader(name);
      // What it fetches on a page's behalf is fetched by its own policy.
      if (path === '/sw.js') response.setHeader('content-security-policy', "default-src 'self'");
    },
  };
  // What never changes is never asked about again: it needs no tag, and the page fetches sixty of them.
  const [built, others] = [sirv(client, sent), sirv(client, { ...sent, etag: true })];
  const files: Step = (request, response, next) =>
    (request.url?.startsWith('/_astro/') ? built : others)(request, response, next);
  const open = new Set<ServerResponse>();
  const steps: Step[] = [
    logged(log),
    (_, response, next) => {
      open.add(response);
      response.on('close', () => open.delete(response));
      next();
    },
    guarded([
      ...LOOPBACK,
      options.host,
      ...(options.names ?? []),
      ...(behind ? [behind.hostname] : []),
    ]),
    ownSite(options.tls !== undefined, behind),
    compression({
      threshold: 1024,
      brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } },
    }) as unknown as Step,
    files,
    page,
    // What no file and no page answers to gets the page that says so.
    (request, response, next) => {
      request.url = '/404';
      page(request, response, next);
    },
  ];
  const answer = (request: IncomingMessage, response: ServerResponse) =>
    run(steps, request, response);
  const server: Server = options.tls
    ? createSecure({ cert: pem(options.tls.cert), key: pem(options.tls.key) }, answer)
    : createServer(answer);
  // Nobody keeps the door open by sending slowly, or by sending nothing.
  server.headersTimeout = 20_000;
  server.requestTimeout = 120_000;
  // A connection that rests is given up by a proxy first (after 60 s as a rule): otherwise one asks on a line just shut.
  server.keepAliveTimeout = 75_000;
  await new Promise<void>((done, fail) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      fail(
        error.code === 'EADDRINUSE'
          ? new StoreError(`port ${options.port} is taken by another program`)
          : error,
      ),
    );
    server.listen(options.port, options.host, done);
  });
  const endDaily = daily(log);
  stopped(server, () => {
    endDaily();
    // Those who listen to what moves would listen for ever; they come again by themselves.
    for (const response of open)
      if (String(response.getHeader('content-type')).startsWith('text/event-stream'))
        response.destroy();
  });
  return server;
}

/** How much of the log is kept: so many files, a new one each day and when one is full. */
const LOG_FILES = { frequency: 'daily', size: '20m', limit: { count: 14 }, mkdir: true } as const;

function logger(file: string | undefined): pino.Logger {
  const options: pino.LoggerOptions = { level: process.env['ANABATIC_LOG'] ?? 'info', base: null };
  if (file === undefined) return pino(options);
  return pino(options, pino.transport({ target: 'pino-roll', options: { file, ...LOG_FILES } }) as pino.DestinationStream); // prettier-ignore
}

function pem(file: string): Buffer {
  try {
    return readFileSync(file);
  } catch {
    throw new StoreError(`${basename(file)} cannot be read`);
  }
}

/** How often it is looked whether a new day has come, ms. */
const LOOK_MS = 3_600_000;

/** The copy of each day, made at the start and whenever a day has begun. Gives what ends it. */
function daily(log: pino.Logger): () => void {
  const copy = () =>
    copied(storeFile(), new Date().toISOString().slice(0, 10)).then(
      (made) => made && log.info({ copy: made }),
      (error: unknown) => log.error({ copy: plainlySaid(error) }),
    );
  // Whoever asks first is answered first.
  const first = setTimeout(() => void copy(), 5_000);
  const timer = setInterval(() => void copy(), LOOK_MS);
  first.unref();
  timer.unref();
  return () => {
    clearTimeout(first);
    clearInterval(timer);
  };
}

const plainlySaid = (error: unknown): string => (plainly(error) as Error).message;

/** How long what is under way may take to its end once it is asked to stop, ms. */
const LAST_MS = 60_000;

/** Asked to stop, the server takes nothing new, ends what is under way, and goes. */
function stopped(server: Server, before: () => void): void {
  const stop = () => {
    before();
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    // Who asks on a connection that is still open is answered, and comes no more on it.
    server.prependListener('request', (_, response: ServerResponse) => response.setHeader('connection', 'close')); // prettier-ignore
    setTimeout(() => process.exit(0), LAST_MS).unref();
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
  server.once('close', () => {
    before();
    process.removeListener('SIGTERM', stop);
    process.removeListener('SIGINT', stop);
  });
}

/** One step after another, each handing on to the next. */
function run(steps: readonly Step[], request: IncomingMessage, response: ServerResponse): void {
  const from =
    (k: number): Next =>
    (error) => {
      if (error || !steps[k]) {
        if (!response.headersSent) response.writeHead(error ? 500 : 404);
        response.end(error ? 'The server could not do this.' : 'There is nothing here.');
        return;
      }
      steps[k](request, response, from(k + 1));
    };
  from(0)();
}

/** A line for each request: what was asked, what came of it, how long it took; never a body. */
const logged =
  (log: pino.Logger): Step =>
  (request, response, next) => {
    const start = performance.now();
    // As it was asked: later steps may look elsewhere.
    const { method } = request;
    const url = written(request.url);
    response.on('close', () => {
      const ms = Math.round(performance.now() - start);
      log.info({ method, url, status: response.statusCode, ms });
    });
    next();
  };

/** An address as it is logged: without its question, and without what opens a door. */
const written = (url = ''): string => url.split('?')[0]!.replace(/^\/s\/.*/, '/s/…');

const READS = ['GET', 'HEAD', 'OPTIONS'];

/** Takes what changes something only from this server's own pages, or from what is no browser. */
const ownSite =
  (secure: boolean, behind: URL | null): Step =>
  (request, response, next) => {
    if (READS.includes(request.method ?? '')) return next();
    const { origin, host } = request.headers;
    const site = request.headers['sec-fetch-site'];
    const own = [`${secure ? 'https' : 'http'}://${host}`, ...(behind ? [behind.origin] : [])];
    const foreign =
      origin === undefined
        ? site !== undefined && site !== 'same-origin' && site !== 'none'
        : !own.includes(origin.toLowerCase());
    if (!foreign) return next();
    response.writeHead(403, { 'content-type': 'application/json; charset=utf-8' });
    const reason = 'this was asked by a page of another site';
    response.end(JSON.stringify({ error: reason, place: '', reason }));
  };

/** Refuses to answer under a foreign name, so that no page of another site can speak to this server. */
const guarded =
  (names: readonly string[]): Step =>
  (request, response, next) => {
    for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
    const host = (request.headers.host ?? '').replace(/:\d+$/, '').toLowerCase();
    if (names.includes(host)) return next();
    response.writeHead(421, { 'content-type': 'text/plain; charset=utf-8' });
    response.end('This server does not answer to that name.');
  };
