/** Without the server: what was done is there after a reload, and goes out once when the server is there again. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { goStep, saved, stored } from './help.js';

// Elsewhere in the tests the pages come from the server alone.
test.use({ serviceWorkers: 'allow' });

const DEMO = readFileSync('demo/hollin-scar.plan.json', 'utf8');

const feet = (page: Page) =>
  page.getByRole('group', { name: 'Units' }).getByText('ft', { exact: true }).click();

/** A property of its own, opened and kept in the browser: program, records, ground. */
async function keptHere(page: Page): Promise<string> {
  const made = await page.request.post('/api/properties', { headers: { 'content-type': 'application/json' }, data: Buffer.from(DEMO.replace('"Hollin Scar"', '"Out there"')) }); // prettier-ignore
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/p/${id}/rounds`);
  await saved(page);
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    while (!navigator.serviceWorker.controller) await new Promise((wake) => setTimeout(wake, 50));
  });
  // The property itself is kept last of all.
  await expect.poll(() => page.evaluate(() => new Promise<number>((done) => {
    const asked = indexedDB.open('anabatic.field');
    asked.onsuccess = () => {
      const all = asked.result.transaction('records').objectStore('records').count();
      all.onsuccess = () => (asked.result.close(), done(all.result));
    };
  }))).toBeGreaterThanOrEqual(11); // prettier-ignore
  // What is seldom wanted comes after all else: charts, other coordinates, papers.
  const seldom = () =>
    page.evaluate(async () =>
      (await (await caches.open('seldom')).keys()).map((r) =>
        new URL(r.url).pathname.replace(/^.*\/([A-Za-z]+)\..*$/, '$1'),
      ),
    );
  await expect
    .poll(seldom)
    .toEqual(expect.arrayContaining(['charts', 'projection', 'PrintView', 'reasons']));
  return id;
}

test('a day without coverage: five readings, a photo and a line, a reload, and all of it once at the server', async ({ page, context }) => {
  const id = await keptHere(page);
  await context.setOffline(true);
  await page.reload();
  await expect(page.locator('[data-as-of]')).toContainText('the server cannot be reached');

  // Five readings by the keys of the pad.
  const pad = page.locator('[data-pad]');
  await expect(pad).toBeVisible();
  for (const [k, value] of ['5.1', '5.2', '5.3', '5.4', '5.5'].entries()) {
    if (k > 0) while (((await page.locator('[data-now]').textContent()) ?? '').includes('earth')) await page.getByRole('button', { name: 'The next place' }).click();
    await pad.getByRole('textbox').fill(value);
    await page.getByRole('button', { name: 'Done' }).click();
    await expect(page.locator('[data-kept]')).toContainText(`${value} kV`);
  }
  // Something that happened, with a photo.
  await page.getByRole('tab', { name: 'Log', exact: true }).click();
  await page.getByLabel('Photo of what happened').setInputFiles({ name: 'p.png', mimeType: 'image/png', buffer: readFileSync('public/icon-192.png') });
  await expect(page.getByRole('img', { name: /Photo/ }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Put down', exact: true }).click();
  await expect(page.locator('[data-save]')).toContainText('7 kept in this browser');
  // A line by typed places.
  await goStep(page, 'land');
  await page.getByRole('button', { name: 'Draw', exact: true }).click();
  await page.getByLabel(/First place/).fill('10, 20');
  await page.getByLabel(/First place/).press('Enter');
  await page.getByLabel(/Next leg/).fill('100 @ 90');
  await page.getByLabel(/Next leg/).press('Enter');
  await page.getByRole('button', { name: 'Choose' }).click();
  await expect(page.locator('[data-save=waiting]')).toBeVisible();

  // Another day without coverage: all of it is there, and the line that waits can be gone on with.
  await page.reload();
  await expect(page.locator('nav[data-worked]')).toBeVisible();
  await feet(page);
  await goStep(page, 'rounds');
  await page.getByRole('tab', { name: 'Log', exact: true }).click();
  await expect(page.locator('[data-logged]')).toHaveCount(6);

  await context.setOffline(false);
  await saved(page);
  const kept = async (kind: string) => ((await (await page.request.get(`/api/properties/${id}/records/${kind}?since=0`)).json()) as { records: Record<string, unknown>[] }).records;
  await expect.poll(async () => (await kept('readings')).map((r) => r['value'])).toEqual([5100, 5200, 5300, 5400, 5500]);
  await expect.poll(async () => (await kept('events')).length).toBe(1);
  const photo = (await kept('events'))[0]!['photo'] as string;
  await expect.poll(async () => (await page.request.get(`/api/properties/${id}/photos/${photo}`)).status()).toBe(200);
  const { changes } = (await (await page.request.get(`/api/properties/${id}/changes?since=0`)).json()) as { changes: { words: string }[] };
  expect(changes.length).toBeGreaterThanOrEqual(2);
  const lines = Object.values((await stored(page, id)).plan.lines);
  expect(lines.filter((l) => l.vertices.some((v) => v.e === 10 && v.n === 20))).toHaveLength(1);
  expect((await stored(page, id)).plan.units).toBe('imperial');
  // Nothing more is told to be old, and a further reload brings nothing twice.
  await expect(page.locator('[data-as-of]')).toHaveCount(0);
  await page.reload();
  await saved(page);
  expect(await kept('readings')).toHaveLength(5);
  await page.getByRole('tab', { name: 'Log', exact: true }).click();
  await expect(page.locator('[data-logged]')).toHaveCount(6);
}); // prettier-ignore

test('without the server the first page lists what is kept, papers can be read, and what needs it says so @all', async ({ page, context }) => {
  const id = await keptHere(page);
  await context.setOffline(true);
  await page.goto('/');
  await expect(page.getByRole('status')).toContainText('The server cannot be reached');
  await expect(page.getByRole('link', { name: 'Out there' })).toBeVisible();
  await page.goto('/new');
  await expect(page.getByRole('status')).toContainText('This page needs it');
  await page.goto(`/setout/${id}`);
  await expect(page.getByRole('table').first()).toBeVisible();
  await page.goto(`/day/${id}`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.goto(`/p/${id}/faults`);
  await expect(page.locator('nav[data-worked]')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Read next' })).toBeVisible();
}); // prettier-ignore

test('what others did meanwhile stands beside what was done without coverage, and both are shown where they touch @all', async ({ page, context, browser }) => {
  const id = await keptHere(page);
  await context.setOffline(true);
  await page.reload();
  await goStep(page, 'land');
  await feet(page);
  await expect(page.locator('[data-save=waiting]')).toBeVisible();
  // Elsewhere the same thing is changed meanwhile, and changed back and forth.
  const other = await browser.newPage();
  await other.goto(`/p/${id}/land`);
  await saved(other);
  await feet(other);
  await saved(other);
  await context.setOffline(false);
  await expect(page.getByText('Two changes met at the same place.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep theirs' }).click();
  await saved(page);
  expect((await stored(page, id)).plan.units).toBe('imperial');
  await other.close();
}); // prettier-ignore
