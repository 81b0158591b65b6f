/** Who may come in: phrases, people, links, the doors by list, how often, and from which site. */
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { ROLES, type Visitor } from '../../src/formats/visitor.js';
import { admitted, DOORS } from '../../src/server/access/doors.js';
import { limiter } from '../../src/server/access/limits.js';
import { peopleStore, type PeopleStore } from '../../src/server/access/people.js';
import { isRight, kept } from '../../src/server/access/phrase.js';
import { openDatabase } from '../../src/server/database.js';
import { createLive } from '../../src/server/live.js';
import { recordStore } from '../../src/server/records/store.js';
import { planStore } from '../../src/server/plans/store.js';
import { line, plan } from './scene.js';

describe('a pass phrase', () => {
  it('is kept as a hash with its own salt and cost, and only the right one is right', async () => {
    const one = await kept('rope heather kettle ninety');
    const two = await kept('rope heather kettle ninety');
    expect(one).toMatch(/^scrypt\$32768\$8\$3\$/);
    expect(one).not.toBe(two);
    expect(one).not.toContain('rope');
    expect(await isRight('rope heather kettle ninety', one)).toBe(true);
    expect(await isRight('rope heather kettle ninet', one)).toBe(false);
    // The same word typed on another keyboard: an accent of its own, or one with its letter.
    expect(await isRight('caf\u00e9 au lait froid', await kept('cafe\u0301 au lait froid'))).toBe(true); // prettier-ignore
  });

  it('gives what the published test vector gives (RFC 7914, section 12: N 1024, r 8, p 16)', async () => {
    // Its key is 64 bytes long and ours 32: the last round makes each block by itself, so the first 32 are the same.
    const key = Buffer.from('fdbabe1c9d3472007856e7190d01e9fe7c6ad7cbc8237830e77376634b373162', 'hex'); // prettier-ignore
    const as = ['scrypt', 1024, 8, 16, Buffer.from('NaCl').toString('base64'), key.toString('base64')].join('$'); // prettier-ignore
    expect(await isRight('password', as)).toBe(true);
    expect(await isRight('passwore', as)).toBe(false);
  });

  it('is long enough, and no longer than anybody types', async () => {
    await expect(kept('short')).rejects.toThrow('at least 12 characters');
    await expect(kept('x'.repeat(201))).rejects.toThrow('at most 200');
  });
});

