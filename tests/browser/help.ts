/** What the browser tests share. */
import axeCore from 'axe-core';
import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { edit } from '../../src/formats/patch.js';
import { ALL } from '../often.js';
import { goesOn } from './test.js';

const DEMO = JSON.parse(readFileSync('demo/hollin-scar.plan.json', 'utf8')) as Record<
  string,
  unknown
>;

/** The steps of the rail, in their order; a test that walks them all walks these. */
export const STEPS = [
  'land',
  'strands',
  'section',
  'power',
  'joins',
  'ends',
  'strain',
  'supplies',
  'build',
  'rounds',
  'faults',
] as const;

/** Steps on which some line is always chosen: the first of all at first. */
const ONE_LINE: readonly string[] = ['strands', 'section', 'joins', 'ends', 'strain'];

/** The property that a kept tab has open. */
const there = new WeakMap<Page, string>();

/**
 * A property of the test's own, so that tests do not meet; opened on a step. In a kept tab it is the property of the test
 * before, made into this one by a change such as another tab makes.
 * @param own a new property all the same: for what keeps records, or counts all that can be undone
 */
export async function open(
  page: Page,
  step = 'land',
  change: Record<string, unknown> = {},
  { own = false } = {},
): Promise<string> {
  const before = there.get(page);
  const on = goesOn.delete(page) && !own && before;
  const rests = async () => (await page.locator('[data-save=saved]').count()) > 0;
  if (on && new URL(page.url()).pathname.startsWith(`/p/${on}/`) && (await rests())) {
    await makeInto(page, on, await asStored(page, change), step);
    return on;
  }
  const id = await posted(page, change);
  await page.goto(`/p/${id}/${step}`);
  await figures(page);
  if (own) there.delete(page);
  else there.set(page, id);
  return id;
}

/** The first page, once what stands on it answers: a file that is chosen before that goes nowhere. */
export async function front(page: Page): Promise<void> {
  await page.goto('/');
  await expect(page.locator('main > fieldset:enabled')).toBeAttached();
}

async function posted(page: Page, change: Record<string, unknown>): Promise<string> {
  const answer = await page.request.post('/api/properties', { data: { ...DEMO, ...change } });
  expect(answer.status()).toBe(201);
  return ((await answer.json()) as { id: string }).id;
}

const known = new Map<string, object>();
/** The demo with a change, as the server keeps it. */
async function asStored(page: Page, change: Record<string, unknown>): Promise<object> {
  const key = JSON.stringify(change);
  const plan = known.get(key) ?? (await stored(page, await posted(page, change))).plan;
  known.set(key, plan);
  return plan;
}

/** Makes the property of a kept tab into another one, and looks at it as one that was just opened. */
async function makeInto(page: Page, id: string, wanted: object, step: string): Promise<void> {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('Escape');
  const { plan, revision } = await stored(page, id);
  const { patch, inverse } = edit(plan as object, (draft) =>
    become(draft as Table, wanted as Table),
  );
  if (patch.length > 0) {
    const data = { changeId: crypto.randomUUID(), tab: 'tests', base: revision, kind: 'do', words: 'for the next test', patch, inverse }; // prettier-ignore
    const answer = await page.request.post(`/api/properties/${id}/changes`, { data });
    expect(await answer.json()).toMatchObject({ status: 'saved' });
    await expect(page.locator(`[data-save=saved][data-revision="${revision + 1}"]`)).toBeVisible();
  }
  if (step !== 'land' && !ONE_LINE.includes(step)) {
    // By way of Land: no line is chosen where a property is opened.
    await pressStep(page, 'land');
    await noLine(page);
  } else if ((await onRail(page, step).getAttribute('aria-current')) === 'page')
    // A step that stands there is left and come back to: it is not as the test before left it.
    await pressStep(page, step === 'land' ? 'ends' : 'land');
  await pressStep(page, step);
  if (step === 'land') {
    await expect(page.locator('[data-map][data-view]')).toBeVisible();
    await page.keyboard.press('Escape');
    await noLine(page);
    // Without a line the map is higher: it is fitted once it stands.
    await onMap(page, 0, 0);
    await page.keyboard.press('f');
  }
  if (ONE_LINE.includes(step))
    await page.getByRole('group', { name: 'Lines' }).getByRole('button').first().click();
  const tab = page.getByRole('tab').first();
  if ((await tab.count()) > 0 && (await tab.getAttribute('aria-selected')) !== 'true') await tab.click(); // prettier-ignore
  await expect(page.locator('html:not([data-behind])')).toBeAttached();
}

