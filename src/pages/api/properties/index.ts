import type { APIRoute } from 'astro';
import { jobs, store, storeFile } from '../../../server/index.js';
import { answer, bodyBytes, json, jsonText, ROOM } from '../../../server/http.js';

export const GET: APIRoute = () => answer(async () => json(await (await store()).list()));

/** A new property from a plan file, or from the guided start; nothing else is touched. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    // Opened and brought up to date here first: the helper only joins it.
    await store();
    const order = { body: await bodyBytes(request, ROOM.file), file: storeFile() };
    return jsonText((await jobs().run('create', order, request.signal))['text']!, 201);
  });
