/** The start as a new user meets it, and the whole job from files to the order list. */
import { expect, type Page } from '@playwright/test';
import { test } from './test.js';
import { readFileSync } from 'node:fs';
import { axeInAll, saved, stored } from './help.js';
import { made, truth } from './wholeJob.js';

// Files that were brought wait in the browser: each test begins without them.
test.use({ fresh: true });

const files = made();

/** Files dropped on the page. */
async function drop(page: Page, list: Record<string, string>): Promise<void> {
  const data = await page.evaluateHandle((all) => {
    const transfer = new DataTransfer();
    for (const [name, text] of Object.entries(all)) transfer.items.add(new File([text], name));
    return transfer;
  }, list);
  await page.locator('main').dispatchEvent('drop', { dataTransfer: data });
}

const begun = (page: Page) => expect(page.getByText(/walked points become/)).toBeVisible();
const ringArea = (page: Page) => page.locator('dl').filter({ hasText: 'one paddock' });

test('dropped files lie on the map at once, whatever comes first; what they count in is said and can be changed', async ({
  page,
}) => {
  await page.goto('/new');
  await drop(page, { 'ground.asc': files.asc });
  await expect(page.getByText(/say which one, or bring a walk in degrees/)).toBeVisible();
  await drop(page, { 'ring.gpx': files.gpx });
  await expect(page.getByText('Taken as UTM zone 34 south, since the property lies on it.')).toBeVisible(); // prettier-ignore
  await begun(page);
  await expect(page.getByText(`${files.points} walked points become 7 vertices`)).toBeVisible();
  await expect(ringArea(page)).toContainText(/4[45]\.\d\sha/);
  await axeInAll(page);
  // A wrong zone is seen at once, a wrong word is refused in plain ones, and both can be put right.
  await page.getByLabel('The ground counts in').selectOption('projected');
  const zone = page.getByLabel('Projection of the ground');
  await zone.fill('utm 33s');
  await zone.press('Enter');
  await expect(page.getByText(/km off this ground/)).toBeVisible();
  await zone.fill('34 south');
  await zone.press('Enter');
  await expect(page.getByRole('alert')).toContainText('write "utm 34s"');
  await zone.fill('utm 34s');
  await zone.press('Enter');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByText(/off this ground/)).toHaveCount(0);
  // A tolerance of nothing keeps every point; the walk's own noise is one press away.
  await page.getByLabel('keep within', { exact: true }).fill('0');
  await page.getByLabel('keep within', { exact: true }).press('Enter');
  await expect(page.getByText(`become ${files.points} vertices`)).toBeVisible();
  await page.getByRole('button', { name: /as its noise says/ }).click();
  await expect(page.getByText('become 7 vertices')).toBeVisible();
  await expect(page.getByText('inside the fence')).toBeVisible();
  // All of it outlives a reload, files included.
  await page.getByLabel('Name', { exact: true }).fill('Kept');
  await page.reload();
  await expect(page.getByText('become 7 vertices')).toBeVisible();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Kept');
  await page.getByRole('button', { name: 'Start the plan' }).click();
  await expect(page).toHaveURL(/land$/);
  // And nothing of it is kept for the next property.
  await page.goto('/new');
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('');
  await expect(page.getByText('ring.gpx')).toHaveCount(0);
});

