/** Build: the plan of work by hand and by keys, a task done, a day loaded, things inspected with photos, the fence proved. */
import { expect, type Page } from '@playwright/test';
import ICAL from 'ical.js';
import { readFileSync } from 'node:fs';
import type { Plan } from '../../src/core/plan/schema.js';
import { axeInAll, empty, open, saved, stored } from './help.js';
import { printed, wordsOn } from './pdf.js';
import { small } from './small.js';
import { test } from './test.js';

/** The day of these tests, a Monday: what a day of the plan takes hangs on the weekday on which the work begins. */
test.use({ day: '2026-03-02T09:00:00' });

const at = async (page: Page, tab?: string, { own = false } = {}) => {
  const id = await open(page, 'build', small, { own });
  await expect(page.locator('[data-planned=true]')).toBeVisible();
  if (tab) await page.getByRole('tab', { name: tab, exact: true }).click();
  return id;
};
const buildOf = async (page: Page, id: string) => ((await stored(page, id)).plan as unknown as Plan).build; // prettier-ignore
const records = async (page: Page, id: string, kind: string) =>
  ((await (await page.request.get(`/api/properties/${id}/records/${kind}?since=0`)).json()) as { records: Record<string, unknown>[] }).records; // prettier-ignore
const finish = (page: Page) => page.locator('[data-finish]').textContent();
const planned = (page: Page) => expect(page.locator('[data-planned=true]')).toBeVisible();

