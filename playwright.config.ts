import { defineConfig } from '@playwright/test';
import { ALL } from './tests/often.js';
import { CHROMIUM } from './scripts/chromium.mjs';

const PORT = 4391;

export default defineConfig({
  testDir: 'tests/browser',
  outputDir: 'test-results/browser',
  // Limits for what hangs: a test waits for a state, and a busy machine may take its time to it.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  // What takes long and rarely breaks is tried with `npm run test:all`.
  ...(ALL ? {} : { grepInvert: /@all/ }),
  // One more than processors: a tab waits for its letters, timers and the disk.
  workers: 3,
  fullyParallel: false,
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    // What a test wants to see on the wire is to come from there; away.spec.ts lets it in.
    serviceWorkers: 'block',
    // A clock that is shifted beneath the tests (docs/testing.md) would stop the browser's timers; its windows are told their DAY.
    launchOptions: { ...CHROMIUM, env: { ...process.env, LD_PRELOAD: '' } },
  },
  webServer: {
    // A fresh store for each run: the demo and whatever the tests make.
    command: `rm -rf test-results/demo.sqlite*; node bin/anabatic demo --db test-results/demo.sqlite --port ${PORT}`,
    url: `http://127.0.0.1:${PORT}/`,
    reuseExistingServer: false,
  },
});
