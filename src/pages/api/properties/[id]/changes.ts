import type { APIRoute } from 'astro';
import type { Proposed } from '../../../../formats/change.js';
import { ProposedSchema } from '../../../../formats/changeSchema.js';
import { validate } from '../../../../formats/validate.js';
import { store } from '../../../../server/index.js';
import { answer, bodyJson, fault, json, ROOM } from '../../../../server/http.js';

/** Changes after a revision, oldest first; or one change by its id. */
export const GET: APIRoute = ({ params, url }) =>
  answer(async () => {
    const plans = await store();
    const named = url.searchParams.get('id');
    if (named !== null) {
      const found = await plans.changeNamed(params.id!, named);
      return found ? json(found) : fault(404, 'no such change');
    }
    const since = Number(url.searchParams.get('since') ?? 0);
    if (!Number.isSafeInteger(since) || since < 0) return fault(422, 'must be a revision', 'since');
    return json(await plans.changesSince(params.id!, since));
  });

/** Saves a change: 200 when saved or merged, 409 with the other changes when they touch. */
export const POST: APIRoute = ({ params, request }) =>
  answer(async () => {
    const change = validate<Proposed>(ProposedSchema, await bodyJson(request, ROOM.change));
    const result = await (await store()).commit(params.id!, change);
    if (!result) return fault(404, 'no such property');
    return json(result, result.status === 'saved' ? 200 : 409);
  });
