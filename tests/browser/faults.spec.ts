/** Faults: a search that leads from place to place, its map and section, and the practice hunt. */
import { expect, type Page } from '@playwright/test';
import { axeInAll, empty, open } from './help.js';
import { test } from './test.js';
import { small } from './small.js';

const records = async (page: Page, id: string) =>
  ((await (await page.request.get(`/api/properties/${id}/records/readings?since=0`)).json()) as { records: Record<string, unknown>[] }).records; // prettier-ignore
const put = async (page: Page, text: string) => {
  const field = page.locator('[data-pad]').getByRole('textbox');
  await field.fill(text);
  await page.getByRole('button', { name: 'Done' }).click();
};

test('a search begins at the unit, leads to the next place, shows where it lies, and begins anew', async ({
  page,
}) => {
  const id = await open(page, 'faults', small, { own: true });
  await expect(page.locator('[data-now]')).toHaveText(/terminal/);
  await expect(page.locator('[data-next]')).toContainText('tells unit and earth from everything else');
  await put(page, '4.0');
  await expect(page.locator('[data-now]')).toHaveText(/earth/);
  await put(page, '300');
  const next = page.locator('[data-next][aria-busy=false] button').first();
  await expect(next).toBeVisible();
  const place = (await next.locator('.font-semibold').innerText()).trim();
  await expect(page.locator('[data-now]')).toHaveText(place);
  await axeInAll(page);
  // What was said stays in its place until one reading more is weighed.
  await expect(page.locator('[data-likeliest]')).toBeVisible();
  await page.evaluate(() => {
    const seen = Object.assign(window, { gone: 0 });
    const look = () => (seen.gone += document.querySelector('[data-likeliest]') ? 0 : 1);
    new MutationObserver(look).observe(document.body, { subtree: true, childList: true });
  });
  // A meter that shows both: volts, then amps at the same place.
  await page.getByLabel('my meter shows amps and their direction too').check();
  await put(page, '3.9');
  await expect(page.locator('[data-now]')).toHaveText(place);
  await put(page, '1.5');
  await expect.poll(async () => (await records(page, id)).map((r) => r['kind'])).toEqual(['volts', 'earth_volts', 'volts', 'amps']); // prettier-ignore
  await expect(page.locator('[data-likeliest]')).toBeVisible();
  expect(await page.evaluate(() => (window as unknown as { gone: number }).gone)).toBe(0);
  // Another is offered: what was read is not read again.
  await expect(page.locator('[data-now]')).not.toHaveText(place);
  await next.click();
  await expect(page.locator('[data-track=chance]')).toBeVisible();
  await page.getByText('Why, and what else it may be').click();
  await expect(page.getByText(/readings weighed, by Bayes/)).toBeVisible();
  await page.reload();
  await expect(page.locator('[data-likeliest]')).toBeVisible();
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await expect(page.getByText('Nothing was read for this search yet')).toBeVisible();
  expect((await records(page, id)).length).toBe(4);
}); // prettier-ignore

