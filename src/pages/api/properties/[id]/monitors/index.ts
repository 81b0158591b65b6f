import type { APIRoute } from 'astro';
import { store } from '../../../../../server/index.js';
import { answer, bodyJson, fault, json, ROOM } from '../../../../../server/http.js';

/** The monitors of a property, each with what it reported last; never their tokens. */
export const GET: APIRoute = ({ params }) =>
  answer(async () => {
    const found = await (await store()).monitors.list(params.id!);
    return found ? json({ monitors: found }) : fault(404, 'no such property');
  });

/** Makes a monitor: 201 with its token, which is told this once. */
export const POST: APIRoute = ({ params, request }) =>
  answer(async () => {
    const { monitors } = await store();
    const made = await monitors.make(params.id!, await bodyJson(request, ROOM.record));
    return made ? json(made, 201) : fault(404, 'no such property');
  });
