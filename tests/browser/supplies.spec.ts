/** Supplies: the list by hand, the shed, coils, prices in and out, orders, designs side by side, kinds over the years. */
import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import type { Plan } from '../../src/core/plan/schema.js';
import { axeInAll, only, open, saved, stored } from './help.js';
import { test } from './test.js';

/** Lines of the demo whose purchases are looked at here. */
const some = only('burn', 'mid-w', 'terrace', 'lane-e');

const at = async (page: Page, tab?: string, { own = true } = {}) => {
  const id = await open(page, 'supplies', some, { own });
  if (tab) await page.getByRole('tab', { name: tab, exact: true }).click();
  return id;
};
const planOf = async (page: Page, id: string) => (await stored(page, id)).plan as unknown as Plan;
const records = async (page: Page, id: string, kind: string) =>
  ((await (await page.request.get(`/api/properties/${id}/records/${kind}?since=0`)).json()) as { records: Record<string, unknown>[] }).records; // prettier-ignore

test('a row opens to what it goes into; by hand, in the shed, left out; all of it is there again @all', async ({
  page,
}) => {
  const id = await at(page);
  const row = page.locator('[data-supply="tensioner"]');
  await row.getByRole('button', { name: 'In-line tensioner', exact: true }).click();
  const detail = page.locator('[data-detail="tensioner"]');
  await expect(detail).toContainText(/counted \d+/);
  await axeInAll(page);
  const counted = Number(/counted (\d+)/.exec((await detail.textContent())!)![1]);
  const total = page.locator('[data-total]');
  const before = await total.textContent();
  await detail.getByLabel('Quantity').fill('nonsense');
  await detail.getByLabel('Quantity').press('Enter');
  await expect(detail.getByRole('alert')).toContainText('a number is wanted');
  await detail.getByLabel('Quantity').fill(String(counted + 6));
  await detail.getByLabel('Quantity').press('Enter');
  await expect(total).not.toHaveText(before!);
  await detail.getByLabel('Note').fill('six spare');
  await detail.getByLabel('Note').press('Enter');
  await expect(row).toContainText('by hand. six spare');
  await detail.getByLabel('In the shed').fill('20');
  await detail.getByLabel('In the shed').press('Enter');
  await expect(detail).toContainText(`to buy ${counted - 14}`);
  await saved(page);
  await expect.poll(async () => (await records(page, id, 'stock')).length).toBe(1);
  await page.reload();
  await expect(row).toContainText('six spare');
  await expect(row).toContainText(String(counted - 14));
  await row.getByRole('button', { name: 'In-line tensioner', exact: true }).click();
  await detail.getByLabel('leave it out').check();
  await expect(row).toContainText('left out');
  await page.keyboard.press('Control+z');
  await expect(row).not.toContainText('left out');
  // What is sifted and sorted is the same table.
  await page.getByLabel('Find in Supplies').fill('tension');
  await expect(page.locator('[data-supply]')).toHaveCount(2);
  await page.getByLabel('Find in Supplies').fill('post');
  const price = page.getByRole('columnheader', { name: /^cost/ });
  await price.getByRole('button').click();
  await expect(price).toHaveAttribute('aria-sort', 'ascending');
  const costs = await page.locator('[data-group="Posts and ends"] [data-supply]').evaluateAll((rows) => rows.map((r) => Number(/£([\d\u202f.]+)$/.exec(r.children[6]!.textContent!)![1]!.replace(/\u202f/g, '')))); // prettier-ignore
  expect(costs).toEqual([...costs].sort((a, b) => a - b));
});

test('an item of one’s own is priced, bought, and gone when it is taken away @all', async ({
  page,
}) => {
  const id = await at(page);
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByText('A name is wanted.')).toBeVisible();
  await page.getByLabel('Item', { exact: true }).fill('Skip for old wire');
  await page.getByLabel(/^Price of one/).fill('85,50');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.locator('[data-supply^="own."]')).toContainText('£85.50');
  await saved(page);
  await page.getByRole('button', { name: 'Take Skip for old wire away' }).click();
  await expect(page.locator('[data-supply^="own."]')).toHaveCount(0);
  await saved(page);
  expect(await planOf(page, id)).not.toHaveProperty('ownItems');
});

