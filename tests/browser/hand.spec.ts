/** The whole job by keyboard alone and by touch alone; feet on every screen; paper. */
import { expect, type Page } from '@playwright/test';
import { test } from './test.js';
import { axeInAll, empty, figures, goStep, only, open, saved, stored, STEPS } from './help.js';

/** Presses Tab until something of this name and role has the focus: what cannot be reached so is not there. */
async function tabTo(page: Page, role: string, name: RegExp): Promise<void> {
  for (let k = 0; k < 90; k++) {
    await page.keyboard.press('Tab');
    const here = await page.evaluate(() => {
      const el = document.activeElement as HTMLElement | null;
      if (!el) return null;
      const labels = (el as HTMLInputElement).labels;
      const words = el.getAttribute('aria-label') ?? labels?.[0]?.textContent ?? el.textContent;
      return { tag: el.tagName.toLowerCase(), role: el.getAttribute('role'), words: words.trim() };
    });
    if (here && (here.role ?? here.tag) === role && name.test(here.words)) return;
  }
  throw new Error(`${role} ${String(name)} is not reached by Tab`);
}

test('the whole job by keyboard alone: drawn, gated, fed, stranded, placed, counted, mended, undone @all', async ({
  page,
}) => {
  test.slow();
  const id = await open(page, 'land', { ...empty, newLines: { left: ['sheep'], right: [], keepOut: [], boundary: false } }); // prettier-ignore
  const key = (k: string) => page.keyboard.press(k);
  const type = async (words: string) => {
    await page.keyboard.type(words);
    await key('Enter');
  };
  await expect(page.locator('[data-map]')).toBeVisible();
  await key('d');
  await tabTo(page, 'input', /First place/);
  for (const words of ['0, 0', '150 @ 90', '90 @ 0', '150 @ 270']) await type(words);
  await tabTo(page, 'button', /^Done$/);
  await key('Enter');
  await saved(page);
  // A gate and an energiser by "at ... along".
  await key('g');
  await tabTo(page, 'input', /^at$/);
  await key('Control+a');
  await type('60');
  await expect(page.getByLabel('Name of the gate')).toBeVisible();
  await key('e');
  await tabTo(page, 'button', /Put it there/);
  await key('Enter');
  await expect(page.getByLabel('Name of the energiser')).toBeVisible();
  await saved(page);
  let plan = (await stored(page, id)).plan;
  // Taped from the start of the run that the middle of the line lies on, as the choice beside it says.
  expect((Object.values(plan.gates)[0] as { at_m: number }).at_m).toBeCloseTo(210, 0);
  expect(Object.values(plan.energisers)[0]!.line).toBe(Object.keys(plan.lines)[0]);

  // Step by step; the focus goes to the view, and the title says where one is.
  await key('2');
  await expect(page).toHaveTitle(/^Strands/);
  await expect(page.locator('#view')).toBeFocused();
  await tabTo(page, 'tab', /^Strands$/);
  await key('ArrowRight');
  await expect(page.getByRole('tab', { name: 'What it asks' })).toHaveAttribute('aria-selected', 'true'); // prettier-ignore
  await key('ArrowRight');
  await expect(page.getByRole('tab', { name: 'Proposals' })).toHaveAttribute('aria-selected', 'true'); // prettier-ignore
  await tabTo(page, 'button', /^Take /);
  await key('Enter');
  await saved(page);
  plan = (await stored(page, id)).plan;
  expect(Object.values(plan.lines)[0]!.strands.length).toBeGreaterThan(3);

  await key('3');
  await tabTo(page, 'button', /^Place by the ground$/);
  await key('Enter');
  await tabTo(page, 'slider', /Cursor along/);
  await key('ArrowRight');
  // It is told what stands there: place, ground.
  await expect(page.getByRole('slider')).toHaveAttribute('aria-valuetext', /ground/);

  // The next finding, from anywhere; its mend is shown and taken, and undone beside the words.
  await key('8');
  await expect(page.locator('[data-total]')).not.toHaveText('');
  await key('n');
  await expect(page.locator('[data-cause][class*=bg-chosen]')).toHaveCount(1);
  await key('1');
  await tabTo(page, 'button', /^All lines over ground|^Back/);
  const before = (await stored(page, id)).revision;
  await page.locator('[data-map]').focus();
  await key('Delete');
  await expect(page.getByRole('status').getByText(/^took /)).toBeVisible();
  await key('Control+z');
  await saved(page);
  expect((await stored(page, id)).revision).toBe(before + 2);
});

