import type { APIRoute } from 'astro';
import { store } from '../../../../server/index.js';
import { answer, fault, json } from '../../../../server/http.js';

/**
 * The plan with its revision and what can be undone; of the ids in `mine`, those saved already. With `at` the plan alone,
 * as it stood at that revision.
 */
export const GET: APIRoute = ({ params, url, locals }) =>
  answer(async () => {
    const at = url.searchParams.get('at');
    if (at !== null) {
      const revision = Number(at);
      if (at === '' || !Number.isSafeInteger(revision) || revision < 0) return fault(422, 'must be a revision', 'at'); // prettier-ignore
      const then = await (await store()).at(params.id!, revision);
      return then ? json(then) : fault(404, 'no such property, or no such revision');
    }
    const mine = (url.searchParams.get('mine') ?? '').split(',').filter(Boolean);
    const opened = await (await store()).open(params.id!, mine.slice(0, 500));
    if (!opened) return fault(404, 'no such property');
    const { name, role } = locals.visitor;
    return json({ ...opened, visitor: { name, role } });
  });
