/** Questions to the server from a form: an answer, or words that can stand beside the field. */

/** What was refused. The words have no capital and no full stop. */
export class Refusal extends Error {
  /** @param place in what was sent, such as "/name"; empty where it is about the whole */
  constructor(
    readonly reason: string,
    readonly place = '',
  ) {
    super(place ? `${place}: ${reason}` : reason);
  }
}

/**
 * Asks the server.
 * @param body is sent as JSON with any method but GET
 * @throws Refusal with the server's words, or when it does not answer
 */
export async function ask<T>(path: string, method = 'GET', body?: unknown): Promise<T> {
  const sent =
    method === 'GET'
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body ?? {}) };
  const answer = await fetch(path, { method, ...sent }).catch(() => null);
  if (!answer) throw new Refusal('the server does not answer; nothing was changed');
  if (answer.status === 204) return undefined as T;
  // What a proxy says in place of the server is no JSON.
  const said = (await answer.json().catch(() => null)) as unknown;
  if (answer.ok && said !== null) return said as T;
  const { reason, place } = (said ?? {}) as { reason?: string; place?: string };
  throw new Refusal(reason ?? `the server answered ${answer.status}`, place);
}

/** Posts JSON and gives the answer. @throws Refusal */
export const postJson = <T>(path: string, body: unknown): Promise<T> => ask<T>(path, 'POST', body);