test('the whole job by touch alone on a phone @all', async ({ browser }) => {
  test.slow();
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true }); // prettier-ignore
  const page = await context.newPage();
  const { id } = (await (await page.request.post('/api/properties', { data: { ...(await small()), ...empty, name: 'By touch' } })).json()) as { id: string }; // prettier-ignore
  await page.goto(`/p/${id}/land`);
  await expect(page.locator('[data-map]')).toBeVisible();
  const box = (await page.locator('[data-map]').boundingBox())!;
  const tap = async (x: number, y: number) => {
    await page.touchscreen.tap(box.x + x, box.y + y);
    await page.waitForTimeout(380);
  };
  await page.getByRole('button', { name: 'Draw', exact: true }).tap();
  await tap(120, 300);
  await tap(300, 320);
  await tap(280, 150);
  await page.getByRole('button', { name: 'Choose', exact: true }).tap();
  await saved(page);
  expect(Object.values((await stored(page, id)).plan.lines)[0]!.vertices).toHaveLength(3);
  // A gate on the line, by a tap.
  await page.getByRole('button', { name: 'Gate', exact: true }).tap();
  await tap(210, 310);
  await saved(page);
  expect(Object.keys((await stored(page, id)).plan.gates)).toHaveLength(1);
  // The corner under the thumb is seen in the lens while it is dragged.
  await page.getByRole('group', { name: 'What the sheet shows' }).getByRole('button').first().tap();
  const client = await context.newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x = 0, y = 0) =>
    client.send('Input.dispatchTouchEvent', { type, touchPoints: type === 'touchEnd' ? [] : [{ x, y }] }); // prettier-ignore
  await page.getByRole('button', { name: 'Choose', exact: true }).tap();
  const now = await page.locator('[data-map]').evaluate((el) => {
    const { x, y } = el.getBoundingClientRect();
    return { x, y, view: el.dataset['view']!.split(',').map(Number) };
  });
  const [first] = Object.values((await stored(page, id)).plan.lines);
  const v = first!.vertices[2]!;
  const [x, y] = [now.x + (v.e - now.view[0]!) / now.view[2]!, now.y + (now.view[1]! - v.n) / now.view[2]!]; // prettier-ignore
  await touch('touchStart', x, y);
  for (let k = 1; k <= 6; k++) await touch('touchMove', x - 6 * k, y + 3 * k);
  await expect(page.locator('[data-lens]')).toBeVisible();
  await touch('touchEnd');
  await expect(page.locator('[data-lens]')).toHaveCount(0);
  await saved(page);
  // Every step by the thumb; findings in the sheet; season and undo in theirs.
  for (const step of ['Strands', 'Section', 'Power', 'Strain', 'Supplies', 'Build', 'Land']) {
    await page.getByRole('link', { name: new RegExp(`^${step}`) }).tap();
    await expect(page).toHaveTitle(new RegExp(`^${step}`));
    await pressable(step);
    if (step !== 'Build') continue;
    for (const tab of await page.getByRole('tab').all()) {
      await tab.tap();
      // What is there after the moment that a tab takes.
      await expect(page.getByText('One moment …')).toHaveCount(0);
      await pressable(`Build, ${await tab.textContent()}`);
    }
  }
  await page.getByRole('group', { name: 'What the sheet shows' }).getByRole('button').last().tap();
  await expect(page.getByRole('group', { name: 'List of findings' })).toBeVisible();
  await pressable('findings');
  await page.getByRole('button', { name: /season, temperature, units, undo/ }).tap();
  await axeInAll(page);
  await page.getByRole('dialog').getByRole('button', { name: 'driest' }).tap();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo' }).tap();
  await page.getByRole('button', { name: 'Done' }).tap();
  await saved(page);
  await context.close();

  /** Whatever is pressed is as large as a fingertip in a glove. */
  async function pressable(where: string) {
    const low = await page.evaluate(
      () =>
      [...document.querySelectorAll<HTMLElement>('button, a, select, summary')]
        .filter((el) => el.checkVisibility() && !el.closest('.sr-only, .stacked thead, nav[aria-label=Skip]')) // prettier-ignore
        .filter((el) => el.getBoundingClientRect().height < 43 && !/^Where /.test(el.ariaLabel ?? ''))
        .map((el) => `${el.tagName} ${(el.ariaLabel ?? el.textContent).slice(0, 40)} ${el.getBoundingClientRect().height}`), // prettier-ignore
    );
    expect(low, where).toEqual([]);
  }

  async function small() {
    return (await import('./small.js')).small;
  }
});

