/**
 * How long questions take on the demo, from opening the page at their step: in a browser that looked at the property before
 * (its program and figures are there), and in one that never saw it.
 * Claims (docs/model.md, Speed): verdict of Rounds and Faults 2 s, one reading more 100 ms; plan of work 1.5 s; coils 1 s;
 * what would help 3 s; how sure: first bands 1 s, 300 drawn 6 s.
 */
import { claimed, middle } from './claims.mjs';
import { withDemo } from './demo-browser.mjs';

const TIMES = Number(process.env.TIMES ?? 3);
/** What helps stands in a fold where a unit is recommended, and open where none is. */
const FOLD = '[data-recommended=none], [data-recommended] ~ details > summary';
const row = (what, most, list) => claimed(what, [most, 'ms'], middle(list));

/**
 * Goes from one thing to the next as each is there, in the page itself: whoever asks from without looks twice a second.
 * @param way each by its selector and the words in it, and whether it is pressed
 * @returns when the last one was there, or pressed, as the clock has it
 */
const walked = (page, way) =>
  page.evaluate(async (way) => {
    const find = ({ css, words = '' }) =>
      [...document.querySelectorAll(css)].find((e) => e.textContent.includes(words));
    const there = (of) =>
      new Promise((done, failed) => {
        setTimeout(() => failed(new Error(`${of.css} ${of.words ?? ''} did not come`)), 120_000);
        const look = () => {
          const found = find(of);
          if (found) watch.disconnect();
          if (found) done(found);
        };
        const watch = new MutationObserver(look);
        watch.observe(document, { subtree: true, childList: true, attributes: true, characterData: true }); // prettier-ignore
        look();
      });
    for (const of of way) {
      const found = await there(of);
      if (!of.press) continue;
      // A tab hears the press, a button the click.
      found.dispatchEvent(new MouseEvent('mousedown', { bubbles: true, button: 0 }));
      found.click();
    }
    return Date.now();
  }, way);

await withDemo('4398', async (browser, address) => {
  const newWindow = () => browser.newContext({ viewport: { width: 1280, height: 800 } });
  const before = await newWindow();
  const looked = await before.newPage();
  await looked.goto(`${address}/p/hollin-scar/land`);
  await looked.waitForFunction(() => navigator.serviceWorker.controller);
  // Its figures are kept once they have rested, and the rest of the program comes last.
  await looked.waitForTimeout(8000);
  await looked.close();

  /** Opens a step, and gives the page with when it was called. */
  async function opened(step, use, anew = false) {
    const context = anew ? await newWindow() : before;
    const page = await context.newPage();
    const from = Date.now();
    await page.goto(`${address}/p/hollin-scar/${step}`, { waitUntil: 'commit' });
    try {
      return await use(page, from);
    } finally {
      await page.close();
      if (anew) await context.close();
    }
  }
  async function measured(what, claim, step, ...way) {
    const times = async (anew) => {
      const list = [];
      for (let k = 0; k < TIMES; k++)
        list.push(await opened(step, async (page, from) => (await walked(page, way)) - from, anew));
      return list;
    };
    row(`${what}, from opening the page`, claim, await times(false));
    console.log(`${what}, in a browser that never saw the program: ${middle(await times(true)).toFixed(0)} ms`); // prettier-ignore
  }
  const tab = (words) => ({ press: true, css: '[role=tab]', words });
  await measured('verdict of a round', 2000, 'rounds', { css: '[data-said][aria-busy=false]' });
  await measured('plan of work', 1500, 'build', { css: '[data-planned=true]' });
  await measured('coils cut', 1000, 'supplies', tab('Coils'), { css: '[data-cut][aria-busy=false]' }); // prettier-ignore
  await measured('what would help', 3000, 'power', tab('Unit'), { press: true, css: FOLD }, { css: 'button', words: 'Two fences instead of one' }); // prettier-ignore
  const [first, more] = [[], []];
  for (let k = 0; k < TIMES; k++)
    await opened('faults', async (page) => {
      const field = page.locator('[data-pad]').getByRole('textbox');
      /** From the press of Done to the answer: it is busy in between, for however short a time. */
      const read = async (text) => {
        await field.fill(text);
        await page.evaluate(() => {
          window.answered = new Promise((done, failed) => {
            setTimeout(() => failed(new Error('no other answer came')), 30_000);
            let pressed = null;
            const press = () => (pressed = performance.now());
            document.addEventListener('click', press, { capture: true, once: true });
            const here = () => document.querySelector('[data-likeliest][aria-busy=false]');
            let busy = !here();
            new MutationObserver(() => {
              if (pressed === null) return;
              if (!here()) busy = true;
              else if (busy) done(performance.now() - pressed);
            }).observe(document.body, { subtree: true, childList: true, attributes: true });
          });
        });
        await page.getByRole('button', { name: 'Done' }).click();
        return page.evaluate(() => window.answered);
      };
      first.push(await read('5.4'));
      more.push(await read('3.1'));
    });
  row('verdict of a search, from its first reading', 2000, first);
  claimed('one reading more', [100, 'ms'], middle(more));
  const [bands, all] = [[], []];
  for (let k = 0; k < TIMES; k++)
    await opened('power', async (page) => {
      const asked = await walked(page, [{ css: 'nav[data-worked]' }, tab('How sure'), { press: true, css: 'button', words: 'Draw by lot' }]); // prettier-ignore
      bands.push((await walked(page, [{ css: '[data-sure]' }])) - asked);
      all.push((await walked(page, [{ css: 'p, span', words: '300 drawn' }])) - asked);
    });
  row('how sure: first bands', 1000, bands);
  row('how sure: 300 drawn', 6000, all);
});
