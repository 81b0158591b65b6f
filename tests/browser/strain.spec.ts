/** Strain: settings that hold, where it is tensioned, the table, checks by tap, pull and microphone, wires, cards. */
import { expect, type Page } from '@playwright/test';
import type { Plan } from '../../src/core/plan/schema.js';
import { axeInAll, only, open, saved, stored } from './help.js';
import { test } from './test.js';

/** Lines of the demo that are looked at here. */
const some = only('burn', 'ridge', 'mid-w', 'terrace');

const at = async (page: Page, line: string, tab?: string, { own = false } = {}) => {
  const id = await open(page, 'strain', some, { own });
  await page.getByRole('button', { name: line, exact: true }).click();
  if (tab) await page.getByRole('tab', { name: tab, exact: true }).click();
  return id;
};
const planOf = async (page: Page, id: string) => (await stored(page, id)).plan as unknown as Plan;
/** Tension checks of a property, as the server keeps them. */
const checks = async (page: Page, id: string) =>
  ((await (await page.request.get(`/api/properties/${id}/records/tension?since=0`)).json()) as { records: Record<string, unknown>[] }).records; // prettier-ignore

test('the window says what holds; a spring and another setting move it', async ({ page }) => {
  const id = await at(page, 'Terrace');
  const chart = page.getByRole('img', { name: /^Settings that hold/ });
  await expect(chart).toHaveAccessibleName(/It is set to 1.000.N/);
  await expect(page.getByText(/this run holds with/)).toBeVisible();
  // The section below has the pull of each bay.
  await expect(page.locator('title', { hasText: 'Pull in each bay' })).toBeAttached();
  await axeInAll(page);
  await page.getByRole('button', { name: /^firm/ }).click();
  await expect(page.getByText('too tight in winter')).toBeVisible();
  await page.getByLabel('a spring in each strand of each run').check();
  await saved(page);
  expect((await planOf(page, id)).lines['terrace']).toMatchObject({ school: 'firm', springs: true }); // prettier-ignore
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('too tight in winter')).toBeHidden();
});

test('where it is tensioned: by word, by hand, taken back; nonsense is refused beside the field @all', async ({
  page,
}) => {
  const id = await at(page, 'Ridge dyke', 'Along the run');
  const places = page.getByRole('group', { name: 'Places for the tensioner' });
  await expect(places).toContainText('in the middle (now)');
  await expect(page.getByRole('img', { name: /^Tension along the run/ })).toBeVisible();
  await axeInAll(page);
  await page.getByLabel('Or by hand, at').fill('99999');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/by hand, at: at most/)).toBeVisible();
  await page.getByLabel('Or by hand, at').fill('300');
  await page.keyboard.press('Enter');
  await expect(places).toContainText('where it was placed by hand (now)');
  await saved(page);
  const { tensioners } = (await planOf(page, id)).lines['ridge']!;
  expect(Math.abs(tensioners![0]!.at_m - 300)).toBeLessThan(5);
  await page.getByRole('button', { name: 'Take that back' }).click();
  await saved(page);
  expect((await planOf(page, id)).lines['ridge']!.tensioners).toBeUndefined();
  await page.getByLabel('In every run').selectOption('best');
  await expect(places).toContainText('at the best place found (now)');
  await saved(page);
  expect((await planOf(page, id)).lines['ridge']!.tensionerAt).toBe('best');
});

test('a wire wrapped round a corner: both ways side by side, and one press strains it off', async ({
  page,
}) => {
  const id = await at(page, 'Middle west', 'Along the run');
  const part = page.getByRole('region', { name: 'Wrapped or separate' });
  await expect(part).toContainText('Separate runs.');
  await part.getByRole('button', { name: 'Strain it off at each corner' }).click();
  await saved(page);
  const { vertices } = (await planOf(page, id)).lines['mid-w']!;
  expect(vertices.map((v) => v.kind)).toContain('corner');
  await expect(page.getByLabel('Run', { exact: true })).toBeVisible();
});

