import type { APIRoute } from 'astro';
import { jobs } from '../../server/index.js';
import { answer, bodyBytes, jsonText, ROOM } from '../../server/http.js';

/** Reads a walked file into lines of local metres; keeps nothing. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const body = await bodyBytes(request, ROOM.file);
    return jsonText((await jobs().run('walked', { body }, request.signal))['text']!);
  });