test('Ctrl+Z after a drop-down, a tick box and a field: what is shown is what the plan holds', async ({
  page,
}) => {
  const id = await open(page, 'land');
  await page
    .getByRole('button', { name: /^Middle west/ })
    .first()
    .click();
  const posts = page.getByLabel('Line posts');
  const [was, other] = [await posts.inputValue(), await posts.locator('option').nth(3).getAttribute('value')]; // prettier-ignore
  await posts.selectOption(other);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(posts).toHaveValue(was);
  const tick = page.getByLabel('boundary of the property');
  const on = await tick.isChecked();
  await tick.click();
  await page.keyboard.press('Control+z');
  await expect(tick).toBeChecked({ checked: on });
  const bay = page.getByLabel('Longest bay');
  const length = await bay.inputValue();
  await bay.fill('4.2');
  await bay.press('Enter');
  await saved(page);
  // The focus is still in the field; nothing is typed there that is not taken yet.
  await bay.press('Control+z');
  await expect(bay).toHaveValue(length);
  // What is typed and not taken is the field's own affair.
  await bay.fill('7');
  await bay.press('Control+z');
  await saved(page);
  expect(Object.keys((await stored(page, id)).plan.lines)).toContain('mid-w');
  expect((await stored(page, id)).plan.lines['mid-w']).toMatchObject({ post: was });
});

test('all places of one cause are mended by one press, after what changes was shown', async ({
  page,
}) => {
  const id = await open(page, 'strain', only('top-w', 'top-e', 'ewe', 'lane-e'));
  const entry = page.locator('[data-cause=no-tensioner]');
  await entry.getByRole('button').first().click();
  await expect(entry.getByRole('list', { name: 'Places' }).getByRole('listitem')).toHaveCount(3);
  await entry.getByRole('button', { name: /^Mend all 3/ }).click();
  await expect(entry.getByText(/^Then \d+ findings are gone/)).toBeVisible();
  await entry.getByRole('button', { name: 'Take all 3' }).click();
  await expect(entry).toHaveCount(0);
  await saved(page);
  const { lines } = (await stored(page, id)).plan;
  for (const line of ['top-w', 'top-e', 'ewe'])
    expect(lines[line]).toMatchObject({ tensioner: true });
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(entry).toHaveCount(1);
});

/** Metric units as words of their own; what is the same everywhere (kV, ohm, J, µs, mS) is no such word. */
const METRIC = /(?<![\w.])[−-]?\d[\d\u202f.]*[\s\u00a0]?(?:mm|cm|m|km|ha|kg|N|kN|kPa|°C|ohm[\s\u00a0]m)(?![\w²³/′])/; // prettier-ignore

test('in feet no metric unit stands on any step, tab, finding or paper @all', async ({ page }) => {
  test.slow();
  const id = await open(page, 'land');
  await page.getByRole('button', { name: 'ft', exact: true }).click();
  await saved(page);
  await figures(page);
  const metric = async (where: string) => {
    const words = await page.evaluate(() => {
      const out: string[] = [];
      const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_ELEMENT);
      for (
        let el = walker.nextNode() as HTMLElement | null;
        el;
        el = walker.nextNode() as HTMLElement | null
      ) {
        // prettier-ignore
        if (['SCRIPT', 'STYLE'].includes(el.tagName)) continue;
        // Words of a block, or of one part of a drawing: a figure and its unit stand in different elements.
        if (/^(P|LI|TD|TH|DT|DD|H1|H2|H3|LABEL|BUTTON|OPTION|SUMMARY|SPAN|text)$/.test(el.tagName)) out.push(el.textContent); // prettier-ignore
        const said = el.getAttribute('aria-label');
        if (said) out.push(said);
      }
      return out;
    });
    const hits = [...new Set(words.filter((w) => METRIC.test(w) && w.length < 400))];
    expect(
      hits.map((w) => `${METRIC.exec(w)![0]}: ${w.slice(0, 90)}`),
      where,
    ).toEqual([]);
  };
  for (const step of STEPS) {
    await goStep(page, step);
    for (const fold of await page.locator('main details').all()) await fold.evaluate((d: HTMLDetailsElement) => void (d.open = true)); // prettier-ignore
    await metric(step);
    for (const tab of await page.getByRole('tab').all()) {
      await tab.click();
      await page.waitForTimeout(600);
      await expect(page.getByText(/^(Planning the work|One moment)/)).toHaveCount(0); // prettier-ignore
      await metric(`${step}, ${await tab.textContent()}`);
    }
  }
  const report = (await (await page.request.get(`/api/properties/${id}/report`)).json()) as { findings: { title: string; why: string; todo: string; source: { text: string } }[] }; // prettier-ignore
  for (const f of report.findings)
    for (const words of [f.title, f.why, f.todo, f.source.text]) expect(words).not.toMatch(METRIC);
  for (const paper of [
    `/print/${id}`,
    `/setout/${id}?line=burn`,
    `/cards/${id}`,
    `/pack/${id}?line=burn`,
  ]) {
    await page.goto(paper);
    await expect(page.locator('main')).toBeVisible();
    await packed(page);
    // Sticks are marked in both units, whichever the plan has.
    if (paper.startsWith('/pack/')) await page.getByLabel(/^marked sticks/).uncheck();
    await metric(paper);
  }
});

