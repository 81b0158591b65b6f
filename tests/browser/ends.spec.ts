/** Ends: looked at, chosen, set by hand, given to others, mended, printed, by mouse, key and on a phone. */
import { expect, type Page } from '@playwright/test';
import { axeInAll, only, open, saved, stored } from './help.js';
import { test } from './test.js';

/** Lines of the demo that are looked at here. */
const some = only('burn', 'hay', 'lane-e');

const at = async (page: Page, line: string, tab?: string) => {
  const id = await open(page, 'ends', some);
  await page.getByRole('button', { name: line, exact: true }).click();
  if (tab) await page.getByRole('tab', { name: tab, exact: true }).click();
  return id;
};
const end = (page: Page, name: RegExp) =>
  page.getByRole('group', { name: 'Ends' }).getByRole('button', { name });

test('an end is drawn with its forces; another way is taken, given to ends alike, taken back', async ({
  page,
}) => {
  const id = await at(page, 'Burn side');
  await end(page, /^0.m, end/).click();
  await expect(page.getByRole('img', { name: /^H from the side/ })).toBeVisible();
  const ways = page.getByRole('group', { name: 'Ways to build it' });
  await expect(ways).toContainText('used at the weakest');
  await axeInAll(page);
  await ways.getByRole('button', { name: 'Take the Double H' }).click();
  await saved(page);
  const ends = async () => (await stored(page, id)).plan.lines['burn']!.ends;
  expect(await ends()).toMatchObject([{ at_m: 0, after: { kind: 'double-h' } }]);
  await expect(page.getByRole('img', { name: /^Double H from the side/ })).toBeVisible();
  await expect(end(page, /^0.m, end/)).toContainText('set by hand');
  // Undone as any change, and back by the button too.
  await page.keyboard.press('Control+z');
  await expect(end(page, /^0.m, end/)).not.toContainText('set by hand');
  await page.getByLabel('Rail', { exact: true }).fill('3');
  await page.keyboard.press('Enter');
  await saved(page);
  expect(await ends()).toMatchObject([{ after: { kind: 'h', rail_m: 3 } }]);
  await page.getByRole('button', { name: 'As proposed' }).click();
  await saved(page);
  expect(await ends()).toBeUndefined();
});

test('nonsense in a field is refused beside it, and nothing is lost', async ({ page }) => {
  const id = await at(page, 'Burn side');
  await end(page, /^0.m, end/).click();
  await page.getByLabel('Depth of its posts').fill('9');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Depth of its posts: at most 3/)).toBeVisible();
  await page.getByLabel('Depth of its posts').fill('0.5');
  await page.keyboard.press('Enter');
  await saved(page);
  expect((await stored(page, id)).plan.lines['burn']!.ends).toMatchObject([{ depth_m: 0.5 }]);
  await expect(page.locator('[data-finding="end-shallow"]')).toHaveCount(1);
});

test('a brace wire that runs the wrong way is found, and mended by one press', async ({ page }) => {
  const id = await at(page, 'Hay split');
  await page.getByRole('button', { name: /brace wire at the end of Hay split/ }).click();
  await page.getByRole('button', { name: 'Run it from the foot of the end post' }).click();
  await page.getByRole('button', { name: 'Take it' }).click();
  await saved(page);
  expect((await stored(page, id)).plan.lines['hay']!.ends).toMatchObject([
    { after: { wire: 'end' } },
  ]);
});

test('setting: what is advised and why; concrete round timber is bought and warned of', async ({
  page,
}) => {
  const id = await at(page, 'Burn side', 'Setting');
  await end(page, /^0.m, end/).click();
  await expect(page.getByText('Advised:')).toContainText('driven');
  await axeInAll(page);
  await page.getByRole('button', { name: 'Set them concrete' }).click();
  await saved(page);
  expect((await stored(page, id)).plan.lines['burn']!.ends).toMatchObject([
    { setting: 'concrete' },
  ]);
  await expect(page.locator('[data-finding="concrete-timber"]')).toHaveCount(1);
  await page.getByLabel('The ground freezes this deep').fill('0.9');
  await page.keyboard.press('Enter');
  await saved(page);
  expect((await stored(page, id)).plan.frost_m).toBe(0.9);
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('8');
  await expect(page.locator('[data-supply="concrete"]')).toBeVisible();
});

test('a gate: weight and hinges; one is cut into a standing fence', async ({ page }) => {
  const id = await at(page, 'Burn side', 'Gates');
  await page.getByLabel('Weight').fill('80');
  await page.keyboard.press('Enter');
  await page.getByLabel('Mesh on it').check();
  await saved(page);
  expect((await stored(page, id)).plan.gates['g1']).toMatchObject({ mass_kg: 80, mesh: true });
  await axeInAll(page);
  await page.getByRole('button', { name: 'Put it in the plan' }).click();
  await saved(page);
  expect(
    Object.values((await stored(page, id)).plan.gates).filter((g) => g.line === 'burn'),
  ).toHaveLength(2);
  await page.getByRole('tab', { name: 'Replace', exact: true }).click();
  await expect(page.getByText('Replace the post where it stands')).toBeVisible();
  await axeInAll(page);
});

test('a bench card for each end, one A5 page, with the right diagonal and the wrong one', async ({
  page,
}) => {
  await at(page, 'Burn side');
  await page.getByRole('link', { name: 'Bench cards' }).click();
  const cards = page.locator('section.a5');
  await expect(cards).toHaveCount(4);
  await expect(cards.first()).toContainText('two full wraps');
  await expect(cards.first().getByRole('img', { name: 'Wrong' })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  for (const card of await cards.all()) {
    const box = (await card.boundingBox())!;
    expect(box.height).toBeLessThanOrEqual((210 / 25.4) * 96 + 1);
  }
});

test('on a phone the ends are chosen and the drawing is seen whole', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, 'ends', some);
  const drawing = page.getByRole('img', { name: /from the side/ });
  await expect(drawing).toBeVisible();
  const box = (await drawing.boundingBox())!;
  expect(box.x).toBeGreaterThanOrEqual(0);
  expect(box.x + box.width).toBeLessThanOrEqual(391);
  await axeInAll(page);
});
