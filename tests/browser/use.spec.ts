import { expect, type Page } from '@playwright/test';
import { empty, found, onMap, open, pointAt, saved, stored } from './help.js';
import { test } from './test.js';
import { small } from './small.js';
import { ALL } from '../often.js';

const chooseLine = (page: Page, name: string) =>
  page
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .first()
    .click();

test('a line is renamed, made a boundary, given other posts and taken away; each step undone in turn', async ({
  page,
}) => {
  const id = await open(page, 'land', small);
  await chooseLine(page, 'Across');
  await page.getByLabel('Name of the line').fill('  Across fence  ');
  await page.keyboard.press('Enter');
  await page.getByLabel('boundary of the property').check();
  await page.getByLabel('Line posts').selectOption('timber-180');
  await page.getByLabel('Longest bay').fill('3');
  await page.keyboard.press('Enter');
  await saved(page);
  const changed = (await stored(page, id)).plan.lines['across'] as unknown as Record<
    string,
    unknown
  >;
  expect(changed).toMatchObject({
    name: 'Across fence',
    boundary: true,
    post: 'timber-180',
    maxBay_m: 3,
  });
  await page.getByRole('button', { name: 'Line', exact: true }).click();
  await saved(page);
  expect((await stored(page, id)).plan.lines['across']).toBeUndefined();
  for (let k = 0; k < 5; k++) await page.keyboard.press('Control+z');
  await saved(page);
  expect((await stored(page, id)).plan.lines['across']).toMatchObject({
    name: 'Across',
    boundary: false,
    post: 'steel-180',
    maxBay_m: null,
  });
});

test('a step that speaks of one line says where there is none, and leads to the drawing of one', async ({
  page,
}) => {
  await open(page, 'land', empty);
  for (const [key, name] of [['2', 'Strands'], ['3', 'Section'], ['5', 'Joins'], ['6', 'Ends'], ['7', 'Strain']] as const) {
    await page.keyboard.press(key);
    await expect(page.getByRole('main', { name })).toContainText(`no line yet. Once one is drawn on Land, ${name} shows it here`);
  }
  await page.getByRole('button', { name: 'Draw the first line' }).click();
  await expect(page).toHaveURL(/\/land$/);
  await expect(page.getByRole('button', { name: 'Draw', exact: true })).toHaveAttribute('aria-pressed', 'true');
}); // prettier-ignore

test('a gate is set by typing: out of its line it is refused beside the field', async ({
  page,
}) => {
  const id = await open(page);
  const before = Object.keys((await stored(page, id)).plan.gates).length;
  await chooseLine(page, 'Ewe field');
  await page.keyboard.press('g');
  // On the line, wherever the map has come to rest.
  const { vertices } = Object.values((await stored(page, id)).plan.lines).find((l) => l.name === 'Ewe field')!; // prettier-ignore
  const [a, b] = [vertices[0]!, vertices[1]!];
  const [x, y] = await onMap(page, 0.7 * a.e + 0.3 * b.e, 0.7 * a.n + 0.3 * b.n);
  await page.mouse.click(x, y);
  const middle = page.getByLabel('Middle', { exact: true });
  await middle.fill('99999');
  await middle.press('Enter');
  await expect(page.getByRole('alert')).toContainText('at most');
  await middle.fill('20');
  await middle.press('Enter');
  await page.getByLabel('Opening').fill('5');
  await page.getByLabel('Opening').press('Enter');
  await page.getByLabel('Name of the gate').fill('New gate');
  await page.getByLabel('Name of the gate').press('Enter');
  await saved(page);
  const gate = Object.values((await stored(page, id)).plan.gates).find(
    (g) => (g as unknown as { name: string }).name === 'New gate',
  );
  expect(gate).toMatchObject({ at_m: expect.closeTo(20, 0), width_m: 5, cable: true });
  await page.getByRole('button', { name: 'Take it away' }).click();
  await saved(page);
  expect(Object.keys((await stored(page, id)).plan.gates)).toHaveLength(before);
});

test('an energiser is moved by typing and feeds the line that is nearest; its card follows @all', async ({
  page,
}) => {
  const id = await open(page);
  await pointAt(page, 'Earth rods too close');
  await page.getByLabel('Find in the findings').fill('');
  await page.getByLabel('Find in the findings').blur();
  await page.keyboard.press('e');
  const box = (await page.locator('[data-map]').boundingBox())!;
  await page.mouse.click(box.x + 80, box.y + 120);
  await expect(page.getByLabel('Name of the energiser')).toHaveValue('Energiser 3');
  await page.getByLabel('East').fill('75');
  await page.getByLabel('East').press('Enter');
  await page.getByLabel('North').fill('655');
  await page.getByLabel('North').press('Enter');
  await expect(page.getByText('Feeds Ridge dyke.')).toBeVisible();
  await expect(page.locator('[data-finding="feeding"]')).toContainText(
    'Two energisers on one fence',
  );
  await page.getByRole('button', { name: 'Take it away' }).click();
  await expect(page.locator('[data-finding="feeding"]')).toHaveCount(0);
  await saved(page);
  expect(Object.keys((await stored(page, id)).plan.energisers)).toEqual(['steading', 'far-hut']);
});

