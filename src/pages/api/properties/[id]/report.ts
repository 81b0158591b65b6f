import type { APIRoute } from 'astro';
import { catalogue } from '../../../../core/plan/catalogue.js';
import { evaluate } from '../../../../core/evaluate.js';
import { groundOf } from '../../../../core/terrain/ground.js';
import { store } from '../../../../server/index.js';
import { answer, fault, json } from '../../../../server/http.js';

export const GET: APIRoute = ({ params }) =>
  answer(async () => {
    const opened = await (await store()).withGround(params.id!);
    if (!opened) return fault(404, 'no such property');
    return json(evaluate(opened.plan, groundOf(opened.plan, opened.grids), catalogue));
  });
