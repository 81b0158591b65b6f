/** Who asks, by what came along: this machine's own user where nobody signs in, and nobody from elsewhere. */
import type { AstroCookies } from 'astro';
import { describe, expect, it } from 'vitest';
import { ANYBODY, OWN, type Visitor } from '../../src/formats/visitor.js';
import { addressOf, type From } from '../../src/server/access/from.js';
import { tooOften, visitorOf } from '../../src/server/access/gate.js';
import type { PeopleStore } from '../../src/server/access/people.js';
import { turnedAway, type Knock } from '../../src/server/access/turnedAway.js';

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

describe('what somebody is answered who may not come in', () => {
  const link: Visitor = { id: 'l', name: 'a link', role: 'reader', only: 'mine' };
  const store = { visitor: (token: string) => Promise.resolve(token === 'link' ? link : token === 'good' ? known : null), any: () => Promise.resolve(true) } as unknown as PeopleStore; // prettier-ignore
  /** Knocks at an address; says where it leads, or that it is let in, and as whom. */
  async function at(routePattern: string, { id, token, method = 'GET', who = store }: { id?: string; token?: string; method?: string; who?: PeopleStore | null } = {}) {
    const knock: Knock = {
      routePattern,
      params: { id },
      request: { method },
      cookies: jar(token ? { anabatic: token } : {}),
      url: new URL(`http://here${routePattern.replace('[id]', id ?? '')}?a=1`),
      locals: { from: from({ address: `10.0.1.${token ?? 'x'}` }), visitor: known },
      redirect: (to) => new Response(null, { status: 302, headers: { location: to } }),
    };
    const answer = await turnedAway(knock, () => (who ? Promise.resolve(who) : Promise.reject(new Error('no store'))));
    return { status: answer?.status ?? 'in', to: answer?.headers.get('location') ?? null, as: knock.locals.visitor };
  } // prettier-ignore

  it('a link opens its own property and no other, by page and by address alike', async () => {
    for (const of of ['/p/[id]/[...step]', '/api/properties/[id]', '/api/properties/[id]/live']) {
      expect(await at(of, { id: 'mine', token: 'link' })).toMatchObject({ status: 'in', as: link });
      expect((await at(of, { id: 'yours', token: 'link' })).status).not.toBe('in');
    }
    expect(await at('/p/[id]/[...step]', { id: 'yours', token: 'link' })).toMatchObject({ status: 302, to: '/p/mine/land' }); // prettier-ignore
    // An address that nobody has named a door for, with an id or without.
    expect((await at('/unheard/[id]', { id: 'mine', token: 'link' })).status).not.toBe('in');
    expect((await at('/unheard', { token: 'link' })).status).not.toBe('in');
  });

  it('whom nobody knows signs in first, and comes back to where they were going', async () => {
    expect(await at('/p/[id]/[...step]', { id: 'mine' })).toEqual({ status: 302, to: '/sign-in?to=%2Fp%2Fmine%2F%5B...step%5D%3Fa%3D1', as: ANYBODY }); // prettier-ignore
    expect((await at('/api/properties/[id]', { id: 'mine' })).status).toBe(401);
  });

  it('whose role does not do is told so, and no more', async () => {
    expect((await at('/api/people', { token: 'good' })).status).toBe(403);
    expect(await at('/people', { token: 'good' })).toMatchObject({ status: 302, to: '/?not-you', as: known }); // prettier-ignore
  });

  it('what is open to all needs no store', async () => {
    expect(await at('/sign-in', { who: null })).toEqual({ status: 'in', to: null, as: ANYBODY });
    await expect(at('/', { who: null })).rejects.toThrow('no store');
  });

  it.each([
    ['no proxy, or it says nothing', '10.0.0.9', undefined, '10.0.0.9'],
    ['one proxy', '127.0.0.1', '10.0.0.9', '10.0.0.9'],
    ['what somebody wrote in front of it counts for nothing', '127.0.0.1', '1.2.3.4, 10.0.0.9', '10.0.0.9'],
    ['an empty word of the proxy', '127.0.0.1', '', '127.0.0.1'],
    ['a connection that is gone', undefined, undefined, ''],
  ])('comes from: %s', (_, socket, forwarded, address) => {
    expect(addressOf(socket, forwarded)).toBe(address);
  }); // prettier-ignore
});
