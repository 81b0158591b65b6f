import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
import type { APIRoute } from 'astro';
import { store } from '../../../server/index.js';
import { answer, fault } from '../../../server/http.js';

const compress = promisify(brotliCompress);
/** Grids up to this size are worth the time of the closest packing, once; letters. */
const SMALL = 2_000_000;
/** The packed text of grids asked for last: they never change. */
const packed = new Map<string, Promise<Buffer>>();

function pack(id: string, body: string): Promise<Buffer> {
  let made = packed.get(id);
  if (!made) {
    made = compress(body, { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } });
    packed.set(id, made);
    if (packed.size > 8) packed.delete(packed.keys().next().value!);
  }
  return made;
}

/** A grid by its content id; it never changes, so it may be kept. */
export const GET: APIRoute = ({ params, request }) =>
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
    if (!small) return new Response(body, { headers });
    const bytes = new Uint8Array(await pack(id, body));
    return new Response(bytes, { headers: { ...headers, 'content-encoding': 'br' } });
  });
