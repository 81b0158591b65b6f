import type { APIRoute } from 'astro';
import { runCase } from '../../../server/calc.js';
import { answer, bodyJson, json } from '../../../server/http.js';

export const POST: APIRoute = ({ request }) =>
  answer(async () => json(runCase(await bodyJson(request))));
