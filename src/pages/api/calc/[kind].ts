import type { APIRoute } from 'astro';
import { runCase } from '../../../server/calc.js';
import { answer, bodyJson, json } from '../../../server/http.js';

/** The same calculators by name: the body is the inputs alone, or a whole case. */
export const POST: APIRoute = ({ params, request }) =>
  answer(async () => {
    const body = (await bodyJson(request)) as { inputs?: unknown } | null;
    return json(runCase({ kind: params.kind, inputs: body?.inputs ?? body }));
  });