test('the whole job, from a noisy walk and a grid to the order list, in under sixty actions', async ({
  page,
}) => {
  let actions = 0;
  const act = async (what: Promise<unknown>) => {
    actions++;
    await what;
  };
  const key = (name: string) => act(page.keyboard.press(name));
  const button = (name: string | RegExp) => act(page.getByRole('button', { name }).first().click());

  await act(page.goto('/new'));
  await act(page.getByLabel('Name', { exact: true }).fill('Long Meadow'));
  await act(drop(page, { 'ground.asc': files.asc, 'ring.gpx': files.gpx }));
  await begun(page);
  await act(page.getByLabel('What Stile is').selectOption(''));
  await act(page.getByRole('button', { name: 'Start the plan' }).click());
  await expect(page).toHaveURL(/land$/);
  const id = page.url().split('/')[4]!;

  // The truth behind the noise.
  const { area_m2, length_m } = truth();
  const ring = Object.values((await stored(page, id)).plan.lines)[0]!.vertices;
  const report = async () =>
    (await (await page.request.get(`/api/properties/${id}/report`)).json()) as {
      lines: Record<string, { ground_m: number }>;
      paddocks: { area_m2: number }[];
      findings: { kind: string; rule: string; why: string; source: { text: string } }[];
      totals: { cost: number };
    };
  const first = await report();
  expect(Math.abs(first.paddocks[0]!.area_m2 / area_m2 - 1)).toBeLessThan(0.005);
  expect(Math.abs(Object.values(first.lines)[0]!.ground_m / length_m - 1)).toBeLessThan(0.005);

  // Fences are drawn where a hand would: on the map after it was fitted (F), from edge to edge.
  const map = page.locator('[data-map]');
  await expect(map).toBeVisible();
  const box = (of: 'e' | 'n') => ring.map((v) => v[of]);
  const at = async (e: number, n: number) => {
    const { width, height, x, y } = (await map.boundingBox())!;
    const [west, east, south, north] = [Math.min(...box('e')), Math.max(...box('e')), Math.min(...box('n')), Math.max(...box('n'))]; // prettier-ignore
    const step = Math.max((east - west) / (width - 60), (north - south) / (height - 92));
    return [
      x + width / 2 + (e - (west + east) / 2) / step,
      y + height / 2 - (n - (south + north) / 2) / step,
    ] as const;
  };
  const press = async (e: number, n: number) => {
    const [x, y] = await at(e, n);
    await act(page.mouse.click(x, y));
    // Two presses within 300 ms are one double press.
    await page.waitForTimeout(320);
  };
  /** Fits the map once its height has come to rest: the section below opens in its own time. */
  const fit = async () => {
    let last = -1;
    const rests = async () => {
      const { height } = (await map.boundingBox())!;
      const same = height === last;
      last = height;
      return same;
    };
    await expect.poll(rests, { intervals: [300] }).toBe(true);
    await key('f');
    await page.waitForTimeout(350);
  };
  const draw = async (
    tool: string,
    from: readonly [number, number],
    to: readonly [number, number],
  ) => {
    await fit();
    await key(tool);
    await press(...from);
    await press(...to);
    await key('Enter');
    await expect(page.getByLabel('Section of the chosen line')).toBeVisible();
    await saved(page);
  };
  // Local metres begin at the first walked point, which is the ring's south-west corner.
  await draw('d', [420, 17], [420, 672]);
  // Well away from the ring's corners, which would catch an end.
  await draw('d', [-12, 200], [420, 200]);
  await draw('l', [200, 9], [200, 200]);
  const count = async (of: 'lines' | 'gates') =>
    Object.keys((await stored(page, id)).plan[of]).length;
  // On the fences as they stand: each between its first two vertices, a quarter of the way.
  await expect.poll(() => count('lines')).toBe(5);
  const drawn = Object.values((await stored(page, id)).plan.lines).filter((l) => l.name !== 'Ring');
  for (const [k, { vertices }] of drawn.slice(0, 3).entries()) {
    const [from, to] = [vertices[0]!, vertices[1]!];
    await fit();
    await key('g');
    await press(from.e + (to.e - from.e) / 4, from.n + (to.n - from.n) / 4);
    // The next is pressed once this one stands.
    await expect.poll(() => count('gates')).toBe(2 + k);
  }
  await expect.poll(() => count('gates')).toBe(4);
  expect(await count('lines')).toBe(5);

  await key('2');
  await button(/^Ring/);
  await act(page.getByRole('tab', { name: 'Proposals' }).click());
  await expect(page.getByText('★ recommended').first()).toBeVisible();
  const recommended = page
    .getByRole('list', { name: 'Proposals, drawn to one scale' })
    .getByRole('listitem')
    .filter({ hasText: '★ recommended' });
  const name = (await recommended.locator('span').first().textContent())!.trim();
  const take = page.getByRole('button', { name: `Take ${name.toLowerCase()}`, exact: true });
  if (await take.isEnabled()) await act(take.click());
  await expect(take).toBeDisabled();

  await key('3');
  await button(/^All 5 lines/);
  await act(page.getByRole('button', { name: 'Take it' }).click());
  await saved(page);
  await key('8');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    act(page.getByRole('link', { name: 'Order list, CSV' }).click()),
  ]);
  const order = readFileSync((await download.path())!, 'utf8');
  expect(order).toMatch(/Steel/);
  expect(order.split('\n').length).toBeGreaterThan(8);

  await saved(page);
  const last = await report();
  const whole = last.paddocks.reduce((m, p) => m + p.area_m2, 0);
  expect(Math.abs(whole / area_m2 - 1)).toBeLessThan(0.005);
  expect(last.paddocks.length).toBeGreaterThanOrEqual(4);
  expect(last.findings.filter((f) => f.kind === 'stop')).toEqual([]);
  // Every finding that is left says why, and where that comes from.
  for (const f of last.findings) expect(`${f.why} ${f.source.text}`.length, f.rule).toBeGreaterThan(40); // prettier-ignore
  console.log(`the whole job took ${actions} actions; left: ${last.findings.map((f) => `${f.kind} ${f.rule}`).join(', ')}`); // prettier-ignore
  expect(actions).toBeLessThan(60);
});

