import { expect, type Page } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { open, saved, stored } from './help.js';
import { small } from './small.js';
import { test } from './test.js';

const PORT = 4392;
const base = `http://127.0.0.1:${PORT}`;
let folder: string;
let server: ChildProcess;

async function startServer(): Promise<void> {
  server = spawn(
    process.execPath,
    ['bin/anabatic', 'demo', '--db', join(folder, 'd.sqlite'), '--port', String(PORT)],
    { stdio: 'ignore' },
  );
  await expect
    .poll(() =>
      fetch(base).then(
        (r) => r.status,
        () => 0,
      ),
    )
    .toBe(200);
}
const kill = () =>
  new Promise((done) => {
    server.once('exit', done);
    server.kill('SIGKILL');
  });

test.beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
  await startServer();
});
test.afterAll(async () => {
  await kill();
  rmSync(folder, { recursive: true });
});

const planOf = async (page: Page, id = 'hollin-scar') =>
  (
    (await (await page.request.get(`${base}/api/properties/${id}`)).json()) as {
      plan: { lines: Record<string, { name: string }> };
    }
  ).plan;

async function renameTo(page: Page, name: string) {
  const field = page.getByLabel('Name of the line');
  await field.fill(name);
  await field.press('Enter');
}

test('kill -9 amid edits loses nothing that was called saved, and what was not waits in the browser', async ({
  page,
}) => {
  const made = await page.request.post(`${base}/api/properties`, { data: small });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${base}/p/${id}/land`);
  await page.getByRole('button', { name: /^North/ }).click();
  for (let k = 0; k < 8; k++) await renameTo(page, `North ${k}`);
  await saved(page);
  await kill();
  await renameTo(page, 'Made while the server was dead');
  await expect(page.locator('[data-save=waiting]')).toBeVisible();
  await startServer();
  // What the screen had called saved is there before the browser sends the rest.
  expect((await planOf(page, id)).lines['north']!.name).toMatch(/North 7|Made while/);
  await saved(page);
  expect((await planOf(page, id)).lines['north']!.name).toBe('Made while the server was dead');
});

test('an edit made while the server is dead outlives a closed tab @all', async ({
  page,
  context,
}) => {
  await page.goto(`${base}/p/hollin-scar/land`);
  await page.getByRole('button', { name: /^Terrace\s*\d/ }).click();
  await expect(page.getByLabel('Name of the line')).toBeVisible();
  await kill();
  await renameTo(page, 'Kept in the browser');
  await expect(page.locator('[data-save=waiting]')).toBeVisible();
  await page.close();
  await startServer();
  const again = await context.newPage();
  await again.goto(`${base}/p/hollin-scar/land`);
  await saved(again);
  await expect(again.getByRole('button', { name: /^Kept in the browser/ })).toBeVisible();
  expect((await planOf(again)).lines['terrace']!.name).toBe('Kept in the browser');
});

test('kill -9 while a round is put down: what was called saved stands, the rest waits here and goes out once @all', async ({
  page,
}) => {
  await page.goto(`${base}/p/hollin-scar/rounds`);
  const kept = async () =>
    ((await (await page.request.get(`${base}/api/properties/hollin-scar/records/readings?newest=12`)).json()) as { records: { value: number; who: string }[] }).records.filter((r) => r.who === 'K'); // prettier-ignore
  await page.getByLabel('Read by').fill('K');
  await page.getByLabel('Read by').press('Enter');
  const field = page.locator('[data-pad]').getByRole('textbox');
  const put = async (kV: string) => {
    // Always the same place: the round goes on by itself.
    await page.locator('[data-point="steading volts"] button').click();
    await field.fill(kV);
    await field.press('Enter');
  };
  for (const kV of ['3.1', '3.2', '3.3']) {
    await put(kV);
    await expect(page.locator('[data-kept=saved]')).toContainText(`${kV} kV`);
  }
  await kill();
  for (const kV of ['3.4', '3.5']) {
    await put(kV);
    await expect(page.locator('[data-kept=waiting]')).toContainText(`${kV} kV`);
  }
  await page.reload().catch(() => undefined);
  await startServer();
  expect((await kept()).map((r) => r.value).slice(0, 3)).toEqual([3100, 3200, 3300]);
  await page.goto(`${base}/p/hollin-scar/rounds`);
  await expect.poll(async () => (await kept()).map((r) => r.value)).toEqual([3100, 3200, 3300, 3400, 3500]); // prettier-ignore
});

test('two tabs follow one another, merge what does not touch, and show both where it does', async ({
  page,
  context,
}) => {
  const id = await open(page, 'land', small, { own: true });
  const other = await context.newPage();
  // It hears of others by the tab beside it alone: what the server tells by itself would leave no old base.
  await other.route('**/live', (route) => route.abort());
  await other.goto(`/p/${id}/land`);
  // It listens from here on.
  await expect(other.getByRole('button', { name: /^Across\s*\d/ })).toBeVisible();
  await page.getByRole('button', { name: /^Across\s*\d/ }).click();
  await renameTo(page, 'From the first tab');
  await saved(page);
  await expect(other.getByRole('button', { name: /^From the first tab/ })).toBeVisible();

  // The second tab does not hear of the next change: it edits on an old base.
  await other.route('**/changes?since=*', (route) => route.abort());
  await renameTo(page, 'Mine');
  await saved(page);
  await other.getByRole('button', { name: /^North/ }).click();
  await renameTo(other, 'Merged');
  await saved(other);
  let plan = (await stored(page, id)).plan;
  expect([plan.lines['across']!.name, plan.lines['north']!.name]).toEqual(['Mine', 'Merged']);

  await page.getByLabel('Name of the line').fill('Mine again');
  await page.getByLabel('Name of the line').press('Enter');
  await saved(page);
  await other.getByRole('button', { name: 'Back to all lines' }).click();
  await other.getByRole('button', { name: /^(Mine|From the first tab)/ }).click();
  await renameTo(other, 'Theirs');
  await expect(other.getByRole('alert')).toContainText('Two changes met');
  expect((await stored(page, id)).plan.lines['across']!.name).toBe('Mine again');
  await other.getByRole('button', { name: /^Keep mine/ }).click();
  await saved(other);
  plan = (await stored(page, id)).plan;
  expect(plan.lines['across']!.name).toBe('Theirs');
});