describe('people and links', () => {
  let folder: string;
  let db: Knex;
  let people: PeopleStore;
  let now: number;
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
    db = await openDatabase(join(folder, 'store.sqlite'));
    now = Date.parse('2026-06-01T08:00:00Z');
    people = peopleStore(db, () => now);
  });
  afterEach(async () => {
    await db.destroy();
    rmSync(folder, { recursive: true });
  });
  const phrase = 'four words of no song';
  const add = (name: string, role = 'crew') => people.add({ name, role, phrase });

  it('the first is an owner whatever was asked; a name is one person, however it is written', async () => {
    expect(await people.any()).toBe(false);
    expect((await add(' Mara ', 'reader')).role).toBe('owner');
    expect((await add('Tam')).role).toBe('crew');
    await expect(add('MARA')).rejects.toThrow('"MARA" is there already');
    await expect(add('Ned', 'king')).rejects.toThrow('/role');
    await expect(people.add({ name: 'Ned', role: 'crew', phrase: 'short' })).rejects.toThrow('12');
    await expect(people.add({ name: 'Nedward Longname', role: 'crew', phrase: 'nedward longname' })).rejects.toThrow('must not be the name'); // prettier-ignore
    expect((await people.list()).map((p) => p.name)).toEqual(['Mara', 'Tam']);
    expect(JSON.stringify(await people.list())).not.toContain('scrypt');
  });

  it('signs in by name and phrase, and is known by the token until it signs out or is not seen for half a year', async () => {
    await add('Mara');
    expect(await people.signIn('Mara', 'another phrase')).toBeNull();
    expect(await people.signIn('Nobody', phrase)).toBeNull();
    const { token } = (await people.signIn('mara', phrase))!;
    expect(await people.visitor(token)).toMatchObject({ name: 'Mara', role: 'owner' });
    expect(await people.visitor(`${token}x`)).toBeNull();
    expect((await db('session').select()).map((s) => JSON.stringify(s)).join()).not.toContain(token);
    now += 170 * 86_400_000;
    expect(await people.visitor(token)).not.toBeNull();
    now += 170 * 86_400_000;
    expect(await people.visitor(token)).not.toBeNull();
    now += 181 * 86_400_000;
    expect(await people.visitor(token)).toBeNull();
    now -= 181 * 86_400_000;
    await people.signOut(token);
    expect(await people.visitor(token)).toBeNull();
  }); // prettier-ignore

  it('a new phrase ends what the old one opened; who is shut out is out at once; an owner is always left', async () => {
    const mara = await add('Mara');
    const tam = await add('Tam');
    const { token } = (await people.signIn('Tam', phrase))!;
    await people.change(tam.id, { phrase: 'another phrase of words' });
    expect(await people.visitor(token)).toBeNull();
    expect(await people.signIn('Tam', phrase)).toBeNull();
    const again = (await people.signIn('Tam', 'another phrase of words'))!;
    await people.change(tam.id, { role: 'reader' });
    expect(await people.visitor(again.token)).toMatchObject({ role: 'reader' });
    await expect(people.change(mara.id, { role: 'crew' })).rejects.toThrow('somebody must be owner');
    await expect(people.remove(mara.id)).rejects.toThrow('somebody must be owner');
    await people.change(tam.id, { role: 'owner' });
    expect(await people.remove(tam.id)).toBe(true);
    expect(await people.visitor(again.token)).toBeNull();
    expect(await people.remove('nobody')).toBe(false);
    expect(await people.change('nobody', {})).toBeNull();
    const ned = await add('Nedward Longname');
    await expect(people.change(ned.id, { phrase: ' NEDWARD longname' })).rejects.toThrow('must not be the name');
    expect(await people.signIn('Nedward Longname', phrase)).not.toBeNull();
  }); // prettier-ignore

  it('a link reads one property until it is taken back', async () => {
    const plans = planStore(db);
    const id = await plans.create({ plan: plan([line('a', [[0, 0], [90, 0]])]), grids: {} }); // prettier-ignore
    expect(await people.share('none', { words: '' })).toBeNull();
    const made = (await people.share(id, { words: 'the vet' }))!;
    const came = (await people.enterBy(made.token))!;
    expect(came.property).toBe(id);
    expect(await people.visitor(came.token)).toEqual({ id: made.share.id, name: '', role: 'reader', only: id }); // prettier-ignore
    expect((await people.shares(id))![0]).toMatchObject({ words: 'the vet', revoked_at: null, used_at: '2026-06-01T08:00:00.000Z' }); // prettier-ignore
    expect(await people.unshare('other', made.share.id)).toBe(false);
    expect(await people.unshare(id, made.share.id)).toBe(true);
    expect(await people.visitor(came.token)).toBeNull();
    expect(await people.enterBy(made.token)).toBeNull();
  });

  it('every change and record carries who made it, and a record whom it names beside that', async () => {
    const plans = planStore(db);
    const records = recordStore(db);
    const id = await plans.create({ plan: plan([line('a', [[0, 0], [90, 0]])]), grids: {} }); // prettier-ignore
    const step = { op: 'replace', path: '/name', value: 'B' } as const;
    await plans.commit(id, { changeId: 'change-one', tab: 'tab-1', base: 0, kind: 'do', words: 'w', patch: [step], inverse: [step] }, 'Mara'); // prettier-ignore
    expect((await plans.changesSince(id, 0)).changes[0]!.who).toBe('Mara');
    const told = async (who: string, by: string) => {
      const reading = { id: crypto.randomUUID(), time: '2026-05-01T10:00:00Z', who, note: '', line: null, at_m: null, spot: 'gate', kind: 'volts', value: 1, unit: null, towards: null, weather: null, growth: null }; // prettier-ignore
      return (await records.put(id, 'readings', reading, by))!['who'];
    };
    expect(await told('', 'Mara')).toBe('Mara');
    expect(await told('Mara', 'Mara')).toBe('Mara');
    expect(await told('Tam', 'Mara')).toBe('Tam (told by Mara)');
    expect(await told('Tam', '')).toBe('Tam');
    const long = await told('T'.repeat(80), 'M'.repeat(60));
    expect(long).toHaveLength(80);
    expect(long).toContain(`told by ${'M'.repeat(60)}`);
  });

  it('what was made on top of changes that waited does not stand in their way', async () => {
    const plans = planStore(db);
    const id = await plans.create({ plan: plan([line('a', [[0, 0], [90, 0]])]), grids: {} }); // prettier-ignore
    const named = (changeId: string, tab: string, value: string, after?: string[]) => {
      const step = { op: 'replace', path: '/name', value } as const;
      return { changeId, tab, base: 0, kind: 'do' as const, words: 'w', patch: [step], inverse: [step], ...(after ? { after } : {}) }; // prettier-ignore
    };
    // Made without coverage in one tab, gone on with in the next after a reload; both on revision 0.
    expect(await plans.commit(id, named('waited-1', 'tab-1', 'A'))).toMatchObject({ status: 'saved' }); // prettier-ignore
    expect(await plans.commit(id, named('waited-2', 'tab-2', 'B'))).toMatchObject({ status: 'conflict' }); // prettier-ignore
    expect(await plans.commit(id, named('waited-3', 'tab-2', 'B', ['waited-1']))).toMatchObject({ status: 'saved', revision: 2 }); // prettier-ignore
    // What a third has done since then still does.
    expect(await plans.commit(id, named('waited-4', 'tab-3', 'C', ['waited-1']))).toMatchObject({ status: 'conflict' }); // prettier-ignore
  });
});

