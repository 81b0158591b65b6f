import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { empty, front, open, saved, stored } from './help.js';
import { test } from './test.js';

const map = (page: Page) => page.locator('[data-map]');

/** Presses on the map; the map takes two presses within 300 ms for a double one. */
async function press(page: Page, x: number, y: number) {
  const box = (await map(page).boundingBox())!;
  await page.mouse.click(box.x + x, box.y + y);
  await page.waitForTimeout(320);
}

async function emptyMap(page: Page): Promise<string> {
  const answer = await page.request.post('/api/properties', {
    data: { ...JSON.parse(readFileSync('demo/hollin-scar.plan.json', 'utf8')), ...empty },
  });
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`/p/${id}/land`);
  await expect(map(page)).toBeVisible();
  await page.waitForTimeout(400);
  return id;
}

test('draws a line by pressing, puts a gate and an energiser on it, moves a vertex; all of it undone and redone after a reload', async ({
  page,
}) => {
  const id = await emptyMap(page);
  await page.keyboard.press('d');
  await press(page, 120, 150);
  await press(page, 320, 150);
  await press(page, 320, 300);
  await page.keyboard.press('Enter');
  await saved(page);
  let plan = (await stored(page, id)).plan;
  const [line] = Object.values(plan.lines);
  expect(line!.vertices.map((v) => v.kind)).toEqual(['end', 'corner', 'end']);

  await page.keyboard.press('g');
  await press(page, 220, 150);
  await page.keyboard.press('e');
  await press(page, 330, 220);
  await saved(page);
  plan = (await stored(page, id)).plan;
  expect(Object.keys(plan.gates)).toHaveLength(1);
  expect(Object.values(plan.energisers)[0]!.line).toBe(Object.keys(plan.lines)[0]);

  // Choose the line and drag its corner.
  await page.keyboard.press('Escape');
  await press(page, 160, 150);
  const box = (await map(page).boundingBox())!;
  await page.mouse.move(box.x + 320, box.y + 150);
  await page.mouse.down();
  const length = page.locator('[aria-label="Section of the chosen line"]');
  const before = { text: await length.textContent(), revision: (await stored(page, id)).revision };
  await page.mouse.move(box.x + 350, box.y + 120, { steps: 6 });
  // Still in the hand: the new figures are shown, and nothing is saved yet.
  await expect(length).not.toHaveText(before.text!);
  expect((await stored(page, id)).revision).toBe(before.revision);
  await page.mouse.up();
  await saved(page);
  const moved = Object.values((await stored(page, id)).plan.lines)[0]!.vertices[1]!;
  expect(moved.e).toBeGreaterThan(line!.vertices[1]!.e + 5);

  await page.reload();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  for (let k = 0; k < 5; k++) await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  expect((await stored(page, id)).plan.lines).toEqual({});
  for (let k = 0; k < 5; k++) await page.getByRole('button', { name: 'Redo' }).click();
  await saved(page);
  expect(Object.values((await stored(page, id)).plan.lines)[0]!.vertices[1]).toEqual(moved);
});

test('draws by keyboard alone: places and legs typed, a vertex moved by arrows and taken away', async ({
  page,
}) => {
  const id = await emptyMap(page);
  await page.keyboard.press('d');
  const field = page.getByLabel(/First place/);
  await field.fill('85 @ 400');
  await field.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Start with a place');
  await field.fill('10, 20');
  await field.press('Enter');
  const leg = page.getByLabel(/Next leg/);
  for (const text of ['100 @ 90', '50 @ 0', '@ -20, 30']) {
    await leg.fill(text);
    await leg.press('Enter');
  }
  // Undo takes the pen back too: the next leg starts where the line now ends.
  await leg.blur();
  await page.keyboard.press('Control+z');
  await leg.fill('@ -20, 30');
  await leg.press('Enter');
  await page.getByRole('button', { name: 'Choose' }).click();
  await saved(page);
  let [line] = Object.values((await stored(page, id)).plan.lines);
  expect(line!.vertices.map((v) => [Math.round(v.e), Math.round(v.n)])).toEqual([
    [10, 20],
    [110, 20],
    [110, 70],
    [90, 100],
  ]);

  await page.getByRole('button', { name: /^2 / }).click();
  // Reading the findings with arrows moves nothing; on the map they move the corner.
  await page.getByLabel('Find in the findings').focus();
  await page.keyboard.press('ArrowUp');
  await page.locator('[data-map]').focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowRight');
  await saved(page);
  [line] = Object.values((await stored(page, id)).plan.lines);
  expect([line!.vertices[1]!.e, line!.vertices[1]!.n]).toEqual([
    expect.closeTo(120, 6),
    expect.closeTo(21, 6),
  ]);
  await page.keyboard.press('Delete');
  await saved(page);
  [line] = Object.values((await stored(page, id)).plan.lines);
  expect(line!.vertices).toHaveLength(3);
});