test('the plan of work: moved by keys, undone, reloaded; what rain and one more make of it; a calendar file', async ({
  page,
}) => {
  const id = await at(page);
  await axeInAll(page);
  const row = page.locator('[data-row=east]');
  const bar = row.getByRole('button', { name: /^East, wire/ });
  const before = await bar.getAttribute('aria-label');
  await bar.focus();
  await page.keyboard.press('Space');
  for (let k = 0; k < 3; k++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Space');
  await expect(bar).not.toHaveAttribute('aria-label', before!);
  await saved(page);
  await expect.poll(async () => (await buildOf(page, id))?.tasks?.['run:east']?.from).toMatch(/^\d{4}-/); // prettier-ignore
  const moved = await bar.getAttribute('aria-label');
  await page.reload();
  await planned(page);
  await expect(bar).toHaveAttribute('aria-label', moved!);
  await page.keyboard.press('Control+z');
  await expect(bar).toHaveAttribute('aria-label', before!);
  await planned(page);

  // By hand to the left: before all that could go before it.
  const box = (await bar.boundingBox())!;
  await page.mouse.move(box.x + 3, box.y + 3);
  await page.mouse.down();
  await page.mouse.move(box.x - 200, box.y + 3, { steps: 6 });
  await page.mouse.up();
  await expect.poll(() => buildOf(page, id)).toMatchObject({ tasks: { 'run:east': { first: true } } }); // prettier-ignore
  await page.keyboard.press('Control+z');

  await page.getByRole('button', { name: 'one more comes' }).click();
  await expect(page.locator('[data-what-if]')).toContainText(/earlier|same day/);
  await page.getByLabel('it rains on').selectOption({ index: 1 });
  await page.getByRole('button', { name: 'one more comes' }).click();
  await expect(page.locator('[data-what-if]')).toContainText(/later|same day/);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Calendar file' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('Three lines work.ics');
  const read = new ICAL.Component(ICAL.parse(readFileSync(await file.path(), 'utf8')) as unknown[]);
  expect(read.getAllSubcomponents('vevent').length).toBeGreaterThan(30);
});

test('who, when, and what is hired: each follows at once, nonsense is refused, the crew is in the store', async ({
  page,
}) => {
  const id = await at(page);
  await expect(page.getByText('Nobody of the crew is named as trained on the post driver.')).toBeVisible(); // prettier-ignore
  const was = await finish(page);
  await page.getByRole('tab', { name: 'Who and when' }).click();
  await axeInAll(page);
  await page.getByLabel('Lead hand is trained on the post driver').check();
  await page.getByLabel('Who else').fill('Neighbour');
  await page.getByLabel('Who else').press('Enter');
  await expect(page.locator('[data-member]')).toHaveCount(3);
  await page.getByLabel('Begin on').fill('2031-03-03');
  await page.getByLabel('Sat').check();
  await page.getByLabel('Day off').fill('2031-03-04');
  await page.locator('[data-machine="hire.driver"]').getByLabel('from').fill('2031-03-10');
  // It would go back before it comes: not taken.
  await page.locator('[data-machine="hire.driver"]').getByLabel('to', { exact: true }).fill('2031-03-01');
  await saved(page);
  expect(await buildOf(page, id)).toMatchObject({
    start: '2031-03-03',
    days: [1, 2, 3, 4, 5, 6],
    off: ['2031-03-04'],
    machines: { 'hire.driver': { from: '2031-03-10' } },
  });
  expect(Object.values((await buildOf(page, id))!.crew!).map((m) => m.name)).toEqual(['Lead hand', 'Second hand', 'Neighbour']); // prettier-ignore
  await page.getByRole('tab', { name: 'Plan of work' }).click();
  await planned(page);
  await expect(page.locator('[data-finish]')).toContainText('2031');
  expect(await finish(page)).not.toBe(was);
  await expect(page.getByText('Nobody of the crew is named')).toHaveCount(0);
}); // prettier-ignore

test('a task is found, changed, done in part; the rate follows, an odd day is asked about and taken back', async ({
  page,
}) => {
  const id = await at(page, 'Tasks', { own: true });
  await page.getByLabel('Find in Tasks').fill('North Set the light');
  const row = page.locator('[data-task="posts:north"]');
  await row.getByRole('button', { name: 'Set the light line posts' }).click();
  const card = page.getByRole('region', { name: 'North: Set the light line posts' });
  await card.getByText('Change it').click();
  await card.getByLabel('People at once').fill('none');
  await card.getByLabel('People at once').press('Enter');
  await expect(card.getByRole('alert')).toContainText('a number is wanted');
  await card.getByLabel('People at once').fill('1');
  await card.getByLabel('People at once').press('Enter');
  await expect(card).toContainText('1 at it');
  await axeInAll(page);
  await card.getByText('Done …').click();
  await card.getByLabel('Of what was left').selectOption('half');
  await card.getByLabel('It took, for all people together').fill('90');
  await card.getByLabel('It took, for all people together').press('Enter');
  await card.getByRole('button', { name: 'Mark as done' }).click();
  await expect(card).toContainText('50 % are done');
  await expect.poll(() => records(page, id, 'work')).toMatchObject([{ task: 'posts:north', share: 0.5, hours: 90, counts: null }]); // prettier-ignore
  await page.getByRole('tab', { name: 'Rates' }).click();
  const days = page.getByRole('group', { name: 'Days done' });
  await expect(days).toContainText('does it count?');
  await axeInAll(page);
  await days.getByRole('button', { name: 'leave it out' }).click();
  await expect(days).toContainText('left out');
  await days.getByRole('button', { name: 'take back' }).click();
  await expect(page.getByText('Nothing was marked as done yet.')).toBeVisible();
  await page.reload();
  await planned(page);
  await page.getByRole('tab', { name: 'Rates' }).click();
  await expect(page.getByText('Nothing was marked as done yet.')).toBeVisible();
});

test('work of one’s own and what is left out stand in the plan of work @all', async ({ page }) => {
  const id = await at(page, 'Tasks');
  await page.getByLabel('What is to be done').fill('Mend the stile');
  await page.getByRole('button', { name: 'Put it in' }).click();
  const own = page.locator('[data-task="own:own1"], [data-task="own:own"]').first();
  await expect(own).toContainText('Mend the stile');
  await page.locator('[data-task="guide:east"]').getByRole('button').click();
  const card = page.getByRole('region', { name: 'East: Pull a guide wire' });
  await card.getByText('Change it').click();
  await card.getByRole('button', { name: 'Leave it out' }).click();
  await expect(page.locator('[data-task="guide:east"]')).toHaveCount(0);
  await saved(page);
  await page.getByRole('button', { name: 'put back guide of East' }).click();
  await expect(page.locator('[data-task="guide:east"]')).toHaveCount(1);
  expect(Object.values((await buildOf(page, id))!.own!)[0]!.name).toBe('Mend the stile');
});

test('a day is loaded thing by thing; what was missing is asked for at the next such work; the sheet prints', async ({
  page,
}) => {
  const id = await at(page, 'Day by day', { own: true });
  await expect(page.locator('[data-load]').first()).toBeVisible();
  await axeInAll(page);
  await page.getByLabel('Long tape is loaded').check();
  await expect(page.locator('[data-ticked]')).toContainText('1 of');
  await expect.poll(async () => (await records(page, id, 'loads')).length).toBe(1);
  await page.reload();
  await planned(page);
  await page.getByRole('tab', { name: 'Day by day' }).click();
  await expect(page.getByLabel('Long tape is loaded')).toBeChecked();
  // A slow way to the server: what waits can be taken back like what was sent.
  await page.route('**/records/loads', async (route) => {
    if (route.request().method() === 'POST') await new Promise((done) => setTimeout(done, 1500));
    await route.continue();
  });
  await page.getByLabel('Spade is loaded').check();
  await page.getByLabel('Spade is loaded').uncheck();
  await expect(page.locator('[data-ticked]')).toContainText('1 of');
  await page.getByRole('button', { name: 'First-aid kit was missing' }).click();
  await page.getByLabel('Missing at the fence, and not on the list').fill('the dog');
  await page.getByRole('button', { name: 'Ask for it next time' }).click();
  await expect(page.locator('[data-missed]')).toContainText('the dog');
  await page.getByRole('button', { name: 'next day' }).click();
  await expect(page.locator('[data-forgotten]')).toContainText(/First-aid kit.*the dog|the dog.*First-aid kit/);
  await page.getByRole('button', { name: 'the dog: no longer ask' }).click();
  await expect(page.locator('[data-forgotten]')).not.toContainText('the dog');
  // All of it arrives, in its order: two ticks and one of them taken back, two that were missing and one of them too.
  await expect.poll(async () => (await records(page, id, 'loads')).length).toBe(6); // prettier-ignore
  const sheet = await page.getByRole('link', { name: 'Print', exact: true }).getAttribute('href');
  await page.goto(sheet!);
  await expect(page.locator('[data-day] [data-load]').first()).toBeVisible();
  await expect(page.getByText('Forgotten before:')).toBeVisible();
  await axeInAll(page);
}); // prettier-ignore

/** A picture twice as wide as high, red on the left and blue on the right, with a note that it is to be turned a quarter. */
async function turned(page: Page): Promise<Buffer> {
  const url = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [2400, 1200];
    const g = canvas.getContext('2d')!;
    g.fillStyle = '#f00';
    g.fillRect(0, 0, 1200, 1200);
    g.fillStyle = '#00f';
    g.fillRect(1200, 0, 1200, 1200);
    return canvas.toDataURL('image/jpeg', 0.9);
  });
  const jpeg = Buffer.from(url.split(',')[1]!, 'base64');
  // Exif (published: CIPA DC-008): big-endian TIFF, one entry, orientation 6: the right of the sensor is the top.
  const tiff = Buffer.from('4d4d002a00000008000101120003000000010006000000000000', 'hex');
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiff]);
  const head = Buffer.from([0xff, 0xe1, 0, body.length + 2]);
  return Buffer.concat([jpeg.subarray(0, 2), head, body, jpeg.subarray(2)]);
}

