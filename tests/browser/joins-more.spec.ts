/** Joins beyond ties: what a break costs, switches, insulators, crossings; each found, taken, counted. */
import { expect, type Page } from '@playwright/test';
import { axeInAll, open, saved, stored } from './help.js';
import { test } from './test.js';

const yard = async (page: Page, tab: string) => {
  const id = await open(page, 'joins');
  await page.getByRole('button', { name: 'Steading yard', exact: true }).click();
  await page.getByRole('tab', { name: tab, exact: true }).click();
  return id;
};
const supply = async (page: Page, item: string) => {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('8');
  return page.locator(`[data-supply="${item}"]`);
};

test('what a break costs is told, with the one tie that mends it @all', async ({ page }) => {
  const id = await yard(page, 'Fed');
  const told = page.locator('[data-break]');
  await expect(told).toContainText('Nothing would be dead');
  await page.getByLabel('The strand at').selectOption({ label: '650 mm' });
  await page.getByLabel('at: taped').selectOption({ index: 1 });
  await page.getByLabel('at', { exact: true }).fill('20');
  await page.keyboard.press('Enter');
  await expect(told).toContainText(/2[0-9].{0,3}m.* of live strand would be dead/);
  await expect(told).toContainText(/0\.00.kV then/);
  await axeInAll(page);
  await page.getByRole('button', { name: 'Tie it', exact: true }).first().click();
  await expect(told).toContainText('Nothing would be dead');
  await saved(page);
  const joins = (await stored(page, id)).plan.lines['yard']!.joins!;
  expect(joins.flatMap((j) => j.ties).length).toBeGreaterThan(5);
  // None of the fence's breaks costs a tenth of it; asked for next to nothing, ties are proposed or none helps.
  await expect(page.locator('[data-more]')).toContainText('None is wanted');
  await page.getByLabel('No single break may darken more than').fill('900');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/No single break may darken more than.*100/)).toBeVisible();
});

test('switches that halve the search go in together, are drawn, bought, and undone @all', async ({
  page,
}) => {
  const id = await yard(page, 'Switches');
  const openings = page.getByRole('group', { name: /^Openings of Steading unit/ });
  await expect(openings.getByRole('row').nth(1)).toBeVisible();
  await expect(page.locator('[data-switches=steading]')).toContainText(/no part is longer than 20.min/); // prettier-ignore
  await axeInAll(page);
  const row = openings.getByRole('row').nth(1);
  const n = await row.getByRole('listitem').count();
  await row.getByRole('button', { name: /^Put the switches of opening 1 in/ }).click();
  await saved(page);
  const switches = async () =>
    Object.values((await stored(page, id)).plan.lines)
      .flatMap((l) => l.joins ?? [])
      .flatMap((j) => j.ties)
      .filter((t) => t.switch).length;
  await expect.poll(switches).toBe(n);
  // No strand is dead or hangs on one end for it.
  await expect(page.locator('[data-finding="strand-one-sided"]')).toHaveCount(1);
  await expect(openings.getByText('is in', { exact: true }).first()).toBeVisible();
  const item = await supply(page, 'switch.cutout');
  await expect(item).toContainText(String(n));
  await item.getByRole('button', { name: 'Cut-out switch', exact: true }).click();
  const detail = page.locator('[data-detail="switch.cutout"]');
  await detail.getByText(`at ${n} places`).click();
  await expect(detail).toContainText('Burn side');
  await page.keyboard.press('Control+z');
  await expect(item).toHaveCount(0);
});

test('an insulator that does not suit is found and mended', async ({ page }) => {
  await yard(page, 'Insulators');
  const kind = page.getByLabel('Insulator at posts of timber');
  await kind.selectOption('claw');
  const found = page.locator('[data-finding="insulator-unsuited"]');
  await expect(found).toBeVisible();
  await axeInAll(page);
  await found.getByRole('button').first().click();
  await expect(found).toContainText('stiff wire springs out of a claw');
  await found.getByRole('button', { name: /^Mend:/ }).click();
  await found.getByRole('button', { name: 'Take it' }).click();
  await expect(found).toHaveCount(0);
  await expect(kind).toHaveValue('');
});

test('a span that is taken down is counted; taps do not hold it', async ({ page }) => {
  await yard(page, 'Crossings');
  await page.getByRole('button', { name: 'Put in', exact: true }).click();
  const table = page.getByRole('group', { name: 'Crossings' });
  await expect(table).toContainText(/6 × wedge joiner/);
  await table.getByLabel('Joiners').selectOption('tap');
  const found = page.locator('[data-finding="tap-in-tension"]');
  await expect(found).toBeVisible();
  await axeInAll(page);
  await table.getByLabel('Width').fill('abc');
  await page.keyboard.press('Enter');
  await expect(table.getByText(/number/i)).toBeVisible();
  await page.keyboard.press('Escape');
  await table.getByLabel('Joiners').selectOption('wedge');
  await expect(found).toHaveCount(0);
  const item = await supply(page, 'joiner.wedge');
  await item.getByRole('button', { name: 'Wedge joiner, with its key', exact: true }).click();
  await expect(page.locator('[data-detail="joiner.wedge"]')).toContainText('at 1 place');
});

test('a gate says what lies under it', async ({ page }) => {
  const id = await open(page, 'joins');
  await page.getByRole('button', { name: 'Burn side', exact: true }).click();
  await page.getByRole('group', { name: 'Places' }).getByRole('button', { name: /at a gate/ }).first().click(); // prettier-ignore
  const under = page.getByRole('group', { name: /^Under / });
  await under.getByLabel('deep').fill('100');
  await page.keyboard.press('Enter');
  const found = page.locator('[data-finding="gate-cable-shallow"]');
  await expect(found).toBeVisible();
  await under.getByLabel('cable for the live strands').uncheck();
  await expect(found).toHaveCount(0);
  await saved(page);
  const gates = Object.values((await stored(page, id)).plan.gates);
  expect(gates.some((g) => !g.cable && g.depth_m === 0.1)).toBe(true);
});