/** The step's place in the rail. */
const onRail = (page: Page, step: string) =>
  page.locator(`nav[aria-label=Steps] a[href$="/${step}"]`);

/** Waits until a step that was chosen stands. */
async function stands(page: Page, step: string): Promise<void> {
  await expect(onRail(page, step)).toHaveAttribute('aria-current', 'page');
  await expect(page.locator(`.shell[data-step=${step}]`)).toBeAttached();
  await expect(page.getByText('One moment')).toHaveCount(0);
}

/** Goes to a step whatever lies over the rail. */
async function pressStep(page: Page, step: string): Promise<void> {
  await onRail(page, step).evaluate((a: HTMLAnchorElement) => a.click());
  await stands(page, step);
}

/** Lets go on Land of the line that the test before has chosen. */
async function noLine(page: Page): Promise<void> {
  // The list or the card of a line: until one of them stands, nothing says which it is.
  const side = page.getByTestId('side-land');
  if ((await side.count()) > 0) await side.getByRole('button').first().waitFor();
  const back = page.getByRole('button', { name: 'Back to all lines' });
  if ((await back.count()) > 0) await back.click();
}

type Table = Record<string, unknown>;
const isTable = (x: unknown): x is Table =>
  typeof x === 'object' && x !== null && !Array.isArray(x);
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Writes what differs, item by item, so that what is alike need not be worked out again. */
function become(now: Table, wanted: Table): void {
  for (const key of new Set([...Object.keys(now), ...Object.keys(wanted)])) {
    const [is, be] = [now[key], wanted[key]];
    if (same(is, be)) continue;
    // The order of a table is seen: where it would be another one, the table is written whole.
    const order = isTable(is) && isTable(be) && [...Object.keys(is).filter((k) => k in be), ...Object.keys(be).filter((k) => !(k in is))]; // prettier-ignore
    if (!(key in wanted)) delete now[key];
    else if (!order || !same(order, Object.keys(be as Table))) now[key] = be;
    else
      for (const k of new Set([...Object.keys(is as Table), ...order])) {
        if (!(k in (be as Table))) delete (is as Table)[k];
        else if (!same((is as Table)[k], (be as Table)[k])) (is as Table)[k] = (be as Table)[k];
      }
  }
}

/**
 * The demo with a few of its lines alone, and what stands on them: a third of the work for a test whose point is not the whole.
 * @param ids of lines
 */
export function only(...ids: string[]): Record<string, unknown> {
  const of = (table: string, keep: (item: Record<string, unknown>) => boolean) =>
    Object.fromEntries(
      Object.entries(DEMO[table] as Record<string, Record<string, unknown>>).filter(([, item]) =>
        keep(item),
      ),
    );
  const onThem = (item: Record<string, unknown>) => ids.includes(item['line'] as string);
  return {
    lines: of('lines', (l) => ids.includes(l['id'] as string)),
    gates: of('gates', onThem),
    energisers: of('energisers', onThem),
    paddocks: {},
    build: undefined,
  };
}

/** The list of findings, where the room on the screen shows it. */
export const findings = (page: Page) => page.getByRole('group', { name: 'List of findings' });

/** Goes to a step by the rail, as one does: what was worked out stands, and nothing is loaded anew. */
export async function goStep(page: Page, step: string): Promise<void> {
  await onRail(page, step).click();
  await stands(page, step);
}

