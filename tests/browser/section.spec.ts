import { beside } from '../../src/core/plan/geometry.js';
import { converter } from '../../src/formats/projection.js';
import { expect } from '@playwright/test';
import { axeInAll, findings, found, only, open, pointAt, saved, stored } from './help.js';
import { test } from './test.js';
import { small } from './small.js';

/** Lines of the demo that are looked at here. */
const some = only('burn', 'mid-w', 'mid-e', 'hay', 'lane-e');

interface Placed {
  placed?: { at_m: number }[];
  pins?: { at_m: number }[];
  noPosts?: { from_m: number; to_m: number }[];
}
const lineOf = async (page: Parameters<typeof stored>[0], id: string, line: string) =>
  (await stored(page, id)).plan.lines[line] as unknown as Placed;

test('posts are placed by the ground: compared, taken, and the findings go', async ({ page }) => {
  const id = await open(page, 'land');
  await pointAt(page, 'Middle east will lift');
  await findings(page)
    .getByRole('button', { name: /^Mend: place the posts/ })
    .click();
  await expect(page).toHaveURL(/section$/);
  await expect(page.locator('[data-saved]')).toContainText(/fewer than the fewest equal bays/);
  await axeInAll(page);
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await saved(page);
  expect((await lineOf(page, id, 'mid-e')).placed!.length).toBeGreaterThan(50);
  await found(page, 'Middle east will lift', false);
  await found(page, 'A hollow under Middle east', false);
  await page.keyboard.press('Control+z');
  await found(page, 'Middle east will lift');
});

test('by keyboard: post to post, pinned and freed; tracks fold; the window follows', async ({
  page,
}) => {
  const id = await open(page, 'section', small);
  await page.getByRole('button', { name: 'Across', exact: true }).click();
  const strip = page.getByRole('slider');
  await strip.focus();
  for (let k = 0; k < 3; k++) await page.keyboard.press('ArrowRight');
  await expect(page.locator('[data-post-card]')).toContainText('Post 4');
  await page.keyboard.press('p');
  await saved(page);
  expect((await lineOf(page, id, 'across')).pins).toHaveLength(1);
  await expect(page.locator('[data-post-card]')).toContainText('pinned');
  await page.keyboard.press('p');
  await saved(page);
  expect((await lineOf(page, id, 'across')).pins).toEqual([]);
  const axis = async () => (await strip.locator('text').first().textContent())!;
  const whole = await axis();
  for (let k = 0; k < 3; k++) await page.keyboard.press('+');
  await page.keyboard.press('End');
  expect(await axis()).not.toBe(whole);
  await page.keyboard.press('0');
  expect(await axis()).toBe(whole);
  await page.getByRole('button', { name: 'Tracks' }).click();
  await page.getByLabel('grade').check();
  await expect(page.locator('[data-track=grade]')).toBeVisible();
  await page.getByLabel('uplift').uncheck();
  await expect(page.locator('[data-track=uplift]')).toHaveCount(0);
});

test('a stretch is barred, a post moved by typing; nonsense is refused beside its field', async ({
  page,
}) => {
  const id = await open(page, 'section', some);
  await page.getByRole('button', { name: 'Hay split', exact: true }).click();
  await page.getByLabel('From', { exact: true }).fill('x');
  await page.getByLabel('From', { exact: true }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('a number is wanted');
  for (const [label, words] of [
    ['From', '100'],
    ['To', '103'],
  ] as const) {
    // prettier-ignore
    await page.getByLabel(label, { exact: true }).fill(words);
    await page.getByLabel(label, { exact: true }).press('Enter');
  }
  await page.getByLabel('Why no posts').fill('drain');
  await page.getByRole('button', { name: 'Bar it' }).click();
  // As taped over the ground, with the post before it.
  await expect(page.getByText(/^100\.0.m \(past post \d+\) to 103\.0.m .*: drain$/)).toBeVisible();
  await page.getByRole('button', { name: 'Place by the ground' }).click();
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await saved(page);
  const { placed, noPosts } = await lineOf(page, id, 'hay');
  const bar = noPosts!.at(-1)!;
  expect(bar.from_m).toBeCloseTo(100, -1);
  expect(placed!.filter((p) => p.at_m > bar.from_m && p.at_m < bar.to_m)).toEqual([]);
  await page.getByRole('button', { name: /^5$/ }).click();
  const at = page.getByLabel('At', { exact: true });
  // The card follows the new posts, which are worked out after they are saved.
  const off = async () => Math.abs(Number(await at.inputValue()) - placed![2]!.at_m);
  await expect.poll(off).toBeLessThan(0.3);
  await at.fill(String(Number(await at.inputValue()) + 0.5));
  await at.press('Enter');
  await expect
    .poll(async () => (await lineOf(page, id, 'hay')).pins?.[0]?.at_m ?? 0)
    .toBeCloseTo(placed![2]!.at_m + 0.5, 1);
});

test('a line is walked: where one stands, how far to the next post by the tape, posts ticked off, kept over a reload @all', async ({ page, context }) => {
  const id = await open(page, 'section', some);
  const { plan } = await stored(page, id);
  const line = plan.lines['burn']!;
  const { toLonLat } = converter((plan as unknown as { origin: Parameters<typeof converter>[0] }).origin);
  await context.grantPermissions(['geolocation']);
  const stand = async (s: number, right: number, accuracy = 4) => {
    const [longitude, latitude] = toLonLat(beside(line.vertices, s, right));
    await context.setGeolocation({ longitude, latitude, accuracy });
  };
  await stand(20, 2);
  await page.getByRole('button', { name: 'Walk this line' }).click();
  const walking = page.locator('[data-walking]');
  await expect(walking).toContainText('Walking Burn side');
  await expect(walking).toContainText(/2\.0\s?m right of the line, within 4\.0\s?m/);
  // By the tape over the ground, which is a little longer than the plan.
  const way = async () => Number(/([\d.]+)/.exec((await walking.locator('[data-way]').innerText()).replace(/\u202f/g, ' '))?.[1]);
  const next = Number(/to post (\d+) of/.exec(await walking.innerText())![1]);
  const before = await way();
  await stand(21, -2);
  await expect(walking).toContainText('left of the line');
  await expect.poll(async () => before - (await way())).toBeGreaterThan(0.8);
  await expect.poll(async () => before - (await way())).toBeLessThan(1.2);
  await expect(walking).toContainText(/finds the place; the tape sets the post: .* from post \d+/);
  await axeInAll(page);
  await walking.getByRole('button', { name: 'Staked' }).click();
  await expect(walking).toContainText(`to post ${next + 1} of`);
  await expect(walking.locator('[data-staked]')).toContainText(/^1 of/);
  // A receiver of a few centimetres may set the stake; far from the line it says at which one stands.
  await stand(22, 0, 0.05);
  await expect(walking).toContainText('good enough to set the stake');
  const other = plan.lines['mid-w']!;
  const [longitude, latitude] = toLonLat(beside(other.vertices, 30, 1));
  await context.setGeolocation({ longitude, latitude, accuracy: 4 });
  await expect(walking).toContainText(`You stand at ${other.name}`);
  await walking.getByRole('button', { name: 'Walk that one' }).click();
  await expect(page.locator('[data-walking]')).toContainText(`Walking ${other.name}`);
  await page.reload();
  await page.getByRole('button', { name: 'Simulated walk' }).click();
  await expect(page.locator('[data-walking]')).toContainText('Simulated: nobody walks here');
  await expect(page.locator('[data-way]')).toBeVisible();
}); // prettier-ignore
