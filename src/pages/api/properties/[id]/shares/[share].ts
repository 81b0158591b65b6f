import type { APIRoute } from 'astro';
import { answer, fault } from '../../../../../server/http.js';
import { store } from '../../../../../server/index.js';

/** Takes a link back: whoever came by it is out at once. */
export const DELETE: APIRoute = ({ params }) =>
  answer(async () =>
    (await (await store()).people.unshare(params.id!, params.share!))
      ? new Response(null, { status: 204 })
      : fault(404, 'no such link'),
  );