test('coils are cut with their bound; a reel is left, a coil begun is used first; each has its card', async ({
  page,
}) => {
  const id = await at(page, 'Coils');
  const sum = page.locator('[data-cut="ht25"]');
  await expect(sum).toContainText(/\d+ coils, \d+ joins?, £/);
  await expect(sum).toContainText(/No cutting costs less/);
  const bars = page.getByRole('list', { name: 'Coils as they are cut' }).getByRole('img');
  const many = await bars.count();
  await axeInAll(page);
  await page.getByLabel(/^500.m at/).uncheck();
  await saved(page);
  expect((await planOf(page, id)).supplyRows!['reel.ht25.500']).toEqual({ out: true });
  await page.getByLabel('Length left on it').fill('640');
  await page.getByLabel('Length left on it').press('Enter');
  await page.getByRole('button', { name: 'Put it in the shed' }).click();
  await expect(sum).toContainText('and 1 begun');
  await expect(bars.first()).toHaveAccessibleName(/^Coil of 640.m, begun: /);
  await expect.poll(async () => (await records(page, id, 'stock'))[0]?.['length_m']).toBe(640);
  await page.goto(`/coils/${id}?wire=ht25`);
  const cards = page.getByRole('region', { name: /^Coil \d+ of/ });
  await expect(cards.first()).toContainText('640 m, begun');
  expect(await cards.count()).toBeGreaterThanOrEqual(many - 1);
  await axeInAll(page);
  // Each card is one page of A5.
  const paper = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  const pages = [...paper.matchAll(/\/Count (\d+)/g)].map((m) => Number(m[1]));
  expect(Math.max(...pages)).toBe(await cards.count());
});

test('prices go out as CSV and come in: what cannot be read is said, what is taken counts, old ones are kept', async ({
  page,
}) => {
  const id = await at(page, 'Prices', { own: false });
  const row = page.locator('[data-price="tensioner"]');
  await expect(row).toContainText('△ old');
  await axeInAll(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'CSV', exact: true }).click(),
  ]);
  const csv = readFileSync((await download.path())!, 'utf8');
  expect(csv).toMatch(/item,name,price,per,date,supplier,tax %,pack/);
  const read = async (text: string) => {
    await page.getByLabel('File of prices').setInputFiles({ name: 'p.csv', mimeType: 'text/csv', buffer: Buffer.from(text) }); // prettier-ignore
  };
  await read('nothing here');
  await expect(page.getByText(/the first line names the columns/)).toBeVisible();
  await read('item;price;date;supplier\ntensioner;4,25;2026-11-20;Farm store\nunknown;3;;\n');
  const told = page.getByRole('group', { name: 'Prices that were read' });
  await expect(told).toContainText('1 price read, 1 passed over: line 3');
  await told.getByRole('button', { name: 'Take them' }).click();
  await expect(row).toContainText('2026-11-20');
  await row.getByLabel('Price of In-line tensioner').fill('4.75');
  await row.getByLabel('Price of In-line tensioner').press('Enter');
  await saved(page);
  const { book } = await planOf(page, id);
  expect(book!['tensioner']!.map((q) => [q.price, q.supplier])).toEqual([[4.25, 'Farm store'], [4.75, 'Farm store']]); // prettier-ignore
  await row.getByRole('button', { name: /over time/ }).click();
  await page.getByRole('button', { name: 'Take the price of 2026-11-20 away' }).click();
  await saved(page);
  expect((await planOf(page, id)).book!['tensioner']).toHaveLength(1);
});

test('an order by delivery; what came, short and wrong; what the next work is missing; the sheet', async ({
  page,
}) => {
  const id = await at(page, 'Orders');
  await page.getByLabel('Delivery', { exact: true }).selectOption({ label: 'Ends, corners, gates, tools' }); // prettier-ignore
  const make = page.getByRole('button', { name: /^Order these \d+ items/ });
  const n = Number(/\d+/.exec((await make.textContent())!)![0]);
  await axeInAll(page);
  await make.click();
  const order = page.getByRole('region', { name: 'Order 1', exact: true });
  await expect(order).toContainText(`${n} of ${n} still to come`);
  await expect.poll(async () => (await records(page, id, 'orders')).length).toBe(n);
  // Nothing is ordered twice.
  await expect(page.getByText('Nothing of this is still to be ordered.')).toBeVisible();
  await expect(page.locator('[data-missing]')).toContainText('not all in the shed');
  await order.getByRole('button', { name: 'What came of Brace pin' }).click();
  await order.getByLabel('How much').fill('10');
  await order.getByLabel('How much').press('Enter');
  await order.getByRole('button', { name: 'will not come', exact: true }).click();
  const pins = order.getByRole('row', { name: /^Brace pin/ });
  await expect(pins).toContainText('10');
  await page.getByLabel('Delivery', { exact: true }).selectOption({ label: 'Ends, corners, gates, tools' }); // prettier-ignore
  // What will not come is to be ordered again.
  await expect(page.getByRole('button', { name: 'Order this item' })).toBeVisible();
  await order.getByRole('button', { name: 'All of it came' }).click();
  await expect.poll(async () => (await records(page, id, 'deliveries')).length).toBe(n + 1);
  await expect(order).toContainText('Nothing more is to come');
  await expect(page.locator('[data-missing]')).toContainText('1 of');
  await page.reload();
  await page.getByRole('tab', { name: 'Orders', exact: true }).click();
  await expect(order).toContainText('Nothing more is to come');
  await page.goto(`/order/${id}?order=${encodeURIComponent('Order 1')}`);
  const sheet = page.getByRole('region', { name: 'Order sheet Order 1' });
  await expect(sheet).toContainText('Delivery: Ends, corners, gates, tools');
  await expect(sheet.getByRole('row')).toHaveCount(n + 1 + 3);
  await axeInAll(page);
});

