/** In the first run of `npm run mutants`: which test meets which mutant, a line of JSON for each file. */
import { appendFileSync } from 'node:fs';
import { afterAll, afterEach, beforeEach } from 'vitest';

interface Met {
  /** By mutant, what was met while modules were loaded. */
  static?: Record<string, number>;
  perTest?: Record<string, Record<string, number>>;
}
const met = ((globalThis as { __stryker__?: unknown }).__stryker__ ??= {}) as {
  currentTestId: string | undefined;
  mutantCoverage?: Met;
};

beforeEach(({ task }) => {
  // As the filter by name reads it.
  met.currentTestId = `${task.file.name}\n${task.fullTestName.replaceAll(' > ', ' ')}`;
});
afterEach(() => {
  met.currentTestId = undefined;
});
afterAll(() => {
  appendFileSync('met.jsonl', `${JSON.stringify(met.mutantCoverage ?? {})}\n`);
});
