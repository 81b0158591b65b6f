/** What the browser tests share. */
import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { ALL } from '../often.js';

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

/** A property of the test's own, so that tests do not meet; opened on a step. */
export async function open(
  page: Page,
  step = 'land',
  change: Record<string, unknown> = {},
): Promise<string> {
  const answer = await page.request.post('/api/properties', { data: { ...DEMO, ...change } });
  expect(answer.status()).toBe(201);
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`/p/${id}/${step}`);
  await figures(page);
  return id;
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
  const link = page.locator(`nav[aria-label=Steps] a[href$="/${step}"]`);
  await link.click();
  await expect(link).toHaveAttribute('aria-current', 'page');
  await expect(page.getByText('One moment')).toHaveCount(0);
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
  // In one go, and what is in order is not described: a fifth of the time, and the same faults.
  const builder = new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'] });
  // Of a list of hundreds the rows are alike, and what a drawing holds is told by its name: the first of them are looked at.
  if (long) builder.exclude('tbody tr:nth-child(n+6)').exclude('svg > *');
  const { violations } = await builder.analyze();
  expect(
    violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`),
  ).toEqual([]);
}

/**
 * The same for what is not a step's first sight: each tab, paper and state of a step, in the whole run alone (`npm run test:all`);
 * `views.spec.ts` looks at every step in each run.
 */
export async function axeInAll(page: Page, options: { long?: boolean } = {}): Promise<void> {
  if (ALL) await axe(page, options);
}
