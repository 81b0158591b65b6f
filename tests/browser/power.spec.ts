/** The Power step as a buyer uses it. */
import { expect, type Page } from '@playwright/test';
import { axeInAll, goStep, open, saved, stored, found } from './help.js';
import { test } from './test.js';

const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const kV = (text: string | null) => Number(/([\d.]+)\s*kV/.exec(text ?? '')![1]);

test('the volts stand on map and section, and the season repaints them', async ({ page }) => {
  await open(page, 'power');
  await expect(page.getByLabel(/^Map of the volts/)).toBeVisible();
  await expect(page.getByText('the aim and 25 % more')).toBeVisible();
  // The section below shows the worst place by itself.
  await expect(page.getByRole('slider', { name: /Cursor along Burn side/ })).toBeVisible();
  const head = page
    .locator('[data-power-panel]')
    .getByText(/^worst point/)
    .first();
  const wet = kV(await head.textContent());
  await page.getByRole('radio', { name: 'not cut' }).or(page.getByRole('button', { name: 'not cut' })).first().click(); // prettier-ignore
  await expect.poll(async () => kV(await head.textContent())).toBeLessThan(wet);
  await axeInAll(page);
});

test('a line that was drawn and taken back is no longer chosen: Power shows its worst place', async ({ page }) => {
  await open(page, 'land');
  const at = (await page.locator('[data-map]').boundingBox())!;
  await page.keyboard.press('d');
  for (const x of [0.35, 0.55]) await page.mouse.click(at.x + x * at.width, at.y + 0.97 * at.height);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('slider', { name: /^Cursor along/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('slider', { name: /^Cursor along/ })).toHaveCount(0);
  await saved(page);
  await goStep(page, 'power');
  await expect(page.getByRole('slider', { name: /Cursor along Burn side/ })).toBeVisible();
}); // prettier-ignore

test('no unit is enough for the demo: what helps is ranked, judged, and splitting is done and undone @all', async ({ page }) => {
  // Some seconds of work for the machine, and a busy machine has others to serve.
  test.slow();
  const id = await open(page, 'power');
  await tab(page, 'Unit');
  await expect(page.locator('[data-recommended=none]')).toContainText('No unit within the limit');
  const remedies = page.getByRole('group', { name: 'What would help' });
  await expect(remedies.getByRole('row').nth(1)).toContainText('kV');
  const shares = await remedies.getByText(/% of the aim/).allTextContents();
  const figures = shares.map((t) => Number(/(\d+)/.exec(t)![1]));
  expect(figures).toEqual([...figures].sort((a, b) => b - a));
  await axeInAll(page);
  await page.getByRole('button', { name: /^Two fences instead of one/ }).click();
  const offer = page.locator('[data-split]');
  await expect(offer).toContainText('does not conduct');
  await offer.getByRole('button', { name: 'Part it' }).click();
  await saved(page);
  await expect.poll(async () => Object.keys((await stored(page, id)).plan.energisers).length).toBe(3);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Object.keys((await stored(page, id)).plan.energisers).length).toBe(2);
}); // prettier-ignore

test('a plate of one’s own is taken when it can be, and asked about when it cannot @all', async ({ page }) => {
  const id = await open(page, 'power');
  await tab(page, 'Unit');
  await page.getByRole('button', { name: 'I have another unit' }).click();
  const form = page.getByRole('form', { name: /^Plate of/ });
  const fill = async (label: string, text: string) => {
    await form.getByLabel(label, { exact: true }).fill(text);
    await form.getByLabel(label, { exact: true }).press('Tab');
  };
  await fill('Output into 500 ohm', '9');
  await form.getByRole('button', { name: 'Take this plate' }).click();
  await expect(form.getByRole('alert')).toContainText('the wrong way round');
  await fill('Output into 500 ohm', '3.5');
  await fill('into 200 ohm', '8.9');
  await form.getByRole('button', { name: 'Take this plate' }).click();
  await expect(form.getByRole('alert')).toContainText('fall as the load grows');
  await fill('into 200 ohm', '4.9');
  await fill('Output into 500 ohm', '0.5');
  await fill('Stored', '0.6');
  await form.getByRole('button', { name: 'Take this plate' }).click();
  await expect(form.getByRole('alert')).toContainText('Look at the plate again');
  await fill('Stored', '5.2');
  await fill('Output into 500 ohm', '3.5');
  await form.getByRole('button', { name: 'Take this plate' }).click();
  await saved(page);
  const unit = (await stored(page, id)).plan.energisers['steading'] as unknown as { plate: { stored_J: number } };
  expect(unit.plate.stored_J).toBeCloseTo(5.2, 6);
}); // prettier-ignore

test('places are tried on the map and by a press; far from the mains is said and not offered @all', async ({ page }) => {
  await open(page, 'power');
  await tab(page, 'Where');
  const table = page.getByRole('group', { name: 'Places for the unit' });
  await expect(table.getByRole('row').nth(3)).toContainText('kV');
  await expect(table.getByText('far from the mains').first()).toBeVisible();
  await page.getByLabel(/^Map of the volts/).click({ position: { x: 200, y: 250 } });
  await expect(table.getByRole('row', { name: /the place pressed/ })).toBeVisible();
  await axeInAll(page);
}); // prettier-ignore

test('what an animal feels says where the ground fails; what if, how sure, supply and soil answer', async ({ page }) => {
  await open(page, 'power');
  await tab(page, 'Felt');
  await page.getByLabel('Line', { exact: true }).selectOption({ label: 'Ridge dyke' });
  await expect(page.getByText('too little', { exact: false }).first()).toBeVisible();
  await axeInAll(page);
  await tab(page, 'What if');
  const said = page.locator('[data-what-if]');
  await page.getByRole('slider', { name: /Growth/ }).focus();
  for (let k = 0; k < 4; k++) await page.keyboard.press('ArrowRight');
  await expect(said).toContainText(/then [\d.]+/);
  const [now, then] = [...(await said.textContent())!.matchAll(/([\d.]+)\s*kV/g)].map((m) => Number(m[1]));
  expect(then!).toBeLessThan(now!);
  await page.getByRole('button', { name: 'Back to the plan' }).click();
  await tab(page, 'How sure');
  await page.getByRole('button', { name: 'Draw by lot' }).click();
  await expect(page.locator('[data-sure]')).toContainText('of 100');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await axeInAll(page);
  await tab(page, 'Supply');
  await page.getByLabel('Energiser').selectOption({ label: 'Far hut unit' });
  await page.getByLabel('Battery', { exact: true }).fill('5');
  await page.getByLabel('Battery', { exact: true }).press('Enter');
  await found(page, 'Far hut unit runs flat');
  await axeInAll(page);
  await tab(page, 'Earth');
  await page.getByLabel('I read, with the fence loaded to 2 kV').fill('400');
  await page.getByLabel('I read, with the fence loaded to 2 kV').press('Enter');
  await expect(page.locator('[data-soil-read]')).toContainText('ohm m');
  await page.getByRole('button', { name: 'Keep the reading' }).click();
  await expect(page.getByRole('button', { name: 'kept' })).toBeVisible();
  await axeInAll(page);
}); // prettier-ignore
