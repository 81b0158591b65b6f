/** npm run screenshots: one current picture of each main view, from the demo data. */
import { build, debian, install } from './setup.mjs';

install();
debian('chromium');
build();
// Only now: on a fresh clone the packages are just being installed.
const { withDemo } = await import('./demo-browser.mjs');

/** One picture: the address, the window, what is pressed first. */
async function take(browser, address, name, path, size, prepare = async () => {}, view = {}) {
  const page = await browser.newPage({ viewport: size, hasTouch: size.width < 700 });
  await page.addInitScript(
    (kept) => localStorage.setItem('anabatic.view', kept),
    JSON.stringify(view),
  );
  // The program keeps a line to the server open: it is never without one.
  const program = path.startsWith('/p/');
  await page.goto(address + path, { waitUntil: program ? 'load' : 'networkidle' });
  if (program) await page.locator('nav[data-worked]').waitFor();
  await page.waitForTimeout(program ? 2000 : 600);
  await prepare(page);
  await page.waitForTimeout(500);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  await page.close();
}
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };
const choose = (name) => async (page) =>
  page
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .first()
    .click();

await withDemo('4393', async (browser, address) => {
  const picture = (...what) => take(browser, address, ...what);
  // What the first page shows of the program, in both schemes.
  for (const scheme of ['light', 'dark'])
    await take(browser, address, `../../public/sample-${scheme}`, '/p/hollin-scar/land', { width: 1280, height: 720 }, async (page) => {
      await page.getByLabel('Scheme').selectOption(scheme);
      await choose('Middle west')(page);
    }); // prettier-ignore
  await picture('first', '/', { width: 1280, height: 1000 });
  await picture('start', '/new?from=laneway', DESK);
  await picture('land', '/p/hollin-scar/land', DESK, choose('Middle west'));
  await picture('strands', '/p/hollin-scar/strands', DESK, choose('Old march'));
  await picture('stick', '/stick/hollin-scar?design=ewes', { width: 1000, height: 1230 });
  const sheet = (tab) => (page) =>
    page
      .getByRole('group', { name: 'What the sheet shows' })
      .getByRole('button', { name: tab })
      .click();
  await picture('section', '/p/hollin-scar/section', DESK, async (page) => {
    await page.getByRole('button', { name: 'Middle east', exact: true }).click();
    await page.getByRole('slider').focus();
    for (let k = 0; k < 5; k++) await page.keyboard.press('ArrowRight');
    await page.getByRole('button', { name: 'Place by the ground' }).click();
    await page.locator('[data-saved]').waitFor();
  });
  await picture('print', '/print/hollin-scar', { width: 1280, height: 880 });
  await picture('set-out', '/setout/hollin-scar?line=mid-e', { width: 900, height: 880 });
  await picture('land-phone', '/p/hollin-scar/land', PHONE, async (page) => {
    await sheet(/^Findings/)(page);
    await page.getByRole('group', { name: 'List of findings' }).getByRole('button').first().click();
  });
  await picture('power', '/p/hollin-scar/power', DESK, async (page) => {
    await page.locator('[data-worst=wet]').waitFor();
  });
  await picture('joins', '/p/hollin-scar/joins', DESK, async (page) => {
    await choose('Steading yard')(page);
    await page.getByRole('group', { name: 'Places' }).getByRole('button', { name: /^78/ }).click();
  });
  await picture('ends', '/p/hollin-scar/ends', { width: 1280, height: 1000 }, async (page) => {
    await choose('Burn side')(page);
    await page.getByRole('group', { name: 'Ends' }).getByRole('button', { name: /^480/ }).click();
  });
  await picture('strain', '/p/hollin-scar/strain', DESK, choose('Ridge dyke'));
  await picture('supplies', '/p/hollin-scar/supplies', DESK);
  await picture('build', '/p/hollin-scar/build', DESK, async (page) => {
    await page.locator('[data-planned=true]').waitFor();
    await page.getByRole('button', { name: 'a month' }).click();
  });
  const said = (page) => page.locator('[data-said]').first().waitFor({ timeout: 60_000 });
  await picture('rounds', '/p/hollin-scar/rounds', DESK, said);
  await picture('rounds-phone-sun', '/p/hollin-scar/rounds', PHONE, said, { scheme: 'sun' });
  await picture('faults', '/p/hollin-scar/faults', DESK, (page) =>
    page.locator('[data-likeliest]').waitFor({ timeout: 60_000 }),
  );
  await picture(
    'land-dark',
    '/p/hollin-scar/land',
    DESK,
    (page) =>
      page.getByRole('group', { name: 'List of findings' }).getByRole('button').first().click(),
    { scheme: 'dark' },
  );
});
