/** Roles in words. */
import type { Role } from '../../formats/visitor.js';

export const ROLE_WORDS: readonly (readonly [Role, string])[] = [
  ['owner', 'owner'],
  ['crew', 'crew'],
  ['reader', 'reader'],
];

export const MAY: Readonly<Record<Role, string>> = {
  owner: 'does everything: people, links, new properties, backups',
  crew: 'changes plans, logs, inspects, takes photos',
  reader: 'looks at everything and changes nothing',
};
