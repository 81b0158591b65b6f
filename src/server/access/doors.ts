/**
 * What each address asks of who knocks. An address that is not named here is shut, and a test fails: whoever adds one
 * says whom it is for.
 */
import type { Role, Visitor } from '../../formats/visitor.js';

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';
/** `open`: anybody; a role: whoever has it or a greater one. */
type Least = 'open' | Role;

interface Door extends Partial<Readonly<Record<Method, Least>>> {
  /** Not by a link to read one property: it shows or does what is of no single one. */
  readonly people?: true;
  /** Its `id` is that of a ground, which is named by its content: who knows that has seen it. */
  readonly ground?: true;
}

const READ: Door = { GET: 'reader' };

/** By route pattern. HEAD is let in as GET is. */
export const DOORS: Readonly<Record<string, Door>> = {
  '/': { GET: 'reader', people: true },
  '/404': { GET: 'open' },
  '/500': { GET: 'open' },
  '/away': { GET: 'open' },
  '/sign-in': { GET: 'open' },
  '/s/[token]': { GET: 'open' },
  '/people': { GET: 'owner', people: true },
  '/new': { GET: 'owner', people: true },
  '/p/[id]/[...step]': READ,
  '/cards/[id]': READ,
  '/coils/[id]': READ,
  '/day/[id]': READ,
  '/ends/[id]': READ,
  '/order/[id]': READ,
  '/pack/[id]': READ,
  '/print/[id]': READ,
  '/setout/[id]': READ,
  '/stick/[id]': READ,
  '/strain/[id]': READ,
  '/wiring/[id]': READ,
  '/api/health': { GET: 'open' },
  // A monitor brings its own token.
  '/api/monitor': { POST: 'open' },
  '/api/session': { GET: 'open', POST: 'open', DELETE: 'open' },
  '/api/people': { GET: 'owner', POST: 'owner', people: true },
  '/api/people/[person]': { PUT: 'owner', DELETE: 'owner', people: true },
  '/api/schema/[name]': READ,
  '/api/calc': { POST: 'reader' },
  '/api/calc/[kind]': { POST: 'reader' },
  '/api/walked': { POST: 'crew' },
  '/api/grids': { POST: 'crew' },
  '/api/grids/[id]': { ...READ, ground: true },
  '/api/sample': { POST: 'owner', people: true },
  '/api/backup': { GET: 'owner', people: true },
  '/api/restore': { POST: 'owner', people: true },
  '/api/properties': { GET: 'reader', POST: 'owner', people: true },
  '/api/properties/[id]': READ,
  '/api/properties/[id]/changes': { GET: 'reader', POST: 'crew' },
  '/api/properties/[id]/records/[kind]': { GET: 'reader', POST: 'crew' },
  '/api/properties/[id]/photos/[hash]': { GET: 'reader', PUT: 'crew' },
  '/api/properties/[id]/live': READ,
  '/api/properties/[id]/report': READ,
  '/api/properties/[id]/summary': READ,
  '/api/properties/[id]/export': READ,
  '/api/properties/[id]/monitors': { GET: 'reader', POST: 'owner' },
  '/api/properties/[id]/monitors/[monitor]': { DELETE: 'owner' },
  '/api/properties/[id]/shares': { GET: 'owner', POST: 'owner' },
  '/api/properties/[id]/shares/[share]': { DELETE: 'owner' },
};

const RANK: Readonly<Record<Least, number>> = { open: 0, reader: 1, crew: 2, owner: 3 };

/** `in`: come in; `sign in`: say who you are first; `not you`: not with this role. */
export type Verdict = 'in' | 'sign in' | 'not you';

/**
 * Whether somebody may come in at a door.
 * @param pattern the route's own, as "/p/[id]/[...step]"
 * @param property the one that is asked for, where the address names one
 * @param visitor null: nobody known
 */
export function admitted(
  pattern: string,
  method: string,
  property: string | undefined,
  visitor: Visitor | null,
): Verdict {
  const door = DOORS[pattern];
  // What a door does not do, the page says itself: 404 or 405 and no more.
  const least = door?.[(method === 'HEAD' ? 'GET' : method) as Method] ?? 'owner';
  if (least === 'open') return 'in';
  if (!visitor) return 'sign in';
  if (RANK[visitor.role] < RANK[least]) return 'not you';
  if (visitor.only === undefined) return 'in';
  if (door?.people) return 'not you';
  // An address that names a property opens for its own link alone, and where none was read from it for none.
  const ofProperty = pattern.includes('[id]') && !door?.ground;
  return !ofProperty || property === visitor.only ? 'in' : 'not you';
}
