import type { APIRoute } from 'astro';
import { answer, bodyBytes, fault, json } from '../../../../../server/http.js';
import { store } from '../../../../../server/index.js';
import { HASH, PHOTO_ROOM } from '../../../../../server/photos.js';

/** A photo by the hash of its content: it never changes. */
export const GET: APIRoute = ({ params }) =>
  answer(async () => {
    if (!HASH.test(params.hash!)) return fault(404, 'no such photo');
    const content = await (await store()).photos.get(params.id!, params.hash!);
    if (!content) return fault(404, 'no such photo');
    return new Response(new Uint8Array(content), {
      headers: {
        'content-type': 'image/jpeg',
        'cache-control': 'private, max-age=31536000, immutable',
      },
    });
  });

/** Keeps a photo: 201; 507 when the property's photos have no more room. */
export const PUT: APIRoute = ({ params, request }) =>
  answer(async () => {
    const content = await bodyBytes(request, PHOTO_ROOM);
    const kept = await (await store()).photos.put(params.id!, params.hash!, content);
    if (kept === null) return fault(404, 'no such property');
    if (kept === 'full')
      return fault(507, 'the photos of this property have no more room: 300 MB are kept');
    return json({ hash: params.hash }, 201);
  });
