import type { APIRoute } from 'astro';
import { store } from '../../../../../server/index.js';
import { answer, bodyJson, fault, json, ROOM } from '../../../../../server/http.js';

/** Records of a kind that came in after `since`, or the `newest` so many; oldest first, corrections among them. */
export const GET: APIRoute = ({ params, url }) =>
  answer(async () => {
    const newest = url.searchParams.get('newest');
    if (newest !== null) {
      const count = Number(newest);
      if (!Number.isSafeInteger(count) || count < 1)
        return fault(422, 'must be a number', 'newest');
      const found = await (await store()).records.newest(params.id!, params.kind!, count);
      return found ? json(found) : fault(404, 'no such property');
    }
    const since = Number(url.searchParams.get('since') ?? 0);
    if (!Number.isSafeInteger(since) || since < 0) return fault(422, 'must be a number', 'since');
    const { records } = await store();
    const page = await records.since(params.id!, params.kind!, since);
    return page ? json(page) : fault(404, 'no such property');
  });

/** Keeps a record: 201; sent twice it is kept once. */
export const POST: APIRoute = ({ params, request, locals }) =>
  answer(async () => {
    const { records } = await store();
    const value = await bodyJson(request, ROOM.record);
    const kept = await records.put(params.id!, params.kind!, value, locals.visitor.name);
    return kept ? json(kept, 201) : fault(404, 'no such property');
  });
