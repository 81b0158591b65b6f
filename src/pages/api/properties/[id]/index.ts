import type { APIRoute } from 'astro';
import { store } from '../../../../server/index.js';
import { answer, fault, json } from '../../../../server/http.js';

/** The plan with its revision and the newest changes, for undo and redo. */
export const GET: APIRoute = ({ params }) =>
  answer(async () => {
    const plans = await store();
    const now = await plans.head(params.id!);
    if (!now) return fault(404, 'no such property');
    return json({ ...now, history: await plans.changesSince(params.id!, 0) });
  });
