import type { APIRoute } from 'astro';
import { store } from '../../../server/index.js';
import { answer, fault } from '../../../server/http.js';

/** A grid by its content id; it never changes, so it may be kept. */
export const GET: APIRoute = ({ params }) =>
  answer(async () => {
    const body = await (await store()).gridBody(params.id!);
    if (body === null) return fault(404, 'no such ground');
    return new Response(body, {
      headers: {
        'content-type': 'application/json',
        'cache-control': 'max-age=31536000, immutable',
      },
    });
  });
