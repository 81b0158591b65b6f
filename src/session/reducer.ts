/**
 * What is saved and what is not, of one open property in one tab: a pure reducer. The adapters around
 * it (session.ts) feed it events and carry out the effects that it asks for; nothing else decides.
 *
 * `base` is the plan as the server has it at `revision`; `plan` is that with every pending change on
 * top that fits. A change leaves `pending` only when the server has it, or with a word: as a refusal
 * that can be downloaded, or because the user gave it up.
 */
import type { Proposed, Saved } from '../formats/change.js';
import { applyPatch, patchesTouch } from '../formats/patch.js';
import { pushed, type Stacks } from '../formats/stacks.js';
import { stacksNow, type Book, type Effect, type Event, type Pending, type Step } from './book.js';

/** Takes an event in; gives the next book and what is to be done outside. */
export function take(b: Book, event: Event): Step {
  switch (event.type) {
    case 'edit':
      return add(b, { ...event, kind: 'do' });
    case 'undo':
    case 'redo':
      return stepsBack({
        ...b,
        wanted: [...b.wanted, { kind: event.type, changeId: event.changeId }],
      });
    case 'body':
      return withBody(b, event);
    case 'recovered':
      return recover(b, event.changes);
    case 'kept':
      return [b.full === !event.ok ? b : { ...b, full: !event.ok }, []];
    case 'acked':
      return acked(b, event);
    case 'met':
      return met(b, event);
    case 'refused':
      return refused(b, event);
    case 'unreachable':
      return event.changeId === b.sending
        ? [{ ...b, sending: null, away: true }, [{ do: 'retryLater' }]]
        : [b, []];
    case 'retry':
      return send({ ...b, held: null });
    case 'news':
      return news(b, event);
    case 'resolve':
      return resolve(b, event);
    case 'giveUp':
      return b.held ? drop({ ...b, held: null }, b.held.changeId) : [b, []];
    case 'dismiss':
      return [{ ...b, refusals: [] }, []];
  }
}

/** One step after another. */
const then = ([b, effects]: Step, next: (b: Book) => Step): Step => {
  const [after, more] = next(b);
  return [after, [...effects, ...more]];
};

type Made = Pick<Proposed, 'changeId' | 'kind' | 'words' | 'patch' | 'inverse' | 'of'>;

function add(b: Book, made: Made): Step {
  const { changeId, kind, of, words, patch, inverse } = made;
  const after = b.pending.flatMap((p) => (p.change.tab === b.tab ? [] : [p.change.changeId]));
  const change: Proposed = {
    changeId,
    tab: b.tab,
    base: b.revision,
    kind,
    ...(of === undefined ? {} : { of }),
    words: words.slice(0, 200),
    patch,
    inverse,
    ...(after.length === 0 ? {} : { after: after.slice(-1000) }),
  };
  const plan = applyPatch(b.plan, patch);
  const next = { ...b, plan, pending: [...b.pending, { change, fits: true }] };
  return then(
    [
      next,
      [
        { do: 'keep', change },
        { do: 'follow', patch },
      ],
    ],
    send,
  );
}

/** Takes back, or makes again, what is wanted and whose body is here; the rest waits in its order. */
function stepsBack(b: Book): Step {
  const [next, ...rest] = b.wanted;
  if (!next) return [b, []];
  const { kind, changeId } = next;
  const top = stacksNow(b)[kind].at(-1);
  if (!top) return stepsBack({ ...b, wanted: rest });
  if (!top.body) return [b, [{ do: 'fetchBody', of: top.changeId }]];
  const { patch, inverse } = top.body;
  const made: Made =
    kind === 'undo'
      ? { changeId, kind, of: top.changeId, words: `undid: ${top.words}`, patch: inverse, inverse: patch } // prettier-ignore
      : { changeId, kind, of: top.changeId, words: `redid: ${top.words}`, patch, inverse };
  try {
    return then(add({ ...b, wanted: rest }, made), stepsBack);
  } catch (error) {
    const change = { ...made, tab: b.tab, base: b.revision };
    const reason = (error as Error).message;
    return [{ ...b, wanted: [], refusals: [...b.refusals, { change, reason }] }, []];
  }
}

