/** What a tab asks of the server. A server that does not answer is null, whatever the reason. */
import type { News, Proposed } from '../formats/change.js';
import type { Plan } from '../core/plan/schema.js';
import type { Monitor } from '../core/rounds/monitored.js';
import type { Event } from './book.js';
import { reached } from './reach.js';
import { url } from './state.js';
import { heardFrom } from './visitor.js';

/** What every record has. */
export interface KeptRecord {
  readonly id: string;
  readonly time: string;
  readonly who: string;
  readonly note: string;
  readonly corrects?: string;
  readonly void?: boolean;
}

const WAIT_MS = 10_000;

async function ask(path: string, body?: unknown, method = 'POST'): Promise<Response | null> {
  try {
    const answer = await fetch(path, {
      ...(body === undefined
        ? {}
        : {
            method,
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify(body),
          }),
      signal: AbortSignal.timeout(WAIT_MS),
    });
    return heard(answer);
  } catch {
    reached(false);
    silent ??= Date.now();
    return null;
  }
}

/** An answer that says something; one of a server in trouble, or that wants to know first who asks, is none. */
function heard(answer: Response): Response | null {
  heardFrom(answer);
  // A proxy answers in place of a server that is away.
  reached(answer.status < 502);
  const says = answer.status < 500 && answer.status !== 401;
  silent = says ? null : (silent ?? Date.now());
  return says ? answer : null;
}

const wordsOf = async (answer: Response): Promise<string> => {
  const said = (await answer.json().catch(() => null)) as { error?: string } | null;
  return said?.error ?? `the server answered ${answer.status}`;
};

/** Sends a change; gives what came of it. */
export async function postChange(change: Proposed): Promise<Event> {
  const { changeId } = change;
  const answer = await ask(url('/changes'), change);
  if (!answer) return { type: 'unreachable', changeId };
  try {
    if (answer.ok) return { ...(await answer.json()), type: 'acked', changeId } as Event;
    if (answer.status === 409) return { ...(await answer.json()), type: 'met', changeId } as Event;
  } catch {
    return { type: 'unreachable', changeId };
  }
  const { status } = answer;
  return { type: 'refused', changeId, status, reason: await wordsOf(answer) };
}

/** Changes after a revision; null: not now. */
export async function newsSince(revision: number): Promise<News | null> {
  const answer = await ask(url(`/changes?since=${revision}`));
  return answer?.ok ? ((await answer.json().catch(() => null)) as News | null) : null;
}

/** One change whole; null: not now. */
export async function changeNamed(changeId: string): Promise<Proposed | null> {
  const answer = await ask(url(`/changes?id=${changeId}`));
  return answer?.ok ? ((await answer.json().catch(() => null)) as Proposed | null) : null;
}

/** The plan as it stood at a revision; null: not now, or there is none. */
export async function planAt(revision: number): Promise<Plan | null> {
  const answer = await ask(url(`?at=${revision}`));
  const found = answer?.ok
    ? ((await answer.json().catch(() => null)) as { plan: Plan } | null)
    : null;
  return found?.plan ?? null;
}

/** Sends a record; `taken` false with the reason when the server will never take it. */
export async function postRecord(
  kind: string,
  record: unknown,
): Promise<{ taken: boolean; reason: string } | null> {
  const answer = await ask(url(`/records/${kind}`), record);
  if (!answer || answer.status === 429) return null;
  return answer.ok ? { taken: true, reason: '' } : { taken: false, reason: await wordsOf(answer) };
}

/** Sends a photo; `taken` false with the reason when there is no room for it, or it is no photo. Null: not now. */
export async function putPhoto(
  hash: string,
  content: ArrayBuffer,
): Promise<{ taken: boolean; reason: string } | null> {
  try {
    const answer = await fetch(url(`/photos/${hash}`), {
      method: 'PUT',
      headers: { 'content-type': 'image/jpeg' },
      body: content,
      signal: AbortSignal.timeout(3 * WAIT_MS),
    });
    if (answer.ok) return { taken: true, reason: '' };
    if (answer.status === 429 || (answer.status !== 507 && heard(answer) === null)) return null;
    return { taken: false, reason: await wordsOf(answer) };
  } catch {
    return null;
  }
}

/** Records of a kind that came in after one, oldest first; null: not now. */
export async function recordsSince(
  kind: string,
  since: number,
): Promise<{ records: readonly (KeptRecord & { seq: number })[]; more: boolean } | null> {
  const answer = await ask(url(`/records/${kind}?since=${since}`));
  return answer?.ok
    ? ((await answer.json().catch(() => null)) as Awaited<ReturnType<typeof recordsSince>>)
    : null;
}

/** The newest records of a kind, oldest first; null: not now. */
export async function newestRecords(
  kind: string,
  count: number,
): Promise<{ records: readonly (KeptRecord & { seq: number })[] } | null> {
  const answer = await ask(url(`/records/${kind}?newest=${count}`));
  return answer?.ok
    ? ((await answer.json().catch(() => null)) as Awaited<ReturnType<typeof newestRecords>>)
    : null;
}

/** Since when nothing has been answered, ms of the clock; null: the last question was. */
let silent: number | null = null;

/** Between two questions to a server that is away, ms: a quarter of the time it has been away, within bounds. */
const PAUSE_MS = { least: 1500, most: 15_000 } as const;

/** Until a server that was away is asked again: later the longer it is away, at once when the network is back. */
export function pause(): Promise<void> {
  const away = silent === null ? 0 : Date.now() - silent;
  const wait = Math.min(PAUSE_MS.most, Math.max(PAUSE_MS.least, away / 4));
  return new Promise((wake) => {
    const done = () => {
      clearTimeout(timer);
      removeEventListener('online', done);
      wake();
    };
    const timer = setTimeout(done, wait);
    addEventListener('online', done);
  });
}

/** Asks until there is an answer. */
export async function again<T>(ask: () => Promise<T | null>): Promise<T> {
  for (;;) {
    const answer = await ask();
    if (answer) return answer;
    await pause();
  }
}

/** The monitors of the property; null: not now. */
export async function monitors(): Promise<readonly Monitor[] | null> {
  const answer = await ask(url('/monitors'));
  const found = answer?.ok ? ((await answer.json().catch(() => null)) as { monitors: Monitor[] } | null) : null; // prettier-ignore
  return found?.monitors ?? null;
}

/** Makes a monitor; its token is told this once. @returns words: why not */
export async function makeMonitor(
  asked: Pick<Monitor, 'name' | 'kind' | 'line' | 'at_m' | 'unit' | 'simulated'>,
): Promise<{ monitor: Monitor; token: string } | string> {
  const answer = await ask(url('/monitors'), asked);
  if (!answer) return 'The server does not answer: nothing was made.';
  if (!answer.ok) return wordsOf(answer);
  return (await answer.json()) as { monitor: Monitor; token: string };
}

/** Takes a monitor's token back. @returns whether the server did */
export async function revokeMonitor(id: string): Promise<boolean> {
  // Without a body of JSON the server takes it for a form of another site.
  const answer = await ask(url(`/monitors/${id}`), {}, 'DELETE');
  return answer !== null && (answer.ok || answer.status === 404);
}
