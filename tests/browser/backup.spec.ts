/** Backups as a user takes and brings them, the server's own copies, and a server that is asked to stop. */
import { expect } from '@playwright/test';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer } from '../torture/process.js';
import { axeInAll, front, open, saved } from './help.js';
import { small } from './small.js';
import { test } from './test.js';

test('a property is taken into one file, and comes back beside what it has become', async ({ page }) => {
  const id = await open(page, 'land', { ...small, name: 'To be kept' });
  await page.getByText('Save as a file').scrollIntoViewIfNeeded();
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: /^Backup, with history/ }).click()]);
  expect(file.suggestedFilename()).toMatch(/^anabatic-.*\.zip$/);
  const path = (await file.path())!;
  await front(page);
  await page.getByLabel('Bring a backup back:').setInputFiles(path);
  const came = page.locator('[data-restored]');
  await expect(came).toContainText('stands here already, equal in every part');
  await axeInAll(page);
  await page.goto(`/p/${id}/land`);
  await page.getByRole('button', { name: 'ft', exact: true }).click();
  await saved(page);
  await front(page);
  await page.getByLabel('Bring a backup back:').setInputFiles(path);
  await expect(came).toContainText('beside the one that stands here');
  await came.getByRole('link', { name: 'To be kept' }).click();
  await expect(page).toHaveURL(/\/p\/p[0-9a-f]{12}\/land$/);
  expect(page.url()).not.toContain(id);
  await expect(page.getByRole('button', { name: 'm', exact: true, pressed: true })).toBeVisible();
  // What is no backup is refused, and nothing is lost.
  await front(page);
  await page.getByLabel('Bring a backup back:').setInputFiles({ name: 'walk.zip', mimeType: 'application/zip', buffer: Buffer.from('no zip') });
  await expect(page.getByRole('alert')).toContainText('walk.zip: not a sound zip archive');
  await expect(page.getByRole('alert')).toContainText('Nothing of it was brought');
}); // prettier-ignore

test('everything comes in one file; the server is well, and keeps a copy of its store for the day', async ({ page }) => {
  const all = await page.request.get('/api/backup');
  expect(all.headers()['content-type']).toBe('application/zip');
  expect((await all.body()).subarray(0, 2).toString()).toBe('PK');
  expect((await page.request.get('/api/backup?property=none')).status()).toBe(404);
  expect(await (await page.request.get('/api/health')).json()).toEqual({ ok: true });
  expect((await page.request.post('/api/restore', { data: Buffer.from('x'), headers: { 'content-type': 'application/zip' } })).status()).toBe(422);
  const day = new Date().toISOString().slice(0, 10);
  await expect.poll(() => existsSync(`test-results/demo.sqlite.backups/${day}.sqlite`)).toBe(true);
}); // prettier-ignore

test('a server that is asked to stop ends what is under way, then goes @all', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
  const server = await startServer(join(folder, 'a.sqlite'), 4396);
  const ended = new Promise<number | null>((done) => server.child.once('exit', (code) => done(code)));
  try {
    const plan = Buffer.from(JSON.stringify({ ...(JSON.parse(readFileSync('demo/hollin-scar.plan.json', 'utf8')) as object), ...small }));
    // The body comes slowly: half of it before the stop, half after.
    const answer = new Promise<number>((done, fail) => {
      const headers = { 'content-type': 'application/json', 'content-length': plan.length, expect: '100-continue' };
      const sent = request(`${server.base}/api/properties`, { method: 'POST', headers }, (r) => {
        r.resume();
        done(r.statusCode!);
      });
      sent.on('error', fail);
      // The server has the request: now it is asked to stop, and when it takes nothing new the rest comes.
      sent.on('continue', () => {
        sent.write(plan.subarray(0, 1000));
        server.child.kill('SIGTERM');
        void expect(async () => { await expect(fetch(`${server.base}/api/health`)).rejects.toThrow(); }).toPass().then(() => sent.end(plan.subarray(1000)), fail);
      });
      sent.flushHeaders();
    });
    expect(await answer).toBe(201);
    expect(await ended).toBe(0);
    // Nothing new is taken.
    await expect(fetch(`${server.base}/api/health`)).rejects.toThrow();
  } finally {
    server.child.kill('SIGKILL');
    rmSync(folder, { recursive: true });
  }
}); // prettier-ignore
