import type { APIRoute } from 'astro';
import { answer, bodyJson, fault, json } from '../../../../../server/http.js';
import { store } from '../../../../../server/index.js';

const ROOM = 1024;

/** The links with which this property may be read. */
export const GET: APIRoute = ({ params }) =>
  answer(async () => {
    const shares = await (await store()).people.shares(params.id!);
    return shares ? json(shares) : fault(404, 'no such property');
  });

/** Makes one: 201; its token is told this once, and opens /s/TOKEN. */
export const POST: APIRoute = ({ params, request }) =>
  answer(async () => {
    const made = await (await store()).people.share(params.id!, await bodyJson(request, ROOM));
    return made ? json(made, 201) : fault(404, 'no such property');
  });
