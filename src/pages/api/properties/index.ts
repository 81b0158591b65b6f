import type { APIRoute } from 'astro';
import { openPlan } from '../../../formats/planFile.js';
import { store } from '../../../server/index.js';
import { answer, bodyJson, json } from '../../../server/http.js';

export const GET: APIRoute = () => answer(async () => json(await (await store()).list()));

/** A new property from a plan file, or from the guided start; nothing else is touched. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const plans = await store();
    const value = (await bodyJson(request)) as { ground?: { kind?: string; id?: unknown } } | null;
    const id = value?.ground?.kind === 'grid' ? value.ground.id : null;
    const known = typeof id === 'string' && (await plans.gridBody(id)) !== null ? [id] : [];
    const opened = openPlan(value, new Set(known));
    return json({ id: await plans.create(opened) }, 201);
  });