test('what one strand more costs is one press; a named state stands beside the plan of now', async ({
  page,
}) => {
  const id = await at(page, 'Side by side');
  await page.getByRole('button', { name: 'What does one strand more cost?' }).click();
  await expect(page.locator('[data-more]')).toContainText(/£[\d.,\u202f]+ more as it is used/); // prettier-ignore
  await axeInAll(page);
  await page.getByRole('button', { name: 'Keep the name' }).click();
  await expect(page.getByText(/A name is wanted/)).toBeVisible();
  await page.getByLabel('Name the plan as it is now').fill('as priced');
  await page.getByRole('button', { name: 'Keep the name' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'as priced' })).toBeVisible();
  await expect.poll(async () => (await records(page, id, 'states')).length).toBe(1);
  // A change, and the two side by side.
  await page.keyboard.press('8');
  await page.getByRole('tab', { name: 'What to buy' }).click();
  await page.getByLabel('Price of End post, 2.4 m').fill('100');
  await page.getByLabel('Price of End post, 2.4 m').press('Enter');
  await saved(page);
  await page.getByRole('tab', { name: 'Side by side' }).click();
  const sums = page.getByRole('group', { name: 'Sums of both' });
  await expect(sums.getByRole('row', { name: /^cost, without tax/ })).toContainText('+£'); // prettier-ignore
  await expect(page.getByRole('group', { name: 'Parts that differ' })).toContainText('End post, 2.4 m'); // prettier-ignore
  await page.getByRole('button', { name: 'Take the name as priced away' }).click();
  await expect(page.getByText('No state has a name yet')).toBeVisible();
});

test('kinds over the years: the year at which they cross, in words and in the chart @all', async ({
  page,
}) => {
  await at(page, 'Over the years', { own: false });
  await expect(page.getByRole('img', { name: 'Paid over the years, by the metre' })).toBeVisible(); // prettier-ignore
  await expect(page.locator('[data-crossings]')).toContainText(/from year \d+|all through/);
  await axeInAll(page);
  await page.getByLabel('Over', { exact: true }).fill('3');
  await page.getByLabel('Over', { exact: true }).press('Enter');
  await expect(page.locator('[data-crossings]')).toContainText('all through 3 years');
});

test('ten thousand rows are a table of those that are seen @all', async ({ page }) => {
  test.slow();
  const demo = JSON.parse(readFileSync('demo/hollin-scar.plan.json', 'utf8')) as Plan;
  const [first] = Object.values(demo.lines);
  const long = { ...first!, id: 'long', name: 'Long', post: 'steel-180', maxBay_m: 2, vertices: [{ id: 'a', e: 0, n: 0, kind: 'end' }, { id: 'b', e: 20_000, n: 0, kind: 'end' }] }; // prettier-ignore
  for (const key of ['placed', 'pins', 'ends', 'joins', 'crossings', 'levels', 'tensioners', 'noPosts', 'design'] as const) delete (long as Record<string, unknown>)[key]; // prettier-ignore
  await open(page, 'section', { lines: { long }, gates: {}, energisers: {}, paddocks: {}, things: {}, grids: undefined, ground: { kind: 'flat', z_m: 0 }, accepted: {} }); // prettier-ignore
  const table = page.getByRole('group', { name: 'Posts of Long' });
  await expect(table.locator('table')).toHaveAttribute('aria-rowcount', /^100\d\d$/); // prettier-ignore
  expect(await table.getByRole('row').count()).toBeLessThan(90);
  await table.evaluate((box) => box.scrollTo(0, 150_000));
  await expect.poll(async () => await table.getByRole('row').nth(20).textContent()).toMatch(/[3-9]\d{3}/); // prettier-ignore
  expect(await table.getByRole('row').count()).toBeLessThan(90);
});
