import type { APIRoute } from 'astro';
import { answer, json } from '../../server/http.js';
import { store } from '../../server/index.js';

/** Whether the server answers and its store can be read and written: 200, or 503 with the reason. For whoever watches it. */
export const GET: APIRoute = () =>
  answer(async () => {
    await (await store()).ready();
    return json({ ok: true });
  });
