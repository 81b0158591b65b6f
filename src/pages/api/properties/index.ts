import type { APIRoute } from 'astro';
import type { Plan } from '../../../core/plan/schema.js';
import { jobs, store } from '../../../server/index.js';
import { answer, bodyText, json, ROOM } from '../../../server/http.js';

export const GET: APIRoute = () => answer(async () => json(await (await store()).list()));

/** A new property from a plan file, or from the guided start; nothing else is touched. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const plans = await store();
    const body = await bodyText(request, ROOM.file);
    const known = await plans.gridsNamedIn(body);
    const { plan, grid } = await jobs().run('plan', { body, known }, request.signal);
    return json({ id: await plans.createFrom(JSON.parse(plan!) as Plan, grid ?? null) }, 201);
  });
