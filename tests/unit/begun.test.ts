/** A search begun anew has nothing of what was read before, whatever the clocks say. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { beginAfter, readSince } from '../../src/core/rounds/begun.js';

const at = (s: number) => new Date(Date.UTC(2026, 9, 25) + 1000 * s).toISOString();
const reading = (id: string, s: number) => ({ id, time: at(s) });

it('leaves out what was read, by a clock that is ahead too; takes what is read from then on', () => {
  const before = [reading('old', 0), reading('ahead', 180), reading('same', 60)];
  const begun = beginAfter(before, at(60));
  expect(begun.left).toEqual(['ahead', 'same']);
  expect(readSince([...before, reading('next', 61)], begun).map((r) => r.id)).toEqual(['next']);
  // What comes in late and was taken before belongs to no search.
  expect(readSince([...before, reading('late', 59)], begun)).toEqual([]);
});

it('begins with nothing, and goes on with all that one reads: any times', () => {
  const times = fc.array(fc.integer({ min: -3000, max: 3000 }), { maxLength: 12 });
  fc.assert(
    fc.property(times, fc.array(fc.nat(3000), { maxLength: 6 }), (old, more) => {
      const before = old.map((s, k) => reading(`old${k}`, s));
      const after = more.map((s, k) => reading(`new${k}`, s));
      const begun = beginAfter(before, at(0));
      expect(readSince(before, begun)).toEqual([]);
      expect(readSince([...before, ...after], begun)).toEqual(after);
    }),
  );
});

it('with no beginning all belongs to it', () => {
  const all = [reading('a', -5), reading('b', 5)];
  expect(readSince(all, { at: '', left: [] })).toEqual(all);
});