test('the table for the day follows the warmth, the tools and the units @all', async ({ page }) => {
  await at(page, 'Terrace', 'Stringing table');
  const table = page.getByRole('group', { name: 'Stringing table' });
  await expect(page.locator('[data-set-now]')).toContainText('12');
  await page.getByRole('button', { name: /cold night/ }).click();
  await expect(page.locator('[data-set-now]')).toContainText('-12');
  await expect(table.getByRole('row')).toHaveCount(13);
  await page.getByLabel('the wire slides over its posts').check();
  await page.getByLabel('Returns', { exact: true }).fill('5');
  await page.keyboard.press('Enter');
  await expect(table).toContainText('5 returns over');
  await page.reload();
  await page.getByRole('tab', { name: 'Stringing table' }).click();
  await expect(page.getByLabel('Returns', { exact: true })).toHaveValue('5');
  await page.getByRole('button', { name: 'ft', exact: true }).click();
  await expect(table).toContainText('lbf');
});

test('a pull is read, kept, there after a reload, compared, and taken back', async ({ page }) => {
  const id = await at(page, 'Terrace', 'Checks', { own: true });
  await page.getByLabel('Read with').selectOption('pull');
  await page.getByLabel('Pulled with').fill('20');
  await page.keyboard.press('Enter');
  await page.getByLabel('it moved').fill('100');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/held at both posts, or does it slide/)).toBeVisible();
  await page.getByLabel('Pulled with').fill('110');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-check-result]')).toContainText(/at 15.°C/);
  await page.getByLabel('Who', { exact: true }).fill('Crew');
  await page.getByRole('button', { name: 'Keep this check' }).click();
  await expect.poll(async () => (await checks(page, id)).length).toBe(1);
  expect((await checks(page, id))[0]).toMatchObject({ tool: 'pull', line: 'terrace', who: 'Crew', celsius: 12 }); // prettier-ignore
  await page.reload();
  await page.getByRole('button', { name: 'Terrace', exact: true }).click();
  await page.getByRole('tab', { name: 'Checks' }).click();
  await expect(page.locator('[data-drift]')).toContainText('the first check here');
  await axeInAll(page);
  await page.getByRole('button', { name: /^Take back the check/ }).click();
  await expect(page.getByText('No checks kept on this run yet')).toBeVisible();
  await expect.poll(async () => (await checks(page, id)).length).toBe(2);
});

test('the simulated scale is kept as such, and says nothing of the wire', async ({ page }) => {
  const id = await at(page, 'Terrace', 'Checks', { own: true });
  await page.getByLabel('Read with').selectOption('scale');
  await page.getByRole('button', { name: 'Read the simulated scale' }).click();
  await expect(page.getByText('simulated, and kept as such')).toBeVisible();
  await expect(page.locator('[data-check-result]')).toContainText('as near as such a check tells');
  await page.getByRole('button', { name: 'Keep this check' }).click();
  await expect.poll(async () => (await checks(page, id)).map((c) => c['note'])).toEqual(['simulated scale']); // prettier-ignore
  await expect(page.getByRole('group', { name: 'Checks kept' })).toContainText('simulated');
  await expect(page.locator('[data-drift] li')).toHaveCount(0);
});

test('two years of checks are drawn, and say what happened', async ({ page }) => {
  const id = await open(page, 'strain', some, { own: true });
  const check = (day: string, strand: number, at15_N: number) => ({ id: crypto.randomUUID(), time: `${day}T10:00:00Z`, who: '', note: '', line: 'terrace', at_m: 60, spot: null, strand, wire: 'ht25', tool: 'scale', detail: 'scale', celsius: 15, tension_N: at15_N, error_N: 20, at15_N, expected15_N: 1000 }); // prettier-ignore
  for (const c of [check('2025-10-01', 1, 1000), check('2025-10-01', 2, 1000), check('2026-10-01', 1, 980), check('2026-10-01', 2, 650)]) // prettier-ignore
    expect((await page.request.post(`/api/properties/${id}/records/tension`, { data: c })).status()).toBe(201); // prettier-ignore
  await page.reload();
  await page.getByRole('button', { name: 'Terrace', exact: true }).click();
  await page.getByRole('tab', { name: 'Checks' }).click();
  await expect(page.locator('[data-drift]')).toContainText(
    'a knot or joiner of this strand slipped',
  );
  await expect(page.getByRole('img', { name: /^Tension at 15 °C over time/ })).toBeVisible();
});