test('what is inspected: a failure with note and photo, upright and small, becomes work', async ({ page }) => {
  const id = await at(page, 'Inspect', { own: true });
  await page.getByLabel('On', { exact: true }).selectOption({ label: 'East' });
  const thing = page.locator('[data-check^="rail:east"]').first();
  await thing.getByRole('button', { name: 'failed' }).click();
  await expect(thing).toContainText('It stands among the tasks now.');
  await thing.getByLabel(/^Note on/).fill('too low');
  await thing.getByLabel(/^Note on/).press('Enter');
  await thing.getByLabel(/^Photo of/).setInputFiles({ name: 'x.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') });
  await expect(thing.getByRole('alert')).toContainText('no picture that the browser can read');
  await thing.getByLabel(/^Photo of/).setInputFiles({ name: 'p.jpg', mimeType: 'image/jpeg', buffer: await turned(page) });
  await expect(thing.getByRole('img')).toBeVisible();
  await axeInAll(page);
  const kept = async () => (await records(page, id, 'inspections')).at(-1) as { photo: string | null; note: string };
  await expect.poll(async () => (await kept()).photo).toMatch(/^[0-9a-f]{64}$/);
  const { photo } = await kept();
  await expect.poll(async () => (await page.request.get(`/api/properties/${id}/photos/${photo}`)).status()).toBe(200);
  const content = await (await page.request.get(`/api/properties/${id}/photos/${photo}`)).body();
  expect(content.length).toBeLessThan(700_000);
  // No note of rotation or place is left in it.
  expect(content.includes(Buffer.from('Exif'))).toBe(false);
  const seen = await page.evaluate(async (src) => {
    const img = new Image();
    img.src = src;
    await img.decode();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [img.naturalWidth, img.naturalHeight];
    const g = canvas.getContext('2d')!;
    g.drawImage(img, 0, 0);
    const at = (x: number, y: number) => [...g.getImageData(x, y, 1, 1).data.slice(0, 3)];
    return { size: [canvas.width, canvas.height], top: at(canvas.width / 2, 20), bottom: at(canvas.width / 2, canvas.height - 20) };
  }, `/api/properties/${id}/photos/${photo}`);
  expect(seen.size).toEqual([800, 1600]);
  expect(seen.top[0]).toBeGreaterThan(200);
  expect(seen.bottom[2]).toBeGreaterThan(200);
  await page.reload();
  await planned(page);
  await page.getByRole('tab', { name: 'Tasks' }).click();
  await page.getByLabel('Find in Tasks').fill('too low');
  await expect(page.locator('[data-task^="fix:"]')).toContainText('Put right: Rail height, level (too low)');
}); // prettier-ignore

