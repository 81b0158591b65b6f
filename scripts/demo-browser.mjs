/** The demo on a port of its own, and a browser to look at it; for pictures and traces. */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { CHROMIUM } from './chromium.mjs';

/** Runs `use(browser, address)` with both up, and clears them away afterwards. */
export async function withDemo(port, use) {
  const folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
  const server = spawn(
    process.execPath,
    ['bin/anabatic', 'demo', '--db', join(folder, 'demo.sqlite'), '--port', port],
    // What it logs nobody reads here: a pipe that is full would hold it up when it is told to stop.
    { stdio: 'ignore' },
  );
  const address = `http://127.0.0.1:${port}`;
  for (let k = 0; k < 100; k++) {
    if (
      await fetch(address).then(
        (r) => r.ok,
        () => false,
      )
    )
      break;
    await new Promise((wake) => setTimeout(wake, 100));
  }
  const browser = await chromium.launch(CHROMIUM);
  try {
    await use(browser, address);
  } finally {
    await browser.close();
    server.kill();
    rmSync(folder, { recursive: true });
  }
}