/** Route patterns of the pages and endpoints that there are, with what each answers to. */
function routes(): { pattern: string; methods: string[] }[] {
  return readdirSync('src/pages', { recursive: true, withFileTypes: true })
    .filter((f) => f.isFile())
    .map((f) => {
      const path = join(f.parentPath, f.name);
      const pattern = `/${path.slice('src/pages/'.length).replace(/\.(ts|astro)$/, '')}`.replace(/\/?index$/, '') || '/'; // prettier-ignore
      const methods = path.endsWith('.astro')
        ? ['GET']
        : [...readFileSync(path, 'utf8').matchAll(/export const (GET|POST|PUT|DELETE|PATCH|ALL)\b/g)].map((m) => m[1]!); // prettier-ignore
      return { pattern, methods };
    });
}

describe('doors', () => {
  it('each page and endpoint that there is has one, and each of its methods says whom it is for', () => {
    const there = routes();
    expect(there.length).toBeGreaterThan(40);
    expect(there.map((r) => r.pattern).sort()).toEqual(Object.keys(DOORS).sort());
    for (const { pattern, methods } of there) {
      const door = { ...DOORS[pattern]! } as Record<string, unknown>;
      for (const word of ['people', 'ground']) delete door[word];
      expect(Object.keys(door).sort(), pattern).toEqual(methods.sort());
    }
  });

  it('stand open to anybody only where this list says so', () => {
    const open = Object.entries(DOORS).flatMap(
      ([pattern, door]) =>
      Object.entries(door).flatMap(([method, least]) => (least === 'open' ? [`${method} ${pattern}`] : [])), // prettier-ignore
    );
    expect(open.sort()).toEqual([
      'DELETE /api/session',
      'GET /404',
      'GET /500',
      'GET /api/health',
      'GET /api/session',
      'GET /away',
      'GET /s/[token]',
      'GET /sign-in',
      'POST /api/monitor',
      'POST /api/session',
    ]);
  });

  it('what changes something is never for a reader, and what is unknown is for an owner alone', () => {
    const reader: Visitor = { id: 'r', name: 'R', role: 'reader' };
    const may = Object.entries(DOORS).flatMap(([pattern, door]) =>
      ['POST', 'PUT', 'DELETE'].flatMap((m) =>
        m in door && admitted(pattern, m, 'p', reader) === 'in' ? [`${m} ${pattern}`] : [],
      ),
    );
    expect(may.sort()).toEqual(['DELETE /api/session', 'POST /api/calc', 'POST /api/calc/[kind]', 'POST /api/monitor', 'POST /api/session']); // prettier-ignore
    for (const role of ROLES)
      expect(admitted('/api/new-one', 'GET', undefined, { id: 'x', name: 'X', role })).toBe(role === 'owner' ? 'in' : 'not you'); // prettier-ignore
    expect(admitted('/api/new-one', 'GET', undefined, null)).toBe('sign in');
    expect(admitted('/p/[id]/[...step]', 'HEAD', 'p', reader)).toBe('in');
  });

  it('a greater role opens all that a smaller one does; a link opens one property and no more', () => {
    const link: Visitor = { id: 'l', name: '', role: 'reader', only: 'p1' };
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(DOORS)), fc.constantFrom('GET', 'POST', 'PUT', 'DELETE'), fc.constantFrom('p1', 'p2'), (pattern, method, property) => {
        const by = (role: Visitor['role']) => admitted(pattern, method, property, { id: 'x', name: 'X', role }) === 'in';
        if (by('reader')) expect(by('crew')).toBe(true);
        if (by('crew')) expect(by('owner')).toBe(true);
        const linked = admitted(pattern, method, property, link);
        if (linked === 'in') expect(by('reader')).toBe(true);
        const names = pattern.includes('[id]') && pattern !== '/api/grids/[id]';
        if (property === 'p2' && names && DOORS[pattern]![method as 'GET'] !== 'open') expect(linked).toBe('not you');
      }),
    ); // prettier-ignore
    expect(admitted('/p/[id]/[...step]', 'GET', 'p1', link)).toBe('in');
    // Where nobody read which property is meant it stays shut.
    for (const pattern of Object.keys(DOORS).filter((p) => p.includes('/[id]') && p !== '/api/grids/[id]'))
      expect(admitted(pattern, 'GET', undefined, link), pattern).toBe('not you'); // prettier-ignore
    expect(admitted('/', 'GET', undefined, link)).toBe('not you');
    expect(admitted('/api/backup', 'GET', undefined, link)).toBe('not you');
  });
});

