/**
 * Traces a station of 500 km and 20,000 posts in the browser: how long it takes to open and to show its
 * figures, and the frames of a pan. Claim: 30 frames a second or better.
 * Run: node scripts/ts.mjs scripts/station-trace.ts
 */
import type { Browser } from '@playwright/test';
import { station, stationGround } from '../tests/bench/station.js';
import { claimed } from './claims.mjs';
import { withDemo } from './demo-browser.mjs';

await withDemo('4395', async (browser: Browser, address: string) => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const made = await page.request.post(`${address}/api/properties`, {
    data: { ...station(), grids: { ground: stationGround() } },
  });
  if (!made.ok()) throw new Error(await made.text());
  const { id } = (await made.json()) as { id: string };
  const start = Date.now();
  await page.goto(`${address}/p/${id}/land`);
  await page.getByText('All lines over ground').waitFor({ timeout: 60_000 });
  const opened = Date.now() - start;
  await page.waitForTimeout(2000);
  const box = (await page.locator('[data-map]').boundingBox())!;
  await page.evaluate(() => {
    const w = window as unknown as { frames: number[] };
    w.frames = [];
    const tick = (t: number) => {
      w.frames.push(t);
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  // Over bare ground between the blocks, so that the drag takes hold of nothing.
  await page.mouse.move(box.x + 30, box.y + 30);
  await page.mouse.down();
  for (let k = 0; k < 120; k++) {
    await page.mouse.move(box.x + 30 + 90 * Math.sin(k / 12), box.y + 40 + 60 * Math.sin(k / 17));
    await page.waitForTimeout(8);
  }
  const frames = await page.evaluate(() => (window as unknown as { frames: number[] }).frames);
  await page.mouse.up();
  const gaps = frames.slice(1).map((t, i) => t - frames[i]!);
  const sorted = [...gaps].sort((a, b) => a - b);
  const mean = gaps.reduce((a, b) => a + b, 0) / gaps.length;
  console.log(
    `station of 500 km: figures ${opened} ms after the address was called; pan ${(1000 / mean).toFixed(0)} frames a second, median frame ${sorted[Math.floor(sorted.length / 2)]!.toFixed(0)} ms, 95 % ${sorted[Math.floor(sorted.length * 0.95)]!.toFixed(0)} ms`,
  );
  claimed('a station of 500 km panned', [-30, 'frames a second'], 1000 / mean);
});