test('the fence is proved: readings are judged one by one and together, and are there again', async ({ page }) => {
  const id = await at(page, 'Prove', { own: true });
  const rows = page.locator('[data-prove]');
  await expect(rows).toHaveCount(3);
  await axeInAll(page);
  const expected = async (k: number) => Number(/(\d+\.\d).kV/.exec((await rows.nth(k).textContent())!)![1]);
  const read = async (k: number, kV: number) => {
    await rows.nth(k).getByRole('textbox').fill(kV.toFixed(1));
    await rows.nth(k).getByRole('textbox').press('Enter');
  };
  await rows.nth(0).getByRole('textbox').fill('a lot');
  await rows.nth(0).getByRole('textbox').press('Enter');
  await expect(rows.nth(0).getByRole('alert')).toContainText('a number is wanted');
  await read(0, await expected(0));
  await expect(rows.nth(0)).toContainText('✓ as the plan expects');
  await read(1, 0.1);
  await expect(rows.nth(1)).toContainText('✗ dead');
  await expect(page.locator('[data-together]')).toContainText('Only some places are low');
  await page.locator('[data-earth-test]').getByRole('textbox').fill('900');
  await page.locator('[data-earth-test]').getByRole('textbox').press('Enter');
  await expect(page.locator('[data-earth-test]')).toContainText('over the limit');
  await expect.poll(async () => (await records(page, id, 'readings')).length).toBe(3);
  await page.reload();
  await planned(page);
  await page.getByRole('tab', { name: 'Prove' }).click();
  await expect(rows.nth(1)).toContainText('✗ dead');
}); // prettier-ignore

test('an empty property says where its work will stand', async ({ page }) => {
  await open(page, 'build', empty);
  await expect(page.getByText('There is nothing to build yet')).toBeVisible();
  await axeInAll(page);
});