function withBody(b: Book, event: Event & { type: 'body' }): Step {
  const { patch, inverse } = event;
  const filled = (list: Stacks['undo']) =>
    list.map((c) => (c.changeId === event.of ? { ...c, body: { patch, inverse } } : c));
  const stacks = { undo: filled(b.stacks.undo), redo: filled(b.stacks.redo) };
  return stepsBack({ ...b, stacks });
}

/** Puts back what an earlier tab drew and the server never acknowledged. */
function recover(b: Book, changes: readonly Proposed[]): Step {
  const known = new Set(b.pending.map((p) => p.change.changeId));
  const own = changes.filter((c) => !known.has(c.changeId));
  if (own.length === 0) return [b, []];
  // Oldest first, and before what this tab has made meanwhile.
  const pending = [...own.map((change) => ({ change, fits: true })), ...b.pending];
  return then(again({ ...b, pending }), send);
}

/** Sends the first pending change that the server does not have yet. */
function send(b: Book): Step {
  if (b.sending || b.conflict || b.held) return [b, []];
  const next = b.pending.find((p) => p.saved === undefined);
  if (!next) return [b, []];
  return [{ ...b, sending: next.change.changeId }, [{ do: 'post', change: next.change }]];
}

/** The plan worked out anew: the server's with what is pending and fits on top. */
function again(b: Book): Step {
  let plan = b.base;
  const pending = b.pending.map((p): Pending => {
    try {
      plan = applyPatch(plan, p.change.patch);
      return p.fits ? p : { ...p, fits: true };
    } catch {
      return p.fits ? { ...p, fits: false } : p;
    }
  });
  return [{ ...b, plan, pending }, [{ do: 'replace' }]];
}

function without(b: Book, changeId: string): Book {
  return { ...b, pending: b.pending.filter((p) => p.change.changeId !== changeId) };
}

/** Gives a pending change up: it leaves the screen and the browser. */
const drop = (b: Book, changeId: string): Step =>
  then([without(b, changeId), [{ do: 'forget', changeId }]], (next) => then(again(next), send));

function acked(b: Book, event: Event & { type: 'acked' }): Step {
  const mine = b.pending.find((p) => p.change.changeId === event.changeId);
  const sending = b.sending === event.changeId ? null : b.sending;
  const now = { ...b, sending, away: false };
  if (!mine) return send(now);
  // It was in the plan before this tab opened it: shown once, not twice.
  if (event.revision <= b.revision) return drop(now, event.changeId);
  const pending = now.pending.map((p) => (p === mine ? { ...p, saved: event.revision } : p));
  const own: Saved = { ...mine.change, revision: event.revision, at: event.at };
  return then(
    [
      { ...now, pending },
      [
        { do: 'forget', changeId: event.changeId },
        { do: 'announce', revision: event.revision },
      ],
    ],
    // What stands between is fetched by the same door when the answer does not tell it all.
    (next) => then(advance(next, [...event.others, own]), send),
  );
}

/** Takes changes of the server in that follow on the revision at hand; the rest is asked for. */
function advance(b: Book, list: readonly Saved[]): Step {
  const fresh = new Map(list.filter((c) => c.revision > b.revision).map((c) => [c.revision, c]));
  const run: Saved[] = [];
  for (let r = b.revision + 1; fresh.has(r); r++) run.push(fresh.get(r)!);
  const gap: Effect[] =
    fresh.size > run.length ? [{ do: 'fetchNews', since: b.revision + run.length }] : [];
  if (run.length === 0) return [b, gap];

  const landed = new Set(run.map((c) => c.changeId));
  const left = b.pending.filter((p) => !landed.has(p.change.changeId));
  const theirs = run.filter((c) => !b.pending.some((p) => p.change.changeId === c.changeId));
  const last = run.at(-1)!;
  const next: Book = {
    ...b,
    base: run.reduce((plan, c) => applyPatch(plan, c.patch), b.base),
    revision: last.revision,
    savedAt: last.at,
    stacks: run.reduce(pushed, b.stacks),
    pending: left,
    sending: b.sending !== null && landed.has(b.sending) ? null : b.sending,
  };
  const forgotten = b.pending
    .filter((p) => landed.has(p.change.changeId) && p.saved === undefined)
    .map((p): Effect => ({ do: 'forget', changeId: p.change.changeId }));
  return then([next, [...forgotten, ...gap]], (n) => showing(n, b.pending, theirs));
}

