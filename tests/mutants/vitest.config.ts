/** The unit and reference tests as `npm run mutants` runs them: in one thread; what sees most first, then quick files. */
import { readFileSync } from 'node:fs';
import { BaseSequencer, type TestSpecification } from 'vitest/node';
import { mergeConfig } from 'vitest/config';
import base from '../../vitest.config.js';

const first = process.env['MUTANT'] === undefined;
const took = (first ? {} : JSON.parse(readFileSync('took.json', 'utf8'))) as Record<string, number>;

class QuickFirst extends BaseSequencer {
  override sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const of = ({ moduleId }: TestSpecification) =>
      moduleId.endsWith('approved.test.ts')
        ? 0
        : Object.entries(took).find(([name]) => moduleId.endsWith(name))![1];
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
