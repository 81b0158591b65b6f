/** What the browser tests share. */
import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';

const DEMO = JSON.parse(readFileSync('demo/hollin-scar.plan.json', 'utf8')) as Record<
  string,
  unknown
>;

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
  await expect(
    page.getByRole('list', { name: 'List of findings' }).getByRole('listitem').first(),
  ).toBeVisible();
  return id;
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
      }
    >;
    gates: Record<string, { at_m: number }>;
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
export async function axe(page: Page): Promise<void> {
  await expect(page.locator('main')).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(
    violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`),
  ).toEqual([]);
}
