import type { APIRoute } from 'astro';
import { store } from '../../../../server/index.js';
import { answer, fault, json } from '../../../../server/http.js';

/** The plan with its revision and what can be undone; of the ids in `mine`, those saved already. */
export const GET: APIRoute = ({ params, url }) =>
  answer(async () => {
    const mine = (url.searchParams.get('mine') ?? '').split(',').filter(Boolean);
    const opened = await (await store()).open(params.id!, mine.slice(0, 500));
    return opened ? json(opened) : fault(404, 'no such property');
  });