test('bench cards: reached from the task that wants them, turned, printed; the trainer asks and keeps a tally @all', async ({
  page,
}) => {
  const id = await at(page, 'Tasks');
  await page.locator('[data-task="tie:east"]').getByRole('button').click();
  await page.getByRole('button', { name: 'Figure-eight join' }).click();
  const card = page.getByRole('region', { name: 'Figure-eight join' });
  await expect(card.getByRole('img')).toHaveCount(6);
  await axeInAll(page);
  const before = await card.locator('svg').first().innerHTML();
  await page.getByLabel('turn it').focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(() => card.locator('svg').first().innerHTML()).not.toBe(before);
  await page.getByRole('button', { name: 'as drawn' }).click();

  await page.getByRole('button', { name: 'train' }).click();
  const trainer = page.locator('[data-trainer]');
  // Both games, each answered right: the tally counts them.
  for (let k = 1; k <= 2; k++) {
    const game = await trainer.getAttribute('data-trainer');
    if (game === 'order')
      for (let s = 0; s < 6; s++) await trainer.locator(`[data-picture="${s}"]`).click();
    else await trainer.locator('[data-picture="stranger"]').click();
    await expect(page.locator('[data-said=right]')).toContainText('Right');
    await expect(page.locator('[data-tally]')).toContainText(`${k} right, 0 wrong`);
    await trainer.getByRole('button', { name: 'Another' }).click();
  }
  await axeInAll(page);
  await page.reload();
  await page.getByRole('tab', { name: 'Bench cards' }).click();
  await page.getByLabel('Card', { exact: true }).selectOption('eight');
  await page.getByRole('button', { name: 'train' }).click();
  await expect(page.locator('[data-tally]')).toContainText('2 right');

  await page.goto(`/cards/${id}`);
  await expect(page.locator('.a5')).toHaveCount(17);
  // Each on its own A5 page: none runs over.
  const paper = await page.pdf({ preferCSSPageSize: true, printBackground: true });
  const { sheets } = await printed(new Uint8Array(paper));
  expect(sheets.length).toBe(17);
  expect(sheets[0]![0]).toBeCloseTo(148, 0);
});

test('the pack: one document of A4, whose contents name what is in it @all', async ({ page }) => {
  const id = await at(page);
  await page.getByRole('link', { name: 'Print pack' }).click();
  await expect(page).toHaveURL(new RegExp(`/pack/${id}$`));
  const sheets = page.locator('[data-sheets]');
  await expect(sheets).toContainText('at least');
  await axeInAll(page, { long: true });
  const contents = page.locator('[data-contents]');
  const paper = () => page.pdf({ preferCSSPageSize: true, printBackground: true });
  const pages = async () => (await printed(new Uint8Array(await paper()))).sheets;
  // Every leaf bears its mark on paper, and the contents reach to the last of each part.
  const [first, ...rest] = await wordsOn(new Uint8Array(await paper()));
  for (const letter of 'ABCDEFGH') {
    const marks = rest.flatMap((words) => [...words.matchAll(new RegExp(`\\b${letter} (\\d+)\\b`, 'g'))].map((m) => Number(m[1]))); // prettier-ignore
    const last = Math.max(...marks);
    expect(new Set(marks).size, letter).toBe(last);
    expect(first).toMatch(new RegExp(`${letter} (\\d+ to )?${last}\\b`));
  }
  const all = await pages();
  const said = Number(/at least (\d+)/.exec((await sheets.textContent())!)![1]);
  expect(all.length).toBeGreaterThanOrEqual(said);
  for (const sheet of all) expect([...sheet].sort((a, b) => a - b).map(Math.round)).toEqual([210, 297]); // prettier-ignore
  expect(Math.round(all[0]![0])).toBe(210);
  // Where every leaf is one page, the paper is exactly what was said: no empty page, none that runs over.
  for (const name of [/^sections and posts/, /^days of work/])
    await page.getByLabel(name).uncheck();
  const fewer = Number(/at least (\d+)/.exec((await sheets.textContent())!)![1]);
  expect(await pages()).toHaveLength(fewer);
  // What was left out stays so; a line has its own pack.
  await page.reload();
  await expect(page.getByLabel(/^days of work/)).not.toBeChecked();
  await page.getByLabel('Lines', { exact: true }).selectOption({ label: 'East' });
  await expect(page.locator('[data-leaf=ends]')).not.toHaveCount(0);
  await expect(page.locator('[data-leaf=setout]')).toHaveCount(0);
  await expect(contents.getByRole('row')).toHaveCount(2);

  const bare = await open(page, 'land', empty);
  await page.goto(`/pack/${bare}`);
  await expect(contents).toContainText('None: no line yet');
  await expect(page.getByRole('alert')).toHaveCount(0);
});
