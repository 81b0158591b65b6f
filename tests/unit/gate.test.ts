/** Who asks, by what came along: this machine's own user where nobody signs in, and nobody from elsewhere. */
import type { AstroCookies } from 'astro';
import { describe, expect, it } from 'vitest';
import { OWN, type Visitor } from '../../src/formats/visitor.js';
import type { From } from '../../src/server/access/from.js';
import { tooOften, visitorOf } from '../../src/server/access/gate.js';
import type { PeopleStore } from '../../src/server/access/people.js';

const known: Visitor = { id: 'p', name: 'P', role: 'crew' };
const people = (any: boolean) =>
  ({ visitor: (token: string) => Promise.resolve(token === 'good' ? known : null), any: () => Promise.resolve(any) }) as unknown as PeopleStore; // prettier-ignore
const jar = (held: Record<string, string>) =>
  ({ get: (name: string) => (name in held ? { value: held[name] } : undefined) }) as unknown as AstroCookies; // prettier-ignore
const from = (part: Partial<From> = {}): From => ({ address: '10.0.0.9', remote: false, secure: false, ...part }); // prettier-ignore

describe('who asks', () => {
  it.each([
    ['nobody signs in, from this machine', false, {}, from(), OWN],
    ['nobody signs in, the address is not known', false, {}, undefined, OWN],
    ['nobody signs in, others reach this server', false, {}, from({ remote: true }), null],
    ['people sign in, no token', true, {}, from(), null],
    ['a token that is none', true, { anabatic: 'bad' }, from(), null],
    ['a good token', true, { anabatic: 'good' }, from({ remote: true }), known],
    ['a good token where nobody signs in any more', false, { anabatic: 'good' }, from(), known],
    ['over HTTPS only what this host has set', true, { anabatic: 'good' }, from({ secure: true }), null],
    ['over HTTPS by its own name', true, { '__Host-anabatic': 'good' }, from({ secure: true }), known],
  ] as const)('%s', async (_, any, held, at, who) => {
    expect(await visitorOf(people(any), jar(held), at)).toEqual(who);
  }); // prettier-ignore

  it('somebody who asks too often has to wait, this machine’s own user never, and others not', () => {
    for (let k = 0; k < 2000; k++) expect(tooOften(OWN, from())).toBe(0);
    const often = Array.from({ length: 2000 }, () => tooOften(null, from({ address: '10.0.0.1' })));
    expect(often[0]).toBe(0);
    expect(often.at(-1)).toBeGreaterThan(0);
    expect(tooOften(null, from({ address: '10.0.0.2' }))).toBe(0);
    expect(tooOften({ ...known, id: 'q' }, from({ address: '10.0.0.1' }))).toBe(0);
  });
});
