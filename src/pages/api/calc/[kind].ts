import type { APIRoute } from 'astro';
import { jobs } from '../../../server/index.js';
import { answer, bodyBytes, jsonText, ROOM } from '../../../server/http.js';

/** The same calculators by name: the body is the inputs alone, or a whole case. */
export const POST: APIRoute = ({ params, request }) =>
  answer(async () => {
    const body = await bodyBytes(request, ROOM.calc);
    const kind = params.kind ?? '';
    return jsonText((await jobs().run('calc', { body, kind }, request.signal))['text']!);
  });
