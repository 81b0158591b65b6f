/**
 * The demo opened by a browser that never saw the program, over a country line: 1.6 Mbit/s and 150 ms, throttled through the
 * browser's own protocol; then opened again as one that has it, and gone through step by step.
 * Claims (docs/model.md, Speed): the shell after 2.5 s; first figures after 4 s, with at most 350 kB until then; opened again,
 * any step has its figures after 0.7 s; a step changed is first drawn within 0.1 s.
 */
import { existsSync, readFileSync, statSync } from 'node:fs';
import { claimed, middle } from './claims.mjs';
import { withDemo } from './demo-browser.mjs';

const TIMES = Number(process.env.TIMES ?? 3);
const LINE = {
  offline: false,
  latency: 150,
  downloadThroughput: 200_000,
  uploadThroughput: 200_000,
};
const STEPS = ['land', 'strands', 'section', 'power', 'joins', 'ends', 'strain', 'supplies', 'build', 'rounds', 'faults']; // prettier-ignore
const there = (page, selector) => page.locator(selector).first().waitFor({ timeout: 60_000 });

await withDemo('4396', async (browser, address) => {
  const at = (step) => `${address}/p/hollin-scar/${step}`;
  const opened = () => browser.newContext({ viewport: { width: 1280, height: 800 } });
  const cold = { shell: [], figures: [], kB: [] };
  for (let k = 0; k < TIMES; k++) {
    const context = await opened();
    const page = await context.newPage();
    const session = await context.newCDPSession(page);
    // What the worker asks for its page has asked for before it: the head of the page names both.
    const [sent, came] = [new Map(), new Map()];
    session.on('Network.requestWillBeSent', ({ requestId, wallTime, timestamp }) => sent.set(requestId, wallTime - timestamp)); // prettier-ignore
    session.on('Network.loadingFinished', ({ requestId, timestamp, encodedDataLength }) => came.set(requestId, { at: 1000 * (sent.get(requestId) + timestamp), encodedDataLength })); // prettier-ignore
    await page.addInitScript(() => {
      new MutationObserver(() => {
        if (document.querySelector('nav[data-worked]')) window.worked ??= Date.now();
      }).observe(document, { subtree: true, childList: true, attributes: true });
    });
    await session.send('Network.enable');
    await session.send('Network.emulateNetworkConditions', LINE);
    const from = performance.now();
    await page.goto(at('land'), { waitUntil: 'commit' });
    await there(page, 'nav[aria-label=Steps]');
    cold.shell.push(performance.now() - from);
    await there(page, 'nav[data-worked]');
    cold.figures.push(performance.now() - from);
    // What came when they stood there, and not when this was told of it.
    const worked = await page.evaluate(() => window.worked);
    const before = [...came.values()].filter(({ at }) => at < worked);
    cold.kB.push(before.reduce((sum, { encodedDataLength }) => sum + encodedDataLength, 0) / 1000);
    await context.close();
  }
  claimed('opened over 1.6 Mbit/s: the shell', [2500, 'ms'], middle(cold.shell));
  claimed('opened over 1.6 Mbit/s: first figures', [4000, 'ms'], middle(cold.figures));
  claimed('on the wire until the first figures', [350, 'kB'], middle(cold.kB));

  // What the service worker fetches before it says that it is there, as it lies packed.
  const packed = (url) =>
    [`dist/client${url}.br`, `dist/client${url}`].find((file) => existsSync(file));
  const ahead = [...readFileSync('dist/client/sw.js', 'utf8').matchAll(/url:"([^"]+)"/g)]
    .map(([, url]) => packed(url))
    .filter((file) => file !== undefined);
  const ahead_kB = ahead.reduce((sum, file) => sum + statSync(file).size, 0) / 1000;
  claimed('the program as it is kept at first', [900, 'kB'], ahead_kB);

  const context = await opened();
  const page = await context.newPage();
  await page.goto(at('land'));
  await page.waitForFunction(() => navigator.serviceWorker.controller, undefined, {
    timeout: 60_000,
  });
  // It has rested: what it says is kept for the next time.
  await page.waitForTimeout(6000);
  const warm = {};
  for (const step of STEPS) {
    const from = performance.now();
    await page.goto(at(step), { waitUntil: 'commit' });
    await there(page, 'nav[data-worked]');
    warm[step] = performance.now() - from;
  }
  const [slowest, took] = Object.entries(warm).sort((a, b) => b[1] - a[1])[0];
  claimed(`opened again, the slowest step (${slowest})`, [700, 'ms'], took);

  await page.goto(at('land'));
  await there(page, 'nav[data-worked]');
  await page.waitForTimeout(6000);
  /** From the press to the first picture of another step, and the longest task on the way. */
  const change = (name) =>
    page.evaluate(async (name) => {
      let longest = 0;
      const tasks = new PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) longest = Math.max(longest, duration);
      });
      tasks.observe({ type: 'longtask' });
      const link = [...document.querySelectorAll('nav[aria-label=Steps] a')].find((a) => a.href.endsWith(`/${name}`));
      const from = performance.now();
      link.click();
      await new Promise((drawn) => requestAnimationFrame(() => setTimeout(drawn)));
      const took = performance.now() - from;
      await new Promise((rest) => setTimeout(rest, 1500));
      tasks.disconnect();
      return { took, longest };
    }, name); // prettier-ignore
  // Each once before it is measured: what is fetched for the first time is the opening's matter.
  for (const step of STEPS) await change(step);
  const changes = {};
  for (const step of STEPS) changes[step] = await change(step);
  const worst = (of) => Object.entries(changes).sort((a, b) => b[1][of] - a[1][of])[0];
  const [slow, drawn] = worst('took');
  claimed(`a step changed, first drawn, the slowest (${slow})`, [100, 'ms'], drawn.took);
  const long = Object.values(changes).filter(({ longest }) => longest > 50).length;
  const [heavy, task] = worst('longest');
  console.log(`longest task of a step changed: ${task.longest.toFixed(0)} ms (${heavy}); steps with one over 50 ms: ${long}`); // prettier-ignore
  await context.close();
});