test('what the first page asks to be pressed is shut until a press is heard', async ({ page }) => {
  let go: () => void = () => {};
  const held = new Promise<void>((done) => (go = done));
  await page.route('**/*.js', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto('/', { waitUntil: 'commit' });
  await expect(page.getByRole('button', { name: 'Open the sample farm' })).toBeDisabled();
  await expect(page.locator('input[accept=".json"]')).toBeDisabled();
  go();
  await expect(page.getByRole('button', { name: 'Open the sample farm' })).toBeEnabled();
  await expect(page.locator('input[accept=".json"]')).toBeEnabled();
});

test('the first page opens the sample farm with its tour, which goes through five steps and is left at any time @all', async ({
  page,
}) => {
  await page.goto('/');
  await axeInAll(page);
  const demo = page.getByRole('listitem').filter({ hasText: 'Hollin Scar' }).first();
  await expect(demo).toContainText(/km of fence, £/);
  await expect(demo).toContainText(/\d Stop, \d+ Mend/);
  await page.getByRole('button', { name: 'Open the sample farm' }).click();
  const tour = page.getByRole('region', { name: 'Tour' });
  await expect(tour.getByRole('heading')).toBeFocused();
  for (const [step, title] of [
    ['land', 'A fence is a line'],
    ['strands', 'Its strands, to scale'],
    ['section', 'A post that lifts'],
    ['power', 'Volts at the worst point'],
    ['supplies', 'The order'],
  ] as const) {
    await expect(tour.getByRole('heading')).toHaveText(title);
    await expect(page).toHaveURL(new RegExp(`/${step}`));
    if (step === 'section')
      await expect(page.getByText(/too little: a stouter post/)).toBeVisible();
    if (step === 'strands') await axeInAll(page);
    if (step !== 'supplies') await tour.getByRole('button', { name: 'Next' }).click();
  }
  await tour.getByRole('button', { name: 'Leave the tour' }).click();
  await expect(tour).toHaveCount(0);
  // It can be had again, from the sheet of keys.
  await page.keyboard.press('?');
  await page.getByRole('button', { name: 'Take the tour' }).click();
  await expect(tour).toContainText('Stop 1 of 5');
});

test('a ready shape is begun from its picture, and an empty map says what to do @all', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: /A laneway with paddocks/ }).click();
  await expect(page.getByText('7 paddocks')).toBeVisible();
  await page.getByLabel('Area within it').fill('12');
  await page.getByLabel('Area within it').press('Enter');
  await expect(page.locator('dl')).toContainText(/12\.0\sha/);
  await page.getByRole('radio', { name: 'A paddock' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('radio', { name: 'A laneway with paddocks' })).toBeChecked();
  await page.getByLabel('Name', { exact: true }).fill('Six and a lane');
  await page.getByRole('button', { name: 'Start the plan' }).click();
  await expect(page).toHaveURL(/land$/);
  const { plan } = await stored(page, page.url().split('/')[4]!);
  expect(Object.keys(plan.lines)).toHaveLength(7);
  expect(Object.keys(plan.gates)).toHaveLength(7);

  await page.goto('/new');
  await page.getByLabel('Name', { exact: true }).fill('Nothing yet');
  await page.getByRole('button', { name: 'Start the plan' }).click();
  await expect(page.getByRole('button', { name: 'Draw', pressed: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Nothing is drawn yet' })).toBeVisible();
  await axeInAll(page);
  // Dropped on it, a walk gives the property its place and waits to be brought in.
  await drop(page, { 'strange.txt2': 'x' });
  const target = page.locator('[data-map]');
  const data = await page.evaluateHandle((text) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([text], 'ring.gpx'));
    return transfer;
  }, files.gpx);
  await target.dispatchEvent('drop', { dataTransfer: data });
  await page.getByLabel('What Stile is').selectOption('gate');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await saved(page);
  const brought = (await stored(page, page.url().split('/')[4]!)).plan as unknown as {
    origin: { proj: string };
    gates: Record<string, { name: string }>;
  };
  expect(brought.origin.proj).toContain('lon_0=18.4');
  expect(Object.values(brought.gates).map((g) => g.name)).toEqual(['Road gate', 'Stile']);
});
