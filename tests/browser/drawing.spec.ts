import { expect, type Page } from '@playwright/test';
import { axeInAll, empty, open, saved, stored, found, onMap } from './help.js';
import { test } from './test.js';

const ring = {
  ...empty,
  lines: {
    r: {
      id: 'r',
      name: 'Ring',
      vertices: [[0, 0], [200, 0], [200, 120], [0, 120], [0, 0]].map(([e, n], i) => ({ id: `v${i + 1}`, e, n, kind: 'end' })), // prettier-ignore
      left: ['sheep'],
      right: [],
      keepOut: [],
      boundary: false,
      strands: [0.15, 0.3, 0.45, 0.65, 0.9].map((height_m) => ({ height_m, duty: 'live', wire: 'ht25', insulated: true })), // prettier-ignore
      post: 'steel-180',
      maxBay_m: null,
      school: 'moderate',
      tensioner: true,
    },
  },
};

async function press(page: Page, e: number, n: number): Promise<void> {
  const [x, y] = await onMap(page, e, n);
  await page.mouse.move(x, y);
  // Two presses within 300 ms read as a double one.
  await page.waitForTimeout(330);
  await page.mouse.click(x, y);
}
async function type(page: Page, words: string): Promise<void> {
  const field = page.getByPlaceholder(/0, 0|85 @ 112/);
  await field.fill(words);
  await field.press('Enter');
}
const lines = async (page: Page, id: string) => Object.values((await stored(page, id)).plan.lines);

test('by keyboard alone: a line drawn, squared, cut, joined, turned, locked, and all of it undone', async ({
  page,
}) => {
  const id = await open(page, 'land', { ...ring });
  await expect(page.locator('[data-map]')).toBeVisible();
  await page.keyboard.press('d');
  for (const words of ['300, 0', '85 @ 90', '40 l', '@ 10, 5']) await type(page, words);
  await type(page, 'nonsense');
  await expect(page.getByRole('alert')).toContainText('Type a leg');
  await page.getByRole('button', { name: 'Done' }).press('Enter');
  await saved(page);
  const drawn = (await lines(page, id)).find((l) => l.name === 'Line 2')!;
  expect(drawn.vertices.map((v) => [Math.round(v.e), Math.round(v.n)])).toEqual([
    [300, 0],
    [385, 0],
    [385, 40],
    [395, 45],
  ]);
  await page.keyboard.press(']');
  await page.keyboard.press(']');
  await page.keyboard.press('c');
  await saved(page);
  expect(await lines(page, id)).toHaveLength(3);
  await page.getByText('Change the line').press('Enter');
  await page.getByLabel('Join with').selectOption({ label: 'Line 2 2' });
  await saved(page);
  expect(await lines(page, id)).toHaveLength(2);
  await page.getByRole('button', { name: 'Turn round' }).press('Enter');
  await page.getByRole('button', { name: 'Lock', exact: true }).press('Enter');
  await saved(page);
  expect((await lines(page, id))[1]!.vertices[0]!.e).toBeCloseTo(395, 6);
  // Delete means the line only where the map has the focus; Backspace means nothing anywhere.
  await page.getByRole('button', { name: 'Unlock' }).press('Delete');
  await page.locator('[data-map]').press('Backspace');
  await saved(page);
  expect(await lines(page, id)).toHaveLength(2);
  await page.locator('[data-map]').press('Delete');
  await expect(page.getByRole('alert')).toContainText('locked');
  await page.getByRole('button', { name: 'Understood' }).press('Enter');
  for (let k = 0; k < 8; k++) await page.keyboard.press('Control+z');
  await saved(page);
  await expect.poll(async () => (await lines(page, id)).length).toBe(1);
});

test('a laneway is two lines in one go, as wide as asked', async ({ page }) => {
  const id = await open(page, 'land', { ...ring });
  await expect(page.locator('[data-map]')).toBeVisible();
  await page.keyboard.press('l');
  await page.getByLabel('Width between the fences').fill('8');
  await page.getByLabel('Width between the fences').press('Enter');
  for (const words of ['0, 300', '100 @ 90', '50 @ 45']) await type(page, words);
  await page.getByRole('button', { name: 'Done' }).click();
  await saved(page);
  const [, left, right] = await lines(page, id);
  expect(left!.vertices[0]).toMatchObject({ e: 0, n: 304 });
  expect(right!.vertices[0]).toMatchObject({ e: 0, n: 296 });
});

test('a leg is dragged, a line with Shift; several are chosen and taken away', async ({ page }) => {
  const id = await open(page, 'land', { ...ring });
  await expect(page.locator('[data-map]')).toBeVisible();
  await press(page, 100, 0);
  await expect(page.getByLabel('Name of the line')).toHaveValue('Ring');
  const drag = async (from: [number, number], to: [number, number]) => {
    await page.mouse.move(...from);
    await page.mouse.down();
    await page.mouse.move((from[0] + to[0]) / 2, (from[1] + to[1]) / 2, { steps: 3 });
    await page.mouse.move(...to, { steps: 3 });
    await page.mouse.up();
    await saved(page);
  };
  // Away from the middle of the leg, where a press makes a vertex.
  await drag(await onMap(page, 200, 90), await onMap(page, 220, 90));
  let [r] = await lines(page, id);
  expect(r!.vertices[1]!.e).toBeGreaterThan(212);
  expect(r!.vertices[2]!.e).toBeCloseTo(r!.vertices[1]!.e, 6);
  expect(r!.vertices).toHaveLength(5);
  const before = r!.vertices.map((v) => v.n);
  await page.keyboard.down('Shift');
  await drag(await onMap(page, 40, 0), await onMap(page, 40, 20));
  await page.keyboard.up('Shift');
  [r] = await lines(page, id);
  const steps = r!.vertices.map((v, i) => v.n - before[i]!);
  expect(Math.min(...steps)).toBeGreaterThan(12);
  expect(Math.max(...steps) - Math.min(...steps)).toBeLessThan(1e-6);
});