test('a walked track comes in, reduced to its runs @all', async ({ page }) => {
  const id = await open(page);
  const walked = 'input[accept=".gpx,.kml,.geojson,.json,.csv,.zip"]';
  await page.setInputFiles(walked, 'demo/new-cross-fence.gpx');
  await expect(page.getByText(/76 walked points become \d vertices/)).toBeVisible();
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(page.getByLabel('Name of the line')).toHaveValue('New cross fence');
  await saved(page);
  const lines = Object.values((await stored(page, id)).plan.lines);
  const track = lines.find((l) => l.name === 'New cross fence')!;
  // Source: the walk has four corners and 0.6 m of noise (scripts/make-demo.ts).
  expect(track.vertices.length).toBeLessThan(8);
  await page.getByRole('button', { name: 'Back to all lines' }).click();
  await page.setInputFiles(walked, {
    name: 'bad.gpx',
    mimeType: 'text/xml',
    buffer: Buffer.from('<gpx><trk>'),
  });
  await expect(page.getByRole('alert')).toContainText('bad.gpx: not a GPX file');
});

test('section and map share one cursor; arrows go from post to post', async ({ page }) => {
  await open(page);
  await page.getByRole('button', { name: /^Burn side/ }).click();
  const strip = page.getByRole('slider');
  await strip.focus();
  await page.keyboard.press('ArrowRight');
  const first = Number(await strip.getAttribute('aria-valuenow'));
  await page.keyboard.press('ArrowRight');
  expect(Number(await strip.getAttribute('aria-valuenow'))).toBeGreaterThan(first);
  await expect(page.locator('[data-cursor]')).toHaveCount(1);
});

test('what is exported comes in again as the same plan; a broken file is refused and nothing made', async ({
  page,
}) => {
  const id = await open(page);
  const text = await (await page.request.get(`/api/properties/${id}/export?format=plan`)).text();
  await front(page);
  await page.setInputFiles('input[type=file]', {
    name: 'out.plan.json',
    mimeType: 'application/json',
    buffer: Buffer.from(text),
  });
  await expect(page).toHaveURL(/\/p\/p[0-9a-f]+\/land/);
  const copy = page.url().split('/')[4]!;
  expect((await stored(page, copy)).plan).toEqual((await stored(page, id)).plan);

  for (const format of ['geojson', 'gpx', 'kml', 'order']) {
    const answer = await page.request.get(`/api/properties/${id}/export?format=${format}`);
    expect(answer.headers()['content-disposition']).toContain('hollin-scar');
    expect((await answer.text()).length).toBeGreaterThan(500);
  }

  await front(page);
  // A name of its own: other tests make properties meanwhile.
  const broken = text
    .replace('"height_m":0.15', '"height_m":"low"')
    .replace('"Hollin Scar"', '"Broken Scar"');
  await page.setInputFiles('input[type=file]', {
    name: 'broken.json',
    mimeType: 'application/json',
    buffer: Buffer.from(broken),
  });
  await expect(page.getByRole('alert')).toContainText(/strands\/\d\/height_m.*number/);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Properties' })).toBeVisible();
  await expect(page.getByText('Broken Scar')).toHaveCount(0);
});

test('the guided start ends on a complete first plan', async ({ page }) => {
  await page.goto('/new');
  await page.getByRole('button', { name: 'Start the plan' }).click();
  await expect(page.getByRole('alert')).toContainText('name');
  await page.getByLabel('Name').fill('Long Meadow');
  await page.getByLabel('from a file of heights').check();
  await page.setInputFiles('input[accept=".asc,.txt,.csv,.tif,.tiff"]', {
    name: 'bad.asc',
    mimeType: 'text/plain',
    buffer: Buffer.from('ncols 2\nnrows x'),
  });
  await expect(page.getByRole('alert')).toContainText('line 2');
  await page.setInputFiles('input[accept=".asc,.txt,.csv,.tif,.tiff"]', 'demo/hollin-scar.asc');
  await expect(page.getByText('221 × 171 heights')).toBeVisible();
  await page.getByLabel('by bearing and distance').check();
  await page.getByLabel(/Legs from/).fill('200 @ 80\n150 @ 10');
  await page
    .locator('fieldset')
    .filter({ hasText: 'Which stock' })
    .getByLabel('Sheep')
    .first()
    .check();
  await page.getByRole('button', { name: 'Start the plan' }).click();
  await expect(page).toHaveURL(/\/land$/);
  await expect(page.getByRole('heading', { name: 'Long Meadow', level: 1 })).toBeVisible();
  await page.keyboard.press('4');
  await expect(page.locator('[data-worst=wet]')).toContainText('kV');
  const id = page.url().split('/')[4]!;
  const { plan } = await stored(page, id);
  expect(Object.values(plan.energisers)[0]!.line).not.toBeNull();
  expect(Object.values(plan.lines)[0]!.strands.length).toBeGreaterThanOrEqual(5);
});

test('a start by drawing opens the pen', async ({ page }) => {
  await page.goto('/new');
  await page.getByLabel('Name').fill('Bare');
  await page.getByLabel('Supply').selectOption('solar');
  await page.getByRole('button', { name: 'Start the plan' }).click();
  await expect(page.getByRole('button', { name: 'Draw', pressed: true })).toBeVisible();
  await press(page, 150, 150);
  await press(page, 300, 200);
  await saved(page);
  const id = page.url().split('/')[4]!;
  expect(Object.keys((await stored(page, id)).plan.lines)).toHaveLength(1);
  // The supply that was asked for is what a new energiser starts with.
  await page.keyboard.press('Enter');
  await page.keyboard.press('e');
  await press(page, 200, 170);
  await expect(page.getByLabel('Unit', { exact: true })).toHaveValue('s2');
});