/** The pack comes part by part. */
async function packed(page: Page): Promise<void> {
  if (page.url().includes('/pack/'))
    await expect(page.locator('[data-sheets]')).toContainText('at least');
}

test('every step prints as a document, and the papers have no accessibility fault @all', async ({
  page,
}) => {
  test.slow();
  const id = await open(page, 'land');
  for (const step of STEPS) {
    await goStep(page, step);
    // A map is printed as large as it was drawn.
    if (step === 'land' || step === 'power') await expect(page.locator('[data-map]')).toHaveAttribute('style', /--drawn-h: [1-9]/); // prettier-ignore
    await page.emulateMedia({ media: 'print' });
    await expect(page.locator('.print-only').first()).toContainText('Hollin Scar');
    await expect(page.getByRole('button').and(page.locator('main .button:visible'))).toHaveCount(0);
    // Nothing is clipped: all that is on the page is as tall as it is.
    const clipped = await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('main, #view, #view div, main section')]
        .filter((el) => el.getClientRects().length > 0 && !el.closest('[data-map]'))
        .filter(
          (el) =>
            el.scrollHeight > el.clientHeight + 4 && getComputedStyle(el).overflowY !== 'visible',
        ) // prettier-ignore
        .map((el) => el.className),
    );
    expect(clipped, step).toEqual([]);
    // A map has its size, and nothing is printed over it.
    if (step === 'land' || step === 'power') {
      const map = (await page.locator('[data-map]').boundingBox())!;
      expect(map.height).toBeGreaterThan(200);
      const below = step === 'land' ? page.getByText('All lines over ground') : page.getByText('As built today'); // prettier-ignore
      expect((await below.boundingBox())!.y).toBeGreaterThan(map.y + map.height);
    }
    await page.emulateMedia({ media: 'screen' });
  }
  for (const paper of [
    `/print/${id}`,
    `/setout/${id}`,
    `/stick/${id}?line=burn`,
    `/pack/${id}?line=burn`,
  ]) {
    await page.goto(paper);
    await expect(page.locator('main')).toBeVisible();
    await packed(page);
    await axeInAll(page, { long: /setout|pack/.test(paper) });
  }
  await page.goto(`/setout/${id}?line=burn`);
  const sheet = page.locator('[data-set-out=burn]');
  await expect(sheet).toHaveCount(1);
  const rows = await sheet.locator('tbody tr').count();
  // One box to tick for each post of each run; a post that two runs share stands in both.
  expect(rows).toBeGreaterThan(170);
  await expect(sheet.locator('tbody tr').first()).toContainText('0.00');
});

test('the map and the panes stay as they were left while steps come and go @all', async ({
  page,
}) => {
  const id = await open(page, 'land');
  const map = page.locator('[data-map]');
  const resolution = async () => Number((await map.getAttribute('data-view'))!.split(',')[2]);
  const before = await resolution();
  await page.getByRole('button', { name: 'Nearer' }).click();
  await expect.poll(resolution).toBeCloseTo(before / 1.6, 3);
  await page.keyboard.press('2');
  await expect(
    page.getByRole('heading', { level: 1 }).or(page.locator('h2')).first(),
  ).toBeVisible();
  await page.keyboard.press('1');
  await expect.poll(resolution).toBeCloseTo(before / 1.6, 3);

  // The list of lines is as narrow after the cards of the map as where one begins with it.
  const side = async () => (await page.locator('[data-panel][id^="side"]').boundingBox())!.width;
  await page.goto(`/p/${id}/section`);
  await figures(page);
  const own = await side();
  await page.keyboard.press('1');
  await expect.poll(side).toBeGreaterThan(own + 40);
  await page.keyboard.press('3');
  await expect.poll(side).toBeCloseTo(own, 0);
  // And after a step that has none.
  await page.keyboard.press('8');
  await page.keyboard.press('1');
  await expect.poll(side).toBeGreaterThan(own + 40);
});

test('with the pen in the hand the map keeps its room; the section opens when the line is ended', async ({
  page,
}) => {
  await open(page, 'land');
  const map = page.locator('[data-map]');
  const height = async () => (await map.boundingBox())!.height;
  const [before, at] = [await height(), (await map.boundingBox())!];
  await page.keyboard.press('d');
  for (const x of [0.35, 0.45, 0.55])
    await page.mouse.click(at.x + x * at.width, at.y + 0.97 * at.height);
  await expect(page.getByText(/Show the section of/)).toBeVisible();
  expect(Math.abs((await height()) - before)).toBeLessThan(12);
  await page.keyboard.press('Enter');
  await expect.poll(height).toBeLessThan(before - 100);
});
