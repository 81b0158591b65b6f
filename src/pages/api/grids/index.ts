import type { APIRoute } from 'astro';
import { jobs, store, storeFile } from '../../../server/index.js';
import { answer, bodyBytes, jsonText, ROOM } from '../../../server/http.js';

/** Reads a ground file and keeps its grid; answers its id, the origin and what was read. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    await store();
    const order = { body: await bodyBytes(request, ROOM.file), file: storeFile() };
    return jsonText((await jobs().run('ground', order, request.signal))['text']!);
  });