test('the demo’s fault: the chance on the map, and the practice hunt that is kept on reload @all', async ({ page }) => {
  const { id } = (await (await page.request.post('/api/sample', { data: {} })).json()) as { id: string };
  const kept = (await records(page, id)).length;
  await page.goto(`/p/${id}/faults`);
  await expect(page.locator('[data-likeliest=leak]')).toBeVisible();
  await expect(page.getByText('one half lies here')).toBeVisible();
  await page.getByRole('button', { name: 'Practice hunt' }).click();
  await page.getByRole('button', { name: 'Hide a fault' }).click();
  await expect(page.locator('[data-minutes]')).toContainText('5 min');
  await axeInAll(page);
  const tells = page.getByRole('button', { name: /^Tells most/ });
  await expect(tells).toBeVisible();
  await tells.click();
  await expect(page.locator('[data-minutes]')).not.toContainText('5 min so far');
  const minutes = await page.locator('[data-minutes]').innerText();
  await page.reload();
  await page.getByRole('button', { name: 'Practice hunt' }).click();
  await expect(page.locator('[data-minutes]')).toHaveText(minutes);
  // Without the help, by a place of one's own.
  await page.getByLabel('show what the readings say').uncheck();
  await expect(tells).toBeHidden();
  await page.getByRole('combobox', { name: 'Line' }).selectOption('ridge');
  await page.getByLabel('from its start').fill('400');
  await page.getByLabel('from its start').press('Enter');
  await page.getByRole('button', { name: 'Go and read' }).click();
  await expect(page.locator('[data-shown] li').first()).toContainText('Ridge dyke, 400');
  await page.getByRole('button', { name: 'Give up' }).click();
  await expect(page.locator('[data-ended=given]')).toBeVisible();
  await expect(page.locator('[data-ended]')).toContainText('going where it tells most');
  await expect(page.getByText('The clue:')).toBeVisible();
  await axeInAll(page);
  await page.getByRole('button', { name: 'Another' }).click();
  await expect(page.getByRole('button', { name: 'Hide a fault' })).toBeVisible();
  // Nothing of it went into the log.
  expect((await records(page, id)).length).toBe(kept);
}); // prettier-ignore

test('in the hand the search stands on the sheet; an empty store says what is wanted', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, 'faults', small, { own: true });
  await page.getByRole('button', { name: 'Search' }).first().click();
  await expect(page.locator('[data-faults]')).toBeVisible();
  await axeInAll(page);
  await page.setViewportSize({ width: 1280, height: 800 });
  await open(page, 'faults', empty);
  await expect(page.getByText('No unit feeds a line yet')).toBeVisible();
});

test.describe('with a position', () => {
  // The demo's origin (scripts/make-demo.ts): the unit stands 105 m north of it.
  test.use({ geolocation: { longitude: -30, latitude: 48, accuracy: 4 }, permissions: ['geolocation'] }); // prettier-ignore
  test('the phone leads there: how far, and which way', async ({ page, context }) => {
    await open(page, 'faults', small, { own: true });
    await page.getByRole('button', { name: 'Lead me there' }).click();
    await expect(page.getByText(/^10[45]\sm north/)).toBeVisible();
    const lead = page.getByRole('button', { name: 'Lead me there' });
    await lead.click();
    await expect(page.getByText(/m north/)).toBeHidden();
    await context.setGeolocation({ longitude: -30, latitude: 48.002, accuracy: 4 });
    await lead.click();
    await expect(page.getByText(/^11[678]\sm south/)).toBeVisible();
  });
});

test('a switch opened is put down, said beside what is read, and closed again @all', async ({ page }) => {
  const id = await open(page, 'faults', small, { own: true });
  await put(page, '4.0');
  await put(page, '300');
  const switches = page.locator('[data-switches]');
  await switches.locator('summary').click();
  await switches.getByRole('combobox', { name: 'Line' }).selectOption({ index: 1 });
  await switches.getByLabel('from its start').fill('30');
  await switches.getByLabel('from its start').press('Enter');
  await switches.getByRole('button', { name: 'I parted the fence here' }).click();
  await expect(page.locator('[data-parted]')).toContainText('parted at');
  await expect(page.locator('[data-now]')).toContainText('30.0');
  await axeInAll(page);
  await put(page, '6.1');
  await page.getByText(/^\d+ readings, /).click();
  await expect(page.getByText(/a switch open/)).toHaveCount(1);
  await expect(page.locator('[data-likeliest]')).toBeVisible();
  await page.reload();
  await expect(page.locator('[data-open]')).toContainText('open');
  await page.getByRole('button', { name: /^Closed again/ }).click();
  await expect(page.locator('[data-parted]')).toHaveCount(0);
  const { records: events } = (await (await page.request.get(`/api/properties/${id}/records/events?since=0`)).json()) as { records: { what: string; at_m: number }[] };
  await expect.poll(() => events.map((e) => e.what)[0]).toBe('switch_open');
  expect(events[0]!.at_m).toBeCloseTo(30, 1);
}); // prettier-ignore
