/** "Saved" is true, and what stands in the way of it is said: storage, refusals, a worker that fails. */
import { expect, test as alone } from '@playwright/test';
import { open, saved, stored, figures } from './help.js';
import { small } from './small.js';
import { test } from './test.js';

const rename = async (page: import('@playwright/test').Page, name: string) => {
  const field = page.getByLabel('Name of the line');
  await field.fill(name);
  await field.press('Enter');
};

test.describe('without room', () => {
  test.use({ fresh: true });
  test('a browser without room: the change is shown, saved all the same, and said', async ({
    page,
  }) => {
    await page.addInitScript(() => {
      const full = () => {
        throw new DOMException('full', 'QuotaExceededError');
      };
      IDBObjectStore.prototype.add = full;
      Storage.prototype.setItem = full;
    });
    const id = await open(page, 'land', small);
    await page.getByRole('button', { name: /^North/ }).click();
    await rename(page, 'Kept by the server');
    await expect(page.getByRole('alert')).toContainText('no room left to keep changes');
    await saved(page);
    expect((await stored(page, id)).plan.lines['north']!.name).toBe('Kept by the server');
    // The guided start goes on as well.
    await page.goto('/new');
    await page.getByLabel('Name').fill('Half answered');
    await expect(page.getByText('This browser has no room left')).toBeVisible();
  });
});

test('an answer of 413 keeps the change, shows it, and lets it be sent again', async ({ page }) => {
  const id = await open(page, 'land', small);
  await page.route('**/changes', (route) =>
    route.fulfill({ status: 413, json: { error: 'larger than 8 MB' } }),
  );
  await page.getByRole('button', { name: /^North/ }).click();
  await rename(page, 'Too large');
  const alert = page.getByRole('alert').filter({ hasText: 'Not saved' });
  await expect(alert).toContainText('larger than 8 MB');
  await expect(page.locator('[data-save=waiting]')).toBeVisible();
  await expect(alert.getByRole('link', { name: 'Download it' })).toHaveAttribute(
    'download',
    /json$/,
  );
  await page.reload();
  // Kept over a reload, and refused again.
  await expect(alert).toContainText('larger than 8 MB');
  await expect(page.getByRole('button', { name: /^Too large/ })).toBeVisible();
  await page.unroute('**/changes');
  await alert.getByRole('button', { name: 'Try again' }).click();
  await saved(page);
  expect((await stored(page, id)).plan.lines['north']!.name).toBe('Too large');
});

test('what the server will never take leaves the screen, with its reason and a download', async ({
  page,
}) => {
  await open(page, 'land', small);
  await page.route('**/changes', (route) =>
    route.fulfill({ status: 422, json: { error: '/lines: no good' } }),
  );
  await page.getByRole('button', { name: /^North/ }).click();
  await rename(page, 'Refused');
  const alert = page.getByRole('alert').filter({ hasText: 'Not taken' });
  await expect(alert).toContainText('/lines: no good');
  await expect(alert.getByRole('link', { name: 'Download it' })).toBeVisible();
  await expect(page.getByLabel('Name of the line')).toHaveValue('North');
  await alert.getByRole('button', { name: 'Understood' }).click();
  await expect(alert).toHaveCount(0);
});

test('forty-four changes, as many undos, a reload, and one redo @all', async ({ page }) => {
  // More than come along when a property is opened: the bodies of the oldest are fetched.
  const id = await open(page, 'land', small);
  const patch = (k: number) => [{ op: 'replace', path: '/lines/north/name', value: `Name ${k}` }];
  for (let k = 1; k <= 44; k++) {
    const back = k === 1 ? [{ op: 'replace', path: '/lines/north/name', value: 'North' }] : patch(k - 1); // prettier-ignore
    const data = { changeId: `change-${id}-${k}`, tab: 'test-tab', base: k - 1, kind: 'do', words: `${k}`, patch: patch(k), inverse: back }; // prettier-ignore
    expect((await page.request.post(`/api/properties/${id}/changes`, { data })).status()).toBe(200);
  }
  await page.reload();
  await page.getByRole('button', { name: /^Name 44/ }).waitFor();
  const undo = page.getByRole('button', { name: /^Undo/ });
  for (let k = 0; k < 44; k++) await undo.click();
  await expect(undo).toBeDisabled();
  await expect(page.locator('[data-save=saved]')).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: /^Redo/ }).click();
  await saved(page);
  expect((await stored(page, id)).plan.lines['north']!.name).toBe('Name 1');
});

test('Undo stays where it is while the words of saving grow and shrink beside it', async ({
  page,
}) => {
  await open(page, 'land', small);
  const place = () => page.getByRole('button', { name: /^Undo/ }).boundingBox();
  const at = await place();
  let answer = () => {};
  const held = new Promise<void>((done) => (answer = done));
  await page.route('**/changes', async (route) => {
    await held;
    await route.abort();
  });
  await page.getByRole('button', { name: /^North/ }).click();
  await rename(page, 'On its way');
  await expect(page.locator('[data-save=saving]')).toBeVisible();
  expect(await place()).toEqual(at);
  answer();
  const state = page.locator('[data-save=waiting]');
  await expect(state).toContainText('no server since');
  expect(await place()).toEqual(at);
  await page.unroute('**/changes');
  await saved(page);
  expect(await place()).toEqual(at);
});

test('an address that names no step leads to the first, with a word', async ({ page }) => {
  const id = await open(page, 'land', small);
  await page.goto(`/p/${id}/nonsense`);
  await expect(page.getByRole('alert')).toContainText('There is no step called "nonsense"');
  await expect(page.getByRole('main', { name: 'Land' })).toBeVisible();
});

// In a browser that has nothing of it yet.
alone(
  'opening the demo, its worker too, takes under 560 kB on the wire, and breaks no rule of its own policy',
  async ({ page }) => {
    const client = await page.context().newCDPSession(page);
    await client.send('Network.enable');
    let bytes = 0;
    client.on('Network.loadingFinished', (e) => (bytes += e.encodedDataLength));
    const broken: string[] = [];
    const files: string[] = [];
    client.on('Network.responseReceived', (e) => files.push(e.response.url));
    page.on(
      'console',
      (m) => m.text().includes('Content Security Policy') && broken.push(m.text()),
    );
    await page.goto('/p/hollin-scar/land');
    await figures(page);
    // The line on which others are heard stays open: quiet is when nothing more comes.
    for (let last = -1; bytes !== last;) {
      last = bytes;
      await page.waitForTimeout(600);
    }
    console.log(`opening the demo: ${Math.round(bytes / 1000)} kB on the wire`);
    expect(bytes, files.join('\n')).toBeLessThan(560_000);
    for (const key of ['2', '3', '4', '5', '6', '7', '8']) {
      await page.keyboard.press(key);
      await page.waitForTimeout(300);
    }
    expect(broken).toEqual([]);
  },
);
