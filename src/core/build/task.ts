/** What a task is. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import { planLength } from '../plan/geometry.js';
import type { Line } from '../plan/schema.js';
import { PROPERTY } from '../report/uses.js';
import type { Items } from '../supplies/takeoff.js';
import { kindOf, type TaskKind } from './kinds.js';

/** A count of what a task does, with the figure by which its hours follow. */
export interface Amount {
  readonly n: number;
  /** What is counted, in words: `posts`. */
  readonly of: string;
  /** Path of the figure in the catalogue. */
  readonly figure: string;
  readonly hours: number;
}

export interface Wait {
  readonly id: string;
  readonly wait_h: number;
  /** Why it waits by the clock: how the posts are set. */
  readonly why?: string;
}

export interface Task {
  readonly id: string;
  readonly kind: TaskKind;
  readonly name: string;
  /** Whose it is: a line, or null for the property. */
  readonly line: string | null;
  /** Along its line, m. */
  readonly from_m: number;
  readonly to_m: number;
  readonly amounts: readonly Amount[];
  /** Hours of one person, by the figures of the trade or as typed. */
  readonly work_h: number;
  readonly people: number;
  readonly after: readonly Wait[];
  /** What is hired for it: an item of the price book. */
  readonly machine: string | null;
  readonly parts: Items;
  /** It comes when the fence stands: the end of the building does not wait for it. */
  readonly aside?: true;
}

export type Draft = Omit<Task, 'work_h' | 'people'>;

/** A task of a line or of the property with nothing in it yet. */
export const whole = (
  kind: TaskKind,
  words: string,
  line: Line | null,
  key = line?.id ?? PROPERTY,
): Draft => ({
  id: `${kind}:${key}`,
  kind,
  name: words ? `${kindOf(kind).name}: ${words}` : kindOf(kind).name,
  line: line?.id ?? null,
  from_m: 0,
  to_m: line ? planLength(line) : 0,
  amounts: [],
  after: [],
  machine: null,
  parts: [],
});

/** A count by a default of the trade. @param times of it */
export function amount(n: number, of: string, path: string, cat: Catalogue, times = 1): Amount {
  const value = figure(cat, path);
  const hour = cat.defaults[path]!.unit === 'min' ? 1 / 60 : 1;
  return { n, of, figure: `defaults.${path}.value`, hours: n * value * hour * times };
}

/** Waits for these, and for no time more. */
export const waits = (...ids: string[]): Wait[] => ids.map((id) => ({ id, wait_h: 0 }));

/** Of several waits for the same the longest; each once. */
export function longest(all: readonly Wait[]): Wait[] {
  const out = new Map<string, Wait>();
  for (const w of all) if (!((out.get(w.id)?.wait_h ?? -1) >= w.wait_h)) out.set(w.id, w);
  return [...out.values()];
}

/** What a plan says of tools, hire and own items: none of it belongs to one task. */
export const isKit = (item: string): boolean => /^(tool|hire|own)\./.test(item);
