import type { APIRoute } from 'astro';
import { answer, bodyBytes, json, ROOM } from '../../server/http.js';
import { store } from '../../server/index.js';

/** Brings a backup back: what came of each property. All of it, or nothing. */
export const POST: APIRoute = ({ request }) =>
  answer(async () =>
    json(await (await store()).restore(await bodyBytes(request, ROOM.bundle)), 201),
  );
