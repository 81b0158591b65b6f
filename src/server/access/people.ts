/**
 * Who may come in: people with a name, a role and a pass phrase, those who are signed in, and links with which one
 * property may be read. Of phrases and tokens only hashes are kept.
 */
import { randomBytes, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { Type } from '../../core/base/type.js';
import { FormatError } from '../../formats/error.js';
import { validate } from '../../formats/validate.js';
import { sha256 } from '../hash.js';
import { ROLES, type Person, type Role, type Share, type Visitor } from '../../formats/visitor.js';
import { isRight, kept, PHRASE } from './phrase.js';

/** Somebody who has not been here for so long signs in anew, ms: longer than a season, since a phone lies in a pickup. */
const FORGOTTEN_MS = 180 * 86_400_000;
/** How exactly it is noted when somebody was here, ms. */
const SEEN_MS = 3_600_000;
/** Most people, links of a property, and places where one is signed in. */
const MOST = { people: 200, shares: 50, sessions: 50 } as const;

const closed = { additionalProperties: false } as const;
const name = Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' });
const role = Type.Union(ROLES.map((r) => Type.Literal(r)));
const phrase = Type.String({ maxLength: PHRASE.most });
const NewSchema = Type.Object({ name, role, phrase }, closed);
const ChangedSchema = Type.Object({ role: Type.Optional(role), phrase: Type.Optional(phrase) }, closed); // prettier-ignore
const ShareSchema = Type.Object({ words: Type.String({ maxLength: 80 }) }, closed);

type PersonRow = Person & { readonly known_as: string; readonly phrase: string };
type ShareRow = Share & { readonly property_id: string; readonly token_hash: string };

const plainPerson = ({ id, name, role, made_at }: PersonRow): Person => ({ id, name, role, made_at }); // prettier-ignore
const plainShare = ({ id, words, made_at, revoked_at, used_at }: ShareRow): Share => ({ id, words, made_at, revoked_at, used_at }); // prettier-ignore
const knownAs = (text: string): string => text.normalize('NFKC').trim().toLowerCase();

/** The people of one database. @param now ms, for tests */
export function peopleStore(db: Knex, now: () => number = Date.now) {
  const iso = () => new Date(now()).toISOString();
  /** A phrase that nobody has, so that an unknown name takes as long as a wrong phrase. */
  const nobodys = kept(randomBytes(16).toString('hex'));

  async function opened(of: { person_id: string } | { share_id: string }): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    await db.transaction(async (trx) => {
      await trx('session')
        .where('seen_ms', '<', now() - FORGOTTEN_MS)
        .delete();
      const own = await trx('session').where(of).orderBy('seen_ms', 'desc').offset(MOST.sessions - 1).limit(1_000_000).select('token_hash'); // prettier-ignore
      await trx('session').whereIn('token_hash', own.map((s) => s.token_hash as string)).delete(); // prettier-ignore
      await trx('session').insert({ ...of, token_hash: sha256(token), seen_ms: now() });
    });
    return token;
  }

  const owners = (from: Knex) => from('person').where({ role: 'owner' }).select('id');

  return {
    /** Whether there is anybody: without, this machine's own user does everything and nobody else comes in. */
    async any(): Promise<boolean> {
      return (await db('person').first('id')) !== undefined;
    },

    async list(): Promise<readonly Person[]> {
      return (await db<PersonRow>('person').orderBy('made_at')).map(plainPerson);
    },

    /**
     * Lets a person in from now on. The first is an owner, whatever was asked.
     * @throws FormatError when it does not fit or the name is taken
     */
    async add(value: unknown): Promise<Person> {
      const asked = validate<{ name: string; role: Role; phrase: string }>(NewSchema, value);
      const phraseKept = await kept(asked.phrase);
      if (knownAs(asked.phrase) === knownAs(asked.name))
        throw new FormatError('/phrase', 'must not be the name');
      return db.transaction(async (trx) => {
        const all = (await trx('person').select('known_as')) as { known_as: string }[];
        if (all.length >= MOST.people) throw new FormatError('', `at most ${MOST.people} people`);
        const known_as = knownAs(asked.name);
        if (all.some((p) => p.known_as === known_as))
          throw new FormatError('/name', `"${asked.name.trim()}" is there already`);
        const row: PersonRow = {
          id: randomUUID(),
          name: asked.name.trim(),
          known_as,
          role: all.length === 0 ? 'owner' : asked.role,
          phrase: phraseKept,
          made_at: iso(),
        };
        await trx('person').insert(row);
        return plainPerson(row);
      });
    },

    /**
     * Gives a person another role or phrase; a new phrase ends all that is signed in with the old one.
     * @returns null when there is no such person
     * @throws FormatError when it does not fit, or nobody would be owner
     */
    async change(id: string, value: unknown): Promise<Person | null> {
      const asked = validate<{ role?: Role; phrase?: string }>(ChangedSchema, value);
      const phraseKept = asked.phrase === undefined ? undefined : await kept(asked.phrase);
      return db.transaction(async (trx) => {
        const was = await trx<PersonRow>('person').where({ id }).first();
        if (!was) return null;
        if (asked.phrase !== undefined && knownAs(asked.phrase) === was.known_as)
          throw new FormatError('/phrase', 'must not be the name');
        const next = asked.role ?? was.role;
        if (was.role === 'owner' && next !== 'owner' && (await owners(trx)).length === 1)
          throw new FormatError('/role', 'somebody must be owner: name another one first');
        await trx('person').where({ id }).update({ role: next, ...(phraseKept ? { phrase: phraseKept } : {}) }); // prettier-ignore
        if (phraseKept) await trx('session').where({ person_id: id }).delete();
        return { ...plainPerson(was), role: next };
      });
    },

    /**
     * Shuts a person out at once. What they did keeps their name.
     * @returns false when there is no such person
     * @throws FormatError when others would be left without an owner
     */
    remove: (id: string): Promise<boolean> =>
      db.transaction(async (trx) => {
        const all = (await trx('person').select('id', 'role')) as { id: string; role: Role }[];
        const was = all.find((p) => p.id === id);
        if (!was) return false;
        if (was.role === 'owner' && all.filter((p) => p.role === 'owner').length === 1)
          throw new FormatError('', 'somebody must be owner: name another one first');
        await trx('person').where({ id }).delete();
        return true;
      }),

    /** Signs somebody in; null when name or phrase is not right. Its token is told this once. */
    async signIn(said: string, phraseSaid: string): Promise<{ person: Person; token: string } | null> {
      const row = await db<PersonRow>('person').where({ known_as: knownAs(said) }).first();
      const right = await isRight(phraseSaid, row?.phrase ?? (await nobodys));
      if (!row || !right) return null;
      return { person: plainPerson(row), token: await opened({ person_id: row.id }) };
    }, // prettier-ignore

    /** Signs a person in without asking: who has just been made, or has just given a new phrase. */
    enter: (person: string): Promise<string> => opened({ person_id: person }),

    /** Who has a token: a person, or somebody who reads one property; null: nobody, or no longer. */
    async visitor(token: string): Promise<Visitor | null> {
      const token_hash = sha256(token);
      const row = await db('session')
        .leftJoin('person', 'person.id', 'session.person_id')
        .leftJoin('share', 'share.id', 'session.share_id')
        .where({ 'session.token_hash': token_hash })
        .first('session.seen_ms', 'person.id', 'person.name', 'person.role', { share: 'share.id' }, 'share.property_id', 'share.revoked_at'); // prettier-ignore
      if (!row || Number(row.seen_ms) < now() - FORGOTTEN_MS) return null;
      if (Number(row.seen_ms) < now() - SEEN_MS)
        await db('session').where({ token_hash }).update({ seen_ms: now() });
      if (row.id) return { id: row.id as string, name: row.name as string, role: row.role as Role };
      if (!row.share || row.revoked_at) return null;
      return { id: row.share as string, name: '', role: 'reader', only: row.property_id as string };
    },

    async signOut(token: string): Promise<void> {
      await db('session').where({ token_hash: sha256(token) }).delete();
    }, // prettier-ignore

    /** The links with which a property may be read; null when there is no such property. */
    async shares(property: string): Promise<readonly Share[] | null> {
      if (!(await db('property').where({ id: property }).first('id'))) return null;
      return (await db<ShareRow>('share').where({ property_id: property }).orderBy('made_at')).map(plainShare); // prettier-ignore
    },

    /**
     * Makes a link to read a property. Its token is told this once.
     * @returns null when there is no such property
     * @throws FormatError when it does not fit, or there are too many
     */
    async share(property: string, value: unknown): Promise<{ share: Share; token: string } | null> {
      const { words } = validate<{ words: string }>(ShareSchema, value);
      const token = randomBytes(24).toString('base64url');
      return db.transaction(async (trx) => {
        if (!(await trx('property').where({ id: property }).first('id'))) return null;
        const standing = await trx('share').where({ property_id: property, revoked_at: null });
        if (standing.length >= MOST.shares)
          throw new FormatError('', `a property has at most ${MOST.shares} links`);
        const row: ShareRow = { id: randomUUID(), property_id: property, words: words.trim(), token_hash: sha256(token), made_at: iso(), revoked_at: null, used_at: null }; // prettier-ignore
        await trx('share').insert(row);
        return { share: plainShare(row), token };
      });
    },

    /** Takes a link back: whoever came by it is out at once. False when there is no such one. */
    unshare: (property: string, share: string): Promise<boolean> =>
      db.transaction(async (trx) => {
        const own = { id: share, property_id: property };
        if (!(await trx('share').where(own).first('id'))) return false;
        await trx('share').where({ ...own, revoked_at: null }).update({ revoked_at: iso() }); // prettier-ignore
        await trx('session').where({ share_id: share }).delete();
        return true;
      }),

    /** Lets somebody in who has a link; null when it is not known or was taken back. */
    async enterBy(token: string): Promise<{ property: string; token: string } | null> {
      const row = await db<ShareRow>('share').where({ token_hash: sha256(token) }).first();
      if (!row || row.revoked_at) return null;
      await db('share').where({ id: row.id }).update({ used_at: iso() });
      return { property: row.property_id, token: await opened({ share_id: row.id }) };
    }, // prettier-ignore
  };
}

export type PeopleStore = ReturnType<typeof peopleStore>;
