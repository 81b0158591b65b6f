/** Who may come in, as server and tab speak of it: roles, people, links, and who asks. */

/** From the one who may do most to the one who may do least. */
export const ROLES = ['owner', 'crew', 'reader'] as const;
export type Role = (typeof ROLES)[number];

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  readonly made_at: string;
}

/** A link with which one property may be read. */
export interface Share {
  readonly id: string;
  /** For whom it was made. */
  readonly words: string;
  readonly made_at: string;
  readonly revoked_at: string | null;
  readonly used_at: string | null;
}

/** Who asks. */
export interface Visitor {
  readonly id: string;
  /** Empty where there are no people, or one came by a link. */
  readonly name: string;
  readonly role: Role;
  /** The one property that a link opens. */
  readonly only?: string;
}

/** This machine's own user, as long as there are no people. */
export const OWN: Visitor = { id: '', name: '', role: 'owner' };

/** Somebody at a door that stands open: it is not asked who. */
export const ANYBODY: Visitor = { id: '', name: '', role: 'reader' };