test('imperial holds on every step, and is kept with the plan', async ({ page }) => {
  const id = await open(page, 'land', ALL ? {} : small, { own: true });
  await page.getByRole('button', { name: 'ft', exact: true }).click();
  await saved(page);
  for (const [key, words, not] of [
    ['1', /\d\sft/, /\d\s?m\b(?!i)/],
    // Wires keep their trade names in millimetres; heights do not.
    ['2', /height, in/, /height, mm/],
    ['3', /ft/, /\d\s?m\b/],
    ['5', /\d\sin/, /\d\s?mm\b/],
    ['6', /lbf ft|lbf/, /\d\s?Nm?\b/],
    ['7', /lbf/, /\d\s?N\b/],
    ['8', /per ft/, /per m\b/],
  ] as const) {
    await page.keyboard.press(key);
    const main = page.getByRole('main');
    await expect(main).toContainText(words);
    if (key !== '1') await expect(main.locator('table').first()).not.toContainText(not);
  }
  await page.reload();
  await expect(page.getByRole('button', { name: 'ft', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  expect((await stored(page, id)).plan.units).toBe('imperial');
});

test('season and temperature switches change what is shown, and are kept by the browser', async ({
  page,
}) => {
  await open(page, 'land', small);
  await chooseLine(page, 'North');
  const strip = page.locator('[aria-label="Section of the chosen line"]');
  const wet = await strip.textContent();
  await page.getByRole('button', { name: 'driest', exact: true }).click();
  await expect(strip).not.toHaveText(wet!);
  await page.keyboard.press('7');
  await page.getByRole('button', { name: /^hot day/ }).click();
  await page.getByRole('tab', { name: 'Stringing table' }).click();
  await expect(page.locator('[data-set-now]')).toContainText(/^At 3\d.°C set/);
  await page.reload();
  await expect(page.getByRole('button', { name: 'driest', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
});

test('a conflict can also be given up: theirs stays @all', async ({ page, context }) => {
  const id = await open(page, 'land', small, { own: true });
  const other = await context.newPage();
  // It edits on an old base: neither the server's own line nor the tab beside it tells it of the change.
  await other.route('**/live', (route) => route.abort());
  await other.goto(`/p/${id}/land`);
  await other.route('**/changes?since=*', (route) => route.abort());
  await chooseLine(page, 'North');
  await chooseLine(other, 'North');
  for (const [tab, name] of [
    [page, 'First'],
    [other, 'Second'],
  ] as const) {
    await tab.getByLabel('Name of the line').fill(name);
    await tab.getByLabel('Name of the line').press('Enter');
    if (tab === page) await saved(page);
  }
  await other.getByRole('button', { name: 'Keep theirs' }).click();
  await saved(other);
  await expect(other.getByLabel('Name of the line')).toHaveValue('First');
  expect((await stored(page, id)).plan.lines['north']!.name).toBe('First');
});

test('the map is drawn on by touch on a phone', async ({ browser }) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  const page = await context.newPage();
  const id = await open(page, 'land', small);
  const before = Object.keys((await stored(page, id)).plan.lines).length;
  await page.getByRole('button', { name: 'Draw', exact: true }).tap();
  const map = page.locator('[data-map]');
  await map.scrollIntoViewIfNeeded();
  const box = (await map.boundingBox())!;
  await page.touchscreen.tap(box.x + 60, box.y + 60);
  await page.waitForTimeout(350);
  await page.touchscreen.tap(box.x + 200, box.y + 90);
  await saved(page);
  expect(Object.keys((await stored(page, id)).plan.lines)).toHaveLength(before + 1);
  await context.close();
});

test('a finding is let be with a note, stands apart after a reload, and is taken up again', async ({
  page,
}) => {
  await open(page, 'strands');
  await pointAt(page, 'Ridge dyke does not hold its stock');
  await page.getByRole('button', { name: 'let it be, with a note' }).click();
  await page.getByRole('button', { name: 'Let it be', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('A few words are wanted');
  await page.getByLabel('Why it may stay as it is').fill('the dyke wall below it holds');
  await page.getByLabel('Who says so').fill('the grazier');
  await page.getByRole('button', { name: 'Let it be', exact: true }).click();
  await saved(page);
  await page.reload();
  await page.getByText('Let be', { exact: true }).click();
  const apart = page.getByRole('list', { name: 'Findings that were let be' });
  await apart.getByRole('button', { name: 'Ridge dyke does not hold its stock' }).click();
  await expect(apart).toContainText(/Let be by the grazier on .*: the dyke wall below it holds/);
  await apart.getByRole('button', { name: 'Take it up again' }).click();
  await expect(page.getByText('Let be', { exact: true })).toHaveCount(0);
  await found(page, 'Ridge dyke does not hold its stock');
});

test('another currency asks what becomes of the prices; head and list are those of the chosen line', async ({
  page,
}) => {
  const id = await open(page, 'supplies');
  const total = page.locator('[data-total]');
  const whole = await total.textContent();
  await page.getByLabel('Quantities of').selectOption({ label: 'Burn side' });
  await expect(total).not.toHaveText(whole!);
  await expect(page.getByRole('link', { name: 'Order list, CSV' })).toHaveAttribute('href', /only=burn$/); // prettier-ignore
  await page.getByRole('tab', { name: 'Prices' }).click();
  await page.getByLabel('Currency').selectOption('NZD');
  await page.getByRole('button', { name: 'Work them all out' }).click();
  await expect(page.getByRole('alert')).toContainText('above 0');
  await page.getByLabel('1 GBP is worth, in NZD').fill('2');
  await page.getByRole('button', { name: 'Work them all out' }).click();
  await saved(page);
  const { plan } = await stored(page, id);
  expect(plan).toMatchObject({ currency: 'NZD' });
  expect((plan as unknown as { overrides: Record<string, unknown> }).overrides['prices.gate.price']).toEqual({ value: 256 }); // prettier-ignore
});