/** Waits until the first figures are there. */
export const figures = (page: Page): Promise<void> =>
  expect(page.locator('nav[data-worked]')).toBeVisible();

/** Whether a finding is found by these words. */
export async function found(page: Page, words: string, there = true): Promise<void> {
  await page.getByLabel('Find in the findings').fill(words);
  const entry = findings(page).locator('[data-cause]');
  if (there) await expect(entry.first()).toBeAttached();
  else await expect(entry).toHaveCount(0);
  await page.getByLabel('Find in the findings').fill('');
  // Ctrl+Z in a field is the field's own.
  await page.getByLabel('Find in the findings').blur();
}

/** Opens the finding of this title, whatever else shares its cause. */
export async function pointAt(page: Page, title: string): Promise<void> {
  await page.getByLabel('Find in the findings').fill(title);
  const entry = findings(page).locator('[data-cause]').first();
  await entry.getByRole('button').first().click();
  const place = entry.getByRole('list', { name: 'Places' }).getByRole('button', { name: title });
  if ((await place.count()) > 0) await place.first().click();
}

/** An empty flat property. */
export const empty = {
  lines: {},
  gates: {},
  energisers: {},
  things: {},
  paddocks: {},
  grids: undefined,
  ground: { kind: 'flat', z_m: 0 },
  name: 'Empty',
};

/** Where a place is drawn now: the map says where it lies, once it lies still. */
export async function onMap(page: Page, e: number, n: number): Promise<[number, number]> {
  const map = page.locator('[data-map]');
  const view = () => map.getAttribute('data-view');
  let last = '';
  await expect
    .poll(async () => {
      const now = `${await view()} ${JSON.stringify(await map.boundingBox())}`;
      const still = now === last && !now.startsWith('null');
      last = now;
      return still;
    })
    .toBe(true);
  const [west, north, resolution] = (await view())!.split(',').map(Number);
  const box = (await map.boundingBox())!;
  return [box.x + (e - west!) / resolution!, box.y + (north! - n) / resolution!];
}

/** Waits until the screen says saved. */
export const saved = (page: Page) => expect(page.locator('[data-save=saved]')).toBeVisible();

interface Saved {
  plan: {
    lines: Record<
      string,
      {
        name: string;
        vertices: { e: number; n: number; kind: string }[];
        strands: { height_m: number }[];
        joins?: { ties: { switch?: true }[] }[];
        ends?: object[];
      }
    >;
    gates: Record<string, { line: string; at_m: number; cable: boolean; depth_m?: number }>;
    connectors?: string;
    frost_m?: number;
    energisers: Record<string, { line: string | null; model: string; rods: number }>;
    units: string;
  };
  revision: number;
}

/** The plan as the server has it. */
export async function stored(page: Page, id: string): Promise<Saved> {
  return (await (await page.request.get(`/api/properties/${id}`)).json()) as Saved;
}

/** The view has no accessibility fault that axe can find. */
export async function axe(page: Page, { long = false } = {}): Promise<void> {
  await expect(page.locator('main')).toBeVisible();
  // Put into the page once: its text is half a megabyte. What is in order is not described.
  if (!(await page.evaluate(() => 'axe' in globalThis))) await page.evaluate(axeCore.source);
  // Of a list of hundreds the rows are alike, and what a drawing holds is told by its name: the first of them are looked at.
  const exclude = long ? ['tbody tr:nth-child(n+6)', 'svg > *'] : [];
  const faults = await page.evaluate(async (without) => {
    const run = (globalThis as unknown as { axe: typeof axeCore }).axe.run;
    const { violations } = await run({ exclude: without }, { resultTypes: ['violations'] });
    return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
  }, exclude);
  expect(faults).toEqual([]);
}

/**
 * The same for what is not a step's first sight: each tab, paper and state of a step, in the whole run alone (`npm run test:all`);
 * `views.spec.ts` looks at every step in each run.
 */
export async function axeInAll(page: Page, options: { long?: boolean } = {}): Promise<void> {
  if (ALL) await axe(page, options);
}
