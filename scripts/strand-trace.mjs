/**
 * Traces a dragged strand in the browser: from the pointer's move to the new figures of the
 * comparison on the screen, on the demo. Claim: within 100 ms.
 */
import { claimed } from './claims.mjs';
import { withDemo } from './demo-browser.mjs';

await withDemo('4395', async (browser, address) => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/p/hollin-scar/strands`);
  await page.locator('nav[data-worked]').waitFor();
  for (const [name, strand] of [
    ['Burn side', 5],
    ['Hut side', 4],
    ['East march', 2],
  ]) {
    await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
    await page.getByRole('tab', { name: 'Proposals' }).click();
    await page.getByText('★ recommended').first().waitFor();
    const box = await page.locator(`[data-strand="${strand}"]`).boundingBox();
    await page.evaluate(() => {
      window.moved = 0;
      window.delays = [];
      addEventListener('pointermove', () => (window.moved = performance.now()), true);
      window.seen?.disconnect();
      window.seen = new MutationObserver(() => {
        const last = window.moved;
        requestAnimationFrame(() => window.delays.push(performance.now() - last));
      });
      window.seen.observe(document.querySelector('[role=tabpanel]'), {
        subtree: true,
        characterData: true,
        childList: true,
      });
    });
    const x = box.x + box.width / 2;
    const y = box.y + box.height / 2;
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x, y + 4, { steps: 2 });
    await page.waitForTimeout(400);
    await page.evaluate(() => (window.delays.length = 0));
    for (let k = 0; k < 40; k++) {
      await page.mouse.move(x, y + 10 * Math.sin(k / 3));
      await page.waitForTimeout(160);
    }
    // Read while it is still held: letting go is another change, long after the last move.
    const delays = (await page.evaluate(() => window.delays)).sort((a, b) => a - b);
    await page.mouse.up();
    await page.locator('[data-save=saved]').waitFor();
    const at = (share) =>
      delays[Math.min(delays.length - 1, Math.floor(share * delays.length))].toFixed(0);
    console.log(
      `${name}: ${delays.length} updates, pointer to figures: median ${at(0.5)} ms, 95 % ${at(0.95)} ms, worst ${at(1)} ms`,
    );
    claimed(`a strand of ${name} dragged: its choices, median`, [100, 'ms'], Number(at(0.5)));
  }
});
