import type { APIRoute } from 'astro';
import { jobs, store } from '../../../server/index.js';
import { answer, bodyText, json, ROOM } from '../../../server/http.js';

/** Reads a ground file and keeps its grid; answers its id, the origin and what was read. */
export const POST: APIRoute = ({ request }) =>
  answer(async () => {
    const body = await bodyText(request, ROOM.file);
    const { grid, about } = await jobs().run('ground', { body }, request.signal);
    const id = await (await store()).putGridBody(grid!);
    return json({ id, ...(JSON.parse(about!) as object) });
  });
