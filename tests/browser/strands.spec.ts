import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { axeInAll, only, open, saved, stored } from './help.js';
import { test } from './test.js';
import { small } from './small.js';
import { printed } from './pdf.js';

/** Lines of the demo that are looked at here. */
const some = only('burn', 'east', 'west', 'lane-e', 'top-e', 'terrace', 'hut', 'ewe', 'bield');

const choose = (page: Page, name: string) =>
  page
    .getByRole('group', { name: 'Lines' })
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .click();
const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const strand = (page: Page, n: number) =>
  page.getByRole('slider', { name: new RegExp(`^Strand ${n} from the ground`) });

interface Made {
  height_m: number;
  duty: string;
  wire: string;
  switched?: boolean;
  kept?: boolean;
  offset_m?: number;
}
async function made(page: Page, id: string, line: string): Promise<Made[]> {
  await saved(page);
  return (await stored(page, id)).plan.lines[line]!.strands as Made[];
}
const heights = (list: Made[]) => list.map((s) => Math.round(s.height_m * 1000));

test('the bench by keys alone: height, order, duty, one more, one away, and back', async ({
  page,
}) => {
  const id = await open(page, 'strands', some);
  await choose(page, 'Terrace');
  await strand(page, 5).focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(strand(page, 5)).toHaveAttribute('aria-valuenow', '960');
  await strand(page, 2).focus();
  await page.keyboard.press('e');
  // It changes places with the one above: the heights stay, what they are goes over.
  await page.keyboard.press('Alt+ArrowUp');
  await expect(strand(page, 3)).toBeFocused();
  await page.keyboard.press('Insert');
  await expect(strand(page, 4)).toBeFocused();
  await page.keyboard.press('Delete');
  // A strand that climbs past another takes its focus along.
  await strand(page, 4).focus();
  for (let k = 0; k < 4; k++) await page.keyboard.press('PageUp');
  await expect(strand(page, 5)).toBeFocused();
  const list = await made(page, id, 'terrace');
  expect(heights(list)).toEqual([150, 300, 450, 960, 1050]);
  expect(list.map((s) => s.duty)).toEqual(['live', 'live', 'earth', 'live', 'live']);
  for (let k = 0; k < 10; k++) await page.keyboard.press('Control+z');
  expect(heights(await made(page, id, 'terrace'))).toEqual([150, 300, 450, 650, 900]);
});

test('a dragged strand moves rules and figures while it is held, and stays after a reload', async ({
  page,
}) => {
  const id = await open(page, 'strands', some);
  await choose(page, 'Terrace');
  const rules = page.getByRole('status', { name: 'Rules' });
  await expect(rules).toContainText('Every rule is kept');
  const box = (await strand(page, 4).boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y - 24, { steps: 6 });
  await expect(rules).toContainText(/Gap from 450.mm to 7\d0.mm/);
  expect(heights(await made(page, id, 'terrace'))).toEqual([150, 300, 450, 650, 900]);
  await page.mouse.up();
  await expect(page.locator('[data-finding="gap-too-wide"]').getByText('Terrace')).toBeVisible();
  const after = heights(await made(page, id, 'terrace'));
  expect(after[3]).toBeGreaterThan(700);
  await page.reload();
  await choose(page, 'Terrace');
  await expect(strand(page, 4)).toHaveAttribute('aria-valuenow', String(after[3]));
});

test('the table types what the bench drags; nonsense is refused beside its field @all', async ({
  page,
}) => {
  const id = await open(page, 'strands', some);
  await choose(page, 'Lane, east');
  await page.getByRole('button', { name: 'A strand above strand 3' }).click();
  await page.getByLabel('Duty of strand 4').selectOption('earth');
  await page.getByLabel('Height of strand 4').fill('1200');
  await page.getByLabel('Height of strand 4').press('Enter');
  await page.getByRole('button', { name: 'Take strand 2 away' }).click();
  const list = await made(page, id, 'lane-e');
  expect(list.map((s) => [s.height_m, s.duty])).toEqual([
    [0.4, 'live'],
    [0.95, 'live'],
    [1.2, 'earth'],
  ]);
  const field = page.getByLabel('Height of strand 1');
  await field.fill('5000');
  await field.press('Enter');
  await expect(page.getByRole('alert')).toContainText('at most');
  await field.press('Escape');
  await expect(field).toHaveValue('400');
});

