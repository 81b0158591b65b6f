import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
import type { APIRoute } from 'astro';
import type { Grid } from '../../../core/plan/schema.js';
import { inSteps } from '../../../formats/gridSteps.js';
import { store } from '../../../server/index.js';
import { answer, fault } from '../../../server/http.js';

const compress = promisify(brotliCompress);
/** Grids up to this size are worth the time of the closest packing, once; letters. */
const SMALL = 2_000_000;
/** The packed text of grids asked for last, by how they were asked for: they never change. */
const packed = new Map<string, Promise<Buffer>>();

function pack(key: string, body: () => string): Promise<Buffer> {
  let made = packed.get(key);
  if (!made) {
    made = compress(body(), { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } });
    packed.set(key, made);
    if (packed.size > 8) packed.delete(packed.keys().next().value!);
  }
  return made;
}

const stepped = (body: string): string => JSON.stringify(inSteps(JSON.parse(body) as Grid));

/** A grid by its content id, as it is kept or in steps; it never changes, so it may be kept. */
export const GET: APIRoute = ({ params, request, url }) =>
  answer(async () => {
    const id = params.id!;
    const body = await (await store()).gridBody(id);
    if (body === null) return fault(404, 'no such ground');
    const headers = {
      'content-type': 'application/json',
      'cache-control': 'private, max-age=31536000, immutable',
      vary: 'accept-encoding',
    };
    const small =
      body.length <= SMALL && /\bbr\b/.test(request.headers.get('accept-encoding') ?? '');
    // Where it is not packed once for all who ask it goes as it is kept: who asked for steps reads both.
    if (!small) return new Response(body, { headers });
    const packing = url.searchParams.get('in') === 'steps' ? pack(`${id} in steps`, () => stepped(body)) : pack(id, () => body); // prettier-ignore
    const bytes = new Uint8Array(await packing);
    return new Response(bytes, { headers: { ...headers, 'content-encoding': 'br' } });
  });
