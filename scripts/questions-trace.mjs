/**
 * How long questions take on the demo, from opening the page at their step: in a browser that looked at the property before
 * (its program and figures are there), and in one that never saw it.
 * Claims (docs/model.md, Speed): verdict of Rounds and Faults 2 s, one reading more 100 ms; plan of work 1.5 s; coils 1 s;
 * what would help 3 s; how sure: first bands 1 s, 300 drawn 6 s.
 */
import { claimed, middle } from './claims.mjs';
import { withDemo } from './demo-browser.mjs';

const TIMES = Number(process.env.TIMES ?? 3);
const row = (what, most, list) => claimed(what, [most, 'ms'], middle(list));

await withDemo('4398', async (browser, address) => {
  const newWindow = () => browser.newContext({ viewport: { width: 1280, height: 800 } });
  const before = await newWindow();
  const looked = await before.newPage();
  await looked.goto(`${address}/p/hollin-scar/land`);
  await looked.waitForFunction(() => navigator.serviceWorker.controller);
  // Its figures are kept once they have rested, and the rest of the program comes last.
  await looked.waitForTimeout(8000);
  await looked.close();

  /** Opens a step, and measures until something is there. */
  async function opened(step, use, anew = false) {
    const context = anew ? await newWindow() : before;
    const page = await context.newPage();
    const start = performance.now();
    await page.goto(`${address}/p/hollin-scar/${step}`);
    const since = () => performance.now() - start;
    try {
      return await use(page, since);
    } finally {
      await page.close();
      if (anew) await context.close();
    }
  }
  const until = async (page, selector, since) => {
    await page.locator(selector).first().waitFor({ timeout: 120_000 });
    return since();
  };
  async function measured(what, claim, step, selector, press = async () => {}) {
    const times = async (anew) => {
      const list = [];
      for (let k = 0; k < TIMES; k++)
        list.push(
          await opened(
            step,
            async (page, since) => {
              await press(page);
              return until(page, selector, since);
            },
            anew,
          ),
        );
      return list;
    };
    row(`${what}, from opening the page`, claim, await times(false));
    console.log(`${what}, in a browser that never saw the program: ${middle(await times(true)).toFixed(0)} ms`); // prettier-ignore
  }
  await measured('verdict of a round', 2000, 'rounds', '[data-said][aria-busy=false]');
  await measured('plan of work', 1500, 'build', '[data-planned=true]');
  await measured('coils cut', 1000, 'supplies', '[data-cut][aria-busy=false]', (page) => page.getByRole('tab', { name: 'Coils' }).click()); // prettier-ignore
  await measured('what would help', 3000, 'power', 'text=Two fences instead of one', async (page) => {
    await page.getByRole('tab', { name: 'Unit' }).click();
    const more = page.getByText('What else would raise the worst point');
    await more.or(page.getByText('What helps:')).first().waitFor();
    if (await more.count()) await more.click();
  }); // prettier-ignore
  const [first, more] = [[], []];
  for (let k = 0; k < TIMES; k++)
    await opened('faults', async (page, since) => {
      const field = page.locator('[data-pad]').getByRole('textbox');
      const read = async (text) => {
        await field.fill(text);
        await page.getByRole('button', { name: 'Done' }).click();
      };
      await field.waitFor();
      const opening = since();
      await read('5.4');
      first.push((await until(page, '[data-likeliest][aria-busy=false]', since)) - opening);
      // From the press to the new answer: it is busy in between, for however short a time.
      await page.evaluate(() => {
        window.answered = new Promise((done, failed) => {
          setTimeout(() => failed(new Error('no other answer came')), 30_000);
          const pressed = () => (window.pressed = performance.now());
          document.addEventListener('click', pressed, { capture: true, once: true });
          const here = () => document.querySelector('[data-likeliest][aria-busy=false]');
          let busy = false;
          new MutationObserver(() => {
            if (window.pressed && !here()) busy = true;
            else if (busy) done(performance.now() - window.pressed);
          }).observe(document.body, { subtree: true, childList: true, attributes: true });
        });
      });
      await read('3.1');
      more.push(await page.evaluate(() => window.answered));
    });
  row('verdict of a search, from its first reading', 2000, first);
  claimed('one reading more', [100, 'ms'], middle(more));
  const [bands, all] = [[], []];
  for (let k = 0; k < TIMES; k++)
    await opened('power', async (page, since) => {
      await page.locator('nav[data-worked]').waitFor();
      await page.getByRole('tab', { name: 'How sure' }).click();
      await page.getByRole('button', { name: 'Draw by lot' }).click();
      const start = since();
      bands.push((await until(page, '[data-sure]', since)) - start);
      await page.getByText('300 drawn').waitFor({ timeout: 120_000 });
      all.push(since() - start);
    });
  row('how sure: first bands', 1000, bands);
  row('how sure: 300 drawn', 6000, all);
});
