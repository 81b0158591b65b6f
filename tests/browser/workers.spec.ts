/** A worker whose program does not load: said in words, and mended by itself when it does. */
import { expect, type Page } from '@playwright/test';
import { figures, open, saved, stored } from './help.js';
import { small } from './small.js';
import { test } from './test.js';

// What stands in the way of the worker or of storage is there before the page is.
test.use({ fresh: true });

/** The file of a worker is not there from now on; gives the way to put it back. */
async function gone(page: Page, file: RegExp): Promise<() => Promise<void>> {
  await page.route(file, (route) => route.fulfill({ status: 404, body: 'gone' }));
  return () => page.unroute(file);
}

test('what works the fence out is gone: it is said, what is drawn is kept, and it comes by itself', async ({
  page,
}) => {
  const back = await gone(page, /\/_astro\/worker-[^/]*\.js$/);
  const answer = await page.request.post('/api/properties', { data: small });
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`/p/${id}/land`);
  const said = page.getByText('Nothing is worked out at the moment');
  await expect(said).toBeVisible();
  await expect(page.locator('nav[data-worked]')).toHaveCount(0);
  await page.getByRole('button', { name: /^North/ }).click();
  await page.getByLabel('Name of the line').fill('Saved all the same');
  await page.getByLabel('Name of the line').press('Enter');
  await saved(page);
  expect((await stored(page, id)).plan.lines['north']!.name).toBe('Saved all the same');
  await back();
  await figures(page);
  await expect(said).toHaveCount(0);
});

test('what answers questions is gone: it is said, and the plan of work comes by itself', async ({ page }) => {
  await open(page, 'land', small);
  const back = await gone(page, /\/_astro\/questions[^/]*\.js$/);
  await page.locator('nav[aria-label=Steps] a[href$="/build"]').click();
  // In the place of the answer.
  const said = page.getByRole('main').getByText('Planning the work: this could not be worked out now');
  await expect(said).toBeVisible();
  await expect(page.locator('[data-planned=true]')).toHaveCount(0);
  await back();
  await expect(page.locator('[data-planned=true]')).toBeVisible();
  await expect(said).toHaveCount(0);
}); // prettier-ignore

test('a part of the page that does not come is said, and the page comes by itself', async ({ page }) => {
  const answer = await page.request.post('/api/properties', { data: small });
  const { id } = (await answer.json()) as { id: string };
  let cut = 0;
  await page.route(/\/_astro\/controls[^/]*\.js$/, (route) => (cut++ < 2 ? route.abort('connectionreset') : route.continue()));
  await page.goto(`/p/${id}/land`, { waitUntil: 'commit' });
  await expect(page.getByText('A part of the program did not come')).toBeVisible();
  await expect(page.getByRole('button', { name: /^North/ })).toBeVisible();
  expect(cut).toBeGreaterThan(1);
  await expect(page.locator('[data-late]')).toBeHidden();
}); // prettier-ignore