test('the microphone finds the note of a bay (a simulated signal without its first mode) @all', async ({
  page,
}) => {
  await at(page, 'Terrace', 'Checks');
  // 14 Hz by its overtones alone, as a telephone would hear it.
  await page.evaluate(() => {
    const simulated = async () => {
      const context = new AudioContext();
      const out = context.createMediaStreamDestination();
      for (const k of [6, 7, 8, 9, 10]) {
        const tone = new OscillatorNode(context, { frequency: 14 * k });
        tone.connect(new GainNode(context, { gain: 0.15 })).connect(out);
        tone.start();
      }
      await context.resume();
      return out.stream;
    };
    Object.defineProperty(navigator, 'mediaDevices', { value: { getUserMedia: simulated } });
  });
  await page.getByLabel('Read with').selectOption('note');
  await page.getByRole('button', { name: 'Listen with the microphone' }).click();
  await expect(page.locator('[data-heard]')).toContainText('taken');
  expect(Math.abs(Number(await page.getByLabel('Note', { exact: true }).inputValue()) / 14 - 1)).toBeLessThan(0.02); // prettier-ignore
  await expect(page.locator('[data-check-result]')).toBeVisible();
  await page.getByRole('button', { name: 'Stop listening' }).click();
});

test('break tests and a wire of one’s own take the place of the table @all', async ({ page }) => {
  const id = await at(page, 'Terrace', 'Wires');
  await page.getByLabel('at', { exact: true }).fill('5000');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.locator('[data-broken-alone]')).toContainText('one test tells no spread');
  await page.getByLabel('Broken').selectOption('knot');
  await page.getByLabel('at', { exact: true }).fill('4000');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.locator('[data-broken-joint]')).toContainText(/80.%/);
  await page.getByRole('button', { name: 'Add a wire' }).click();
  await page.getByLabel('Diameter').fill('99');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Diameter: at most 6/)).toBeVisible();
  await page.getByLabel('Diameter').fill('2.2');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Use it on Terrace' }).click();
  await expect(page.getByRole('group', { name: 'Wires', exact: true })).toContainText('Own wire 1 (here)'); // prettier-ignore
  await saved(page);
  const plan = await planOf(page, id);
  expect(plan.breakTests).toHaveLength(2);
  expect(plan.ownWires!['own-1']).toMatchObject({ diameter_mm: 2.2 });
  expect(plan.lines['terrace']!.strands.every((s) => s.wire === 'own-1')).toBe(true);

  // Another tab takes the wire away: for a moment the figures name what the plan no longer has, and nothing falls over it.
  const { revision } = await stored(page, id);
  const strands = (some['lines'] as Plan['lines'])['terrace']!.strands;
  const patch = [{ op: 'replace', path: '/lines/terrace/strands', value: strands }, { op: 'remove', path: '/ownWires' }]; // prettier-ignore
  const data = { changeId: crypto.randomUUID(), tab: 'other', base: revision, kind: 'do', words: 'another wire', patch, inverse: patch }; // prettier-ignore
  expect((await page.request.post(`/api/properties/${id}/changes`, { data })).status()).toBe(200);
  await expect(page.getByText('Own wire 1')).toHaveCount(0);
  await expect(page.getByRole('img', { name: /^Section of/ }).or(page.getByRole('slider', { name: /Cursor along/ })).first()).toBeVisible(); // prettier-ignore
  await axeInAll(page);
});

