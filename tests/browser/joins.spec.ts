/** The Joins step: found, tied, put back, printed; by press, by list and by keyboard. */
import { expect } from '@playwright/test';
import { axeInAll, open, saved, stored } from './help.js';
import { test } from './test.js';

const yard = async (page: Parameters<typeof open>[0]) => {
  const id = await open(page, 'joins');
  await page.getByRole('button', { name: 'Steading yard', exact: true }).click();
  await page.getByRole('group', { name: 'Places' }).getByRole('button', { name: /78 m, corner/ }).click(); // prettier-ignore
  return id;
};
const ends = (page: Parameters<typeof open>[0]) => page.getByRole('group', { name: 'Wiring, corner' }).getByRole('button'); // prettier-ignore

test('a strand that is dead at a corner is found and mended from the list', async ({ page }) => {
  const id = await yard(page);
  await expect(ends(page)).toHaveCount(6);
  await expect(page.getByRole('button', { name: 'goes on, 950 mm live, dead' })).toBeVisible();
  await expect(page.getByText(/live strand is dead/)).toBeVisible();
  // Drawn so in the section too.
  await expect(page.locator('[data-track=ground] [data-fed=dead]')).toHaveCount(1);
  await axeInAll(page);
  const row = page.locator('[data-finding="strand-dead"]');
  await row.getByRole('button').first().click();
  await row.getByRole('button', { name: /^Mend:/ }).click();
  await row.getByRole('button', { name: 'Take it' }).click();
  await expect(row).toHaveCount(0);
  await saved(page);
  await expect
    .poll(async () => (await stored(page, id)).plan.lines['yard']!.joins?.length ?? 0)
    .toBe(0);
  await expect(page.getByText(/of live strand is fed/)).toBeVisible();
});

test('two ends pressed are tied and lit at once, pressed again untied; the list does the same, and undo', async ({ page }) => {
  const id = await yard(page);
  const top = page.getByRole('button', { name: /^goes on, 950 mm live/ });
  await page.getByRole('button', { name: /^from before, 950 mm live/ }).click();
  await expect(page.getByText(/^Held: from before, 950.mm live/)).toBeVisible();
  await top.click();
  await expect(top).toHaveAccessibleName(/fed from one end/);
  await saved(page);
  const ties = async () => (await stored(page, id)).plan.lines['yard']!.joins![0]!.ties.length;
  await expect.poll(ties).toBe(5);
  // By keyboard: the same two ends again.
  await page.getByRole('button', { name: /^from before, 950 mm live/ }).focus();
  await page.keyboard.press('Enter');
  await top.focus();
  await page.keyboard.press('Enter');
  await expect(top).toHaveAccessibleName(/dead/);
  // Out of the lists, as a thumb does it.
  await page.getByLabel('Tie', { exact: true }).selectOption('2');
  await page.getByLabel('to', { exact: true }).selectOption('5');
  await page.getByRole('button', { name: 'Tie', exact: true }).click();
  await expect(top).toHaveAccessibleName(/fed from one end/);
  await page.getByRole('button', { name: 'Untie from before, 950 mm live and goes on, 950 mm live' }).click(); // prettier-ignore
  await expect(top).toHaveAccessibleName(/dead/);
  await page.keyboard.press('Control+z');
  await expect(top).toHaveAccessibleName(/fed from one end/);
  await page.getByRole('button', { name: 'As proposed', exact: true }).click();
  await expect(page.getByText('as proposed', { exact: true })).toBeVisible();
  await page.reload();
  await expect.poll(async () => (await stored(page, id)).plan.lines['yard']!.joins?.length).toBe(1);
}); // prettier-ignore

test('another kind of connector is counted on Supplies, and its ageing is told', async ({
  page,
}) => {
  const id = await open(page, 'joins');
  await page.getByRole('tab', { name: 'Connectors' }).click();
  const kinds = page.getByRole('group', { name: 'Kinds of connector' });
  await expect(kinds.getByRole('row', { name: /Tied by hand/ })).toContainText('%'); // prettier-ignore
  await kinds.getByRole('button', { name: 'Take: Open tap crimp' }).click();
  await saved(page);
  expect((await stored(page, id)).plan.connectors).toBe('tap');
  await page.keyboard.press('8');
  await expect(page.getByText('Open tap crimp').first()).toBeVisible();
});

test('the sheets of a line are one A5 page each, with nothing to choose on paper', async ({ page }) => {
  const id = await open(page, 'joins');
  await page.goto(`/wiring/${id}?line=yard`);
  await expect(page.getByRole('region', { name: /^Wiring \d/ })).toHaveCount(4);
  await expect(page.getByText('As tied here a strand is dead')).toHaveCount(2);
  await axeInAll(page);
  // What is written fits the room that the drawing keeps for it.
  const wide = await page.locator('.wiring text').evaluateAll((all) => all.filter((t) => (t as SVGTextElement).getBBox().width > 97).map((t) => t.textContent)); // prettier-ignore
  expect(wide).toEqual([]);
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  expect(pdf.match(/\/Type\s*\/Page\b/g)).toHaveLength(4);
  await page.goto(`/wiring/${id}?line=none`);
  await expect(page.getByRole('alert')).toContainText('no such line');
}); // prettier-ignore