test('barbed wire is not made live, nor live wire barbed; a plan that comes with it is stopped @all', async ({
  page,
}) => {
  const id = await open(page, 'strands', some);
  await choose(page, 'Old march');
  await page.getByLabel('Duty of strand 5').selectOption('live');
  await expect(page.getByRole('alert')).toContainText('never made live');
  await page.getByLabel('Wire of strand 1').selectOption('barbed');
  const list = await made(page, id, 'west');
  expect([list[4]!.duty, list[0]!.duty]).toEqual(['cold', 'cold']);

  const demo = JSON.parse(readFileSync('demo/hollin-scar.plan.json', 'utf8')) as {
    lines: Record<string, { strands: Made[] }>;
  };
  demo.lines['west']!.strands[4]!.duty = 'live';
  await open(page, 'strands', { lines: demo.lines });
  const row = page.locator('[data-finding="barbed-live"]');
  await expect(row.getByRole('img', { name: 'Stop' })).toBeVisible();
  await row.getByRole('button').first().click();
  await row.getByRole('button', { name: /^Mend:/ }).click();
  await expect(row).toContainText('cold');
  await row.getByRole('button', { name: 'Take it' }).click();
  await expect(row).toHaveCount(0);
});

test('proposals: by turns on dry stony ground, all live on clay; the deciding figure is said', async ({
  page,
}) => {
  const id = await open(page, 'strands', some);
  await choose(page, 'Hut side');
  await tab(page, 'Proposals');
  const head = page
    .getByRole('list', { name: 'Proposals, drawn to one scale' })
    .getByRole('listitem')
    .filter({ hasText: '★ recommended' });
  await expect(head).toBeVisible();
  await expect(head).toContainText('Live and earth by turns');
  await expect(page.getByText(/With all live, in the driest season/)).toContainText(/kV/);
  await page.getByRole('button', { name: 'Take live and earth by turns' }).click();
  const list = await made(page, id, 'hut');
  expect(list.slice(0, 3).map((s) => s.duty)).toEqual(['live', 'earth', 'live']);
  await expect(page.getByRole('button', { name: 'Take live and earth by turns' })).toBeDisabled();
  // A short fence on clay that its unit feeds well.
  await open(page, 'strands', small);
  await choose(page, 'Across');
  await tab(page, 'Proposals');
  await expect(head).toContainText('All live');
  await expect(page.getByText(/What would change it/)).toContainText(/ohm m/);
});

test('goats want closer gaps; a figure of the line’s own wants a note, and can go back @all', async ({
  page,
}) => {
  const id = await open(page, 'strands', some);
  await choose(page, 'Ewe field');
  await tab(page, 'What it asks');
  await page.getByRole('group', { name: 'to the left' }).getByLabel('Goats').check();
  await tab(page, 'Proposals');
  await page.getByRole('button', { name: 'Take all live' }).click();
  const list = heights(await made(page, id, 'ewe'));
  list.slice(1).forEach((h, i) => {
    if ((h + list[i]!) / 2 < 700) expect(h - list[i]!).toBeLessThanOrEqual(170);
  });

  await tab(page, 'What it asks');
  await page.getByRole('button', { name: 'Own figure for gap, low down' }).click();
  const own = page.getByLabel('Own gap, low down');
  await own.fill('nonsense');
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('alert')).toContainText('number above 0');
  await own.fill('220');
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('alert')).toContainText('Say why');
  await page.getByLabel('Why').fill('Trained since kids.');
  await page.getByRole('button', { name: 'Take it' }).click();
  const row = page.getByRole('row', { name: /^Gap, low down/ });
  await expect(row).toContainText('Trained since kids.');
  await expect(row).toContainText(/usual 170.mm/);
  await page.reload();
  await choose(page, 'Ewe field');
  await tab(page, 'What it asks');
  await expect(row).toContainText(/at most 220.mm/);
  await row.getByRole('button', { name: 'back to usual' }).click();
  await expect(row).toContainText(/at most 170.mm/);
});

test('posts or strands: a pair is taken, with its bays @all', async ({ page }) => {
  const id = await open(page, 'strands', some);
  await choose(page, 'East march');
  await tab(page, 'Posts or strands');
  await expect(page.getByRole('img', { name: /^Bay length against strand count/ })).toBeVisible();
  await page.getByRole('button', { name: /^Take 6 strands on bays of/ }).click();
  expect(await made(page, id, 'east')).toHaveLength(6);
  const line = (await stored(page, id)).plan.lines['east'] as unknown as { maxBay_m: number };
  expect(line.maxBay_m).toBeGreaterThan(8);
  await expect(page.getByRole('status', { name: 'Rules' })).toContainText('Every rule is kept');
});

test('an old fence is kept and held off with brackets; other fences stand beside it', async ({
  page,
}) => {
  const id = await open(page, 'strands', some);
  await choose(page, 'Bield fence');
  await tab(page, 'Old fence');
  await page.getByLabel('What stands').selectOption('netting');
  await page.getByRole('button', { name: 'Start from it' }).click();
  await page.getByRole('button', { name: 'Add live offsets' }).click();
  const list = await made(page, id, 'bield');
  expect(list.filter((s) => s.kept).map((s) => s.wire)).toEqual(['woven', 'barbed']);
  expect(list.filter((s) => s.duty === 'live').every((s) => s.offset_m! > 0)).toBe(true);
  await tab(page, 'Other fences');
  await expect(page.getByRole('row', { name: /^Small mesh/ })).toContainText('holds all');
  await expect(page.getByRole('row', { name: /^Deer: leaning/ })).toContainText(/1\.55/);
});

