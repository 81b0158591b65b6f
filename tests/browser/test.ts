/**
 * A test in the tab that its worker has open already: to open the program anew costs seven seconds of a processor, twice as
 * much as most tests have to do. `open` (help.ts) posts the plan that the test wants to the property that is open there, and
 * goes to the step. What the origin has kept is thrown away, and a tab in which a test failed is shut.
 *
 * What keeps records, sets the clock, goes offline or signs in takes a window of its own (`test` of the package), or a tab
 * (`test.use({ fresh: true })`).
 */
import { test as base, type BrowserContext, type Page } from '@playwright/test';
import { LOOKED_KEY } from '../../src/session/view.js';

interface Window {
  readonly context: BrowserContext;
  page: Page | null;
}
interface Kept {
  /** Windows by what they were opened with. */
  readonly windows: Map<string, Window>;
}
interface Own {
  /** What the clock of the window stands at when it is opened (else `DAY` in the environment); null: the day that it is. */
  readonly day: string | null;
  /** The test has a tab of its own, in which nothing was opened before. */
  readonly fresh: boolean;
}

/** Tabs in which the next opening may go on with the property that is there. */
export const goesOn = new WeakSet<Page>();

export const test = base.extend<Own, Kept>({
  fresh: [false, { option: true }],
  day: [process.env['DAY'] ?? null, { option: true }],
  windows: [
    // The package wants the names of what is asked for.
    async ({}, use) => {
      const windows = new Map<string, Window>();
      await use(windows);
      for (const window of windows.values()) await window.context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ browser, windows, day, baseURL, viewport, hasTouch, isMobile, serviceWorkers, locale, timezoneId, colorScheme, permissions, geolocation }, use) => {
    const options = { baseURL, viewport, hasTouch, isMobile, serviceWorkers, locale, timezoneId, colorScheme, permissions, geolocation }; // prettier-ignore
    const key = JSON.stringify([day, options]);
    let window = windows.get(key);
    if (!window) {
      const context = await browser.newContext(
        Object.fromEntries(Object.entries(options).filter(([, v]) => v !== undefined)),
      );
      if (day !== null) await context.clock.setSystemTime(day);
      windows.set(key, (window = { context, page: null }));
    }
    const { context } = window;
    await use(context);
    // Tabs are shut before what they keep is thrown away: none writes it down again.
    for (const page of context.pages()) if (page !== window.page) await page.close();
    await context.unrouteAll({ behavior: 'ignoreErrors' });
    await context.clearCookies();
  },
  page: async ({ context, windows, fresh, viewport }, use, info) => {
    const window = [...windows.values()].find((w) => w.context === context)!;
    if (fresh) await window.page?.close();
    const page = (window.page = fresh ? await context.newPage() : (window.page ?? (await context.newPage()))); // prettier-ignore
    goesOn.add(page);
    await use(page);
    const good = info.status === info.expectedStatus && !page.isClosed();
    // A season or a track that the next test would look at too is left too rarely to be worth putting back.
    if (good && !fresh && !(await page.evaluate((key) => key in localStorage, LOOKED_KEY))) {
      page.removeAllListeners();
      await page.unrouteAll({ behavior: 'ignoreErrors' });
      await page.emulateMedia({ media: null });
      if (viewport && page.viewportSize()?.width !== viewport.width)
        await page.setViewportSize(viewport);
      await page.evaluate(() => localStorage.clear());
      return;
    }
    window.page = null;
    await page.close();
    const next = await context.newPage();
    const session = await context.newCDPSession(next);
    await session.send('Storage.clearDataForOrigin', {
      origin: new URL(info.project.use.baseURL!).origin,
      storageTypes: 'local_storage,indexeddb,cache_storage',
    });
    window.page = next;
  },
}); // prettier-ignore
