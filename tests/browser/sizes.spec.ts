/** Every step at every size: nothing cut, nothing to scroll sideways, the map large enough. */
import { expect, test, type Page } from '@playwright/test';
import { ALL } from '../often.js';
import { figures, goStep, open, STEPS } from './help.js';
import { small } from './small.js';

/** A phone with every run (views.spec.ts looks at the desk), the rest in the whole one. */
const SIZES = [
  [390, 844, ''],
  [844, 390, ' @all'],
  [768, 1024, ' @all'],
  [1280, 800, ' @all'],
  [1920, 1080, ' @all'],
] as const;

/**
 * What is wider than its box and cut by it: boxes that scroll sideways, and words that are clipped. The steps at
 * the thumb scroll, since they are as wide as one; the one that is looked at must be whole in view.
 */
const cut = (page: Page) =>
  page.evaluate(() => {
    const out: string[] = [];
    for (const el of document.querySelectorAll<HTMLElement>('body *')) {
      if (el.closest('[data-map], svg, .sr-only, .truncate, select, thead')) continue;
      if (!el.checkVisibility() || el.clientWidth === 0) continue;
      const { overflowX } = getComputedStyle(el);
      if (overflowX === 'visible' || el instanceof HTMLInputElement) continue;
      const on = el.matches('nav[aria-label=Steps]') && el.querySelector('[aria-current=page]');
      if (on) {
        const [mine, its] = [on.getBoundingClientRect(), el.getBoundingClientRect()];
        if (mine.left < its.left - 1 || mine.right > its.right + 1) out.push(`${on.textContent} is out of view`);
      } else if (el.scrollWidth > el.clientWidth + 2)
        out.push(`${el.tagName}.${el.className.slice(0, 60)} "${el.textContent.slice(0, 40)}" ${el.scrollWidth} in ${el.clientWidth}`); // prettier-ignore
    }
    return out;
  });

for (const [width, height, when] of SIZES) {
  test(`at ${width} x ${height} every step is whole${when}`, async ({ browser }) => {
    test.slow();
    const hand = width < 700 || height < 480;
    const context = await browser.newContext({
      viewport: { width, height },
      hasTouch: hand,
      isMobile: hand,
    });
    const page = await context.newPage();
    // Words as long as the demo's are looked at in the whole run.
    await open(page, 'land', ALL ? {} : small);
    for (const step of STEPS) {
      await goStep(page, step);
      const map = page.locator('[data-map]');
      if (step === 'land') {
        await expect(map).toBeVisible();
        const box = (await map.boundingBox())!;
        // The steps stand at its side where the phone lies on its side.
        expect(box.width, `map on ${step}`).toBeGreaterThanOrEqual(width / 2 - 1);
        if (hand && height > width) expect(box.width).toBe(width);
      }
      if (step === 'strands' || step === 'strain')
        await expect(
          page.getByRole('heading', { name: ALL ? /Burn side/ : /North/ }).first(),
        ).toBeVisible();
      const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
      expect(wide, `${step} sideways`).toBeLessThanOrEqual(0);
      await expect.poll(() => cut(page), { message: `${step} is cut` }).toEqual([]);
      // In the hand the tabs of Power lie in the sheet.
      if (hand && step === 'power')
        await page.getByRole('group', { name: 'What the sheet shows' }).getByText('Power').click();
      for (const tab of await page.getByRole('tab').all()) {
        await tab.click();
        // What is worked out for it stands before it is judged.
        await expect(page.getByText(/^(Planning the work|One moment|Cutting the coils) …$/)).toHaveCount(0); // prettier-ignore
        await expect.poll(() => cut(page), { message: `${step}, ${await tab.textContent()} is cut` }).toEqual([]); // prettier-ignore
      }
    }
    await context.close();
  });
}

test('with text twice as large every step still fits @all', async ({ page }) => {
  await page.addInitScript(() => {
    addEventListener('DOMContentLoaded', () => {
      document.documentElement.style.fontSize = '28px';
    });
  });
  for (const step of ['land', 'strain', 'supplies']) {
    await page.goto(`/p/hollin-scar/${step}`);
    await figures(page);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(wide, step).toBeLessThanOrEqual(0);
  }
});
