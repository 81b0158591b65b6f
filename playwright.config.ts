import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './scripts/chromium.mjs';

const PORT = 4391;

export default defineConfig({
  testDir: 'tests/browser',
  outputDir: 'test-results/browser',
  timeout: 90_000,
  expect: { timeout: 15_000 },
  workers: 2,
  fullyParallel: false,
  // A shared machine can stall for seconds; what passes only the second time is listed as flaky.
  retries: process.env['CI'] ? 1 : 0,
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    // Recording every test costs a quarter of its time; one that failed is recorded when it is run again.
    trace: 'on-first-retry',
    // What a test wants to see on the wire is to come from there; away.spec.ts lets it in.
    serviceWorkers: 'block',
    launchOptions: CHROMIUM,
  },
  webServer: {
    // A fresh store for each run: the demo and whatever the tests make.
    command: `rm -rf test-results/demo.sqlite*; node bin/anabatic demo --db test-results/demo.sqlite --port ${PORT}`,
    url: `http://127.0.0.1:${PORT}/`,
    reuseExistingServer: false,
  },
});
