import type { APIRoute } from 'astro';
import { admitted } from '../../server/access/doors.js';
import { giveToken, visitorOf } from '../../server/access/gate.js';
import { answer } from '../../server/http.js';
import { store } from '../../server/index.js';

/** Opens the property of a link. Who may read it already stays who they are. */
export const GET: APIRoute = ({ params, cookies, locals, redirect }) =>
  answer(async () => {
    const { people } = await store();
    const came = await people.enterBy(params.token!);
    if (!came) return redirect('/sign-in?link');
    const visitor = await visitorOf(people, cookies, locals.from);
    if (admitted('/p/[id]/[...step]', 'GET', came.property, visitor) === 'in')
      await people.signOut(came.token);
    else giveToken(cookies, locals.from, came.token);
    return redirect(`/p/${came.property}/land`);
  });
