/** What workers do, by their names, and how one says that it has started. */
import type { StartApi } from './begin.js';
import type { EvaluateApi } from './evaluate.js';
import type { PlacementApi } from './place.js';
import type { Answering } from './questions.js';

export interface Roles {
  readonly evaluate: EvaluateApi;
  readonly questions: Answering;
  readonly place: PlacementApi;
  readonly begin: StartApi;
}
export type Role = keyof Roles;

export type Started = { readonly ready: true } | { readonly ready: false; readonly why: string };
