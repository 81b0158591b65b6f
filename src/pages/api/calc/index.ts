import type { APIRoute } from 'astro';
import { jobs } from '../../../server/index.js';
import { answer, bodyBytes, jsonText, ROOM } from '../../../server/http.js';

/** One calculator: `{ kind, inputs }`. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const body = await bodyBytes(request, ROOM.calc);
    return jsonText((await jobs().run('calc', { body, kind: null }, request.signal))['text']!);
  });