test('designs: kept by name, put on several lines, left, and gone back to', async ({ page }) => {
  const id = await open(page, 'strands', some);
  await choose(page, 'Lane, east');
  await tab(page, 'Designs');
  await page.getByLabel(/^Keep the strands/).fill('Ewes, five live');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('alert')).toContainText('There is a design of that name');
  await page.getByLabel(/^Keep the strands/).fill('Cows, three');
  await page.getByRole('button', { name: 'Keep it' }).click();
  const own = page.getByRole('region', { name: 'Cows, three', exact: true });
  await own.getByRole('button', { name: 'Put on several …' }).click();
  await own.getByLabel('Top east').check();
  await own.getByLabel('East march').check();
  await own.getByRole('button', { name: 'Put it on 2 lines' }).click();
  expect(heights(await made(page, id, 'east'))).toEqual([400, 650, 950]);
  await own.getByRole('button', { name: 'East march' }).click();
  // The tab stays when another line is chosen.
  await expect(own).toBeVisible();
  await tab(page, 'Strands');
  await page.getByLabel('Height of strand 3').fill('1000');
  await page.getByLabel('Height of strand 3').press('Enter');
  await tab(page, 'Designs');
  await expect(own).toContainText(/strand 3 at 1.000.mm instead of 950.mm/);
  await own.getByRole('button', { name: 'Back to the design' }).click();
  await expect(own).not.toContainText('has left it');
  expect(heights(await made(page, id, 'east'))).toEqual([400, 650, 950]);
});

test('the marked stick prints true: every strand within half a millimetre on paper @all', async ({
  page,
}) => {
  const id = await open(page, 'strands', some);
  await page.goto(`/stick/${id}?line=burn`);
  await expect(page.getByRole('img', { name: /^Sheet 1 \/ \d of/ })).toBeVisible();
  const { sheets, strokes } = await printed(
    new Uint8Array(await page.pdf({ preferCSSPageSize: true })),
  );
  expect(sheets.length).toBe(3);
  for (const [w, h] of sheets) {
    // A4 [published: ISO 216]
    expect(Math.abs(w - 210)).toBeLessThan(0.5);
    expect(Math.abs(h - 297)).toBeLessThan(0.5);
  }
  // The check ruler is the only upright stroke; marks are 46 mm long and 0.6 mm thick.
  const length = (s: (typeof strokes)[number]) =>
    Math.hypot(s.to[0] - s.from[0], s.to[1] - s.from[1]);
  const rulers = strokes.filter(
    (s) => Math.abs(s.from[0] - s.to[0]) < 0.01 && Math.abs(length(s) - 100) < 5,
  );
  expect(rulers.length).toBe(sheets.length);
  for (const r of rulers) expect(Math.abs(length(r) - 100)).toBeLessThan(0.1);
  const ground = strokes.find((s) => s.page === 1 && Math.abs(s.width - 0.9) < 0.05)!;
  const marks = strokes.filter((s) => Math.abs(s.width - 0.6) < 0.03 && length(s) > 40);
  const measured = marks
    // Two parts of 240 mm stand side by side on a sheet, with their feet on one level.
    .map((m) => {
      const part = 2 * (m.page - 1) + (m.from[0] > 60 ? 1 : 0);
      return part * 240 + ground.from[1] - m.from[1];
    })
    .sort((a, b) => a - b);
  const wanted = heights(await strandsOf(page, id));
  expect(measured).toHaveLength(wanted.length);
  measured.forEach((mm, i) => expect(Math.abs(mm - wanted[i]!)).toBeLessThan(0.5));
});
const strandsOf = async (page: Page, id: string) =>
  (await stored(page, id)).plan.lines['burn']!.strands as Made[];

test('every tab of Strands, the stick and the phone have no accessibility fault @all', async ({
  page,
}) => {
  const id = await open(page, 'strands', some);
  await choose(page, 'Burn side');
  for (const name of [
    'What it asks',
    'Proposals',
    'Posts or strands',
    'Other fences',
    'Old fence',
    'Designs',
  ]) {
    await tab(page, name);
    await expect(page.getByText('Working it out')).toHaveCount(0);
    await axeInAll(page);
  }
  await page.setViewportSize({ width: 390, height: 844 });
  await axeInAll(page);
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);
  await page.goto(`/stick/${id}?design=ewes`);
  await expect(page.getByRole('heading', { name: /Marked stick/ })).toBeVisible();
  await axeInAll(page);
  await page.goto(`/stick/${id}?design=none`);
  await expect(page.getByRole('alert')).toContainText('no such line or design');
});
