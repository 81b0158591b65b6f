/** npm run screenshots: one current picture of each main view, from the demo data. */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, chromium as needChromium, install } from './setup.mjs';

install();
needChromium();
build();
const { chromium } = await import('@playwright/test');
const PORT = '4393';
const folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
const server = spawn(process.execPath, [
  'bin/anabatic',
  'demo',
  '--db',
  join(folder, 'demo.sqlite'),
  '--port',
  PORT,
]);
const at = (path) => `http://127.0.0.1:${PORT}${path}`;
for (let k = 0; k < 100; k++) {
  if (
    await fetch(at('/')).then(
      (r) => r.ok,
      () => false,
    )
  )
    break;
  await new Promise((wake) => setTimeout(wake, 100));
}
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-dev-shm-usage',
    '--disable-gpu',
    '--disable-quic',
    '--disable-background-networking',
    '--no-first-run',
  ],
});

/** One picture: the address, the window, what is pressed first. */
async function take(name, path, size, prepare = async () => {}) {
  const page = await browser.newPage({ viewport: size });
  await page.goto(at(path), { waitUntil: 'networkidle' });
  await page.waitForTimeout(600);
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

try {
  await take('start', '/new', DESK);
  await take('land', '/p/hollin-scar/land', DESK, choose('Middle west'));
  await take('strands', '/p/hollin-scar/strands', DESK, choose('Old march'));
  await take('power', '/p/hollin-scar/power', DESK);
  await take('strain', '/p/hollin-scar/strain', DESK, choose('Ridge dyke'));
  await take('supplies', '/p/hollin-scar/supplies', DESK);
  await take('power-phone-sun', '/p/hollin-scar/power', PHONE, (page) =>
    page.getByLabel('Scheme').selectOption('sun'),
  );
  await take('land-dark', '/p/hollin-scar/land', DESK, async (page) => {
    await page.getByLabel('Scheme').selectOption('dark');
    await page.locator('[data-finding=bend-unbraced] button').first().click();
  });
} finally {
  await browser.close();
  server.kill();
  rmSync(folder, { recursive: true });
}