/** The plan after others' changes: on top of what is shown where nothing touches, else anew. */
function showing(b: Book, before: readonly Pending[], theirs: readonly Saved[]): Step {
  if (theirs.length === 0) {
    // All that came is what this tab shows already.
    return [b.pending.length === 0 && before.every((p) => p.fits) ? { ...b, base: b.plan } : b, []];
  }
  const patch = theirs.flatMap((c) => c.patch);
  const apart = before.every((p) => p.fits && !patchesTouch(patch, p.change.patch));
  if (!apart) return again(b);
  try {
    const plan = b.pending.length === 0 ? b.base : applyPatch(b.plan, patch);
    return [{ ...b, plan }, [{ do: 'follow', patch }]];
  } catch {
    return again(b);
  }
}

function news(b: Book, event: Event & { type: 'news' }): Step {
  const further: Effect[] = event.more
    ? [{ do: 'fetchNews', since: event.changes.at(-1)?.revision ?? b.revision }]
    : [];
  const [next, effects] = advance(b, event.changes);
  const asked = effects.some((e) => e.do === 'fetchNews') ? [] : further;
  return then([next, [...effects, ...asked]], (n) => then(settle(n), send));
}

/** The server has other changes at the same place: both are shown, nothing is sent until one is chosen. */
function met(b: Book, event: Event & { type: 'met' }): Step {
  const mine = b.pending.find((p) => p.change.changeId === event.changeId);
  const next = { ...b, sending: null, away: false };
  if (!mine) return send(next);
  const { revision, theirs, others } = event;
  const conflict = { mine: mine.change, theirs, revision };
  return advance({ ...next, conflict }, others);
}

function resolve(b: Book, event: Event & { type: 'resolve' }): Step {
  if (!b.conflict || b.conflict.chosen) return [b, []];
  if (!event.keepMine) return drop({ ...b, conflict: null }, b.conflict.mine.changeId);
  // Under its own name, which what was made on top of it knows: the server has not taken it.
  const mine = { ...b.conflict.mine, base: b.conflict.revision };
  const pending = b.pending.map((p) =>
    p.change.changeId === mine.changeId ? { ...p, change: mine } : p,
  );
  const conflict = { ...b.conflict, mine, chosen: 'mine' as const };
  return then([{ ...b, pending, conflict }, [{ do: 'keepAnew', change: mine }]], settle);
}

/** Ends a conflict for which "mine" was chosen, once all that others did is here. */
function settle(b: Book): Step {
  const { conflict } = b;
  if (conflict?.chosen !== 'mine') return [b, []];
  if (b.revision < conflict.revision) return [b, [{ do: 'fetchNews', since: b.revision }]];
  const change = { ...conflict.mine, base: b.revision };
  const own = (p: Pending) => p.change.changeId === change.changeId;
  const pending = b.pending.map((p) => (own(p) ? { ...p, change } : p));
  const [next, effects] = again({ ...b, pending, conflict: null });
  if (next.pending.find(own)?.fits) return then([next, effects], send);
  const reason = 'it no longer fits what others have made of the plan';
  const out = { ...next, refusals: [...next.refusals, { change, reason }] };
  return then([out, effects], (n) => drop(n, change.changeId));
}

function refused(b: Book, { changeId, status, reason }: Event & { type: 'refused' }): Step {
  const mine = b.pending.find((p) => p.change.changeId === changeId);
  const next = { ...b, sending: null, away: false };
  if (!mine) return send(next);
  // Only a change that the plan cannot hold is over; whatever else stands in the way may pass.
  if (status !== 422) {
    const soon: Effect[] = status === 429 ? [{ do: 'retryLater' }] : [];
    return [{ ...next, held: { changeId, status, reason } }, soon];
  }
  const refusals = [...next.refusals, { change: mine.change, reason }];
  return then([{ ...next, refusals }, []], (n) => drop(n, changeId));
}
