/** What every endpoint does alike: read a body within bounds, answer, and say faults clearly. */
import { FormatError, parseJson } from '../formats/error.js';
import { plainly, StoreError } from './database.js';
import { JobError } from './jobs/pool.js';

const MB = 1024 * 1024;
/** Largest bodies: a plan or a ground file; a change; a case for a calculator; a record; a backup with its photos. */
export const ROOM = {
  file: 64 * MB,
  change: 8 * MB,
  calc: 8 * MB,
  record: 64 * 1024,
  bundle: 512 * MB,
} as const;

const JSON_HEADERS = {
  'content-type': 'application/json; charset=utf-8',
  'cache-control': 'no-store',
};

/** A JSON answer from text that is JSON already; never cached, since plans change. */
export const jsonText = (text: string, status = 200): Response =>
  new Response(text, { status, headers: JSON_HEADERS });
export const json = (body: unknown, status = 200): Response =>
  jsonText(JSON.stringify(body), status);

/** A fault as JSON: `{ error, place, reason }`. */
export const fault = (status: number, reason: string, place = ''): Response =>
  json({ error: place ? `${place}: ${reason}` : reason, place, reason }, status);

/** What was asked too often: 429, and in how many seconds it may be asked again. */
export function tooMany(reason: string, seconds: number): Response {
  const refused = fault(429, reason);
  refused.headers.set('retry-after', String(seconds));
  return refused;
}

/** A request that is not taken, with its status. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** A request body as it came. @throws Refused when it is larger than `room` bytes */
export async function bodyBytes(request: Request, room: number): Promise<Uint8Array> {
  const size = room >= MB ? `${room / MB} MB` : `${room / 1024} kB`;
  const tooLarge = new Refused(413, `larger than ${size}`);
  if (Number(request.headers.get('content-length') ?? 0) > room) throw tooLarge;
  const reader = request.body?.getReader();
  if (!reader) return new Uint8Array();
  const parts: Uint8Array[] = [];
  let read = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    read += value.length;
    if (read > room) throw tooLarge;
    parts.push(value);
  }
  return Buffer.concat(parts);
}

/** Text of a request body. */
export const bodyText = async (request: Request, room: number): Promise<string> =>
  Buffer.from(await bodyBytes(request, room)).toString('utf8');

/** JSON of a body that was read. */
export const jsonOf = (bytes: Uint8Array): unknown =>
  parseJson(Buffer.from(bytes).toString('utf8'));

/** JSON of a request body. */
export const bodyJson = async (request: Request, room: number): Promise<unknown> =>
  jsonOf(await bodyBytes(request, room));

/** Runs an endpoint; what is wrong with a request is said with its place and reason. */
export async function answer(run: () => Promise<Response>): Promise<Response> {
  try {
    return await run();
  } catch (thrown) {
    const error = plainly(thrown);
    if (error instanceof FormatError) return fault(422, error.reason, error.place);
    if (error instanceof Refused) return fault(error.status, error.message);
    if (error instanceof JobError && error.status !== 500)
      return fault(error.status, error.message);
    if (error instanceof RangeError) return fault(422, error.message);
    if (error instanceof StoreError) return fault(503, `${error.message}; nothing was changed`);
    console.error(error);
    return fault(500, 'the server could not do this; nothing was changed');
  }
}