test('one card for each run, with its table and the order', async ({ page }) => {
  const id = await open(page, 'strain', some);
  await page.goto(`/strain/${id}?line=terrace`);
  const cards = page.getByRole('region', { name: /^Strain \d/ });
  await expect(cards).toHaveCount(2);
  await expect(cards.first()).toContainText('from the top down');
  await expect(cards.first().getByRole('row')).toHaveCount(19);
  await axeInAll(page);
  await page.goto(`/strain/${id}?line=nowhere`);
  await expect(page.getByRole('alert')).toContainText('There is no such line');
});

/** What the browser's own clock says, s: touches and keys bear its times, whatever day the test is tried on. */
const browserTime = (page: Page) =>
  page.evaluate(() => (performance.timeOrigin + performance.now()) / 1000);

test.describe('with the thumb', () => {
  test.use({ day: null });
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('ten taps with 5 % jitter tell the tension of a known wire to within 3 %', async ({
    page,
  }) => {
    const id = await open(page, 'strain', some, { own: true });
    await page.getByRole('tab', { name: 'Checks' }).click();
    const [over, tension, mass] = [60, 1000, (Math.PI / 4) * 0.0025 ** 2 * 7850];
    await page.getByLabel('It runs over').fill(String(over));
    await page.keyboard.press('Enter');
    const pad = page.getByRole('button', { name: 'Tap at each return' });
    await pad.scrollIntoViewIfNeeded();
    const box = (await pad.boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const period = 2 * over * Math.sqrt(mass / tension) * 1000;
    // Normal jitter of 5 % of a return, drawn once.
    const jitter = [0.4, -1.1, 0.7, -0.2, 1.3, -0.6, 0.1, -1.4, 0.9, -0.3];
    // Each touch bears its own time, as a hand's does: what the machine is busy with cannot move it.
    const hand = await page.context().newCDPSession(page);
    const began = await browserTime(page);
    for (const [k, z] of jitter.entries()) {
      const timestamp = began + (period * (k + 0.05 * z)) / 1000;
      await hand.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ x, y }], timestamp }); // prettier-ignore
      await hand.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [], timestamp: timestamp + 0.05 }); // prettier-ignore
    }
    await expect(page.locator('[data-taps]')).toBeVisible();
    await page.getByRole('button', { name: 'Keep this check' }).click();
    await expect.poll(async () => (await checks(page, id)).length).toBe(1);
    const [kept] = await checks(page, id);
    expect(Math.abs((kept!['tension_N'] as number) / tension - 1)).toBeLessThan(0.03);
    expect(kept!['error_N'] as number).toBeGreaterThan(5);
    await axeInAll(page);
  });

  test('by keys: the space bar taps, and taps that mean nothing are refused', async ({ page }) => {
    await open(page, 'strain', some);
    await page.getByRole('tab', { name: 'Checks' }).click();
    const pad = page.getByRole('button', { name: 'Tap at each return' });
    await pad.focus();
    // Each key bears its own time, as a hand's does: what the machine is busy with cannot move it.
    const hand = await page.context().newCDPSession(page);
    let timestamp = await browserTime(page);
    for (const gap of [200, 600, 200, 200, 900]) {
      const key = { key: ' ', code: 'Space', text: ' ', windowsVirtualKeyCode: 32 };
      await hand.send('Input.dispatchKeyEvent', { type: 'keyDown', ...key, timestamp });
      await hand.send('Input.dispatchKeyEvent', { type: 'keyUp', ...key, timestamp: timestamp + 0.05 }); // prettier-ignore
      timestamp += gap / 1000;
    }
    await expect(page.getByRole('alert').filter({ hasText: /missed or tapped twice/ })).toBeVisible(); // prettier-ignore
    await page.getByRole('button', { name: 'Begin again' }).click();
    await expect(pad).toContainText('Strike the wire');
  });
});
