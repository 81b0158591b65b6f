import type { APIRoute } from 'astro';
import { Type } from '../../core/base/type.js';
import { validate } from '../../formats/validate.js';
import { giveToken, takeToken, tokenOf, triesLeft, visitorOf } from '../../server/access/gate.js';
import { answer, bodyJson, fault, json, tooMany } from '../../server/http.js';
import { store } from '../../server/index.js';

const ROOM = 4096;
const SaidSchema = Type.Object(
  { name: Type.String({ maxLength: 80 }), phrase: Type.String({ maxLength: 400 }) },
  { additionalProperties: false },
);

/** Who asks: name and role, `only` for one who came by a link; null: nobody known. And whether there are people at all. */
export const GET: APIRoute = ({ cookies, locals }) =>
  answer(async () => {
    const { people } = await store();
    const visitor = await visitorOf(people, cookies, locals.from);
    return json({ visitor, people: await people.any() });
  });

/** Signs in: 200 with a cookie, 401 when name or phrase is not right, 429 when tried too often. */
export const POST: APIRoute = ({ request, cookies, locals }) =>
  answer(async () => {
    const said = validate<{ name: string; phrase: string }>(SaidSchema, await bodyJson(request, ROOM)); // prettier-ignore
    const wait = triesLeft(said.name, locals.from);
    if (wait > 0) return tooMany(`too many tries: again in ${wait} s`, wait);
    const came = await (await store()).people.signIn(said.name, said.phrase);
    if (!came) return fault(401, 'name or pass phrase is not right');
    giveToken(cookies, locals.from, came.token);
    return json({ name: came.person.name, role: came.person.role });
  });

/** Signs out, here alone. */
export const DELETE: APIRoute = ({ cookies, locals }) =>
  answer(async () => {
    const token = tokenOf(cookies, locals.from);
    if (token !== undefined) await (await store()).people.signOut(token);
    takeToken(cookies, locals.from);
    return new Response(null, { status: 204 });
  });
