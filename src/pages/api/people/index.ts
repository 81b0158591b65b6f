import type { APIRoute } from 'astro';
import { giveToken } from '../../../server/access/gate.js';
import { answer, bodyJson, json } from '../../../server/http.js';
import { store } from '../../../server/index.js';

const ROOM = 4096;

/** Those who may come in. */
export const GET: APIRoute = () => answer(async () => json(await (await store()).people.list()));

/** Lets a person in from now on: 201. Who makes the first one is that one, and signed in. */
export const POST: APIRoute = ({ request, cookies, locals }) =>
  answer(async () => {
    const { people } = await store();
    const person = await people.add(await bodyJson(request, ROOM));
    if (locals.visitor.id === '') giveToken(cookies, locals.from, await people.enter(person.id));
    return json(person, 201);
  });
