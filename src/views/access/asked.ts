/** Asks the server; a refusal becomes an Error with its words. */
export async function asked<T>(path: string, method = 'GET', body?: unknown): Promise<T> {
  const answer = await fetch(path, {
    method,
    ...(method === 'GET'
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body ?? {}) }),
  }).catch(() => null);
  if (!answer) throw new Error('The server does not answer: nothing was changed.');
  if (answer.status === 204) return undefined as T;
  const said = (await answer.json().catch(() => ({}))) as T & { error?: string; reason?: string };
  if (answer.ok) return said;
  const words = said.reason ?? `the server answered ${answer.status}`;
  throw new Error(`${words.replace(/^./, (c) => c.toUpperCase())}.`);
}
