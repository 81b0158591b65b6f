/** Several lines at once, a line straightened, sides that are inside and outside, what is to come later. */
import { expect } from '@playwright/test';
import { test } from './test.js';
import { axeInAll, empty, open, saved, stored } from './help.js';

interface Own {
  post: string;
  school: string;
  maxBay_m: number | null;
  snow?: boolean;
  later?: string[];
  strands: { height_m: number }[];
  vertices: { e: number; n: number }[];
}

test('several lines are changed together in everything that they have', async ({ page }) => {
  const id = await open(page);
  const line = async (name: string) => (await stored(page, id)).plan.lines[name] as unknown as Own;
  await page.getByRole('button', { name: 'Choose several' }).click();
  await page.getByLabel('Choose Middle west').check();
  await page.getByLabel('Choose Middle east').check();
  await page.getByRole('button', { name: 'Change 2 lines' }).click();
  await expect(page.getByRole('heading', { name: '2 lines' })).toBeVisible();
  await axeInAll(page);
  await page.getByLabel('Line posts').selectOption({ label: 'Steel, 2.1 m' });
  await page.getByLabel('Longest bay').fill('5.5');
  await page.getByLabel('Longest bay').press('Enter');
  await page.getByLabel('snow or frozen ground').check();
  await page.getByText('to be held later').click();
  await page.getByLabel('Goats').last().check();
  await saved(page);
  for (const name of ['mid-w', 'mid-e']) {
    const l = await line(name);
    expect(l).toMatchObject({ post: 'steel-210', maxBay_m: 5.5, snow: true, later: ['goats'] });
  }
  await page.getByLabel('All as on').selectOption({ label: 'Middle east' });
  await page.getByRole('button', { name: 'Make them alike' }).click();
  await saved(page);
  expect((await line('mid-w')).strands).toEqual((await line('mid-e')).strands);
});

test('a line is straightened: shown first, then taken, and undone', async ({ page }) => {
  const points = Array.from({ length: 60 }, (_, i) => ({
    id: `v${i + 1}`,
    e: i * 5,
    n: i % 2 ? 0.5 : -0.5,
    kind: i === 0 || i === 59 ? 'end' : 'bend',
  }));
  const wavy = {
    ...empty,
    lines: {
      l1: {
        id: 'l1',
        name: 'Wavy',
        vertices: points,
        left: ['sheep'],
        right: [],
        keepOut: [],
        boundary: false,
        strands: [{ height_m: 0.9, duty: 'live', wire: 'ht25', insulated: true }],
        post: 'steel-180',
        maxBay_m: null,
        school: 'moderate',
        tensioner: true,
      },
    },
  };
  const id = await open(page, 'land', wavy);
  const count = async () => (await stored(page, id)).plan.lines['l1']!.vertices.length;
  await page.getByRole('button', { name: /^Wavy/ }).click();
  await page.getByText('Straighten', { exact: true }).click();
  await expect(page.getByText('60 walked points become 2 vertices')).toBeVisible();
  await page.getByRole('button', { name: 'Straighten it' }).click();
  await expect.poll(count).toBe(2);
  await page.keyboard.press('Control+z');
  await expect.poll(count).toBe(60);
});

test('a ring has an inside and an outside, and says what it lacks for what comes later', async ({
  page,
}) => {
  const id = await open(page, 'strands');
  await page.getByRole('button', { name: /^Pony ring/ }).click();
  await page.getByRole('tab', { name: 'What it asks' }).click();
  await expect(page.getByRole('group', { name: 'inside' })).toBeVisible();
  await expect(page.getByRole('group', { name: 'outside' })).toBeVisible();
  await page.getByText('What must it hold later?').click();
  await page.getByLabel('Farmed deer').last().check();
  await expect(page.getByText('Pony ring is to hold farmed deer later')).toBeVisible();
  await saved(page);
  expect((await stored(page, id)).plan.lines['pony']).toMatchObject({ later: ['deer-farmed'] });
});
