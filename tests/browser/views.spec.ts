import { expect } from '@playwright/test';
import { axe, open, saved, stored } from './help.js';
import { test } from './test.js';
import { small } from './small.js';
import { ALL } from '../often.js';

test('no view has an accessibility fault', async ({ page }) => {
  await page.goto('/');
  await axe(page);
  await page.goto('/new');
  await axe(page);
  // The whole demo in the whole run; else a property of three lines, whose views have the same parts.
  await open(page, 'land', ALL ? {} : small);
  await page.getByRole('button', { name: ALL ? /^Middle west/ : /^North/ }).click();
  await axe(page);
  for (const [key, name] of [
    ['2', /Strands/],
    ['3', /Section/],
    ['4', /Power/],
    ['5', /Joins/],
    ['6', /Ends/],
    ['7', /Strain/],
    ['8', /Supplies/],
    ['9', /Build/],
    ['o', /Rounds/],
    ['a', /Faults/],
  ] as const) {
    await page.keyboard.press(key);
    await expect(page.getByRole('link', { name, exact: false }).first()).toHaveAttribute('aria-current', 'page'); // prettier-ignore
    await expect(page.getByText('Working it out')).toHaveCount(0);
    await axe(page);
  }
});

test('steps go by key and by rail, and back goes back', async ({ page }) => {
  await open(page, 'land', small);
  await page.keyboard.press('4');
  await expect(page).toHaveURL(/power$/);
  await page.getByRole('link', { name: /Supplies/ }).click();
  await expect(page.getByRole('heading', { name: 'Supplies' })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('tab', { name: 'Volts' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Ctrl+Z');
});

test('power: a weaker unit reads lower, the origin opens, own figures are kept and can be undone', async ({
  page,
}) => {
  const id = await open(page, 'power');
  const worst = page.locator('[data-worst=wet]');
  const volts = async () => Number(/[\d.]+/.exec((await worst.textContent())!)![0]);
  const before = await volts();
  await page.getByRole('tab', { name: 'Unit' }).click();
  await page
    .getByRole('row', { name: /^M 1 mains/ })
    .getByRole('button', { name: 'choose: M 1 mains' })
    .click();
  await page.getByRole('tab', { name: 'Volts' }).click();
  await expect.poll(volts).toBeLessThan(before);
  await page.keyboard.press('Control+z');
  await expect.poll(volts).toBe(before);

  await worst.getByRole('button', { name: /^Where/ }).click();
  const sheet = page.getByRole('dialog');
  await expect(sheet).toContainText('Leakage of a strand of the usual five');
  await sheet.getByRole('button', { name: 'put my own figure in' }).first().click();
  await sheet.getByRole('textbox').fill('nonsense');
  await sheet.getByRole('button', { name: 'Take it' }).click();
  await expect(sheet.getByRole('alert')).toContainText('above 0');
  await sheet.getByRole('textbox').fill('0.9');
  await sheet.getByRole('button', { name: 'Take it' }).click();
  await expect.poll(volts).toBeLessThan(before);
  await saved(page);
  const { plan } = await stored(page, id);
  expect(
    (plan as unknown as { overrides: Record<string, { value: number }> }).overrides[
      'seasons.wet.leakage_S_per_km'
    ]!.value,
  ).toBeCloseTo(9e-4, 9);
});

test('power: the rods that are proposed meet the earth test', async ({ page }) => {
  const id = await open(page, 'power');
  await page.getByRole('tab', { name: 'Earth' }).click();
  await expect(page.locator('[data-earth-reading]')).toContainText('over');
  await page.getByRole('button', { name: /^Set \d+$/ }).click();
  await expect(page.locator('[data-earth-reading]')).not.toContainText('over');
  await saved(page);
  expect((await stored(page, id)).plan.energisers['steading']!.rods).toBeGreaterThan(4);
});

test('strain: a firmer school sets more, and imperial shows pounds @all', async ({ page }) => {
  await open(page, 'strain');
  await page
    .getByRole('group', { name: 'Lines' })
    .getByRole('button', { name: 'Ridge dyke' })
    .click();
  const set = page.locator('[data-set-today]').first();
  await expect(set).toContainText('N');
  const figure = async () => Number((await set.textContent())!.replace(/[^\d]/g, ''));
  const moderate = await figure();
  await page.getByRole('button', { name: /^firm/ }).click();
  await expect.poll(figure).toBeGreaterThan(moderate);
  await page.getByRole('button', { name: 'ft', exact: true }).click();
  await expect(set).toContainText('lbf');
});

test('supplies: a price counts at once, and the order list is CSV', async ({ page }) => {
  await open(page, 'supplies', small);
  const total = page.locator('[data-total]');
  const before = await total.textContent();
  const price = page.getByLabel('Price of Line insulator, for steel section');
  await price.fill('-3');
  await price.press('Enter');
  await expect(page.getByRole('alert')).toBeVisible();
  await price.fill('9.5');
  await price.press('Enter');
  await expect(total).not.toHaveText(before!);
  await saved(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /Order list/ }).click(),
  ]);
  const { readFileSync } = await import('node:fs');
  const csv = readFileSync((await download.path())!, 'utf8');
  expect(csv).toMatch(/^item,quantity,unit/);
  expect(csv).toMatch(/"Line insulator, for steel section",\d+,each,9\.50/);
});

test('a finding points at its place; its mend is shown, taken and undone', async ({ page }) => {
  const id = await open(page);
  const { revision } = await stored(page, id);
  const row = page.locator('[data-finding="gate-no-cable"]');
  await row.getByRole('button').first().click();
  await row.getByRole('button', { name: /^Mend:/ }).click();
  await expect(row).toContainText('no → yes');
  await row.getByRole('button', { name: 'Take it' }).click();
  await expect(row).toHaveCount(0);
  await saved(page);
  // Beside the words of what was done, as well as above.
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(row).toHaveCount(1);
  await saved(page);
  expect((await stored(page, id)).revision).toBe(revision + 2);
});

test('field screens fit a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, 'strain');
  for (const step of ['strain', 'power', 'land']) {
    await page.getByRole('link', { name: new RegExp(step, 'i') }).click();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(wide).toBeLessThanOrEqual(0);
  }
});