describe('how often', () => {
  it('a burst, then one at a time; each name by itself; a clock put back takes nothing away', () => {
    let now = 1_000_000;
    const take = limiter({ burst: 3, every_ms: 10_000 }, () => now);
    expect([take('a'), take('a'), take('a'), take('a')]).toEqual([0, 0, 0, 10]);
    expect(take('b')).toBe(0);
    now += 4_000;
    expect(take('a')).toBe(6);
    now += 6_000;
    expect([take('a'), take('a')]).toEqual([0, 10]);
    now -= 500_000;
    expect(take('a')).toBeGreaterThan(0);
    now += 510_000;
    expect(take('a')).toBe(0);
  });
});

describe('who listens', () => {
  const change = (revision: number, words = 'w') => ({ changeId: `change-${revision}`, tab: 'tab-1', base: 0, kind: 'do' as const, words, patch: [], inverse: [], revision, at: '' }); // prettier-ignore
  const soon = () => new Promise((wake) => setTimeout(wake, 30));
  const said = (text: Uint8Array) => Buffer.from(text).toString('utf8');

  it('hears what moves of its own property, gathered, and no more once it left', async () => {
    const live = createLive(2, 10);
    const heard: string[] = [];
    const leave = live.listen('p', (text) => heard.push(said(text)))!;
    live.listen('q', (text) => heard.push(`q ${said(text)}`));
    expect(live.listen('p', () => undefined)).toBeNull();
    live.changed('p', change(1));
    live.changed('p', change(2));
    live.recorded('p', 'readings');
    live.recorded('p', 'readings');
    live.recorded('q', 'events');
    live.changed('none', change(1));
    expect(heard).toEqual([]);
    await soon();
    const news = JSON.stringify({ changes: [change(1), change(2)], more: false });
    expect(heard).toEqual([`event: changes\ndata: ${news}\n\nevent: moved\ndata: readings\n\n`, 'q event: moved\ndata: events\n\n']); // prettier-ignore
    leave();
    leave();
    live.changed('p', change(3));
    await soon();
    expect(heard).toHaveLength(2);
    expect(live.listen('p', () => undefined)).not.toBeNull();
    expect(live.listen('p', () => undefined)).toBeNull();
  });

  it('is told to fetch what is too long, or what a helper saved', async () => {
    const live = createLive(2, 10);
    const heard: string[] = [];
    live.listen('p', (text) => heard.push(said(text)));
    live.changed('p', change(7, 'long '.repeat(20_000)));
    await soon();
    live.changed('p', change(8));
    live.changed('p', { revision: 9 });
    await soon();
    expect(heard).toEqual(['event: moved\ndata: plan 7\n\n', 'event: moved\ndata: plan 9\n\n']);
  });
});