test('a paddock is named, stocked, divided; what it lacks is found', async ({ page }) => {
  const id = await open(page, 'land', { ...ring });
  await expect(page.locator('[data-map]')).toBeVisible();
  await press(page, 70, 40);
  await expect(page.locator('[data-paddock]')).toContainText('2.4');
  await page.getByLabel('Name of the paddock').fill('Croft');
  await page.getByLabel('Name of the paddock').press('Enter');
  await page.getByLabel('Put stock in').selectOption('sheep');
  await found(page, 'Croft has stock and no water');
  await page.getByText('Divide it').click();
  await page.getByLabel('Its bearing').fill('0');
  await page.getByLabel('Its bearing').press('Enter');
  await page.getByLabel('Area on its left').fill('0.6');
  await page.getByLabel('Area on its left').press('Enter');
  await axeInAll(page);
  await page.getByRole('button', { name: 'Put the fence' }).click();
  await saved(page);
  const fence = (await lines(page, id)).find((l) => l.name === 'Across Croft')!;
  // 0.6 ha of 120 m height is 50 m wide, on the left of a fence that runs north.
  for (const v of fence.vertices) expect(v.e).toBeCloseTo(50, 1);
});

test('things on the land are put down, typed, moved and taken; a burn bars posts', async ({
  page,
}) => {
  const id = await open(page, 'land', { ...ring });
  await expect(page.locator('[data-map]')).toBeVisible();
  await page.getByLabel('Put a thing on the land').selectOption('burn');
  await press(page, 60, -15);
  await press(page, 60, 20);
  await page.keyboard.press('Enter');
  await page.getByLabel('From bank to bank').fill('6');
  await page.getByLabel('From bank to bank').press('Enter');
  await found(page, 'Ring crosses Burn 1');
  await page.getByLabel('Name of the thing').fill('Wet bit');
  await page.getByLabel('Name of the thing').press('Enter');
  await saved(page);
  await axeInAll(page);
  const plan = (await stored(page, id)).plan as unknown as { things: Record<string, { name: string; width_m: number }> }; // prettier-ignore
  expect(Object.values(plan.things)).toEqual([
    expect.objectContaining({ name: 'Wet bit', width_m: 6 }),
  ]);
  await page.getByRole('button', { name: 'Take it away' }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('list', { name: 'Things on the land' })).toContainText('Wet bit');
});

test('a simulated walk becomes a line; a reload in the middle loses nothing @all', async ({
  page,
}) => {
  const id = await open(page, 'land', { ...ring });
  await expect(page.locator('[data-map]')).toBeVisible();
  await page.getByText('Walk a line now').click();
  await page.getByRole('button', { name: 'simulated walk' }).click();
  await page.getByRole('button', { name: 'Start walking' }).click();
  await expect(page.getByText(/^1\d points/)).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Make it a line' }).click();
  const review = page.locator('[data-walk-review]');
  await expect(review).toContainText('become');
  const vertices = async () => Number(/become (\d+)/.exec((await review.textContent())!)![1]);
  await review.getByLabel('keep within', { exact: true }).fill('0');
  await review.getByLabel('keep within', { exact: true }).press('Enter');
  const all = await vertices();
  await review.getByLabel('keep within', { exact: true }).fill('8');
  await review.getByLabel('keep within', { exact: true }).press('Enter');
  await expect.poll(vertices).toBeLessThan(all);
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await saved(page);
  expect((await lines(page, id)).map((l) => l.name)).toContain('Walked line');
});

test('the printed map is true to scale, with key and bar', async ({ page }) => {
  const id = await open(page, 'land', { ...ring });
  await expect(page.locator('[data-map]')).toBeVisible();
  await page.goto(`/print/${id}`);
  await page.getByLabel('Scale').selectOption('1000');
  await page.emulateMedia({ media: 'print' });
  const line = (await page.locator('[data-line=r]').first().boundingBox())!;
  // 200 m at 1 : 1000 are 200 mm; a CSS millimetre is 96/25.4 px. The stroke adds its own width.
  expect(line.width / (96 / 25.4)).toBeCloseTo(200, 0);
  expect(line.height / (96 / 25.4)).toBeCloseTo(120, 0);
  await expect(page.locator('[data-bar]')).toContainText('this bar is');
  await expect(page.locator('[data-key]')).toContainText('boundary fence');
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  // A4 landscape, in points of 1/72 inch.
  const [, w, h] = /MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf)!;
  expect([Number(w) / 72 * 25.4, Number(h) / 72 * 25.4]).toEqual([expect.closeTo(297, 0), expect.closeTo(210, 0)]); // prettier-ignore
  await page.emulateMedia({ media: 'screen' });
  await axeInAll(page);
});
