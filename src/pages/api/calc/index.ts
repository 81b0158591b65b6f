import type { APIRoute } from 'astro';
import { jobs } from '../../../server/index.js';
import { answer, bodyText, jsonText, ROOM } from '../../../server/http.js';

/** One calculator: `{ kind, inputs }`. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const body = await bodyText(request, ROOM.calc);
    return jsonText((await jobs().run('calc', { body, kind: null }, request.signal))['text']!);
  });
