/** Builders of schemas, beside the package whose types they bear (general library). */
import { Type as Package } from '@sinclair/typebox';
import { afterAll, expect, it, vi } from 'vitest';

/** Every schema of the program, as its modules make them. */
async function schemas() {
  const of = await Promise.all([
    import('../../src/core/plan/schema.js'),
    import('../../src/core/plan/schemaParts.js'),
    import('../../src/core/plan/catalogueSchema.js'),
    import('../../src/core/report/schema.js'),
    import('../../src/core/build/kinds.js'),
    import('../../src/core/calc.js'),
    import('../../src/formats/changeSchema.js'),
    import('../../src/server/records/kinds.js'),
  ]);
  return JSON.parse(JSON.stringify(of)) as object[];
}
afterAll(() => {
  vi.doUnmock('../../src/core/base/type.js');
  vi.resetModules();
});

it('make what the package makes, in every schema of the program', async () => {
  vi.resetModules();
  const own = await schemas();
  vi.resetModules();
  vi.doMock('../../src/core/base/type.js', () => ({ Type: Package }));
  const other = await schemas();
  expect(JSON.stringify(own).length).toBeGreaterThan(50_000);
  expect(own).toEqual(other);
});
