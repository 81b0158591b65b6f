import type { APIRoute } from 'astro';
import { giveToken } from '../../../server/access/gate.js';
import { answer, bodyJson, fault, json } from '../../../server/http.js';
import { store } from '../../../server/index.js';

const ROOM = 4096;

/** Another role or phrase for a person; a new phrase signs them out everywhere, whoever gives it to themselves not here. */
export const PUT: APIRoute = ({ params, request, cookies, locals }) =>
  answer(async () => {
    const { people } = await store();
    const asked = (await bodyJson(request, ROOM)) as { phrase?: unknown } | null;
    const person = await people.change(params.person!, asked);
    if (!person) return fault(404, 'no such person');
    if (asked?.phrase !== undefined && locals.visitor.id === person.id)
      giveToken(cookies, locals.from, await people.enter(person.id));
    return json(person);
  });

/** Shuts a person out, at once. */
export const DELETE: APIRoute = ({ params }) =>
  answer(async () =>
    (await (await store()).people.remove(params.person!))
      ? new Response(null, { status: 204 })
      : fault(404, 'no such person'),
  );
