import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['tests/unit/**/*.test.{ts,tsx}', 'tests/reference/**/*.test.ts'],
    benchmark: { include: ['tests/bench/**/*.bench.ts'] },
    testTimeout: 60_000,
    // No test leaves anything behind: modules are loaded once a thread, not once a file.
    isolate: false,
    pool: 'threads',
    // All of a machine of two processors: by itself it would leave one of them free.
    maxWorkers: '100%',
    setupFiles: ['tests/unit/threads.ts'],
  },
});
