/** The unit and reference tests as `npm run mutants` runs them: in one thread, quick files first. */
import { readFileSync } from 'node:fs';
import { BaseSequencer, type TestSpecification } from 'vitest/node';
import { mergeConfig } from 'vitest/config';
import base from '../../vitest.config.js';

const first = process.env['MUTANT'] === undefined;
const took = (first ? {} : JSON.parse(readFileSync('took.json', 'utf8'))) as Record<string, number>;

class QuickFirst extends BaseSequencer {
  override sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const of = (file: TestSpecification) =>
      Object.entries(took).find(([name]) => file.moduleId.endsWith(name))?.[1] ?? 0;
    return Promise.resolve([...files].sort((a, b) => of(a) - of(b)));
  }
}

export default mergeConfig(base, {
  root: `${import.meta.dirname}/../..`,
  test: {
    maxWorkers: 1,
    ...(first
      ? { setupFiles: ['tests/mutants/cover.ts'] }
      : { bail: 1, sequence: { sequencer: QuickFirst } }),
  },
});
