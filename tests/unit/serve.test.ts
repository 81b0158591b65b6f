/** The server around the pages, with a site of three files in place of the built one. */
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { request, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliDecompressSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { isLoopback, serve } from '../../src/server/serve.js';

const room = mkdtempSync(join(tmpdir(), 'served-'));
const dist = join(room, 'dist');
const put = (path: string, text: string) => {
  mkdirSync(join(dist, path, '..'), { recursive: true });
  writeFileSync(join(dist, path), text);
};
let server: Server;

/** One request as it stands on the wire; what `fetch` would not send (a foreign host) included. */
function ask(path: string, headers: Record<string, string> = {}, method = 'GET') {
  return new Promise<{ status: number; headers: IncomingMessage['headers']; body: Buffer }>(
    (done, fail) => {
      const { port } = server.address() as AddressInfo;
      const sent = request({ host: '127.0.0.1', port, path, headers, method }, (answer) => {
        const parts: Buffer[] = [];
        answer.on('data', (part: Buffer) => parts.push(part));
        answer.on('end', () =>
          done({ status: answer.statusCode!, headers: answer.headers, body: Buffer.concat(parts) }),
        );
      });
      sent.on('error', fail).end();
    },
  );
}

beforeAll(async () => {
  process.env['ANABATIC_DB'] = join(room, 'store.sqlite');
  process.env['ANABATIC_LOG'] = 'silent';
  put('client/_astro/map.1a2b.js', 'export const far = 1;\n'.repeat(200));
  put('client/icon.svg', '<svg/>');
  put(
    'server/entry.mjs',
    `export function handler(request, response, next) {
       if (request.url === '/404') { response.writeHead(404); response.end('no such page'); }
       else if (request.url === '/page') response.end('page');
       else if (request.url === '/fault') next(new Error('inside'));
       else next();
     }`,
  );
  server = await serve({ port: 0, host: '127.0.0.1', dist, names: ['yard.example'] });
});
afterAll(() => {
  server.close();
  delete process.env['ANABATIC_DB'];
  delete process.env['ANABATIC_LOG'];
  rmSync(room, { recursive: true });
});

describe('answers', () => {
  it('built files are kept for ever, others asked for anew, each with its tag', async () => {
    const built = await ask('/_astro/map.1a2b.js');
    expect(built.headers['cache-control']).toBe('public, max-age=31536000, immutable');
    const icon = await ask('/icon.svg');
    expect(icon.headers['cache-control']).toBe('no-cache');
    expect(icon.body.toString()).toBe('<svg/>');
    const tag = icon.headers.etag!;
    expect(tag).toBeTruthy();
    expect((await ask('/icon.svg', { 'if-none-match': tag })).status).toBe(304);
  });

  it('large ones are pressed where the client can read that, small ones never', async () => {
    const squeezed = await ask('/_astro/map.1a2b.js', { 'accept-encoding': 'br' });
    expect(squeezed.headers['content-encoding']).toBe('br');
    expect(brotliDecompressSync(squeezed.body).toString()).toMatch(/^export const far = 1;\n/);
    expect(squeezed.body.length).toBeLessThan(500);
    expect((await ask('/_astro/map.1a2b.js')).headers['content-encoding']).toBeUndefined();
    const small = await ask('/icon.svg', { 'accept-encoding': 'br' });
    expect(small.headers['content-encoding']).toBeUndefined();
  });

  it('pages come from the handler; what neither knows gets the page that says so; a fault only a word', async () => {
    expect((await ask('/page')).body.toString()).toBe('page');
    const nothing = await ask('/no/such');
    expect([nothing.status, nothing.body.toString()]).toEqual([404, 'no such page']);
    const fault = await ask('/fault');
    expect([fault.status, fault.body.toString()]).toEqual([500, 'The server could not do this.']);
  });

  it('each carries what keeps other sites out', async () => {
    for (const path of ['/page', '/icon.svg', '/no/such', '/fault'])
      expect((await ask(path)).headers).toMatchObject({
        'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
        'x-content-type-options': 'nosniff',
        'x-frame-options': 'DENY',
        'referrer-policy': 'no-referrer',
      });
  });

  it('built files carry what means something for them, workers all of it', async () => {
    put('client/_astro/worker-1a2b.js', 'export const far = 1;');
    const file = (await ask('/_astro/map.1a2b.js')).headers;
    expect(file).toMatchObject({ 'x-content-type-options': 'nosniff', 'cross-origin-resource-policy': 'same-origin' }); // prettier-ignore
    expect(file['content-security-policy']).toBeUndefined();
    const again = await serve({ port: 0, host: '127.0.0.1', dist });
    const { port } = again.address() as AddressInfo;
    const worker = await fetch(`http://127.0.0.1:${port}/_astro/worker-1a2b.js`);
    // It loads the part of its role, and nothing from elsewhere.
    expect(worker.headers.get('content-security-policy')).toBe("default-src 'none'; script-src 'self'"); // prettier-ignore
    again.close();
  });

  it('only to its own names, whatever the port', async () => {
    const status = async (host: string) => (await ask('/page', { host })).status;
    for (const host of ['localhost', 'LOCALHOST:4000', '127.0.0.1:80', '[::1]:1', 'yard.example'])
      expect(await status(host)).toBe(200);
    for (const host of ['yard.example.org', 'localhost.evil', '127.0.0.1.x'])
      expect(await status(host)).toBe(421);
    const refused = await ask('/page', { host: 'foreign' });
    expect(refused.body.toString()).toBe('This server does not answer to that name.');
  });
});

describe('what changes something', () => {
  const status = async (headers: Record<string, string>, method = 'POST') =>
    (await ask('/page', headers, method)).status;

  it('is taken from this server’s own pages and from what is no browser, by whatever of its names', async () => {
    const { port } = server.address() as AddressInfo;
    expect(await status({})).toBe(200);
    expect(await status({ origin: `http://127.0.0.1:${port}` })).toBe(200);
    expect(await status({ host: 'yard.example', origin: 'http://yard.example' })).toBe(200);
    expect(await status({ 'sec-fetch-site': 'same-origin' })).toBe(200);
    expect(await status({ 'sec-fetch-site': 'none' })).toBe(200);
  });

  it('is refused from every other site, by every method, and reading is not', async () => {
    for (const method of ['POST', 'PUT', 'DELETE', 'PATCH']) {
      for (const headers of [
        { origin: 'http://evil.example' },
        { origin: 'null' },
        { origin: 'https://yard.example', host: 'yard.example' },
        { origin: 'http://127.0.0.1:1' },
        { 'sec-fetch-site': 'cross-site' },
        { 'sec-fetch-site': 'same-site' },
      ] as Record<string, string>[])
        expect(await status(headers, method)).toBe(403);
    }
    expect(await status({ origin: 'http://evil.example' }, 'GET')).toBe(200);
    const refused = await ask('/page', { origin: 'http://evil.example' }, 'POST');
    expect(JSON.parse(refused.body.toString())).toMatchObject({ error: expect.stringContaining('another site') as string }); // prettier-ignore
  });
});

it('the service worker may fetch what pages may, and nothing from elsewhere', async () => {
  put('client/sw.js', 'self.x = 1;\n');
  const again = await serve({ port: 0, host: '127.0.0.1', dist });
  const { port } = again.address() as AddressInfo;
  const answer = await fetch(`http://127.0.0.1:${port}/sw.js`);
  expect(answer.headers.get('content-security-policy')).toBe("default-src 'self'");
  again.close();
});

it('the log goes into a file of the day where one is named, without questions and without what opens a door', async () => {
  const before = process.env['ANABATIC_LOG'];
  process.env['ANABATIC_LOG'] = 'info';
  const logged = await serve({ port: 0, host: '127.0.0.1', dist, logFile: join(room, 'logs', 'server.log') }); // prettier-ignore
  const { port } = logged.address() as AddressInfo;
  await fetch(`http://127.0.0.1:${port}/s/SECRETTOKEN?x=QUESTION`);
  await fetch(`http://127.0.0.1:${port}/page`);
  await expect.poll(() => readdirSync(join(room, 'logs')).map((f) => readFileSync(join(room, 'logs', f), 'utf8')).join(), { timeout: 10_000 }).toContain('"/page"'); // prettier-ignore
  const [name] = readdirSync(join(room, 'logs'));
  const text = readFileSync(join(room, 'logs', name!), 'utf8');
  expect(text).toContain('"url":"/s/…"');
  expect(text).not.toMatch(/SECRET|QUESTION/);
  expect(JSON.parse(text.split('\n')[0]!)).toMatchObject({ method: 'GET', status: 404 });
  logged.close();
  process.env['ANABATIC_LOG'] = before;
}, 20_000);

it('a taken port is said in a line', async () => {
  const { port } = server.address() as AddressInfo;
  await expect(serve({ port, host: '127.0.0.1', dist })).rejects.toThrow(
    `port ${port} is taken by another program`,
  );
});

it('this machine is this machine', () => {
  for (const host of ['localhost', '127.0.0.1', '127.9.9.9', '::1', '[::1]'])
    expect(isLoopback(host)).toBe(true);
  for (const host of ['0.0.0.0', '192.168.1.4', '127.0.0.1.example', 'x127.0.0.1', '::'])
    expect(isLoopback(host)).toBe(false);
});
