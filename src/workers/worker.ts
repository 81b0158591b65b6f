/**
 * The one program of all workers: its name says what it does. A role's own part is loaded when it starts; what roles
 * share is one file. It says that it is ready, or why it is not: nothing is swallowed.
 */
import * as Comlink from 'comlink';
import type { Role, Started } from './roles.js';

const ROLES: Readonly<Record<Role, () => Promise<{ readonly api: object }>>> = {
  evaluate: () => import('./evaluate.js'),
  questions: () => import('./questions.js'),
  place: () => import('./place.js'),
  begin: () => import('./begin.js'),
};

const tell = (started: Started) => postMessage(started);
ROLES[self.name as Role]().then(
  ({ api }) => {
    Comlink.expose(api);
    tell({ ready: true });
  },
  (error: Error) => tell({ ready: false, why: error.message }),
);
