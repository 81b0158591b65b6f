/** What every endpoint does alike: read JSON within bounds, answer, and say faults clearly. */
import { FormatError, MAX_BYTES, parseJson } from '../formats/error.js';

/** A JSON answer; never cached, since plans change. */
export const json = (body: unknown, status = 200): Response =>
  new Response(JSON.stringify(body), {
    status,
    headers: { 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store' },
  });

/** A fault as JSON: `{ error, place, reason }`. */
export const fault = (status: number, reason: string, place = ''): Response =>
  json({ error: place ? `${place}: ${reason}` : reason, place, reason }, status);

/** Text of a request body. @throws FormatError when it is too large */
export async function bodyText(request: Request): Promise<string> {
  const tooLarge = new FormatError('', `larger than ${MAX_BYTES / 1024 / 1024} MB`);
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BYTES) throw tooLarge;
  const reader = request.body?.getReader();
  if (!reader) return '';
  const parts: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > MAX_BYTES) throw tooLarge;
    parts.push(value);
  }
  return Buffer.concat(parts).toString('utf8');
}

/** JSON of a request body. */
export const bodyJson = async (request: Request): Promise<unknown> =>
  parseJson(await bodyText(request));

/** Runs an endpoint; a FormatError becomes 422 with its place, a RangeError 422 with its reason. */
export async function answer(run: () => Promise<Response>): Promise<Response> {
  try {
    return await run();
  } catch (error) {
    if (error instanceof FormatError) return fault(422, error.reason, error.place);
    if (error instanceof RangeError) return fault(422, error.message);
    console.error(error);
    return fault(500, 'the server could not do this; nothing was changed');
  }
}

/** A file that came as text or as base64. @throws FormatError when it came as neither */
export function contentOf(body: { text?: string; base64?: string }): string | Uint8Array {
  if (body.text !== undefined) return body.text;
  if (body.base64 !== undefined) return Buffer.from(body.base64, 'base64');
  throw new FormatError('text', 'the file is missing');
}

export const bytesOf = (content: string | Uint8Array): Uint8Array =>
  typeof content === 'string' ? Buffer.from(content, 'latin1') : content;
export const textOf = (content: string | Uint8Array): string =>
  typeof content === 'string' ? content : Buffer.from(content).toString('utf8');
