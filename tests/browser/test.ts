/**
 * A test in the window that its worker has open already: a new window costs two seconds of a processor, a new tab a sixth of
 * that. Nothing of the test before is in it: pages are shut, and what the origin has kept is thrown away. What sets the clock,
 * goes offline or signs in takes a window of its own (`test` of the package).
 */
import { test as base, type BrowserContext } from '@playwright/test';

interface Kept {
  /** Windows by what they were opened with. */
  readonly windows: Map<string, BrowserContext>;
}

export const test = base.extend<object, Kept>({
  windows: [
    // The package wants the names of what is asked for.
    async ({}, use) => {
      const windows = new Map<string, BrowserContext>();
      await use(windows);
      for (const window of windows.values()) await window.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ browser, windows, baseURL, viewport, hasTouch, isMobile, serviceWorkers, locale, timezoneId, colorScheme, permissions, geolocation }, use) => {
    const options = { baseURL, viewport, hasTouch, isMobile, serviceWorkers, locale, timezoneId, colorScheme, permissions, geolocation }; // prettier-ignore
    const key = JSON.stringify(options);
    let window = windows.get(key);
    if (!window) {
      window = await browser.newContext(
        Object.fromEntries(Object.entries(options).filter(([, v]) => v !== undefined)),
      );
      windows.set(key, window);
    }
    await use(window);
    // Tabs are shut before what they keep is thrown away: none writes it down again.
    for (const page of window.pages()) await page.close();
    await window.unrouteAll({ behavior: 'ignoreErrors' });
    await window.clearCookies();
    const page = await window.newPage();
    const session = await window.newCDPSession(page);
    await session.send('Storage.clearDataForOrigin', {
      origin: new URL(baseURL!).origin,
      storageTypes: 'local_storage,indexeddb,cache_storage',
    });
    await page.close();
  },
}); // prettier-ignore
