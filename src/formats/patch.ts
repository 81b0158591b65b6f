/**
 * JSON Patch (RFC 6902) between the plan, the store and the worker. Applied with structural sharing,
 * so that what a change does not touch keeps its identity.
 */
import { enablePatches, produce, produceWithPatches, type Patch } from 'immer';
import type { PatchStep } from '../core/plan/schema.js';
import { FormatError } from './error.js';

enablePatches();

type Key = string | number;
const FORBIDDEN = new Set(['__proto__', 'constructor', 'prototype']);

const toPointer = (path: readonly Key[]): string =>
  path.map((k) => `/${String(k).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');

const toKeys = (path: string): string[] =>
  path
    .slice(1)
    .split('/')
    .map((k) => k.replaceAll('~1', '/').replaceAll('~0', '~'));

/**
 * A new document with the patch applied; the old one stays as it was.
 * @throws FormatError when a step does not fit the document
 */
export function applyPatch<T extends object>(document: T, steps: readonly PatchStep[]): T {
  return produce(document, (draft) => {
    for (const step of steps) {
      const keys = keysWithin(draft, step);
      const key = keys.pop()!;
      const at = keys.reduce<unknown>((holder, k) => (holder as Holder)[k], draft) as Holder;
      if (step.op === 'remove') {
        if (Array.isArray(at)) at.splice(key as number, 1);
        else delete at[key];
      } else if (step.op === 'add' && Array.isArray(at)) {
        at.splice(key === '-' ? at.length : (key as number), 0, own(step.value));
      } else if (step.before !== undefined && Object.hasOwn(at, step.before))
        putBefore(at, key as string, own(step.value), step.before);
      else at[key] = own(step.value);
    }
  });
}

/** Puts a key into a table in front of another one, so that what comes back stands where it stood. */
function putBefore(table: Holder, key: string, value: unknown, before: string): void {
  const keys = Object.keys(table);
  const behind = keys.slice(keys.indexOf(before)).filter((k) => k !== key);
  const kept = behind.map((k) => table[k]);
  for (const k of [key, ...behind]) delete table[k];
  table[key] = value;
  behind.forEach((k, i) => (table[k] = kept[i]));
}

type Holder = Record<Key, unknown>;

/** A value as the document's own: a later step may write into it. */
const own = (value: unknown): unknown =>
  typeof value === 'object' && value !== null ? structuredClone(value) : value;

/** The keys of a step, numbers where a list is meant, after making sure that they lead somewhere. */
function keysWithin(document: object, step: PatchStep): Key[] {
  const lost = new FormatError(
    step.path,
    'the change does not fit the plan: there is no such place',
  );
  const keys: Key[] = toKeys(step.path);
  let at: unknown = document;
  keys.forEach((key, i) => {
    const last = i === keys.length - 1;
    if (typeof at !== 'object' || at === null || FORBIDDEN.has(String(key))) throw lost;
    if (Array.isArray(at)) {
      if (last && step.op === 'add' && key === '-') return;
      const index = Number(key);
      const room = at.length + (last && step.op === 'add' ? 1 : 0);
      if (!/^(0|[1-9]\d*)$/.test(String(key)) || index >= room) throw lost;
      keys[i] = index;
      at = (at as unknown[])[index];
      return;
    }
    if (!(last && step.op === 'add') && !Object.hasOwn(at, key)) throw lost;
    at = (at as Record<string, unknown>)[key];
  });
  return keys;
}

export interface Edit<T> {
  readonly next: T;
  readonly patch: PatchStep[];
  readonly inverse: PatchStep[];
}

/** Runs a recipe that writes into a draft; gives the new document, the patch and its inverse. */
export function edit<T extends object>(document: T, recipe: (draft: T) => void): Edit<T> {
  const [next, patch, inverse] = produceWithPatches(document, (draft) => {
    recipe(draft as T);
  });
  const steps = (list: readonly Patch[]): PatchStep[] =>
    list.map(({ op, path, value }) => ({
      op,
      path: toPointer(path),
      ...(op === 'remove' ? {} : { value: value as unknown }),
    }));
  const returned = new Set<string>();
  const back = steps(inverse).map((step, i) => {
    if (step.op !== 'add') return step;
    const before = keyBehind(document, next, inverse[i]!.path, returned);
    returned.add(step.path);
    return before === undefined ? step : { ...step, before };
  });
  return { next, patch: steps(patch), inverse: back };
}

/** The key that stood behind one that was taken out of a table, of those still there or put back before it. */
function keyBehind(
  was: object,
  next: object,
  path: readonly Key[],
  returned: ReadonlySet<string>,
): string | undefined {
  const reach = (from: object) =>
    path.slice(0, -1).reduce<unknown>((at, k) => (at as Holder | undefined)?.[k], from);
  const [table, left] = [reach(was), reach(next)];
  if (Array.isArray(table) || typeof table !== 'object' || typeof left !== 'object')
    return undefined;
  const keys = Object.keys(table ?? {});
  const holder = path.slice(0, -1);
  return keys
    .slice(keys.indexOf(String(path.at(-1))) + 1)
    .find((k) => Object.hasOwn(left ?? {}, k) || returned.has(toPointer([...holder, k])));
}

/** The steps that turn one document into another, by its top keys. */
export function difference(
  was: Readonly<Record<string, unknown>>,
  next: Readonly<Record<string, unknown>>,
): PatchStep[] {
  const keys = new Set([...Object.keys(was), ...Object.keys(next)]);
  return [...keys].flatMap((key): PatchStep[] => {
    const path = toPointer([key]);
    if (!(key in next)) return [{ op: 'remove', path }];
    if (!(key in was)) return [{ op: 'add', path, value: next[key] }];
    return JSON.stringify(was[key]) === JSON.stringify(next[key])
      ? []
      : [{ op: 'replace', path, value: next[key] }];
  });
}

/**
 * True when two patches cannot be taken in either order: one path holds the other, or one moves the
 * places of a list that the other writes into.
 */
export function patchesTouch(a: readonly PatchStep[], b: readonly PatchStep[]): boolean {
  const [x, y] = [placesOf(a), placesOf(b)];
  return touches(x, y) || touches(y, x);
}

/** Where a patch writes, and the lists whose places it moves. */
function placesOf(steps: readonly PatchStep[]) {
  const written = new Set<string>();
  const moved = new Set<string>();
  for (const { op, path } of steps) {
    written.add(path);
    if (op === 'replace') continue;
    const cut = path.lastIndexOf('/');
    if (/^(\d+|-)$/.test(path.slice(cut + 1))) moved.add(path.slice(0, cut));
  }
  return { written, moved };
}

/** Whether any place that `y` writes lies at or below one of `x`, or in a list that `x` moves. */
function touches(x: ReturnType<typeof placesOf>, y: ReturnType<typeof placesOf>): boolean {
  for (const path of y.written) {
    if (x.written.has(path)) return true;
    for (let cut = path.lastIndexOf('/'); cut >= 0; cut = path.lastIndexOf('/', cut - 1)) {
      const above = path.slice(0, cut);
      if (x.moved.has(above) || (cut > 0 && x.written.has(above))) return true;
      if (cut === 0) break;
    }
  }
  return false;
}
